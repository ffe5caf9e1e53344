using System.Linq.Expressions;
using System.Runtime.CompilerServices;
using System.Text.Json;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rights;

/// <summary>Whom an actor's rights reach, as it is in the database: read once for an actor, and only what their rights speak of.</summary>
public sealed class ActorReach
{
    private static readonly ConditionalWeakTable<Actor, ActorReach> OfActors = [];

    private readonly Actor _actor;

    // By place, whom each reach of the actor's roles reaches; null for a reach nobody asks for.
    private readonly Reached?[] _reached;

    private ActorReach(Actor actor, Reached?[] reached) => (_actor, _reached) = (actor, reached);

    /// <summary>Whom an actor's rights reach.</summary>
    public static async ValueTask<ActorReach> OfAsync(Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (OfActors.TryGetValue(actor, out var known))
            return known;
        var (reaches, asked) = (actor.Rights.Set.Reaches, actor.Rights.Reach);
        var reached = new Reached?[reaches.Count];
        foreach (var place in asked.Places())
            if (place != RoleSet.AllPlace)
                reached[place] = await ReadAsync(reaches[place], actor, db, cancellation);
        return OfActors.GetValue(actor, _ => new ActorReach(actor, reached));
    }

    /// <summary>The reaches by which somebody is reached.</summary>
    public ReachSet On(CurrentRecord record)
    {
        var on = ReachSet.At(RoleSet.AllPlace);
        for (var place = 0; place < _reached.Length; place++)
            if (_reached[place]?.Here(record) == true)
                on |= ReachSet.At(place);
        return on;
    }

    /// <summary>The reaches by which somebody will be reached whose record is being made.</summary>
    /// <param name="values">What it holds so far, by field.</param>
    public ReachSet OnNew(IReadOnlyDictionary<string, JsonElement> values, LocalDate day)
    {
        return On(
            new CurrentRecord
            {
                EmploymentId = Guid.Empty,
                PersonId = Guid.Empty,
                SiteCode = Text("site"),
                DepartmentCode = Text("department"),
                ManagerId = Guid.TryParse(Text("manager"), out var manager) ? manager : null,
                Groups = _actor.Rights.Set.GroupsOf(values, day),
            }
        );

        string? Text(string field) => values.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString() : null;
    }

    /// <summary>Whether the actor may do something with a thing of somebody.</summary>
    public bool May(string action, string thing, CurrentRecord record) => _actor.Rights.MayToAll(action, thing) || _actor.Rights.May(action, thing, On(record));

    /// <summary>Those of some records that one of some reaches reaches.</summary>
    public IQueryable<CurrentRecord> Within(IQueryable<CurrentRecord> records, ReachSet reach)
    {
        if (reach.Has(RoleSet.AllPlace))
            return records;
        var any = reach.Places().Select(p => _reached[p]?.InSql).OfType<Expression<Func<CurrentRecord, bool>>>().ToList();
        return records.Where(any.Count == 0 ? _ => false : any.Aggregate(Either));
    }

    private static Expression<Func<CurrentRecord, bool>> Either(Expression<Func<CurrentRecord, bool>> one, Expression<Func<CurrentRecord, bool>> other) =>
        Expression.Lambda<Func<CurrentRecord, bool>>(
            Expression.OrElse(one.Body, new Renamed(other.Parameters[0], one.Parameters[0]).Visit(other.Body)),
            one.Parameters
        );

    private static async Task<Reached> ReadAsync(RightReach reach, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var own = actor.Employments;
        switch (reach)
        {
            case RightReach.Self when actor.PersonId is { } person:
                return new Reached(r => r.PersonId == person, r => r.PersonId == person);
            case RightReach.Direct when own.Length > 0:
                return new Reached(r => r.ManagerId != null && own.Contains(r.ManagerId.Value), r => r.ManagerId is { } manager && own.Contains(manager));
            case RightReach.Reports when own.Length > 0:
                var managers = await ManagersUnderAsync(own, db, cancellation);
                var among = managers.ToHashSet();
                return new Reached(
                    r => r.ManagerId != null && managers.Contains(r.ManagerId.Value) && !own.Contains(r.EmploymentId),
                    r => r.ManagerId is { } manager && among.Contains(manager) && !own.Contains(r.EmploymentId)
                );
            case RightReach.Site(var site):
                return new Reached(r => r.SiteCode == site, r => r.SiteCode == site);
            case RightReach.Department(var top):
                var departments = await DepartmentsUnderAsync(top, db, cancellation);
                return new Reached(r => departments.Contains(r.DepartmentCode), r => departments.Contains(r.DepartmentCode));
            case RightReach.Group(var group):
                return new Reached(r => r.Groups.Contains(group), r => r.Groups.Contains(group));
            case RightReach.Tasks:
                var employments = await OwnHires.EmploymentsAsync(actor, db, cancellation);
                var theirs = employments.ToHashSet();
                return new Reached(r => employments.Contains(r.EmploymentId), r => theirs.Contains(r.EmploymentId));
            default:
                return new Reached(_ => false, _ => false);
        }
    }

    // Somebody, and all who manage people under them. A ring is walked once.
    private static Task<Guid[]> ManagersUnderAsync(Guid[] own, FidDb db, CancellationToken cancellation) =>
        db
            .Database.SqlQuery<Guid>(
                $"""
                with recursive under(id) as (
                  select unnest({own}) union
                  select r.employment_id from under u join records_now r on r.manager_id = u.id
                  where exists (select 1 from records_now x where x.manager_id = r.employment_id))
                select id as "Value" from under
                """
            )
            .ToArrayAsync(cancellation);

    private static Task<string[]> DepartmentsUnderAsync(string top, FidDb db, CancellationToken cancellation) =>
        db
            .Database.SqlQuery<string>(
                $"""
                with recursive under(code) as (
                  select {top} union
                  select e.code from under u join list_entries e on e.list = 'departments' and e.values->>'parent' = u.code)
                select code as "Value" from under
                """
            )
            .ToArrayAsync(cancellation);

    private sealed class Renamed(ParameterExpression from, ParameterExpression to) : ExpressionVisitor
    {
        protected override Expression VisitParameter(ParameterExpression node) => node == from ? to : base.VisitParameter(node);
    }

    /// <summary>Whom a reach reaches, as the database tells it and as it is told here.</summary>
    private sealed record Reached(Expression<Func<CurrentRecord, bool>> InSql, Func<CurrentRecord, bool> Here);
}
