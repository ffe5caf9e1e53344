using System.Text.Json;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.PayRuns;
using Fid.Data.Templates;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>The checklists of pay runs, planned.</summary>
public static class RunChecklists
{
    /// <summary>The fact by which conditions of add-ons tell pay groups apart.</summary>
    private const string PayGroup = "pay_group";

    /// <summary>Some checklists with their plans. One whose pay group has no such run any more is left out.</summary>
    public static async Task<IReadOnlyList<PlannedRun>> PlanAsync(
        FidDb db,
        PayReading pay,
        LocalDate today,
        IReadOnlyCollection<RunChecklist> checklists,
        CancellationToken cancellation
    )
    {
        if (checklists.Count == 0)
            return [];
        var stages = (await StagePlans.LoadAsync(db, cancellation)).Of(Occasion.PayRun);
        return [.. checklists.Select(Planned).OfType<PlannedRun>()];

        PlannedRun? Planned(RunChecklist checklist)
        {
            if (pay.Groups.GetValueOrDefault(checklist.PayGroup) is not { } group || CheckedRun.On(pay, group, checklist.Period) is not { } run)
                return null;
            RunTask[] tasks = [.. checklist.Tasks.OrderBy(t => t.Position)];
            var plan = HirePlan.Of(
                RunPlan.Question(today, run.Run, pay.Calendars, stages, tasks.Select(TaskRow.Of), group.Text("calendar")),
                SoonestSearch.Never
            );
            return new PlannedRun(checklist, run, [.. tasks.Zip(plan.Tasks, (task, planned) => new PlannedRunTask(task, planned))]);
        }
    }

    /// <summary>A checklist of a run as a template has it today, not yet saved; else what keeps it from being begun.</summary>
    public static Result<RunChecklist> Make(TemplateSet templates, RoleTemplate template, CheckedRun run, LocalDate today)
    {
        var facts = new Dictionary<string, JsonElement> { [PayGroup] = JsonSerializer.SerializeToElement(run.Group.Code) };
        var resolved = templates.Resolve(template, facts, null, today);
        if (resolved.Answer is not { } layered)
            return Result<RunChecklist>.Failed(resolved.Problems);
        return new RunChecklist
        {
            PayGroup = run.Group.Code,
            Period = run.Run.Start,
            TemplateCode = template.Code,
            TemplateVersion = template.Version,
            Layers = [.. layered.Layers.Where(l => l != Core.Templates.Layer.Typed)],
            Tasks = [.. LayeredTasks.Of(layered).Select(RunTask.Of)],
        };
    }
}

/// <summary>A pay run's checklist with its plan.</summary>
/// <param name="Tasks">In the order in which they are listed.</param>
public sealed record PlannedRun(RunChecklist Checklist, CheckedRun Run, IReadOnlyList<PlannedRunTask> Tasks)
{
    /// <summary>The tasks that still keep the run from being handed over: required ones of the stages before that.</summary>
    public IReadOnlyList<PlannedRunTask> BeforeHandOver { get; } = [.. Tasks.Where(t => t.HoldsHandOver)];
}

/// <summary>A task of a pay run's checklist with its place in the plan.</summary>
public sealed record PlannedRunTask(RunTask Task, PlannedTask Planned)
{
    /// <summary>Whether the run may not be handed over before it is done.</summary>
    public bool IsBeforeHandOver => Task.Required && Task.StageKey != Stage.AfterHandOver;

    /// <summary>Whether it still keeps the run from being handed over.</summary>
    public bool HoldsHandOver => IsBeforeHandOver && Planned.Unfinished;
}
