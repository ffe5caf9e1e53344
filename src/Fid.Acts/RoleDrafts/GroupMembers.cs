using Fid.Acts.Fields;
using Fid.Core.Formulas;
using Fid.Core.Rights;
using Fid.Data;
using NodaTime;

namespace Fid.Acts.RoleDrafts;

/// <summary>Who is in which group by the formulas that are live, and who would be by others: of everybody who works here or will.</summary>
internal sealed class GroupMembers
{
    private readonly RoleSet _before;
    private readonly RoleSet _after;
    private readonly Dictionary<Guid, (string[] Before, string[] After)> _groups;

    private GroupMembers(RoleSet before, RoleSet after, Dictionary<Guid, (string[], string[])> groups) => (_before, _after, _groups) = (before, after, groups);

    public static async Task<GroupMembers> LoadAsync(FidDb db, RoleSet before, RoleSet after, LocalDate today, CancellationToken cancellation)
    {
        string[] read =
        [
            .. before
                .Groups.Concat(after.Groups)
                .Select(g => RecordFormula.Read(g.When).Formula)
                .OfType<RecordFormula>()
                .SelectMany(f => f.Names)
                .Distinct(StringComparer.Ordinal),
        ];
        if (read.Length == 0)
            return new GroupMembers(before, after, []);
        var active = await ActiveRecords.LoadAsync(db, today, cancellation, fields: read);
        return new GroupMembers(
            before,
            after,
            active
                .Records.AsParallel()
                .WithCancellation(cancellation)
                .Select(r => (r.Key, Before: before.GroupsOf(r.Value.Values, r.Value.AsOf), After: after.GroupsOf(r.Value.Values, r.Value.AsOf)))
                .ToDictionary(r => r.Key, r => (r.Before, r.After))
        );
    }

    /// <summary>The groups that somebody with certain employments is in.</summary>
    public string[] Before(IEnumerable<Guid> employments) => [.. employments.SelectMany(e => _groups.GetValueOrDefault(e).Before ?? []).Distinct()];

    /// <summary>The groups they would be in.</summary>
    public string[] After(IEnumerable<Guid> employments) => [.. employments.SelectMany(e => _groups.GetValueOrDefault(e).After ?? []).Distinct()];

    /// <summary>What would change of a group; null for nothing.</summary>
    public GroupChange? Change(string group)
    {
        var (was, will) = (_before.Groups.FirstOrDefault(g => g.Id == group), _after.Groups.FirstOrDefault(g => g.Id == group));
        var (before, after) = (In(g => g.Before), In(g => g.After));
        var (coming, going) = (after.Except(before).ToList(), before.Except(after).ToList());
        if (was?.When == will?.When && was?.Roles.SequenceEqual(will!.Roles) == true)
            return null;
        // Whoever comes in later by another formula is as good as here.
        var isReached = _before.Reaches.OfType<RightReach.Group>().Any(r => r.Id == group);
        var widens = will is not null && ((was?.When != will.When && (isReached || will.Roles.Count > 0)) || will.Roles.Except(was?.Roles ?? []).Any());
        return new GroupChange(group, before.Count, after.Count, coming, going, widens);

        List<Guid> In(Func<(string[] Before, string[] After), string[]> groups) =>
            [.. _groups.Where(g => groups(g.Value).Contains(group)).Select(g => g.Key).Order()];
    }
}
