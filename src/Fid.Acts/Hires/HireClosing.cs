using Fid.Acts.Outbox;
using Fid.Acts.People;
using Fid.Core.People;
using Fid.Data.Changes;
using Fid.Data.Exchange;
using Fid.Data.Hires;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>Closes hires that come to nothing.</summary>
public sealed class HireClosing(RecordWriter records, HireNotices notices)
{
    // Before the reason of a task that was cancelled with its hire: tells it from one given for the task alone.
    private const string Mark = "⊘ ";

    /// <summary>Closes a hire: its open tasks are cancelled, its stint ends before it began, and other systems are told. Nothing is saved yet.</summary>
    public async Task CloseAsync(HireInHand what, HireOutcome outcome, string why, Change change, LocalDate today, CancellationToken cancellation)
    {
        var (hire, employment, record) = what;
        Cancel(hire, outcome, why, today);
        // A stint that never was: from its first day on they are nobody's colleague.
        employment.End = new Stint(hire.Start, employment.End).CameToNothing(today).End;
        await records.RefreshAsync(employment, record, change.At, today, cancellation);
        await notices.TellAsync(hire, record, outcome == HireOutcome.NoShow ? NoticeKind.NoShow : NoticeKind.Withdrawn, change, cancellation);
    }

    /// <summary>Cancels what is open of a checklist that comes to nothing. Nothing is saved yet.</summary>
    internal static void Cancel(Hire hire, HireOutcome outcome, string why, LocalDate today)
    {
        foreach (var task in hire.Tasks.Where(t => t.Done is null && t.SkippedWhy is null))
            task.SkippedWhy = Cancelled(why);
        (hire.Closed, hire.Outcome, hire.OutcomeWhy) = (today, outcome, why);
    }

    /// <summary>Opens again what was cancelled with a checklist. Nothing is saved yet.</summary>
    internal static void TakeCancellationBack(Hire hire)
    {
        foreach (var task in hire.Tasks.Where(t => t.SkippedWhy == Cancelled(hire.OutcomeWhy!)))
            task.SkippedWhy = null;
        (hire.Closed, hire.Outcome, hire.OutcomeWhy) = (null, null, null);
    }

    /// <summary>Goes on with a hire that had come to nothing: what was cancelled with it is open again. Tracked and saved as in <see
    /// cref="CloseAsync"/>.</summary>
    public async Task GoOnAsync(HireInHand what, Change change, LocalDate today, CancellationToken cancellation)
    {
        var (hire, employment, record) = what;
        TakeCancellationBack(hire);
        employment.End = null;
        await records.RefreshAsync(employment, record, change.At, today, cancellation);
        await notices.TellAsync(hire, record, NoticeKind.WentOn, change, cancellation);
    }

    /// <summary>The reason that a task has which was cancelled with its hire.</summary>
    public static string Cancelled(string why) =>
        Mark + why is var marked && marked.Length > HireTask.LongestReason ? marked[..HireTask.LongestReason] : marked;
}
