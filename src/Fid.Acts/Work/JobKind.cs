using NodaTime;

namespace Fid.Acts.Work;

/// <summary>A kind of job: what Fid does by itself.</summary>
/// <param name="Name">What jobs of this kind are called in the queue.</param>
/// <param name="Every">For what is done again and again, the time between the end of one run and the next; null for what is done once.</param>
/// <param name="Lane">With which others it is done in turn.</param>
/// <param name="DoAsync">Does a job with its argument, as Fid itself, and says how many things were done. It may be cut off and done
/// again at any moment. A failure is an exception.</param>
public sealed record JobKind(string Name, Duration? Every, JobLane Lane, Func<IServiceProvider, string?, Actor, CancellationToken, Task<int>> DoAsync)
{
    /// <summary>How often a job that is done once is mostly tried before it waits for somebody.</summary>
    public const int MostTries = 8;

    /// <summary>How often jobs of this kind are tried, where they are done once.</summary>
    public int Tries { get; init; } = MostTries;

    /// <summary>Whether a run that found nothing to do is kept among those that ran, where it is done once.</summary>
    public bool KeepsIdle { get; init; } = true;

    private static readonly Duration FirstPause = Duration.FromSeconds(1),
        LongestPause = Duration.FromHours(1);

    /// <summary>How long to wait before a job is tried again.</summary>
    /// <param name="tries">How often it was tried in vain, from 1.</param>
    public static Duration PauseAfter(int tries) => DoublingPause.After(FirstPause, tries - 1, LongestPause);

    /// <summary>An act as a job: one that is refused has failed.</summary>
    public static int Handled(ActResult<int> result) =>
        result.IsDone(out var handled, out var refusal) ? handled : throw new InvalidOperationException(refusal.Message);
}

/// <summary>Jobs that are done in turn. What takes long keeps only its own kind waiting.</summary>
public enum JobLane
{
    /// <summary>Short work.</summary>
    Short,

    /// <summary>Sheets, which take as long as they are.</summary>
    Sheets,

    /// <summary>Mail, which waits for somebody else's server.</summary>
    Mail,
}
