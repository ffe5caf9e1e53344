using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Hires;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Arrivals;

/// <summary>Who comes when, will they be ready, what holds them up; and the same of those who change jobs or leave.</summary>
internal static class ArrivalsEndpoint
{
    public static void MapArrivals(this IEndpointRouteBuilder app) => app.MapGet("/api/arrivals", Show).WhoMay(Actions.See, Things.Hire);

    private static async Task<Ok<ArrivalsResponse>> Show(
        OccasionParameter? occasion,
        Actor actor,
        FidDb db,
        OpenTaskCache tasks,
        CancellationToken cancellation
    ) => TypedResults.Ok(await ReadAsync(occasion?.Occasion ?? Occasion.Arrival, actor, db, tasks, cancellation));

    /// <summary>The checklists of an occasion that are under way, as far as the actor sees them.</summary>
    internal static async Task<ArrivalsResponse> ReadAsync(Occasion listed, Actor actor, FidDb db, OpenTaskCache tasks, CancellationToken cancellation)
    {
        var today = actor.Today;
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var stages = await db.Stages.AsNoTracking().Where(s => s.Occasion == listed).OrderBy(s => s.Position).ToListAsync(cancellation);
        var planStages = new StagePlans(stages);
        var visible = await HireAccess.VisibleAsync(actor, db, cancellation);
        var hires = await HiresUnderWay.LoadAsync(db, all => visible(all).Where(h => h.Occasion == listed), cancellation, tasks);
        var counts = await visible(db.Hires.Where(h => h.Closed == null)).GroupBy(h => h.Occasion).ToDictionaryAsync(g => g.Key, g => g.Count(), cancellation);

        // What a reader may not see is not named as missing either, nor what is missing because of it.
        var set = reader.Fields.Set;
        var seen = set.Keys.Where(f => reader.Sees(f) && set.IsRequiredFirst(f) && reader.SeesWhyMissing(f)).ToHashSet(StringComparer.Ordinal);
        // Plans are independent of each other, so they use all cores; each answers at its own place.
        var facts = new VisibleFacts(reader, names);
        var shown = hires.Select(h => h with { Head = facts.Of(h.Head) }).ToList();
        // Who may not see names gets no order by names either.
        if (!facts.Name)
            shown = [.. shown.OrderBy(h => h.Head.Start).ThenBy(h => h.Head.Number, StringComparer.Ordinal)];
        var rows = new ArrivalRow[shown.Count];
        Parallel.For(0, shown.Count, i => rows[i] = Row(shown[i], shown[i].Question(today, calendars, planStages), names, calendars, seen));
        return new ArrivalsResponse(
            listed,
            today,
            [.. stages.Select(s => new StageName(s.Key, s.Called))],
            rows,
            [.. Enum.GetValues<Occasion>().Where(o => o != Occasion.PayRun).Select(o => new OccasionCount(o, counts.GetValueOrDefault(o)))]
        );
    }

    private static ArrivalRow Row(HireUnderWay hire, PlanQuestion question, ListNames names, CalendarSet calendars, HashSet<string> seen)
    {
        var plan = HirePlan.Of(question, SoonestSearch.WhenNotFeasible);
        var rope = Rope.Of(question, plan, hire.Head.Accepted);
        int late = 0,
            open = 0;
        var newcomer = false;
        for (var i = 0; i < plan.Tasks.Count; i++)
        {
            var task = plan.Tasks[i];
            if (task.State == TaskState.Late && !hire.Head.IsBeforeKnown(task))
                late++;
            if (task.Unfinished)
                open++;
            if (task.CanStart && hire.Tasks[i].Owner == OwnTasks.Newcomer)
                newcomer = true;
        }
        var head = hire.Head;
        return new ArrivalRow(
            head.Id,
            head.EmploymentId,
            head.Number,
            head.GivenName,
            head.FamilyName,
            names.Job(head.JobCode),
            names.Kind(head.Kind),
            names.Site(head.SiteCode),
            head.SiteCode,
            head.Start,
            head.CoordinatorId,
            head.CoordinatorName,
            new ReadinessResponse(plan.Readiness.Done, plan.Readiness.Of, plan.Readiness.Percent),
            plan.Feasible,
            plan.SoonestStart,
            late,
            open,
            newcomer,
            [.. head.Missing.Where(seen.Contains)],
            HoldUpResponse.Of(plan, hire, calendars, names),
            new RopeResponse(rope.From, rope.To, rope.Frayed && late > 0, [.. rope.Knots.Select(k => new KnotResponse(k.Stage, k.Day, k.Passed))])
        );
    }
}

/// <summary>Arrivals.</summary>
/// <param name="Occasion">Who is listed.</param>
/// <param name="Today">The firm's date.</param>
/// <param name="Stages">The firm's stages, in order.</param>
/// <param name="Hires">The checklists of the occasion that are under way and that the reader may see, by the day they are planned around.</param>
/// <param name="Counts">How many there are of each occasion.</param>
public sealed record ArrivalsResponse(Occasion Occasion, LocalDate Today, StageName[] Stages, ArrivalRow[] Hires, OccasionCount[] Counts);

/// <summary>How many checklists of an occasion are under way that the reader may see.</summary>
public sealed record OccasionCount(Occasion Occasion, int Count);

public sealed record StageName(string Key, string Name);

/// <summary>A hire in Arrivals.</summary>
/// <param name="Missing">Keys of the record's fields that are empty and needed to prepare.</param>
/// <param name="WaitsForNewcomer">Whether there is something that only the newcomer can do today.</param>
public sealed record ArrivalRow(
    Guid Id,
    Guid EmploymentId,
    string Number,
    string GivenName,
    string FamilyName,
    string? Job,
    string? Kind,
    string? Site,
    string? SiteCode,
    LocalDate Start,
    Guid CoordinatorId,
    string? Coordinator,
    ReadinessResponse Readiness,
    bool Feasible,
    LocalDate? SoonestStart,
    int Late,
    int Open,
    bool WaitsForNewcomer,
    string[] Missing,
    HoldUpResponse? HoldUp,
    RopeResponse Rope
);
