using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Merging;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Two records found to be one person: compared, made one, parted again.</summary>
internal static class MergeEndpoints
{
    public static void MapMerging(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/people/{id:guid}/merge", Compare).WhoMay(Actions.Merge, Things.Record).ProducesProblem(400).ProducesProblem(404);
        app.MapPost("/api/people/{id:guid}/merge", Merge).WhoMay(Actions.Merge, Things.Record).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        app.MapDelete("/api/people/merges/{id:guid}", Undo).WhoMay(Actions.Merge, Things.Record).ProducesProblem(404).ProducesProblem(409);
    }

    /// <summary>What two people have, fact by fact, as far as the reader may see it.</summary>
    private static async Task<Results<Ok<MergeComparison>, ProblemHttpResult>> Compare(
        Guid id,
        Guid with,
        Actor actor,
        FidDb db,
        PersonMerging merging,
        CancellationToken cancellation
    )
    {
        if (
            await MergePeople.PairAsync(db, id, with, cancellation) is not var (kept, other)
            || !await MergePeople.MayAsync(db, actor, [kept.PersonId, other.PersonId], cancellation)
        )
            return Problems.NotFound();
        if (kept.PersonId == other.PersonId)
            return Problems.Invalid(new Problem("/with", "self", "These are stints of one person already."));
        var today = actor.Today;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var fields = reader.Fields;
        var (mine, theirs) = (await merging.ValuesAsync(kept.PersonId, today, cancellation), await merging.ValuesAsync(other.PersonId, today, cancellation));
        var names = await ListNames.EntriesAsync(db, cancellation, reader.SeesNames);
        var called = await PeopleNames.LoadAsync(db, [kept.Id, other.Id], reader.SeesNames, cancellation);
        var seen = fields.Set.Fields.Where(f => reader.Sees(f.Key) && (mine.ContainsKey(f.Key) || theirs.ContainsKey(f.Key))).Select(f => f.Key).ToList();
        var (left, right) = (await ShownAsync(mine), await ShownAsync(theirs));
        return TypedResults.Ok(
            new MergeComparison(
                called[kept.Id],
                called[other.Id],
                await StintsAsync(kept.PersonId, reader, names, db, today, cancellation),
                await StintsAsync(other.PersonId, reader, names, db, today, cancellation),
                [.. seen.Select(f => new MergedValue(f, left.GetValueOrDefault(f), right.GetValueOrDefault(f)))],
                await db
                    .PersonMerges.Where(m => m.KeptId == kept.PersonId && !m.Undone)
                    .OrderByDescending(m => m.At)
                    .Select(m => (Guid?)m.Id)
                    .FirstOrDefaultAsync(cancellation)
            )
        );

        async Task<Dictionary<string, string>> ShownAsync(Dictionary<string, JsonElement> values)
        {
            var open = values.Where(v => !SealedText.IsSealed(v.Value)).ToDictionary();
            var display = await RecordReader.DisplayAsync(db, fields, open.Select(v => (v.Key, v.Value)), names, cancellation);
            return values.ToDictionary(
                v => v.Key,
                v => display.GetValueOrDefault(v.Key) ?? (SealedText.IsSealed(v.Value) ? SealedText.Shown(v.Value).ToString() : v.Value.ToString())
            );
        }
    }

    // What tells the two apart where they have one name, and what will remain of both.
    private static async Task<MergedStint[]> StintsAsync(Guid person, Reader reader, ListNames names, FidDb db, LocalDate today, CancellationToken cancellation)
    {
        var facts = new VisibleFacts(reader, names);
        var stints = await (
            from e in db.Employments
            join r in db.CurrentRecords on e.Id equals r.EmploymentId
            where e.PersonId == person
            orderby e.Start descending
            select new
            {
                Employment = e,
                r.JobCode,
                Hire = db.Hires.Where(h => h.EmploymentId == e.Id && h.Closed == null).Select(h => (Guid?)h.Id).FirstOrDefault(),
            }
        )
            .AsNoTracking()
            .ToListAsync(cancellation);
        return
        [
            .. stints.Select(s => new MergedStint(
                s.Employment.Number,
                facts.Job(s.JobCode),
                s.Employment.Start,
                facts.End ? s.Employment.End : null,
                s.Employment.Stint.GoesOn(today),
                s.Hire
            )),
        ];
    }

    private static async Task<Results<Ok<MergedPeople>, ProblemHttpResult>> Merge(
        Guid id,
        MergeRequest request,
        Actor actor,
        MergePeople merge,
        CancellationToken cancellation
    ) =>
        (await merge.DoAsync(new MergePeopleRequest(id, request.With, request.Take, request.Why, request.Close ?? []), actor, cancellation)).IsDone(
            out var made,
            out var refusal
        )
            ? TypedResults.Ok(new MergedPeople(made))
            : Problems.Of(refusal);

    private static async Task<Results<NoContent, ProblemHttpResult>> Undo(Guid id, Actor actor, PartPeople part, CancellationToken cancellation) =>
        (await part.DoAsync(new PartPeopleRequest(id), actor, cancellation)).Answer();
}

/// <param name="KeptStints">The stints of the one, the latest first.</param>
/// <param name="OtherStints">The stints of the other.</param>
/// <param name="Last">The last merge into this person that can be undone.</param>
public sealed record MergeComparison(string Kept, string Other, MergedStint[] KeptStints, MergedStint[] OtherStints, MergedValue[] Values, Guid? Last);

/// <summary>A stint of somebody who is to be one with another.</summary>
/// <param name="GoesOn">Whether it goes on today, or is to come.</param>
/// <param name="HireId">Its hire, while that is under way.</param>
public sealed record MergedStint(string Number, string? Job, LocalDate Start, LocalDate? End, bool GoesOn, Guid? HireId);

/// <summary>A fact both or one of them has, as it is shown.</summary>
public sealed record MergedValue(string Field, string? Kept, string? Other);

/// <param name="With">A stint of the other.</param>
/// <param name="Take">The fields whose value is the other's; the rest stays, and what is empty is filled.</param>
/// <param name="Close">The hires that are closed with it, since the person was entered twice; none where left out.</param>
public sealed record MergeRequest(Guid With, string[] Take, string? Why, Guid[]? Close = null);

public sealed record MergedPeople(Guid Id);
