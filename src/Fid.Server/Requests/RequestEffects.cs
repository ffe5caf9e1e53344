using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Requests;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.Requests;

/// <summary>What a request would come to, for those who are asked and for who asked: pay, badges and what is missing, and the checklist.</summary>
internal static class RequestEffects
{
    private const int MostMoved = 100;

    public static async Task<Results<Ok<EffectsResponse>, ProblemHttpResult>> Show(
        Guid id,
        Actor actor,
        FidDb db,
        EnteredValues enteredValues,
        RequestedChanges requested,
        CancellationToken cancellation
    )
    {
        if (await RequestInHand.ReadAsync(db, id, actor, cancellation) is not { } hand)
            return Problems.NotFound();
        var rights = hand.Reader.On(hand.Record);
        // Whoever is asked may not change it themselves, and sees what would come of it all the same.
        var entering = FieldRights.Of(hand.Reader.Fields.Set, f => rights.Sees(f.Key) ? FieldAccess.Edit : FieldAccess.None);
        var read = new ReadRecord(hand.Employment, hand.Record, entering, hand.Request.From ?? actor.Today);
        var before = await Readings.OfAsync(db, hand.Reader, read, [], enteredValues, actor.Today, cancellation);
        var after = await Readings.OfAsync(db, hand.Reader, read, requested.Open(hand.Request), enteredValues, actor.Today, cancellation);
        return TypedResults.Ok(new EffectsResponse(before, after, await ChecklistAsync(db, hand, actor, cancellation)));
    }

    private static async Task<ChecklistEffect?> ChecklistAsync(FidDb db, RequestInHand hand, Actor actor, CancellationToken cancellation)
    {
        if (!hand.Reader.May(Actions.See, Things.Hire, hand.Record))
            return null;
        var employment = hand.Employment.Id;
        if (
            await HiresUnderWay.LoadAsync(db, hires => hires.Where(h => h.EmploymentId == employment && h.Occasion == Occasion.Arrival), cancellation)
            is not [var hire]
        )
            return null;
        var wanted = hand.Request.Changes.ToDictionary(c => c.Field, c => c.New?.ToString());
        var (calendars, stages) = (await CalendarSet.LoadAsync(db, cancellation), await StagePlans.LoadAsync(db, cancellation));
        var moved = wanted.TryGetValue("holiday_calendar", out var calendar) ? hire with { Head = hire.Head with { CalendarCode = calendar } } : hire;
        var (before, after) = (Plan(hire), Plan(moved));
        return new ChecklistEffect(
            wanted.ContainsKey("manager") ? hire.Tasks.Where((t, i) => t.Owner == OwnTasks.Manager && before.Tasks[i].Unfinished).Count() : 0,
            [
                .. hire
                    .Tasks.Select((t, i) => new MovedTask(t.Called, Last(before.Tasks[i]), Last(after.Tasks[i])))
                    .Where((t, i) => before.Tasks[i].Unfinished && t.From != t.To)
                    .Take(MostMoved),
            ]
        );

        Plan Plan(HireUnderWay of) => HirePlan.Of(of.Question(actor.Today, calendars, stages), SoonestSearch.Never);

        static NodaTime.LocalDate? Last(PlannedTask task) => task.Due ?? task.LatestFinish;
    }
}
