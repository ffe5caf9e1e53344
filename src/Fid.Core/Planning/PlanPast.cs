using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Planning;

/// <summary>How the tasks of a checklist came to be done: what is to be known of each to tell what took long.</summary>
public static class PlanPast
{
    /// <summary>Looks back at every task of a question, in its order.</summary>
    /// <param name="question">The checklist as it came to be; its today is the day from which one looks back.</param>
    /// <param name="known">The day on which the checklist was made: before it there was nothing to do.</param>
    /// <returns>The problems of a question that cannot be planned.</returns>
    public static Result<IReadOnlyList<PastTask>> Of(PlanQuestion question, LocalDate known)
    {
        var (network, problems) = PlanNetwork.Build(question);
        if (network is null)
            return Result<IReadOnlyList<PastTask>>.Failed([.. problems]);
        // By when each had to be finished says the plan as it was made: with all of them still to be done.
        var (made, _) = PlanNetwork.Build(question with { Tasks = [.. question.Tasks.Select(t => t with { Done = null })] });
        var (latestStart, latestFinish) = (new int[network.NodeCount], new int[network.NodeCount]);
        made!.Backward(made.Start, latestStart, latestFinish);
        var from = Day.Number(known);
        var past = new PastTask[question.Tasks.Count];
        for (var i = 0; i < past.Length; i++)
        {
            var task = question.Tasks[i];
            var possible = task.Skipped ? PlanNetwork.NoBound : network.PossibleSince(i, from);
            past[i] =
                possible == PlanNetwork.NoBound
                    ? new PastTask(task.Id, null, false)
                    // What could not have been finished in time was held up itself, or nobody knew of it yet.
                    : new PastTask(
                        task.Id,
                        Day.Date(possible),
                        task.Done is { } done && Day.Number(done) > latestFinish[i] && FinishOf(network.Tasks[i], possible) <= latestFinish[i]
                    );
        }
        return past;

        static int FinishOf(in NodeTask task, int begun) => task.Work <= 1 ? begun : task.Calendar.Add(begun, task.Work - 1);
    }
}

/// <summary>A task, looked back at.</summary>
/// <param name="Possible">The working day from which it could be worked on, whether or not it was done since; null where it could not yet, or does
/// not apply.</param>
/// <param name="HeldUp">Whether it was finished after the last day on which nothing else would have been late for it, although it could have been
/// finished by then.</param>
public sealed record PastTask(string Id, LocalDate? Possible, bool HeldUp);
