using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Moving a hire's first day: what would change, and doing it.</summary>
internal static class StartEndpoints
{
    public static async Task<Results<Ok<StartChangeResponse>, ProblemHttpResult>> Preview(
        Guid id,
        LocalDateParameter to,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (MoveStart.CheckDay(to.Date, "/to") is { } problem)
            return Problems.Invalid(problem);
        if (await HireAccess.FindAsync(id, actor, db, cancellation) is not { } hire)
            return Problems.NotFound();
        var today = actor.Today;
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var rights = reader.On(hire.Head.Record);
        hire = hire with { Head = new VisibleFacts(reader, names).Of(hire.Head) };
        var stages = await StagePlans.LoadAsync(db, cancellation);

        var question = hire.Question(today, calendars, stages);
        var moved = hire with { Head = hire.Head with { Start = to.Date, Accepted = LocalDate.Min(hire.Head.Accepted, to.Date) } };
        var (before, after) = (HirePlan.Of(question, SoonestSearch.Never), HirePlan.Of(moved.Question(today, calendars, stages), SoonestSearch.Never));
        var values = (await new TemplateUpdates(db).OnMoveAsync(id, to.Date, today, cancellation)).Where(v => rights.Sees(v.Field));
        // Whoever changes jobs or leaves has their shifts, pay and badge from before.
        var effects =
            hire.Head.Occasion == Occasion.Arrival ? await StartEffects.LoadAsync(db, reader, rights, hire.Head, calendars, today, cancellation) : null;
        return TypedResults.Ok(
            new StartChangeResponse(
                hire.Head.Start,
                to.Date,
                Period.DaysBetween(hire.Head.Start, to.Date),
                before.Feasible,
                after.Feasible,
                TaskMove.Between(hire, before, after, names),
                HoldUpResponse.Of(after, hire, calendars, names),
                [.. values.Select(v => new ValueMove(v.Field, v.Before, v.After))],
                effects?.On(hire.Head.Start),
                effects?.On(to.Date)
            )
        );
    }

    public static async Task<Results<Ok<ChecklistResponse>, ProblemHttpResult>> Save(
        Guid id,
        StartRequest request,
        Actor actor,
        FidDb db,
        MoveStart move,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var result = await move.DoAsync(new MoveStartRequest(id, request.Start, request.Why, Versions.Seen(http.Request)), actor, cancellation);
        var needed = result.Refusal is null or { Kind: RefusalKind.ChangedMeanwhile };
        db.ChangeTracker.Clear();
        var hire = needed ? await HireAccess.FindAsync(id, actor, db, cancellation) : null;
        var now = hire is null ? null : await Checklist.DescribeAsync(hire, actor, db, cancellation);
        if (result.Refusal is { } refusal)
            return Problems.Of(refusal, now);
        Versions.Show(http.Response, hire!.Head.Version);
        return TypedResults.Ok(now);
    }
}

public sealed record StartRequest(LocalDate Start, string? Why);

/// <summary>What moving the start would change.</summary>
/// <param name="Days">How many days later; negative for earlier.</param>
/// <param name="Tasks">The tasks whose dates or state would change.</param>
/// <param name="Values">Values that formulas of the template would give anew.</param>
/// <param name="Before">What the day means now beside the checklist; null where it is no first day.</param>
/// <param name="After">What it would mean.</param>
public sealed record StartChangeResponse(
    LocalDate From,
    LocalDate To,
    int Days,
    bool FeasibleBefore,
    bool FeasibleAfter,
    TaskMove[] Tasks,
    HoldUpResponse? HoldUp,
    ValueMove[] Values,
    StartEffectsResponse? Before,
    StartEffectsResponse? After
);

public sealed record ValueMove(string Field, JsonElement Before, JsonElement After);
