namespace Fid.Acts.Tasks;

/// <summary>What became of tasks that were to be changed together: each stands for itself.</summary>
/// <param name="Changes">The entries in the trail, one for each task that was changed: by them it can be taken back.</param>
/// <param name="Left">The tasks that stay as they were, and why.</param>
public sealed record TasksChanged(IReadOnlyList<Guid> Changes, IReadOnlyList<TaskLeft> Left);

/// <summary>A task that stays as it was.</summary>
public sealed record TaskLeft(TaskRef Task, Refusal Why);
