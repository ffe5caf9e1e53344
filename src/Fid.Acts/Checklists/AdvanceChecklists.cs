using Fid.Acts.Calendars;
using Fid.Acts.Plans;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Checklists;

/// <summary>Lets checklists go on by themselves as far as their tasks, their records and the day allow: tasks come to apply and complete themselves,
/// gates pass, stages open, and who has settled leaves Arrivals.</summary>
public sealed class AdvanceChecklists(FidDb db)
{
    /// <summary>What jobs that do this for one hire are called.</summary>
    public const string Kind = "checklist";

    internal const string Settled = "hire.settled";

    /// <returns>How many things became of them.</returns>
    public async Task<ActResult<int>> DoAsync(AdvanceChecklistsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request, cancellation);
        await Locks.HiresAsync(db, request.Hires, cancellation);
        var applying = await RecordConditions.FollowRecordsAsync(db, act, actor, request.Hires, cancellation);
        var completed = await SelfCompletion.FollowRecordsAsync(db, act, actor, request.Hires, cancellation);
        var steps = await TakeStepsAsync(db, act, actor, request.Hires, cancellation);
        await act.CommitAsync(cancellation);
        return applying + completed + steps;
    }

    /// <summary>Takes the steps that are due, as part of an act that holds the hires and has saved what it changed of them.</summary>
    internal static async Task<int> TakeStepsAsync(FidDb db, ActScope act, Actor actor, IReadOnlyCollection<Guid> hires, CancellationToken cancellation)
    {
        var (calendars, stages) = (await CalendarSet.LoadAsync(db, cancellation), await StagePlans.LoadAsync(db, cancellation));
        var known = (await db.HireStages.Where(s => hires.Contains(s.HireId)).ToListAsync(cancellation)).ToLookup(s => s.HireId);
        var (taken, settled, author) = (0, new List<Guid>(), actor.Author("checklist"));
        var (teams, automatic) = (new TeamHandOut(db, actor.Today), new AutomaticTasks(db, actor.Today));
        foreach (var hire in await HiresUnderWay.LoadAsync(db, all => all.Where(h => hires.Contains(h.Id)), cancellation))
        {
            var question = hire.Question(actor.Today, calendars, stages);
            var plan = HirePlan.Of(question, SoonestSearch.Never);
            taken += TakeSteps(db, act, author, hire.Head, question, plan, known[hire.Head.Id].ToDictionary(s => s.StageKey));
            if (!StageSteps.HasSettled(question, plan))
            {
                teams.Look(hire, plan);
                automatic.Look(hire, plan);
                continue;
            }
            settled.Add(hire.Head.Id);
            act.Note(author.Change(Settled, hire.Head.Id));
        }
        if (settled.Count > 0)
            await db.Hires.Where(h => settled.Contains(h.Id)).ExecuteUpdateAsync(s => s.SetProperty(h => h.Closed, actor.Today), cancellation);
        await automatic.AskAsync(actor.Clock.Now, cancellation);
        return taken + settled.Count + await teams.HandOutAsync(act, author, cancellation);
    }

    private static int TakeSteps(FidDb db, ActScope act, Author author, HireHead hire, PlanQuestion question, Plan plan, Dictionary<string, HireStage> known)
    {
        // With what a hire begins is no news: that it was opened is in the trail.
        var isNew = known.Count == 0;
        var steps = StageSteps.Of(question, plan, known.ToDictionary(s => s.Key, s => new StageStanding(s.Value.Opened, s.Value.Passed)));
        foreach (var step in steps)
        {
            if (!known.TryGetValue(step.Stage, out var stage))
                db.HireStages.Add(known[step.Stage] = stage = new HireStage { HireId = hire.Id, StageKey = step.Stage });
            (stage.Opened, stage.Passed) = step.Kind switch
            {
                StageStepKind.Opened => (isNew ? LocalDate.Min(hire.Entered, step.Day) : step.Day, stage.Passed),
                StageStepKind.Closed => (null, stage.Passed),
                StageStepKind.Passed => (stage.Opened, step.Day),
                _ => (stage.Opened, (LocalDate?)null),
            };
            if (!isNew)
                act.Note(author.Change(ActionOf(step.Kind), hire.Id, step.Stage));
        }
        return isNew ? 0 : steps.Count;
    }

    internal static string ActionOf(StageStepKind kind) =>
        kind switch
        {
            StageStepKind.Opened => "stage.opened",
            StageStepKind.Closed => "stage.closed",
            StageStepKind.Passed => "stage.passed",
            _ => "stage.reopened",
        };
}

/// <param name="Hires">Those of them that are not under way are passed over.</param>
public sealed record AdvanceChecklistsRequest(IReadOnlyList<Guid> Hires);
