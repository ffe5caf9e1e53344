using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rights;

/// <summary>Who may do something, and because of what: of all who can sign in, each with the rights that give it.</summary>
public sealed class RightsExplanation
{
    private readonly RoleSet _set;
    private readonly List<AccountRoles> _holders;
    private readonly ReachTarget? _target;

    private RightsExplanation(RoleSet set, List<AccountRoles> holders, ReachTarget? target) => (_set, _holders, _target) = (set, holders, target);

    /// <summary>Reads who holds what today.</summary>
    /// <param name="record">The record of whom something would be done with; null for anybody.</param>
    public static async Task<RightsExplanation> LoadAsync(FidDb db, RoleSet set, CurrentRecord? record, LocalDate today, CancellationToken cancellation)
    {
        var holders = await AccountRoles.OfWhoSignsInAsync(db, today, cancellation);
        return new RightsExplanation(set, holders, record is null ? null : (await ReachTarget.LoadAsync(db, [record], cancellation))[record.EmploymentId]);
    }

    /// <summary>Who may see a field, or edit it.</summary>
    public IReadOnlyList<Explained> Of(FieldDefinition field, FieldAccess least) => Of((rights, target) => rights.Explain(field, least, target));

    /// <summary>Who may do something with a thing.</summary>
    public IReadOnlyList<Explained> Of(string action, string thing) => Of((rights, target) => rights.Explain(action, thing, target));

    private List<Explained> Of(Func<HeldRights, ReachSet, IReadOnlyList<GrantedRight>> explain)
    {
        var found = new List<Explained>();
        foreach (var holder in _holders)
        {
            // A role that is held twice is held all the same.
            var rules = holder.ByRule(_set).ToList();
            var rights = HeldRights.Of(_set, holder.AllOf(_set));
            var because = explain(rights, _target?.ReachedBy(holder, _set) ?? ReachSet.Whole);
            if (because.Count > 0)
                found.Add(
                    new Explained(
                        holder.Account,
                        holder.Name,
                        [.. because.Select(b => new Because(b, holder.Roles.Contains(b.Role) ? null : rules.Find(r => r.Role == b.Role)))]
                    )
                );
        }
        return found;
    }
}

/// <summary>Somebody who may.</summary>
/// <param name="Because">The rights that give it; at least one.</param>
public sealed record Explained(Guid Account, string Name, IReadOnlyList<Because> Because);

/// <summary>A right that gives something to somebody.</summary>
/// <param name="Rule">The rule by which they hold the role; null where it was granted to them.</param>
public sealed record Because(GrantedRight Right, RoleByRule? Rule);
