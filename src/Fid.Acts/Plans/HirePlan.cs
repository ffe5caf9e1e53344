using Fid.Acts.Calendars;
using Fid.Core.Planning;
using NodaTime;

namespace Fid.Acts.Plans;

/// <summary>Asks Core for the plan of a hire.</summary>
public static class HirePlan
{
    public const string Accepted = "accepted";

    /// <summary>The question whose answer is the hire's plan.</summary>
    /// <param name="ownCalendar">The code of the newcomer's own holiday calendar; null where the record has none yet.</param>
    public static PlanQuestion Question(
        LocalDate today,
        LocalDate start,
        LocalDate accepted,
        CalendarSet calendars,
        IReadOnlyList<PlanStage> stages,
        IReadOnlyList<TaskRow> tasks,
        string? ownCalendar
    )
    {
        var anchors = new Dictionary<string, LocalDate>(2) { [PlanQuestion.Start] = start, [Accepted] = accepted };
        var planned = new PlanTask[tasks.Count];
        for (var i = 0; i < planned.Length; i++)
        {
            planned[i] = tasks[i].ToPlan(ownCalendar);
            if (tasks[i].Pinned is { } day)
                anchors[tasks[i].PinAnchor] = day;
        }
        return new PlanQuestion(today, anchors, calendars.ByCode, stages, planned);
    }

    /// <summary>The plan. Templates are checked when they are made, so a checklist that has none is a fault of ours.</summary>
    public static Plan Of(PlanQuestion question, SoonestSearch soonest)
    {
        var outcome = Planner.Plan(question, soonest);
        return outcome.Answer
            ?? throw new InvalidOperationException(
                $"A stored checklist cannot be planned: {string.Join(" ", outcome.Problems.Select(p => $"{p.Path} {p.Message}"))}"
            );
    }
}
