using System.Security.Claims;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Exchange;

/// <summary>Filling lists from spreadsheets: upload, match, look at what every row would do, commit, undo.</summary>
internal static class ImportsEndpoints
{
    private const int MostShown = 200;

    public static void MapImports(this IEndpointRouteBuilder app)
    {
        var imports = app.MapGroup("/api/imports");
        imports.MapGet("/targets", Targets).WhoMay(Access.Coordinates);
        imports.MapGet("", Index).WhoMay(Access.Coordinates);
        imports.MapPost("", Upload).WhoMay(Access.Coordinates).RequireRateLimiting(FidServer.Costly).WithMetadata(new LargeBody(SheetFile.LargestFile)).ProducesProblem(400).ProducesProblem(404).ProducesProblem(413);
        imports.MapGet("/{id:guid}", Show).WhoMay(Access.Coordinates).ProducesProblem(404);
        imports.MapPut("/{id:guid}/matching", Match).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        imports.MapImportRows();
        imports.MapPost("/{id:guid}/commit", Commit).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409);
        imports.MapPost("/{id:guid}/undo", Undo).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409);
        imports.MapDelete("/{id:guid}", Drop).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409);
        app.MapSheets();
    }

    private static async Task<Ok<ImportResponse[]>> Index(FidDb db, CancellationToken cancellation) =>
        TypedResults.Ok((await db.ImportRuns.AsNoTracking().Where(r => r.State != ImportState.Dropped).OrderByDescending(r => r.At).Take(MostShown).ToListAsync(cancellation)).Select(ImportResponse.Of).ToArray());

    /// <summary>What sheets can go into.</summary>
    private static async Task<Ok<ImportTargetResponse[]>> Targets(ClaimsPrincipal user, ImportTargets targets, CancellationToken cancellation) =>
        TypedResults.Ok(ShippedLists.All.Prepend((await targets.PeopleAsync(user.Id(), cancellation)).Definition)
            .Select(l => new ImportTargetResponse(l.Key, l.Label, l.About, l.HasNames, [.. l.Columns.Select(ColumnResponse.Of)])).ToArray());

    /// <summary>Takes a file, or cells that were pasted, as the body. Everything else happens in the background.</summary>
    private static async Task<Results<Created<ImportResponse>, ProblemHttpResult>> Upload(
        string list, string? fileName, HttpRequest request, ClaimsPrincipal user, FidDb db, ImportFiles files, SheetSeals seals, ImportTargets targets, ImportWorker worker, FirmClock clock, CancellationToken cancellation)
    {
        if (await targets.FindAsync(list, user.Id(), cancellation) is null) return Problems.Invalid(new Problem("/list", "unknown-list", "Choose a list."));
        if (request.ContentLength > SheetFile.LargestFile) return TooLarge();
        var name = TextRules.TryClean(fileName ?? "", out var clean) && clean.Length is > 0 and <= 200 ? clean : "sheet";
        var author = user.Author(clock, "exchange");
        var run = new ImportRun { List = list, FileName = name, Size = 0, At = author.At, ById = user.Id(), ByName = author.Name, State = ImportState.Dropped, SealedKey = seals.Make() };
        db.ImportRuns.Add(run);
        await db.SaveChangesAsync(cancellation);
        long? size;
        try
        {
            size = await files.KeepAsync(run, request.Body, cancellation);
        }
        catch (BadHttpRequestException e) when (e.StatusCode == StatusCodes.Status413PayloadTooLarge)
        {
            size = null;
        }
        if (size is null or 0)
        {
            db.ImportRuns.Remove(run);
            await db.SaveChangesAsync(CancellationToken.None);
            return size is null ? TooLarge() : Problems.Invalid(new Problem("", "missing", "The file is empty. Choose another."));
        }
        await db.ImportRuns.Where(r => r.Id == run.Id).ExecuteUpdateAsync(s => s.SetProperty(r => r.Size, size.Value).SetProperty(r => r.State, ImportState.Reading), cancellation);
        worker.Wake();
        return TypedResults.Created($"/api/imports/{run.Id}", ImportResponse.Of(await db.ImportRuns.AsNoTracking().SingleAsync(r => r.Id == run.Id, cancellation)));
    }

    private static ProblemHttpResult TooLarge() => Problems.Make(
        StatusCodes.Status413PayloadTooLarge, "file-too-large", $"A file may have at most {SheetFile.LargestFile / 1_000_000} MB. Split it, or take away what is not needed.");

    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Show(Guid id, ClaimsPrincipal user, FidDb db, CancellationToken cancellation) =>
        await FindAsync(id, user, db, cancellation) is { } run ? TypedResults.Ok(ImportResponse.Of(run)) : Problems.NotFound();

    /// <summary>Says which column is which, and how dates and numbers are written; all rows are checked anew.</summary>
    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Match(
        Guid id, MatchingRequest request, ClaimsPrincipal user, FidDb db, ImportTargets targets, ImportWorker worker, CancellationToken cancellation)
    {
        if (await FindAsync(id, user, db, cancellation) is not { } run) return Problems.NotFound();
        var list = (await targets.OfAsync(run, cancellation)).Definition;
        if (request.Columns.Length != run.Headers.Length) return Problems.Invalid(new Problem("/columns", "bad-value", "Say for every column what it is, or that it is left out."));
        var used = new HashSet<string>();
        for (var i = 0; i < request.Columns.Length; i++)
        {
            var key = request.Columns[i];
            if (key.Length == 0) continue;
            if (!list.Takes(key))
                return Problems.Invalid(new Problem($"/columns/{i}", "unknown-column", "The list has no such column."));
            if (!used.Add(key)) return Problems.Invalid(new Problem($"/columns/{i}", "duplicate-column", "Another column is matched to this already. Leave one of them out."));
        }
        if (request.HoldsFrom is { } from && (list.HasNames || !ValueCheck.IsSensible(from))) return Problems.Invalid(new Problem("/holdsFrom", "bad-date", "Enter a date from 1900 to 2199."));
        if (!await MoveAsync(db, id, ImportState.Ready, s => s
            .SetProperty(r => r.HoldsFrom, request.HoldsFrom)
            .SetProperty(r => r.Columns, request.Columns)
            .SetProperty(r => r.MatchedBy, run.Columns.Zip(request.Columns, run.MatchedBy).Select(t => t.First == t.Second ? t.Third : t.Second.Length > 0 ? nameof(MatchedBy.Hand) : nameof(MatchedBy.Nothing)).ToArray())
            .SetProperty(r => r.Dates, request.Dates == null ? null : request.Dates.ToString())
            .SetProperty(r => r.AskDates, false)
            .SetProperty(r => r.Decimal, request.Decimal == "," ? "," : ".")
            .SetProperty(r => r.EmptyClears, request.EmptyClears)
            .SetProperty(r => r.Failure, (string?)null).SetProperty(r => r.Done, 0)
            .SetProperty(r => r.State, ImportState.Checking), cancellation))
            return NotNow();
        worker.Wake();
        return await ShowAsync(db, id, cancellation);
    }

    /// <summary>Puts all rows, or only the good ones, into the list, in one transaction.</summary>
    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Commit(
        Guid id, CommitRequest request, ClaimsPrincipal user, FidDb db, ImportWorker worker, CancellationToken cancellation)
    {
        if (await FindAsync(id, user, db, cancellation) is not { } run) return Problems.NotFound();
        if (run.State == ImportState.Ready)
        {
            if (run.AskDates) return Problems.Conflict("dates-ambiguous", "Say first whether the day or the month comes first in the dates.");
            if (run.Wrong > 0 && !request.OnlyGood) return Problems.Conflict("rows-wrong", $"{run.Wrong} rows are not right. Mend them, or take only the good ones.");
            if (run.New + run.Changed == 0) return Problems.Conflict("nothing-to-do", "No row would change anything.");
        }
        if (!await MoveAsync(db, id, ImportState.Ready, s => s.SetProperty(r => r.OnlyGood, request.OnlyGood).SetProperty(r => r.Failure, (string?)null).SetProperty(r => r.Done, 0)
            .SetProperty(r => r.State, ImportState.Committing), cancellation)) return NotNow();
        worker.Wake();
        return await ShowAsync(db, id, cancellation);
    }

    private static async Task<Results<Ok<ImportResponse>, ProblemHttpResult>> Undo(Guid id, ClaimsPrincipal user, FidDb db, ImportWorker worker, CancellationToken cancellation)
    {
        if (await FindAsync(id, user, db, cancellation) is not { } run) return Problems.NotFound();
        if (run.SealedKey is null) return Problems.Conflict("too-late", $"An import can be undone for {ImportRetention.Kept.Days} days. Change by hand what is not right.");
        if (!await MoveAsync(db, id, ImportState.Committed, s => s.SetProperty(r => r.Failure, (string?)null).SetProperty(r => r.State, ImportState.Undoing), cancellation)) return NotNow();
        worker.Wake();
        return await ShowAsync(db, id, cancellation);
    }

    /// <summary>Gives up an import that was not committed, also while it is being read. Its file and rows go.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Drop(Guid id, ClaimsPrincipal user, FidDb db, ImportWorker worker, CancellationToken cancellation)
    {
        if (await FindAsync(id, user, db, cancellation) is null) return Problems.NotFound();
        // Whoever reads it sees that it was dropped, stops, and takes it away.
        if (await db.ImportRuns.Where(r => r.Id == id && (r.State == ImportState.Reading || r.State == ImportState.Checking)).ExecuteUpdateAsync(s => s.SetProperty(r => r.State, ImportState.Dropped), cancellation) > 0)
        {
            worker.Wake();
            return TypedResults.NoContent();
        }
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var dropped = await db.ImportRuns.Where(r => r.Id == id && (r.State == ImportState.Ready || r.State == ImportState.Failed || r.State == ImportState.Dropped)).ExecuteDeleteAsync(cancellation);
        if (dropped == 0) return NotNow();
        await db.Database.ExecuteSqlAsync($"delete from import_rows where run_id = {id}", cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>An import the user may look at: one of people holds what only whoever began it is known to be allowed to see.</summary>
    internal static async Task<ImportRun?> FindAsync(Guid id, ClaimsPrincipal user, FidDb db, CancellationToken cancellation)
    {
        var by = user.Id();
        return await db.ImportRuns.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id && (r.List != PeopleTarget.Key || r.ById == by), cancellation);
    }

    internal static ProblemHttpResult NotNow() => Problems.Conflict("not-now", "This cannot be done with the import as it is now. Look at where it is.");

    /// <summary>Takes a run from one state on; false where it is in another: two who press at once do it once.</summary>
    internal static async Task<bool> MoveAsync(
        FidDb db, Guid id, ImportState from, Action<Microsoft.EntityFrameworkCore.Query.UpdateSettersBuilder<ImportRun>> set, CancellationToken cancellation) =>
        await db.ImportRuns.Where(r => r.Id == id && r.State == from).ExecuteUpdateAsync(set, cancellation) == 1;

    internal static async Task<Ok<ImportResponse>> ShowAsync(FidDb db, Guid id, CancellationToken cancellation) =>
        TypedResults.Ok(ImportResponse.Of(await db.ImportRuns.AsNoTracking().SingleAsync(r => r.Id == id, cancellation)));
}

/// <summary>How a sheet is to be understood.</summary>
/// <param name="Columns">For each column of the sheet the key of the list's column; empty to leave it out.</param>
/// <param name="Decimal">The decimal mark: "." or ",".</param>
/// <param name="EmptyClears">Whether an empty cell empties what is there.</param>
/// <param name="HoldsFrom">For people, the day from which what the rows say holds; null where they correct what is there.</param>
public sealed record MatchingRequest(string[] Columns, DateOrder? Dates, string Decimal, bool EmptyClears, LocalDate? HoldsFrom = null);

/// <summary>What a sheet can go into.</summary>
/// <param name="HasNames">Whether its rows have names beside their codes.</param>
public sealed record ImportTargetResponse(string Key, Label Label, Label About, bool HasNames, ColumnResponse[] Columns);

public sealed record CommitRequest(bool OnlyGood);

/// <summary>An import.</summary>
/// <param name="List">The key of what it goes into.</param>
/// <param name="Done">Rows worked through in what is under way, of <paramref name="Rows"/>.</param>
/// <param name="Failure">What went wrong: a sentence, or "meanwhile", "fault", "used:…" or "changed:…" with codes.</param>
/// <param name="Columns">For each header the key of the list's column; empty for one that is left out.</param>
/// <param name="AskDates">Whether dates can be read both ways and somebody has to say which.</param>
/// <param name="Generation">Grows with every check of the rows; 0 before the first.</param>
public sealed record ImportResponse(
    Guid Id, string List, string FileName, long Size, Instant At, string By, ImportState State, string? Failure, int Rows, int Done,
    int New, int Changed, int Same, int Wrong, int Ignored, string[] Headers, string[] Columns, string[] MatchedBy,
    DateOrder? Dates, bool AskDates, string Decimal, bool EmptyClears, LocalDate? HoldsFrom, bool OnlyGood, Instant? CommittedAt, int Generation)
{
    internal static ImportResponse Of(ImportRun r) => new(
        r.Id, r.List, r.FileName, r.Size, r.At, r.ByName, r.State, r.Failure, r.Rows, r.Done, r.New, r.Changed, r.Same, r.Wrong, r.Ignored,
        r.Headers, r.Columns, r.MatchedBy, r.Dates is null ? null : Enum.Parse<DateOrder>(r.Dates), r.AskDates, r.Decimal, r.EmptyClears, r.HoldsFrom, r.OnlyGood, r.CommittedAt, r.Generation);
}
