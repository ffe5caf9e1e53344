using System.Text.Json;
using Fid.Acts.Outbox;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>Moves a hire's first day, and with it the record's first values, what formulas gave for that day, and what others are told.</summary>
public sealed class MoveStart(FidDb db, RecordWriter records, HireNotices notices)
{
    public async Task<ActResult> DoAsync(MoveStartRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Hire))
            return Refusal.Forbidden;
        List<Problem> problems = [.. new[] { CheckDay(request.Start, "/start"), Reason.Check(request.Why) }.OfType<Problem>()];
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        if (request.Version is not { } seen)
            return Refusal.VersionNeeded;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await HireInHand.TakeAsync(db, actor, Actions.Edit, request.Hire, cancellation) is not var (hire, employment, record) || hire.Closed is not null)
            return Refusal.NotFound;
        if (hire.Version != seen)
            return Refusal.ChangedMeanwhile;
        var change = act.Note(
            actor.Author("checklist").Change("start.moved", hire.Id, $"{hire.Start:uuuu-MM-dd} > {request.Start:uuuu-MM-dd}", Reason.Clean(request.Why))
        );
        var moved = await new TemplateUpdates(db).OnMoveAsync(hire.Id, request.Start, actor.Today, cancellation);
        if (employment.End < request.Start && moved.All(m => m.Field != "end_date"))
            return Refusal.Invalid("/start", "after-end", "The record ends before that. Change its end first.");
        var firstValues = moved.ToDictionary(m => m.Field, m => m.After);
        firstValues["start_date"] = JsonSerializer.SerializeToElement(request.Start.ToString("uuuu-MM-dd", null));
        await records.MoveStartAsync(employment, record, request.Start, firstValues, change, actor.Today, cancellation);
        hire.Start = request.Start;
        await notices.TellAsync(hire, record, NoticeKind.StartMoved, change, cancellation);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    /// <summary>What is wrong with a first day; null for nothing.</summary>
    public static Problem? CheckDay(LocalDate day, string pointer) =>
        ValueCheck.IsSensible(day) ? null : new Problem(pointer, "bad-date", "Enter a date from 1900 to 2199.");
}

/// <param name="Start">The new first day.</param>
/// <param name="Version">The version of the hire that was seen.</param>
public sealed record MoveStartRequest(Guid Hire, LocalDate Start, string? Why, uint? Version);
