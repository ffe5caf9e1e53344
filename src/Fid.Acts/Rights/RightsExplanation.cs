using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rights;

/// <summary>Who may do something, and because of what: of all who can sign in, each with the rights that give it.</summary>
public sealed class RightsExplanation
{
    private readonly RoleSet _set;
    private readonly List<AccountRoles> _holders;
    private readonly Target? _target;

    private RightsExplanation(RoleSet set, List<AccountRoles> holders, Target? target) => (_set, _holders, _target) = (set, holders, target);

    /// <summary>Reads who holds what today.</summary>
    /// <param name="record">The record of whom something would be done with; null for anybody.</param>
    public static async Task<RightsExplanation> LoadAsync(FidDb db, RoleSet set, CurrentRecord? record, LocalDate today, CancellationToken cancellation)
    {
        var holders = await AccountRoles.OfWhoSignsInAsync(db, today, cancellation);
        return new RightsExplanation(set, holders, record is null ? null : await Target.LoadAsync(db, record, cancellation));
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
            var rules = _set.Groups.Where(g => holder.Groups.Contains(g.Id)).ToList();
            var rights = HeldRights.Of(_set, holder.AllOf(_set));
            var because = explain(rights, _target?.ReachedBy(holder, _set) ?? ReachSet.Whole);
            if (because.Count > 0)
                found.Add(
                    new Explained(
                        holder.Account,
                        holder.Name,
                        [.. because.Select(b => new Because(b, holder.Roles.Contains(b.Role) ? null : rules.First(g => g.Roles.Contains(b.Role)).Id))]
                    )
                );
        }
        return found;
    }

    /// <summary>Of somebody, what says who reaches them.</summary>
    private sealed record Target(CurrentRecord Record, Guid[] Above, string[] Departments, TaskPeople? Tasks)
    {
        public static async Task<Target> LoadAsync(FidDb db, CurrentRecord record, CancellationToken cancellation)
        {
            var above = await db
                .Database.SqlQuery<Guid>(
                    $"""
                    with recursive above(id) as (
                      select {record.ManagerId} where {record.ManagerId} is not null union
                      select r.manager_id from above a join records_now r on r.employment_id = a.id where r.manager_id is not null)
                    select id as "Value" from above
                    """
                )
                .ToArrayAsync(cancellation);
            var departments = await db
                .Database.SqlQuery<string>(
                    $"""
                    with recursive above(code) as (
                      select {record.DepartmentCode} where {record.DepartmentCode} is not null union
                      select e.values->>'parent' from above a join list_entries e on e.list = 'departments' and e.code = a.code
                      where e.values->>'parent' is not null)
                    select code as "Value" from above
                    """
                )
                .ToArrayAsync(cancellation);
            var hires = await db
                .Hires.AsNoTracking()
                .Include(h => h.Tasks)
                .Where(h => h.EmploymentId == record.EmploymentId && h.Closed == null)
                .ToListAsync(cancellation);
            return new Target(
                record,
                above,
                departments,
                hires.Count == 0 ? null : new TaskPeople([.. hires.SelectMany(h => h.Tasks.Select(t => t.Owner))], [.. hires.Select(h => h.CoordinatorId)])
            );
        }

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
                RightReach.Self => holder.Person == Record.PersonId,
                RightReach.Direct => Record.ManagerId is { } manager && holder.Employments.Contains(manager),
                RightReach.Reports => holder.Person != Record.PersonId && Above.Any(holder.Employments.Contains),
                RightReach.Site(var site) => Record.SiteCode == site,
                RightReach.Department(var code) => Departments.Contains(code),
                RightReach.Group(var group) => Record.Groups.Contains(group),
                RightReach.Tasks => Tasks is { } tasks
                    && (
                        tasks.Coordinators.Contains(holder.Account)
                        || holder.Person == Record.PersonId
                        || new[] { Record.ManagerId, Record.BuddyId }.OfType<Guid>().Any(holder.Employments.Contains)
                        || tasks.Owners.Any(o =>
                            (HireTask.TeamOf(o) is { } team && holder.Teams.Contains(team))
                            || (HireTask.PersonOf(o) is { } person && holder.Employments.Contains(person))
                        )
                    ),
                _ => false,
            };
    }

    private sealed record TaskPeople(string[] Owners, Guid[] Coordinators);
}

/// <summary>Somebody who may.</summary>
/// <param name="Because">The rights that give it; at least one.</param>
public sealed record Explained(Guid Account, string Name, IReadOnlyList<Because> Because);

/// <summary>A right that gives something to somebody.</summary>
/// <param name="Group">The group by whose rule they hold the role; null where it was granted to them.</param>
public sealed record Because(GrantedRight Right, string? Group);
