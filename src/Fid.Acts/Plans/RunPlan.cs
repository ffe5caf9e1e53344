using Fid.Acts.Calendars;
using Fid.Core.Pay;
using Fid.Core.Planning;
using NodaTime;

namespace Fid.Acts.Plans;

/// <summary>Asks Core for the plan of a pay run's checklist: its anchor "start" is the cut-off, "accepted" the first day of the period.</summary>
public static class RunPlan
{
    /// <summary>The anchor that only pay runs have: the day on which the run is paid.</summary>
    public const string PayDate = "payDate";

    /// <summary>A run with a cut-off, whichever pay group it is of: to try a template with.</summary>
    public static PayRun Example(LocalDate cutOff) => new(cutOff.PlusDays(-PeriodOfExample), cutOff, cutOff.PlusDays(PayDaysOfExample), cutOff);

    private const int PeriodOfExample = 13,
        PayDaysOfExample = 6;

    /// <summary>The question whose answer is the plan, for the tasks in their order.</summary>
    /// <param name="calendar">The code of the pay group's calendar; null for none.</param>
    public static PlanQuestion Question(
        LocalDate today,
        PayRun run,
        CalendarSet calendars,
        IReadOnlyList<PlanStage> stages,
        IEnumerable<TaskRow> tasks,
        string? calendar
    ) =>
        new(
            today,
            new Dictionary<string, LocalDate>
            {
                [PlanQuestion.Start] = run.CutOff,
                [HirePlan.Accepted] = run.Start,
                [PayDate] = run.PayDate,
            },
            calendars.ByCode,
            stages,
            [.. tasks.Select(t => t.ToPlan(calendar))]
        );
}
