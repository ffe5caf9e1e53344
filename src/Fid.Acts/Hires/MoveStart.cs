using System.Text.Json;
using Fid.Acts.Outbox;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Exchange;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>Moves the day a checklist is planned around. With a first day move the record's first values, what formulas gave for that day, and
/// what others are told; with the day of a change of job or a leaving what the record says of it.</summary>
public sealed class MoveStart(FidDb db, RecordWriter records, HireNotices notices, OccasionRecord occasionRecord)
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
        var (author, why) = (actor.Author("checklist"), Reason.Clean(request.Why));
        var change = act.Note(author.Change("start.moved", hire.Id, $"{hire.Start:uuuu-MM-dd} > {request.Start:uuuu-MM-dd}", why));
        if (hire.Occasion != Occasion.Arrival)
        {
            if (OpenChecklist.CheckDay(hire.Occasion, request.Start, employment) is { } wrong)
                return Refusal.Invalid(wrong with { Path = "/start" });
            var clash = await occasionRecord.MoveAsync(
                new HireInHand(hire, employment, record),
                request.Start,
                new ActAuthor(author, why, actor.Today),
                cancellation
            );
            if (clash.Count > 0)
                return Refusal.Invalid([.. clash.Select(c => c with { Path = "/start" })]);
            // A leaving goes with the last day that the record says: the database sees to that.
            if (hire.Occasion == Occasion.JobChange)
                hire.Start = request.Start;
            await act.CommitAsync(cancellation);
            return ActResult.Done;
        }
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

/// <param name="Start">The new day.</param>
/// <param name="Version">The version of the hire that was seen.</param>
public sealed record MoveStartRequest(Guid Hire, LocalDate Start, string? Why, uint? Version);
