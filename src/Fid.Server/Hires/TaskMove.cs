using Fid.Acts.Plans;
using Fid.Core.Planning;
using Fid.Server.Lists;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>A task whose dates or state differ between two plans.</summary>
public sealed record TaskMove(string Key, string Name, string Owner, string? OwnerName, TaskDates Before, TaskDates After)
{
    /// <summary>Those of a hire's tasks, which the plans have in the same order.</summary>
    internal static TaskMove[] Between(HireUnderWay hire, Plan before, Plan after, ListNames names) =>
        [
            .. hire
                .Tasks.Select(
                    (t, i) =>
                        new TaskMove(t.Key, t.Called, t.Owner, names.Owner(t.Owner, hire.Head), TaskDates.Of(before.Tasks[i]), TaskDates.Of(after.Tasks[i]))
                )
                .Where(m => m.Before != m.After),
        ];
}

public sealed record TaskDates(TaskState State, LocalDate? Due, LocalDate? LatestStart, LocalDate? LatestFinish, int? Slack)
{
    internal static TaskDates Of(PlannedTask task) => new(task.State, task.Due, task.LatestStart, task.LatestFinish, task.Slack);
}
