using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Planning;

/// <summary>
/// A checklist drawn as a rope along time: spliced as far as the work is done, thin from there on, a knot where each stage's gate
/// passes or is to pass, frayed where something is late or will be.
/// </summary>
/// <param name="From">Where the rope begins: the day the hire was accepted, or the start if that was earlier.</param>
/// <param name="To">Where the spliced part ends. In the stage under way it lies as far between that stage's beginning and its
/// knot as the stage's required tasks are done.</param>
/// <param name="Frayed">Whether a required task is late, or will be.</param>
/// <param name="Knots">The stages' gates, in order; never one before the knot ahead of it.</param>
public sealed record Rope(LocalDate From, LocalDate To, bool Frayed, IReadOnlyList<Knot> Knots)
{
    /// <summary>Draws a plan.</summary>
    /// <param name="question">The question the plan answers.</param>
    /// <param name="plan">The plan.</param>
    /// <param name="accepted">The day the hire was accepted.</param>
    public static Rope Of(PlanQuestion question, Plan plan, LocalDate accepted)
    {
        var from = LocalDate.Min(accepted, question.Anchors[PlanQuestion.Start]);
        var knots = new List<Knot>(question.Stages.Count);
        var to = from;
        var begin = from;
        var reached = true;
        for (var s = 0; s < question.Stages.Count; s++)
        {
            var id = question.Stages[s].Id;
            var passed = plan.Stages[s].State == StageState.Passed;
            int done = 0,
                of = 0;
            LocalDate? day = null;
            for (var i = 0; i < question.Tasks.Count; i++)
            {
                var task = question.Tasks[i];
                if (task.Stage != id || !task.Required || task.Skipped)
                    continue;
                of++;
                if (task.Done is not null)
                    done++;
                var passes = task.Done ?? Passes(plan.Tasks[i], question.Calendars[task.Calendar], question.Today);
                if (day is null || passes > day)
                    day = passes;
            }
            if (question.Stages[s].Passed is { } byHand)
                day = byHand;
            var knot = new Knot(id, LocalDate.Max(day ?? begin, begin), passed);
            knots.Add(knot);
            if (reached)
                to = passed ? knot.Day : begin.PlusDays(Period.DaysBetween(begin, knot.Day) * done / Math.Max(of, 1));
            reached &= passed;
            begin = knot.Day;
        }
        return new Rope(from, to, IsFrayed(question, plan), knots);
    }

    // The working day after the latest finish, or after the earliest where the latest is gone already.
    private static LocalDate Passes(PlannedTask task, WorkCalendar calendar, LocalDate today)
    {
        var finish = task.LatestFinish is { } latest && latest >= today ? latest : task.EarliestFinish!.Value;
        return calendar.Roll(finish.PlusDays(1), RollRule.Following) ?? finish;
    }

    private static bool IsFrayed(PlanQuestion question, Plan plan)
    {
        for (var i = 0; i < plan.Tasks.Count; i++)
            if (question.Tasks[i].Required && plan.Tasks[i].State is TaskState.Late or TaskState.AtRisk)
                return true;
        return false;
    }
}

/// <summary>A stage's gate on the rope.</summary>
/// <param name="Stage">The stage's id.</param>
/// <param name="Day">The day it passed, or is to pass.</param>
/// <param name="Passed">Whether it has passed.</param>
public sealed record Knot(string Stage, LocalDate Day, bool Passed);
