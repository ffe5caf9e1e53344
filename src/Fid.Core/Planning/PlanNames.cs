using Fid.Core.Calendars;

namespace Fid.Core.Planning;

/// <summary>Looks up the names a plan question uses, and notes those that name nothing.</summary>
internal sealed class PlanNames
{
    private readonly PlanQuestion _question;
    private readonly Dictionary<string, int> _stages;
    private readonly Dictionary<string, int> _tasks;
    private readonly NodeOffset?[] _stageOpens;

    public PlanNames(PlanQuestion question)
    {
        _question = question;
        if (!question.Anchors.ContainsKey(PlanQuestion.Start))
            Report("/anchors", "missing-anchor", $"There must be an anchor called {PlanQuestion.Start}: the newcomer's first day.");
        _stages = Index("/stages", "stage", [.. question.Stages.Select(s => s.Id)]);
        _tasks = Index("/tasks", "task", [.. question.Tasks.Select(t => t.Id)]);
        _stageOpens = [.. question.Stages.Select((s, i) => Offset(s.Opens, $"/stages/{i}/opens"))];
    }

    public List<Problem> Problems { get; } = [];

    public int[][] Gates() =>
        [
            .. _question.Stages.Select(
                (stage, i) => stage.WaitsFor.Select((id, k) => Find(_stages, id, $"/stages/{i}/waitsFor/{k}", "unknown-stage", "stage")).Distinct().ToArray()
            ),
        ];

    public NodeTask Task(int index)
    {
        var task = _question.Tasks[index];
        var stage = _stages.GetValueOrDefault(task.Stage, -1);
        if (stage < 0)
            stage = Find(_stages, task.Stage, $"/tasks/{index}/stage", "unknown-stage", "stage");
        if (!_question.Calendars.TryGetValue(task.Calendar, out var calendar))
            Report($"/tasks/{index}/calendar", "unknown-calendar", Unknown("calendar", task.Calendar, _question.Calendars.Keys));
        if (task.Work < 0)
            Report($"/tasks/{index}/work", "out-of-range", "Work is a number of working days, 0 or more.");
        return new NodeTask(
            stage,
            calendar ?? WorkCalendar.EveryDay,
            task.Work,
            task.Opens is null ? null : Offset(task.Opens, $"/tasks/{index}/opens"),
            stage < 0 ? null : _stageOpens[stage],
            task.Due is null ? null : Offset(task.Due, $"/tasks/{index}/due"),
            task.Required,
            task.DayOne,
            task.Done is { } done ? Day.Number(done) : PlanNetwork.NoDay,
            task.Skipped
        );
    }

    public PlanNetwork.Edge[] Before(int index)
    {
        var after = _question.Tasks[index].After;
        if (after.Count == 0)
            return [];
        var edges = new PlanNetwork.Edge[after.Count];
        for (var k = 0; k < edges.Length; k++)
        {
            if (!_tasks.TryGetValue(after[k].Id, out var task))
                task = Find(_tasks, after[k].Id, $"/tasks/{index}/after/{k}", "unknown-task", "task");
            edges[k] = new PlanNetwork.Edge(task, after[k].Lag);
        }
        return edges;
    }

    private NodeOffset? Offset(PlanOffset? offset, string path)
    {
        if (offset is null)
            return null;
        if (offset.Anchor == PlanQuestion.Start)
            return new NodeOffset(null, offset.Amount, offset.Unit);
        if (_question.Anchors.TryGetValue(offset.Anchor, out var anchor))
            return new NodeOffset(Day.Number(anchor), offset.Amount, offset.Unit);
        Report(path, "unknown-anchor", Unknown("anchor", offset.Anchor, _question.Anchors.Keys));
        return null;
    }

    private Dictionary<string, int> Index(string path, string kind, string[] ids)
    {
        var index = new Dictionary<string, int>(ids.Length, StringComparer.Ordinal);
        for (var i = 0; i < ids.Length; i++)
            if (!index.TryAdd(ids[i], i))
                Report($"{path}/{i}/id", "duplicate-id", $"There is another {kind} called {ids[i]}. Each needs an id of its own.");
        return index;
    }

    private int Find(Dictionary<string, int> index, string id, string path, string code, string kind)
    {
        if (index.TryGetValue(id, out var found))
            return found;
        Report(path, code, Unknown(kind, id, index.Keys));
        return -1;
    }

    private static string Unknown(string kind, string name, IEnumerable<string> known) =>
        $"There is no {kind} called {name}. Known: {(known.Any() ? string.Join(", ", known.Take(20)) : "none")}.";

    private void Report(string path, string code, string message) => Problems.Add(new Problem(path, code, message));
}
