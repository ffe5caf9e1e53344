using System.Text.Json;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Revisions;

/// <summary>Changes the rates of a group by a rule from a day on, all or none.</summary>
public sealed class RevisePay(FidDb db, RecordWriter records)
{
    public async Task<ActResult> DoAsync(RevisePayRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Revise, Things.Pay))
            return Refusal.Forbidden;
        if (Reason.Require(request.Why, "Say why pay is revised: it stands in everybody's history.", out var why) is { } reason)
            return Refusal.Invalid(reason);
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await db.PayRevisionRuns.AnyAsync(r => r.Id == request.Id, cancellation))
            return Refusal.Conflict("done-already", "This revision was made already. Look at those that were made.");
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var read = await RevisionReading.LoadAsync(db, reader, request.Question, actor.Today, cancellation);
        if (read.Answer is not { } before)
            return Refusal.Invalid(read.Problems);
        Guid[] raised = [.. before.Raised.Select(r => r.Person.Employment.Id)];
        if (raised.Length == 0)
            return Refusal.Conflict("nothing-to-do", "Nobody would be paid more. Choose another group or rule.");
        if (before.Version != request.Seen)
            return Refusal.ChangedMeanwhile;
        await Locks.RecordsAsync(db, raised, cancellation);
        // What was saved before the records were held shows now.
        if ((await RevisionReading.LoadAsync(db, reader, request.Question, actor.Today, cancellation)).Answer is not { } now || now.Version != request.Seen)
            return Refusal.ChangedMeanwhile;

        var author = actor.Author("revision");
        db.PayRevisionRuns.Add(RunOf(request, now, author, why));
        if (await SaveAsync(request, now, author, why, actor, cancellation) is { Count: > 0 } problems)
            return Refusal.Invalid(problems);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private static PayRevisionRun RunOf(RevisePayRequest request, RevisionPreview now, Author author, string why) =>
        new()
        {
            Id = request.Id,
            At = author.At,
            ByName = author.Name,
            From = request.Question.From,
            Why = why,
            Group = request.Question.Group,
            Percent = request.Question.Rule.Percent,
            AtLeastHourly = request.Question.Rule.AtLeastHourly,
            UpToBand = request.Question.Rule.UpToBand,
            Budget = now.Pay.Budget,
            Employments = [.. now.Raised.Select(r => r.Person.Employment.Id)],
        };

    private async Task<IReadOnlyList<Problem>> SaveAsync(
        RevisePayRequest request,
        RevisionPreview now,
        Author author,
        string why,
        Actor actor,
        CancellationToken cancellation
    )
    {
        foreach (var some in now.Raised.Chunk(RecordRun.SavedAtOnce))
        {
            var (employments, current) = await records.ReadAsync(some.Select(r => r.Person.Employment.Id), cancellation);
            var edits = new List<RecordEdit>();
            foreach (var (person, pay) in some)
            {
                var id = person.Employment.Id;
                var change = author.Change("record.changed", id, request.Id.ToString(), why);
                var rate = new FieldEdit("pay_rate", JsonSerializer.SerializeToElement(pay.After), Layer.Typed, request.Question.From);
                db.Changes.Add(change);
                edits.Add(new RecordEdit(employments[id], current[id], [rate], change));
            }
            var problems = await records.SaveAsync(edits, actor.Today, cancellation);
            if (problems.Count > 0)
                return [.. problems.Select(p => p.Problem with { Path = $"/people/{edits[p.Record].Employment.Number}{p.Problem.Path}" })];
            await db.SaveManyAsync(cancellation);
            db.ChangeTracker.Clear();
        }
        return [];
    }
}

/// <param name="Id">The revision, named by the user who makes it: made twice, it is there once.</param>
/// <param name="Why">Why pay is revised; null and empty are refused.</param>
/// <param name="Seen">The version of the preview that was seen.</param>
public sealed record RevisePayRequest(Guid Id, RevisionQuestion Question, string? Why, string Seen);
