using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Json;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.People;
using Fid.Server.Hires;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

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
            called[kept.Id], called[other.Id], [.. seen.Select(f => new MergedValue(f, left.GetValueOrDefault(f), right.GetValueOrDefault(f)))],
            await db.PersonMerges.Where(m => m.KeptId == kept.PersonId && !m.Undone).OrderByDescending(m => m.At).Select(m => (Guid?)m.Id).FirstOrDefaultAsync(cancellation)));

        async Task<Dictionary<string, string>> ShownAsync(Dictionary<string, JsonElement> values)
        {
            var open = values.Where(v => !SealedText.IsSealed(v.Value)).ToDictionary();
            var display = await RecordReader.DisplayAsync(db, fields, open.Select(v => (v.Key, v.Value)), names, cancellation);
            return values.ToDictionary(v => v.Key, v => display.GetValueOrDefault(v.Key) ?? (SealedText.IsSealed(v.Value) ? SealedText.Shown(v.Value).ToString() : v.Value.ToString()));
        }
    }

    private static async Task<Results<Ok<MergedPeople>, ProblemHttpResult>> Merge(
        Guid id, MergeRequest request, ClaimsPrincipal user, FidDb db, PersonMerging merging, FirmClock clock, CancellationToken cancellation)
    {
        if (Reason.Check(request.Why) is { } reason) return Problems.Invalid(reason);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (await PairAsync(id, request.With, db, cancellation) is not var (kept, other)) return Problems.NotFound();
        if (kept.PersonId == other.PersonId) return Problems.Invalid(new Problem("/with", "self", "These are stints of one person already."));
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        var roles = ShownRecord.RolesOf(user);
        if (request.Take.FirstOrDefault(f => fields.Set.Find(f) is not { } field || field.AccessOf(roles) != FieldAccess.Edit) is { } forbidden)
            return Problems.Invalid(new Problem($"/take/{JsonPointer.Escape(forbidden)}", "read-only", "You may not change this."));
        var merge = await merging.MergeAsync(kept.PersonId, other.PersonId, request.Take, user.Author(clock, "record"), Reason.Clean(request.Why), await clock.TodayAsync(db, cancellation), cancellation);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(new MergedPeople(merge.Id));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Undo(Guid id, ClaimsPrincipal user, FidDb db, PersonMerging merging, FirmClock clock, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (await db.PersonMerges.SingleOrDefaultAsync(m => m.Id == id, cancellation) is not { } merge) return Problems.NotFound();
        if (merge.Undone) return Problems.Conflict("undone-already", "This has been undone already.");
        if (!await merging.UndoAsync(merge, user.Author(clock, "record"), await clock.TodayAsync(db, cancellation), cancellation))
            return Problems.Conflict("changed-since", "A value that was taken over has been changed since. Put it back first.");
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<(Employment, Employment)?> PairAsync(Guid one, Guid other, FidDb db, CancellationToken cancellation) =>
        await db.Employments.AsNoTracking().SingleOrDefaultAsync(e => e.Id == one, cancellation) is { } kept && await db.Employments.AsNoTracking().SingleOrDefaultAsync(e => e.Id == other, cancellation) is { } second
            ? (kept, second) : null;
}

/// <param name="Last">The last merge into this person that can be undone.</param>
public sealed record MergeComparison(string Kept, string Other, MergedValue[] Values, Guid? Last);

/// <summary>A fact both or one of them has, as it is shown.</summary>
public sealed record MergedValue(string Field, string? Kept, string? Other);

/// <param name="With">A stint of the other.</param>
/// <param name="Take">The fields whose value is the other's; the rest stays, and what is empty is filled.</param>
public sealed record MergeRequest(Guid With, string[] Take, string? Why);

public sealed record MergedPeople(Guid Id);
