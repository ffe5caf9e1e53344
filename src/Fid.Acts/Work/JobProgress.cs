namespace Fid.Acts.Work;

/// <summary>How far the job of a scope has come. What is done outside a job tells nobody.</summary>
public sealed class JobProgress
{
    /// <summary>Hears of it: how many things are done, and of how many; null where nobody does.</summary>
    public Func<int, int, Task>? Heard { get; set; }

    public Task ReportAsync(int done, int of) => Heard?.Invoke(done, of) ?? Task.CompletedTask;
}
