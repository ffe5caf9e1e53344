using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Json;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.Hires;
using Fid.Data.People;
using Fid.Server.Hires;
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
        app.MapGet("/api/people/{id:guid}/merge", Compare).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404);
        app.MapPost("/api/people/{id:guid}/merge", Merge).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        app.MapDelete("/api/people/merges/{id:guid}", Undo).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409);
    }

    /// <summary>What two people have, fact by fact, as far as the reader may see it.</summary>
    private static async Task<Results<Ok<MergeComparison>, ProblemHttpResult>> Compare(
        Guid id, Guid with, ClaimsPrincipal user, FidDb db, PersonMerging merging, FirmClock clock, CancellationToken cancellation)
    {
        if (await PairAsync(id, with, db, cancellation) is not var (kept, other)) return Problems.NotFound();
        if (kept.PersonId == other.PersonId) return Problems.Invalid(new Problem("/with", "self", "These are stints of one person already."));
        var today = await clock.TodayAsync(db, cancellation);
        var reader = await Reader.OfAsync(user, db, cancellation);
        var fields = reader.Fields;
        var (mine, theirs) = (await merging.ValuesAsync(kept.PersonId, today, cancellation), await merging.ValuesAsync(other.PersonId, today, cancellation));
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var called = await PeopleNames.LoadAsync(db, [kept.Id, other.Id], reader.SeesNames, cancellation);
        var seen = fields.Set.Fields.Where(f => reader.Sees(f.Key) && (mine.ContainsKey(f.Key) || theirs.ContainsKey(f.Key))).Select(f => f.Key).ToList();
        var (left, right) = (await ShownAsync(mine), await ShownAsync(theirs));
        return TypedResults.Ok(new MergeComparison(
            called[kept.Id], called[other.Id], await StintsAsync(kept.PersonId, reader, names, db, today, cancellation), await StintsAsync(other.PersonId, reader, names, db, today, cancellation), [.. seen.Select(f => new MergedValue(f, left.GetValueOrDefault(f), right.GetValueOrDefault(f)))],
            await db.PersonMerges.Where(m => m.KeptId == kept.PersonId && !m.Undone).OrderByDescending(m => m.At).Select(m => (Guid?)m.Id).FirstOrDefaultAsync(cancellation)));

        async Task<Dictionary<string, string>> ShownAsync(Dictionary<string, JsonElement> values)
        {
            var open = values.Where(v => !SealedText.IsSealed(v.Value)).ToDictionary();
            var display = await RecordReader.DisplayAsync(db, fields, open.Select(v => (v.Key, v.Value)), names, cancellation);
            return values.ToDictionary(v => v.Key, v => display.GetValueOrDefault(v.Key) ?? (SealedText.IsSealed(v.Value) ? SealedText.Shown(v.Value).ToString() : v.Value.ToString()));
        }
    }

    // What tells the two apart where they have one name, and what will remain of both.
    private static async Task<MergedStint[]> StintsAsync(Guid person, Reader reader, ListNames names, FidDb db, LocalDate today, CancellationToken cancellation)
    {
        var facts = new SeenFacts(reader, names);
        var stints = await (from e in db.Employments
                            join r in db.RecordsNow on e.Id equals r.EmploymentId
                            where e.PersonId == person
                            orderby e.Start descending
                            select new { Employment = e, r.JobCode, Hire = db.Hires.Where(h => h.EmploymentId == e.Id && h.Closed == null).Select(h => (Guid?)h.Id).FirstOrDefault() }).AsNoTracking().ToListAsync(cancellation);
        return [.. stints.Select(s => new MergedStint(s.Employment.Number, facts.Job(s.JobCode), s.Employment.Start, facts.End ? s.Employment.End : null, s.Employment.GoesOn(today), s.Hire))];
    }

    private static async Task<Results<Ok<MergedPeople>, ProblemHttpResult>> Merge(
        Guid id, MergeRequest request, ClaimsPrincipal user, FidDb db, PersonMerging merging, RecordWriter records, HireClosing closing, FirmClock clock, CancellationToken cancellation)
    {
        if (Reason.Check(request.Why) is { } reason) return Problems.Invalid(reason);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (await PairAsync(id, request.With, db, cancellation) is not var (kept, other)) return Problems.NotFound();
        if (kept.PersonId == other.PersonId) return Problems.Invalid(new Problem("/with", "self", "These are stints of one person already."));
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        var roles = ShownRecord.RolesOf(user);
        if (request.Take.FirstOrDefault(f => fields.Set.Find(f) is not { } field || field.AccessOf(roles) != FieldAccess.Edit) is { } forbidden)
            return Problems.Invalid(new Problem($"/take/{JsonPointer.Escape(forbidden)}", "read-only", "You may not change this."));
        var (author, today, why) = (user.Author(clock, "record"), await clock.TodayAsync(db, cancellation), Reason.Clean(request.Why));
        Guid[] people = [kept.PersonId, other.PersonId];
        var closed = request.Close ?? [];
        var open = await db.Hires.Where(h => h.Closed == null && db.Employments.Any(e => e.Id == h.EmploymentId && people.Contains(e.PersonId))).Select(h => h.Id).ToListAsync(cancellation);
        for (var i = 0; i < closed.Length; i++)
            if (!open.Contains(closed[i])) return Problems.Invalid(new Problem($"/close/{i}", "not-open", "This hire is not under way. Look at what is there now."));
        var merge = await merging.MergeAsync(kept.PersonId, other.PersonId, request.Take, author, why, today, cancellation);
        foreach (var hire in closed.Distinct())
        {
            var change = author.Change("hire.withdrawn", hire, null, why);
            db.Changes.Add(change);
            await closing.CloseAsync((await Outcomes.LoadAsync(hire, db, records, cancellation))!.Value, HireOutcome.Withdrawn, why ?? EnteredTwice, change, today, cancellation);
        }
        merge.ClosedHires = [.. closed.Distinct()];
        await db.SaveChangesAsync(cancellation);
        // Of a person who is here, or coming, something has to go on.
        if (closed.Length > 0 && !await Employment.AnyGoesOnAsync(db, kept.PersonId, today, null, cancellation))
            return Problems.Invalid(new Problem($"/close/{closed.Length - 1}", "nothing-left", "Then nothing of this person would go on. Leave one hire or stint open."));
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(new MergedPeople(merge.Id));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Undo(
        Guid id, ClaimsPrincipal user, FidDb db, PersonMerging merging, RecordWriter records, HireClosing closing, FirmClock clock, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (await db.PersonMerges.SingleOrDefaultAsync(m => m.Id == id, cancellation) is not { } merge) return Problems.NotFound();
        if (merge.Undone) return Problems.Conflict("undone-already", "This has been undone already.");
        var (author, today) = (user.Author(clock, "record"), await clock.TodayAsync(db, cancellation));
        if (!await merging.UndoAsync(merge, author, today, cancellation))
            return Problems.Conflict("changed-since", "A value that was taken over has been changed since. Put it back first.");
        foreach (var hire in merge.ClosedHires)
        {
            var what = (await Outcomes.LoadAsync(hire, db, records, cancellation))!.Value;
            // Somebody may have gone on with it, or closed it for another reason, in the meantime.
            if (what.Hire.Outcome != HireOutcome.Withdrawn) continue;
            var change = author.Change("hire.wentOn", hire);
            db.Changes.Add(change);
            await closing.GoOnAsync(what, change, today, cancellation);
        }
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    private const string EnteredTwice = "Entered twice";

    private static async Task<(Employment, Employment)?> PairAsync(Guid one, Guid other, FidDb db, CancellationToken cancellation) =>
        await db.Employments.AsNoTracking().SingleOrDefaultAsync(e => e.Id == one, cancellation) is { } kept && await db.Employments.AsNoTracking().SingleOrDefaultAsync(e => e.Id == other, cancellation) is { } second
            ? (kept, second) : null;
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
