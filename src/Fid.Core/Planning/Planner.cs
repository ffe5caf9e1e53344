using Fid.Core.Calendars;
using Fid.Core.Texts;
using NodaTime;

namespace Fid.Core.Planning;

/// <summary>Plans checklists: forward from today over everybody's working days, back from the start date and the due dates.</summary>
public static class Planner
{
    /// <summary>How many days from today a soonest start is looked for, both ends included.</summary>
    public const int Horizon = 730;

    /// <summary>
    /// The plan for a question. Problems, with their paths, when a name in it names nothing, an id stands twice, or tasks or
    /// stages wait for each other in a loop (the message names the loop).
    /// </summary>
    /// <param name="question">The question.</param>
    /// <param name="soonest">When to look for <see cref="Plan.SoonestStart"/>, which costs more than all the rest; null otherwise.</param>
    public static Result<Plan> Plan(PlanQuestion question, SoonestSearch soonest = SoonestSearch.Always)
    {
        var (network, problems) = PlanNetwork.Build(question);
        if (network is null)
            return Result<Plan>.Failed([.. problems]);

        var times = new Times(network);
        network.Forward(network.Start, times.EarliestStart, times.EarliestFinish);
        network.Backward(network.Start, times.LatestStart, times.LatestFinish);

        var tasks = new PlannedTask[network.Tasks.Length];
        for (var i = 0; i < tasks.Length; i++)
            tasks[i] = Describe(question.Tasks[i].Id, network, i, times);
        var stages = question.Stages.Select((s, i) => new PlannedStage(s.Id, StateOf(network, i), network.HasOpened(i))).ToArray();
        var feasible = IsFeasible(network, times);
        var search = soonest == SoonestSearch.Always || (soonest == SoonestSearch.WhenNotFeasible && !feasible);
        var soonestStart = search ? SoonestStart(network, times) : null;
        return new Plan(tasks, stages, feasible, soonestStart, ReadinessOf(network), HoldUp(tasks));
    }

    private static PlannedTask Describe(string id, PlanNetwork network, int i, Times times)
    {
        ref readonly var task = ref network.Tasks[i];
        var due = PlanNetwork.DueOf(task, network.Start);
        LocalDate? dueDate = due == PlanNetwork.NoBound ? null : Day.Date(due);
        if (!task.Unfinished)
            return new PlannedTask(id, dueDate, task.Skipped ? TaskState.Skipped : TaskState.Done, null, null, null, null, null, false);

        int earliest = times.EarliestStart[i],
            latest = times.LatestStart[i];
        var bounded = latest != PlanNetwork.NoBound;
        int? slack =
            !bounded ? null
            : earliest <= latest ? task.Calendar.Count(earliest, latest) - 1
            : task.Calendar.Count(earliest, latest) + 1;
        var canStart = network.CanStart(i);
        var state =
            due < network.Today ? TaskState.Late
            : slack < 0 ? TaskState.AtRisk
            : canStart ? TaskState.Ready
            : TaskState.Waiting;
        return new PlannedTask(
            id,
            dueDate,
            state,
            Day.Date(earliest),
            Day.Date(times.EarliestFinish[i]),
            bounded ? Day.Date(latest) : null,
            bounded ? Day.Date(times.LatestFinish[i]) : null,
            slack,
            canStart
        );
    }

    private static StageState StateOf(PlanNetwork network, int stage)
    {
        if (network.IsPassed(stage))
            return StageState.Passed;
        foreach (var gate in network.GatesBefore(stage))
            if (!network.IsPassed(gate))
                return StageState.Closed;
        return StageState.Open;
    }

    private static bool Decides(in NodeTask task) => task is { Required: true, DayOne: true, Unfinished: true };

    private static bool IsFeasible(PlanNetwork network, Times times)
    {
        for (var i = 0; i < network.Tasks.Length; i++)
            if (Decides(network.Tasks[i]) && times.LatestStart[i] < times.EarliestStart[i])
                return false;
        return true;
    }

    // Moving the start later never makes an earliest or a latest start earlier. So no start can be feasible before the first one
    // whose latest starts reach the earliest starts of the start tried last, and a binary search finds that one: the search leaps
    // from one such start to the next and passes over no feasible day, though feasible days need not be in one piece.
    private static LocalDate? SoonestStart(PlanNetwork network, Times times)
    {
        int last = Day.Clamp((long)network.Today + Horizon),
            start = network.Today;
        while (true)
        {
            network.Forward(start, times.EarliestStart, times.EarliestFinish);
            if (Reaches(start))
                return Day.Date(start);
            int tooSoon = start,
                reach = last,
                step = 8;
            while (tooSoon + step < last)
            {
                if (Reaches(tooSoon + step))
                {
                    reach = tooSoon + step;
                    break;
                }
                tooSoon += step;
                step *= 2;
            }
            if (reach == last && (tooSoon >= last || !Reaches(last)))
                return null;
            while (reach - tooSoon > 1)
            {
                var middle = (tooSoon + reach) / 2;
                if (Reaches(middle))
                    reach = middle;
                else
                    tooSoon = middle;
            }
            start = reach;
        }

        bool Reaches(int day) => network.Backward(day, times.LatestStart, times.LatestFinish, needed: times.EarliestStart);
    }

    private static Readiness ReadinessOf(PlanNetwork network)
    {
        int done = 0,
            of = 0;
        foreach (ref readonly var task in network.Tasks.AsSpan())
        {
            if (!task.Required || !task.DayOne || task.Skipped)
                continue;
            of++;
            if (!task.Unfinished)
                done++;
        }
        return new Readiness(done, of);
    }

    private static string? HoldUp(PlannedTask[] tasks)
    {
        PlannedTask? first = null;
        foreach (var task in tasks)
            if (task is { CanStart: true, Slack: not null } && (first is null || Urgency(task, first) < 0))
                first = task;
        return first?.Id;
    }

    private static int Urgency(PlannedTask a, PlannedTask b)
    {
        if (a.Slack != b.Slack)
            return a.Slack!.Value.CompareTo(b.Slack!.Value);
        if (a.Due != b.Due)
            return (a.Due ?? LocalDate.MaxIsoValue).CompareTo(b.Due ?? LocalDate.MaxIsoValue);
        return CodePointOrder.Instance.Compare(a.Id, b.Id);
    }

    private sealed class Times(PlanNetwork network)
    {
        public readonly int[] EarliestStart = new int[network.NodeCount];
        public readonly int[] EarliestFinish = new int[network.NodeCount];
        public readonly int[] LatestStart = new int[network.NodeCount];
        public readonly int[] LatestFinish = new int[network.NodeCount];
    }
}

/// <summary>When to look for the soonest start.</summary>
public enum SoonestSearch
{
    /// <summary>For every plan.</summary>
    Always,

    /// <summary>Only for a plan that is not feasible as it stands.</summary>
    WhenNotFeasible,

    /// <summary>Not at all.</summary>
    Never,
}
