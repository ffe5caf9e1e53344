using Fid.Acts.Fields;
using Fid.Acts.Rights;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.RoleDrafts;

/// <summary>What a draft of roles and groups would do, role by role, group by group, and person by person, before it is made live.</summary>
/// <param name="Problems">What keeps it from being made live, by the path in its document.</param>
/// <param name="Roles">The roles that would give something else.</param>
/// <param name="Groups">The groups that would take in others, or give other roles.</param>
/// <param name="Holders">Whose rights would change.</param>
public sealed record RightsReview(
    IReadOnlyList<Problem> Problems,
    IReadOnlyList<RoleChange> Roles,
    IReadOnlyList<GroupChange> Groups,
    IReadOnlyList<HolderChange> Holders
)
{
    /// <summary>Whether somebody may get more by it, so that a second person has to agree: a role that can be granted gives more, or a group to
    /// which something is given takes in others.</summary>
    public bool Widens => Roles.Any(r => !r.IsNew && r.Difference.Gained.Count > 0) || Groups.Any(g => g.Widens) || NoLongerProved.Count > 0;

    /// <summary>The roles whose holders would no longer have to prove by a second factor who they are.</summary>
    public IReadOnlyList<string> NoLongerProved { get; init; } = [];

    /// <summary>The roles whose holders would have to from then on.</summary>
    public IReadOnlyList<string> Proved { get; init; } = [];

    /// <summary>Whether somebody would have more themselves.</summary>
    public bool WidensFor(Guid? account) => Holders.Any(h => h.Account == account && h.Difference.Gained.Count > 0);

    /// <summary>The version that is live; 0 before the first.</summary>
    public static async Task<int> LiveVersionAsync(FidDb db, CancellationToken cancellation) =>
        await db.RightsVersions.MaxAsync(v => (int?)v.Version, cancellation) ?? 0;

    /// <summary>Looks through a draft.</summary>
    /// <param name="today">The day on which grants are to count.</param>
    public static async Task<RightsReview> OfAsync(FidDb db, RightsConfiguration draft, LocalDate today, CancellationToken cancellation)
    {
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var codes = await db.ListEntries.Where(e => e.List == "sites" || e.List == "departments").Select(e => new { e.List, e.Code }).ToListAsync(cancellation);
        var problems = RightsCheck.Of(
            draft,
            new RightsSurroundings(
                fields.Set,
                fields.Sections.Select(s => s.Key).ToHashSet(StringComparer.Ordinal),
                codes.Where(c => c.List == "sites").Select(c => c.Code).ToHashSet(StringComparer.Ordinal),
                codes.Where(c => c.List == "departments").Select(c => c.Code).ToHashSet(StringComparer.Ordinal)
            )
        );
        if (problems.Count > 0)
            return new RightsReview(problems, [], [], []);
        var (before, after) = (fields.Roles, new RoleSet(draft));
        var members = await GroupMembers.LoadAsync(db, before, after, today, cancellation);
        var wider = before.Groups.Where(b => after.Groups.Any(a => a.Id == b.Id && a.When != b.When)).Select(g => g.Id).ToHashSet(StringComparer.Ordinal);
        var ids = before.Roles.Concat(after.Roles).Select(r => r.Id).Distinct();
        return new RightsReview(
            [],
            [
                .. ids.Select(id => new RoleChange(id, before.Find(id) is null, after.Find(id) is null, Difference([before.Find(id)], [after.Find(id)])))
                    .Where(c => c.IsNew || c.IsGone || !c.Difference.IsEmpty),
            ],
            [.. before.Groups.Concat(after.Groups).Select(g => g.Id).Distinct().Select(id => members.Change(id)).OfType<GroupChange>()],
            await HoldersAsync()
        )
        {
            NoLongerProved = [.. before.SecondFactor.Except(after.SecondFactor)],
            Proved = [.. after.SecondFactor.Except(before.SecondFactor)],
        };

        // A right to a group gives more when the group takes in others.
        RightsDifference WithGroups(RightsDifference difference, IEnumerable<string> roles) =>
            difference with
            {
                Gained =
                [
                    .. difference
                        .Gained.Concat(
                            roles
                                .Select(after.Find)
                                .OfType<RoleDefinition>()
                                .SelectMany(r => r.Rights)
                                .Where(r => r.Reach is RightReach.Group(var id) && wider.Contains(id))
                        )
                        .Distinct(),
                ],
            };

        RightsDifference Difference(IEnumerable<RoleDefinition?> was, IEnumerable<RoleDefinition?> will) =>
            RightsDifference.Of(was.OfType<RoleDefinition>(), will.OfType<RoleDefinition>(), key => fields.Set.Find(key)?.Section);

        async Task<IReadOnlyList<HolderChange>> HoldersAsync() =>
            [
                .. (await AccountRoles.OfWhoSignsInAsync(db, today, cancellation))
                    .Select(a =>
                    {
                        var was = Held(a, before, members.Before(a.Present));
                        var will = Held(a, after, members.After(a.Present));
                        return new HolderChange(a.Account, a.Name, WithGroups(Difference(was.Select(before.Find), will.Select(after.Find)), will));
                    })
                    .Where(h => !h.Difference.IsEmpty),
            ];

        static List<string> Held(AccountRoles account, RoleSet set, IReadOnlyCollection<string> groups) =>
            [.. account.Roles.Concat((account with { Groups = [.. groups] }).ByRule(set).Select(r => r.Role)).Distinct()];
    }
}

/// <summary>A role that would give something else.</summary>
/// <param name="IsNew">Whether there is none such yet: then nobody holds it.</param>
/// <param name="IsGone">Whether there would be none such any more: then it is taken from all who hold it.</param>
public sealed record RoleChange(string Role, bool IsNew, bool IsGone, RightsDifference Difference);

/// <summary>A group that would take in others, or give other roles.</summary>
/// <param name="Before">How many people it has.</param>
/// <param name="After">How many it would have.</param>
/// <param name="Coming">Those who would come into it.</param>
/// <param name="Going">Those who would go out of it.</param>
/// <param name="Widens">Whether somebody may get more by it.</param>
public sealed record GroupChange(string Group, int Before, int After, IReadOnlyList<Guid> Coming, IReadOnlyList<Guid> Going, bool Widens);

/// <summary>Somebody whose rights would change.</summary>
/// <param name="Account">Their account.</param>
/// <param name="Name">How it is called.</param>
public sealed record HolderChange(Guid Account, string Name, RightsDifference Difference);
