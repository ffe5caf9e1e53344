using Fid.Acts.Templates;
using Fid.Core;
using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Tasks;

/// <summary>Says for some hires alone how long a task takes there, how long it waits after another, and whether it waits for it at all.</summary>
public sealed class ReshapeTasks(FidDb db)
{
    public async Task<ActResult<TasksChanged>> DoAsync(ReshapeTasksRequest request, Actor actor, CancellationToken cancellation)
    {
        var problems = Check(request);
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        return await TaskChanges.MakeAsync(
            db,
            request,
            request.Tasks,
            new TaskChange("task.reshaped", OwnToo: false, task => Reshape(task, request), Reason.Clean(request.Why)),
            actor,
            cancellation
        );
    }

    private static List<Problem> Check(ReshapeTasksRequest request)
    {
        var problems = new List<Problem>();
        if (request.Work is < 0 or > TaskFindings.MostWork)
            problems.Add(new Problem("/work", "out-of-range", $"Enter a whole number of working days from 0 to {TaskFindings.MostWork}."));
        if (request.Lags?.Values.Any(l => l is < 0 or > TaskFindings.MostWork) == true)
            problems.Add(new Problem("/lags", "out-of-range", $"Wait from 0 to {TaskFindings.MostWork} working days."));
        if (request is { Work: null, Lags: null or { Count: 0 }, Without: null or { Count: 0 } })
            problems.Add(new Problem("/work", "missing", "Say what is to change."));
        if (Reason.Check(request.Why) is { } bad)
            problems.Add(bad);
        return problems;
    }

    private static Refusal? Reshape(HireTask task, ReshapeTasksRequest request)
    {
        if (task.Done is not null)
            return TasksInHand.IsDone;
        string[] without = [.. request.Without ?? []];
        if (without.Concat(request.Lags?.Keys ?? []).Any(k => !task.After.Contains(k)))
            return Refusal.Invalid("/without", "unknown-task", "It does not wait for that task.");
        task.Work = request.Work ?? task.Work;
        var kept = task
            .After.Select((key, i) => (Key: key, Lag: request.Lags?.GetValueOrDefault(key, task.Lags[i]) ?? task.Lags[i]))
            .Where(a => !without.Contains(a.Key))
            .ToList();
        if (!kept.Select(k => k.Key).SequenceEqual(task.After))
            task.After = [.. kept.Select(k => k.Key)];
        if (!kept.Select(k => k.Lag).SequenceEqual(task.Lags))
            task.Lags = [.. kept.Select(k => k.Lag)];
        return null;
    }
}

/// <param name="Work">The working days it takes; null leaves them.</param>
/// <param name="Lags">The working days it waits after a task that it comes after, by that one's key.</param>
/// <param name="Without">The keys of tasks that it waits for no longer.</param>
public sealed record ReshapeTasksRequest(
    IReadOnlyList<TaskRef> Tasks,
    int? Work = null,
    IReadOnlyDictionary<string, int>? Lags = null,
    IReadOnlyList<string>? Without = null,
    string? Why = null
);
