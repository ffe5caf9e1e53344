using Fid.Core.Calendars;

namespace Fid.Core.Planning;

/// <summary>
/// A plan question made ready for calculating: names resolved to indexes, dates to day numbers, tasks and gates in dependency
/// order. Nodes 0 … tasks−1 are the tasks, the rest the stages' gates.
/// </summary>
internal sealed class PlanNetwork
{
    public const int NoDay = int.MinValue;
    public const int NoBound = int.MaxValue;

    private readonly Edge[][] _before; // per task: the tasks it comes after
    private readonly Edge[][] _behind; // per task: the tasks that come after it
    private readonly int[][] _gatesBefore; // per stage: the stages whose gates it waits for
    private readonly int[][] _stagesBehind; // per stage: the stages that wait for its gate
    private readonly int[][] _tasksOf; // per stage: its tasks
    private readonly Gate[] _gates; // per stage: what a person says of its gate

    private PlanNetwork(PlanQuestion question, NodeTask[] tasks, int[][] gatesBefore, int[] order, Edge[][] before)
    {
        Tasks = tasks;
        Order = order;
        _before = before;
        _gatesBefore = gatesBefore;
        _gates = [.. question.Stages.Select(s => new Gate(s.Passed is { } passed ? Day.Number(passed) : NoDay, s.Held))];
        Today = Day.Number(question.Today);
        Start = Day.Number(question.Anchors[PlanQuestion.Start]);
        _behind = Reverse(before, e => e.Task, (to, e) => e with { Task = to });
        _stagesBehind = Reverse(gatesBefore, g => g, (to, _) => to);
        _tasksOf = Reverse([.. tasks.Select(t => new[] { t.Stage })], s => s, (to, _) => to, question.Stages.Count);
    }

    public NodeTask[] Tasks { get; }

    public int[] Order { get; }

    public int Today { get; }

    public int Start { get; }

    public int StageCount => _gatesBefore.Length;

    public int NodeCount => Tasks.Length + StageCount;

    public ReadOnlySpan<Edge> Before(int task) => _before[task];

    public ReadOnlySpan<int> GatesBefore(int stage) => _gatesBefore[stage];

    public ReadOnlySpan<int> TasksOf(int stage) => _tasksOf[stage];

    /// <summary>Fills in the earliest start and finish of every unfinished task, and the day each gate passes.</summary>
    public void Forward(int start, int[] earliestStart, int[] earliestFinish)
    {
        foreach (var node in Order)
        {
            if (node >= Tasks.Length)
            {
                earliestStart[node] = GatePasses(node - Tasks.Length, earliestFinish);
                continue;
            }
            ref readonly var task = ref Tasks[node];
            if (!task.Unfinished)
                continue;
            var day = Math.Max(Today, OpeningOf(task, start));
            foreach (var edge in Before(node))
                day = Math.Max(day, FreeAfter(edge, task.Calendar, earliestFinish));
            foreach (var gate in GatesBefore(task.Stage))
                day = Math.Max(day, earliestStart[Tasks.Length + gate]);
            day = task.Calendar.RollForward(day);
            earliestStart[node] = day;
            earliestFinish[node] = task.Work <= 1 ? day : task.Calendar.Add(day, task.Work - 1);
        }
    }

    /// <summary>
    /// Fills in the latest start and finish of every unfinished task, <see cref="NoBound"/> where there is none. With
    /// <paramref name="needed"/>, gives up and returns false at the first required day-one task that would have to start before
    /// the day it names for it.
    /// </summary>
    public bool Backward(int start, int[] latestStart, int[] latestFinish, int[]? needed = null)
    {
        for (var i = Order.Length - 1; i >= 0; i--)
        {
            var node = Order[i];
            if (node >= Tasks.Length)
            {
                latestStart[node] = GateLatest(node - Tasks.Length, latestStart);
                continue;
            }
            ref readonly var task = ref Tasks[node];
            if (!task.Unfinished)
                continue;
            var day = DueOf(task, start);
            if (task.DayOne)
                day = Math.Min(day, start - 1);
            foreach (var edge in _behind[node])
            {
                ref readonly var next = ref Tasks[edge.Task];
                if (!next.Unfinished || latestStart[edge.Task] == NoBound)
                    continue;
                var free = edge.Lag == 0 ? latestStart[edge.Task] : next.Calendar.Add(latestStart[edge.Task], -edge.Lag);
                day = Math.Min(day, task.IsMilestone ? free : free - 1);
            }
            if (task.Required && latestStart[Tasks.Length + task.Stage] is var gate and not NoBound)
                day = Math.Min(day, task.IsMilestone ? gate : gate - 1);
            if (day == NoBound)
            {
                latestStart[node] = latestFinish[node] = NoBound;
                continue;
            }
            day = task.Calendar.RollBack(Day.Clamp(day));
            latestFinish[node] = day;
            latestStart[node] = task.Work <= 1 ? day : task.Calendar.Add(day, 1 - task.Work);
            if (needed is not null && task.Required && task.DayOne && latestStart[node] < needed[node])
                return false;
        }
        return true;
    }

    /// <summary>The due date, off rest days, or <see cref="NoBound"/>.</summary>
    public static int DueOf(in NodeTask task, int start) => task.Due is { } due ? task.Calendar.RollBack(due.On(start, task.Calendar)) : NoBound;

    /// <summary>Whether all the task waits for is satisfied on the day of the plan.</summary>
    public bool CanStart(int node)
    {
        ref readonly var task = ref Tasks[node];
        if (OpeningOf(task, Start) > Today)
            return false;
        foreach (var edge in Before(node))
        {
            ref readonly var previous = ref Tasks[edge.Task];
            if (previous.Unfinished || (!previous.Skipped && FreeAfter(edge, task.Calendar, []) > Today))
                return false;
        }
        foreach (var gate in GatesBefore(task.Stage))
            if (!IsPassed(gate))
                return false;
        return true;
    }

    /// <summary>Whether every required task of the stage is done or skipped, or what a person says instead.</summary>
    public bool IsPassed(int stage)
    {
        if (_gates[stage].Passed != NoDay)
            return true;
        if (_gates[stage].Held)
            return false;
        foreach (var task in TasksOf(stage))
            if (Tasks[task].Required && Tasks[task].Unfinished)
                return false;
        return true;
    }

    /// <summary>Whether the gates before a stage are passed, and its own opening has come for one of its tasks: each has a calendar of its own.</summary>
    public bool HasOpened(int stage)
    {
        foreach (var gate in GatesBefore(stage))
            if (!IsPassed(gate))
                return false;
        foreach (var i in TasksOf(stage))
            if (StageOpeningOf(Tasks[i], Start) <= Today)
                return true;
        return TasksOf(stage).IsEmpty;
    }

    /// <summary>The working day from which a task could be worked on, whether or not it was done since: all it waits for was there by then. <see
    /// cref="NoBound"/> where something of it is not yet.</summary>
    /// <param name="known">Not before this day was there anything to do.</param>
    public int PossibleSince(int node, int known)
    {
        ref readonly var task = ref Tasks[node];
        var day = Math.Max(known, OpeningOf(task, Start));
        foreach (var edge in Before(node))
        {
            if (Tasks[edge.Task].Unfinished)
                return NoBound;
            day = Math.Max(day, FreeAfter(edge, task.Calendar, []));
        }
        foreach (var gate in GatesBefore(task.Stage))
        {
            if (!IsPassed(gate))
                return NoBound;
            day = Math.Max(day, GatePasses(gate, []));
        }
        return task.Calendar.RollForward(day);
    }

    private static int StageOpeningOf(in NodeTask task, int start) =>
        task.StageOpens is { } opens ? task.Calendar.RollForward(opens.On(start, task.Calendar)) : NoDay;

    private static int OpeningOf(in NodeTask task, int start)
    {
        var stage = StageOpeningOf(task, start);
        return task.Opens is { } own ? Math.Max(stage, task.Calendar.RollForward(own.On(start, task.Calendar))) : stage;
    }

    // The day from which a predecessor no longer keeps its successor waiting.
    private int FreeAfter(Edge edge, WorkCalendar successor, int[] earliestFinish)
    {
        ref readonly var previous = ref Tasks[edge.Task];
        if (previous.Skipped)
            return NoDay;
        var day = previous.Unfinished
            ? previous.IsMilestone
                ? earliestFinish[edge.Task]
                : earliestFinish[edge.Task] + 1
            : previous.Done;
        // A lag is counted from a working day, so that its days lie between the two tasks.
        return edge.Lag == 0 ? day : successor.Add(successor.RollForward(Day.Clamp(day)), edge.Lag);
    }

    private int GatePasses(int stage, int[] earliestFinish)
    {
        if (_gates[stage].Passed != NoDay)
            return _gates[stage].Passed;
        // When a person lets it pass nobody knows; not before today.
        var day = _gates[stage].Held ? Today : NoDay;
        foreach (var i in TasksOf(stage))
        {
            ref readonly var task = ref Tasks[i];
            if (!task.Required || task.Skipped)
                continue;
            day = Math.Max(
                day,
                task.Unfinished
                    ? task.IsMilestone
                        ? earliestFinish[i]
                        : earliestFinish[i] + 1
                    : task.Done
            );
        }
        return day;
    }

    private int GateLatest(int stage, int[] latestStart)
    {
        var day = NoBound;
        // Nothing waits any more for the tasks behind a gate that a person let pass.
        if (_gates[stage].Passed != NoDay)
            return day;
        foreach (var waiting in _stagesBehind[stage])
        foreach (var i in TasksOf(waiting))
            if (Tasks[i].Unfinished)
                day = Math.Min(day, latestStart[i]);
        return day;
    }

    /// <summary>Resolves every name of the question, or says which cannot be.</summary>
    public static (PlanNetwork? Network, IReadOnlyList<Problem> Problems) Build(PlanQuestion question)
    {
        var names = new PlanNames(question);
        var tasks = new NodeTask[question.Tasks.Count];
        var before = new Edge[tasks.Length][];
        var gatesBefore = names.Gates();
        for (var i = 0; i < tasks.Length; i++)
        {
            tasks[i] = names.Task(i);
            before[i] = names.Before(i);
        }
        if (names.Problems.Count > 0)
            return (null, names.Problems);
        var order = DependencyOrder.Find(question, tasks, before, gatesBefore, names.Problems);
        return order is null ? (null, names.Problems) : (new PlanNetwork(question, tasks, gatesBefore, order, before), []);
    }

    private static T[][] Reverse<T>(T[][] lists, Func<T, int> key, Func<int, T, T> make, int? size = null)
    {
        var counts = new int[size ?? lists.Length];
        foreach (var list in lists)
        foreach (var item in list)
            counts[key(item)]++;
        var result = Array.ConvertAll(counts, c => c == 0 ? [] : new T[c]);
        for (var to = lists.Length - 1; to >= 0; to--)
            foreach (var item in lists[to])
                result[key(item)][--counts[key(item)]] = make(to, item);
        return result;
    }

    // What a person says of a stage's gate.
    private readonly record struct Gate(int Passed, bool Held);

    /// <summary>That a task comes after another one, or before it, as seen from the task that holds the edge.</summary>
    internal readonly record struct Edge(int Task, int Lag);
}

/// <summary>A task with its names resolved.</summary>
internal readonly record struct NodeTask(
    int Stage,
    WorkCalendar Calendar,
    int Work,
    NodeOffset? Opens,
    NodeOffset? StageOpens,
    NodeOffset? Due,
    bool Required,
    bool DayOne,
    int Done,
    bool Skipped
)
{
    public bool Unfinished => Done == PlanNetwork.NoDay && !Skipped;

    public bool IsMilestone => Work == 0;
}

/// <summary>An offset from the start, or from an anchor that does not move.</summary>
internal sealed record NodeOffset(int? Anchor, int Amount, OffsetUnit Unit)
{
    public int On(int start, WorkCalendar calendar)
    {
        var from = Anchor ?? start;
        return Unit switch
        {
            OffsetUnit.Working => calendar.Add(from, Amount),
            OffsetUnit.Weeks => Day.Clamp(from + 7L * Amount),
            OffsetUnit.Months => Day.AddMonths(from, Amount),
            _ => Day.Clamp((long)from + Amount),
        };
    }
}
