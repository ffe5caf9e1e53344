using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Rights;

/// <summary>Somebody, with what says by whom they are reached: read for any number of people at once, where it is asked of everybody who signs
/// in whom they reach. Of one reader and many people, <see cref="ActorReach"/> says the same in SQL.</summary>
public sealed class ReachTarget
{
    private readonly CurrentRecord _record;
    private readonly HashSet<Guid> _above;
    private readonly HashSet<string> _departments;
    private readonly List<(string Owner, Guid Coordinator)> _tasks;

    private ReachTarget(CurrentRecord record, HashSet<Guid> above, HashSet<string> departments, List<(string, Guid)> tasks) =>
        (_record, _above, _departments, _tasks) = (record, above, departments, tasks);

    /// <summary>Reads them, by employment.</summary>
    public static async Task<IReadOnlyDictionary<Guid, ReachTarget>> LoadAsync(
        FidDb db,
        IReadOnlyCollection<CurrentRecord> records,
        CancellationToken cancellation
    )
    {
        var ids = records.Select(r => r.EmploymentId).Distinct().ToArray();
        var above = (
            await db
                .Database.SqlQuery<Above>(
                    $"""
                    with recursive above(of, id) as (
                      select employment_id, manager_id from records_now where employment_id = any({ids}) and manager_id is not null union
                      select a.of, r.manager_id from above a join records_now r on r.employment_id = a.id where r.manager_id is not null)
                    select of as employment, id as manager from above
                    """
                )
                .ToListAsync(cancellation)
        ).ToLookup(a => a.Employment, a => a.Manager);
        var parents = await db
            .Database.SqlQuery<Within>($"select code, values->>'parent' as parent from list_entries where list = 'departments'")
            .ToDictionaryAsync(d => d.Code, d => d.Parent, StringComparer.Ordinal, cancellation);
        var tasks = (
            await db
                .Hires.AsNoTracking()
                .Where(h => ids.Contains(h.EmploymentId) && h.Closed == null)
                .SelectMany(
                    h => h.Tasks.DefaultIfEmpty(),
                    (h, t) =>
                        new
                        {
                            h.EmploymentId,
                            Owner = t == null ? "" : t.Owner,
                            h.CoordinatorId,
                        }
                )
                .Distinct()
                .ToListAsync(cancellation)
        ).ToLookup(t => t.EmploymentId, t => (t.Owner, t.CoordinatorId));
        return records
            .DistinctBy(r => r.EmploymentId)
            .ToDictionary(r => r.EmploymentId, r => new ReachTarget(r, [.. above[r.EmploymentId]], Up(r.DepartmentCode, parents), [.. tasks[r.EmploymentId]]));
    }

    /// <summary>The reaches of a set by which somebody with certain roles reaches them.</summary>
    public ReachSet ReachedBy(AccountRoles holder, RoleSet set)
    {
        var reached = ReachSet.None;
        for (var place = 0; place < set.Reaches.Count; place++)
            if (IsReached(set.Reaches[place], holder))
                reached |= ReachSet.At(place);
        return reached;
    }

    private bool IsReached(RightReach reach, AccountRoles holder) =>
        reach switch
        {
            RightReach.All => true,
            RightReach.Self => holder.Person == _record.PersonId,
            RightReach.Direct => _record.ManagerId is { } manager && holder.Employments.Contains(manager),
            RightReach.Reports => holder.Person != _record.PersonId && holder.Employments.Any(_above.Contains),
            RightReach.Site(var site) => _record.SiteCode == site,
            RightReach.Department(var code) => _departments.Contains(code),
            RightReach.Group(var group) => _record.Groups.Contains(group),
            RightReach.Tasks => _tasks.Count > 0
                && (
                    holder.Person == _record.PersonId
                    || new[] { _record.ManagerId, _record.BuddyId }.OfType<Guid>().Any(holder.Tasks.Employments.Contains)
                    || _tasks.Exists(t => holder.Tasks.Accounts.Contains(t.Coordinator) || holder.Tasks.AreNamedBy(t.Owner))
                ),
            _ => false,
        };

    // A department and all that it is within; a ring ends where it began.
    private static HashSet<string> Up(string? department, Dictionary<string, string?> parents)
    {
        var up = new HashSet<string>(StringComparer.Ordinal);
        for (var at = department; at is not null && up.Add(at); at = parents.GetValueOrDefault(at)) { }
        return up;
    }

    private sealed record Above(Guid Employment, Guid Manager);

    private sealed record Within(string Code, string? Parent);
}
