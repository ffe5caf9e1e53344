using System.Security.Claims;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Lists;

/// <summary>The entries of a list: read, added, changed, deleted.</summary>
internal static class EntriesEndpoints
{
    private const int PageSize = 500;

    public static void MapEntries(this IEndpointRouteBuilder app)
    {
        var list = app.MapGroup("/api/lists/{list}/entries");
        list.MapGet("", Page).WhoMay(Access.ReadsRecords).ProducesProblem(404);
        list.MapPost("", Add).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404);
        list.MapGet("/{code}", Show).WhoMay(Access.ReadsRecords).ProducesProblem(404);
        list.MapPut("/{code}", Save).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404).ProducesProblem(412).ProducesProblem(428);
        list.MapDelete("/{code}", Delete).WhoMay(Access.Coordinates).ProducesProblem(404).ProducesProblem(409);
        list.MapGet("/{code}/history", History).WhoMay(Access.ReadsRecords).ProducesProblem(404);
        list.MapEntryUse();
    }

    private static async Task<Results<Ok<EntryPage>, ProblemHttpResult>> Page(string list, string? find, string? after, bool? retired, FidDb db, EntryHolders holders, FirmClock clock, CancellationToken cancellation)
    {
        if (ShippedLists.Find(list) is not { } definition) return Problems.NotFound();
        var today = await clock.TodayAsync(db, cancellation);
        var wanted = (find ?? "").Trim().ToLowerInvariant();
        var entries = await db.ListEntries.FromSql($"""
            select *, xmin from list_entries
            where list = {list} and (retired = {retired ?? false}) and position({wanted} in lower(code || ' ' || name || ' ' || coalesce(name_de, ''))) > 0
              and ({after ?? ""} = '' or lower(code) > lower({after ?? ""}))
            order by lower(code) limit {PageSize + 1}
            """).AsNoTracking().ToListAsync(cancellation);
        var usage = await new ListUsage(db, today).CountAsync(definition, holders, cancellation);
        var held = definition.Key == "seats" ? await SeatHolders.CountAsync(db, today, cancellation) : [];
        var heads = await HeadsAsync(db, entries, today, cancellation);
        return TypedResults.Ok(new EntryPage(
            [.. entries.Take(PageSize).Select(e => EntryResponse.Of(e, usage.GetValueOrDefault(e.Code), held.TryGetValue(e.Code, out var n) ? n : null, heads.GetValueOrDefault(e.Code)))],
            entries.Count > PageSize ? entries[PageSize - 1].Code : null));
    }

    private static async Task<Dictionary<string, string>> HeadsAsync(FidDb db, List<ListEntry> entries, NodaTime.LocalDate today, CancellationToken cancellation)
    {
        var heads = entries.Where(e => e.List == "departments")
            .Select(e => (e.Code, e.Content().Parts<HeadFrom>("heads").Where(h => h.From <= today).MaxBy(h => h.From)?.Person)).Where(h => h.Person is not null).ToList();
        var numbers = heads.ConvertAll(h => h.Person!);
        var names = await db.Employments.Where(e => numbers.Contains(e.Number)).Join(db.RecordsNow, e => e.Id, r => r.EmploymentId, (e, r) => new { e.Number, r.GivenName, r.FamilyName })
            .ToDictionaryAsync(p => p.Number, p => $"{p.GivenName} {p.FamilyName}", cancellation);
        return heads.Where(h => names.ContainsKey(h.Person!)).ToDictionary(h => h.Code, h => names[h.Person!]);
    }

    private static async Task<Results<Ok<EntryResponse>, ProblemHttpResult>> Show(string list, string code, HttpResponse response, FidDb db, EntryHolders holders, FirmClock clock, CancellationToken cancellation)
    {
        if (await FindAsync(db.ListEntries.AsNoTracking(), list, code, cancellation) is not var (definition, entry)) return Problems.NotFound();
        Versions.Show(response, entry.Version);
        return TypedResults.Ok(await DescribeAsync(db, holders, definition, entry, await clock.TodayAsync(db, cancellation), cancellation));
    }

    private static async Task<Results<Created<EntryResponse>, ProblemHttpResult>> Add(
        string list, EntryRequest request, ClaimsPrincipal user, FidDb db, EntryHolders holders, ListWriter writer, FirmClock clock, CancellationToken cancellation)
    {
        if (ShippedLists.Find(list) is not { } definition) return Problems.NotFound();
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await writer.LockAsync(list, cancellation);
        var read = await ReadAsync(db, definition, request, request.Code, cancellation);
        if (read.Problems.Count > 0) return Invalid(read.Problems);
        var wrong = await writer.PutAsync(definition, read.Content, null, user.Author(clock, "lists"), cancellation);
        if (wrong.Count > 0) return Invalid(wrong);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        var entry = await db.ListEntries.AsNoTracking().Coded(list, read.Content.Code).SingleAsync(cancellation);
        return TypedResults.Created($"/api/lists/{list}/entries/{Uri.EscapeDataString(entry.Code)}", await DescribeAsync(db, holders, definition, entry, await clock.TodayAsync(db, cancellation), cancellation));
    }

    private static async Task<Results<Ok<EntryResponse>, ProblemHttpResult>> Save(
        string list, string code, EntryRequest request, HttpRequest http, ClaimsPrincipal user, FidDb db, EntryHolders holders, ListWriter writer, FirmClock clock, CancellationToken cancellation)
    {
        if (Versions.Seen(http) is not { } seen) return Problems.VersionNeeded();
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await writer.LockAsync(list, cancellation);
        if (await FindAsync(db.ListEntries, list, code, cancellation) is not var (definition, entry)) return Problems.NotFound();
        if (entry.Version != seen) return Problems.Stale(await DescribeAsync(db, holders, definition, entry, await clock.TodayAsync(db, cancellation), cancellation));
        var read = await ReadAsync(db, definition, request, entry.Code, cancellation);
        if (read.Problems.Count > 0) return Invalid(read.Problems);
        var wrong = await writer.PutAsync(definition, read.Content, entry, user.Author(clock, "lists"), cancellation);
        if (wrong.Count > 0) return Invalid(wrong);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(await DescribeAsync(db, holders, definition, entry, await clock.TodayAsync(db, cancellation), cancellation));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(
        string list, string code, ClaimsPrincipal user, FidDb db, ListWriter writer, FirmClock clock, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await writer.LockForDeletingAsync(list, cancellation);
        if (await FindAsync(db.ListEntries, list, code, cancellation) is not var (definition, entry)) return Problems.NotFound();
        var today = await clock.TodayAsync(db, cancellation);
        // Whoever saves a value that refers to the entry holds its row until done.
        await db.Database.ExecuteSqlAsync($"select 1 from list_entries where id = {entry.Id} for update", cancellation);
        if (await new ListUsage(db, today).IsReferencedAsync(definition, entry.Code, cancellation))
            return Problems.Conflict("in-use", $"{entry.Name} is used, or was once, and cannot be deleted. Retire it: those who have it keep it, and nobody new gets it.");
        db.ListEntries.Remove(entry);
        db.Changes.Add(user.Author(clock, "lists").Change("list.deleted", entry.Id, list) with { Details = ListWriter.Details(ListWriter.Describe(entry), null) });
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<EntryChange[]>, ProblemHttpResult>> History(string list, string code, FidDb db, CancellationToken cancellation)
    {
        if (await FindAsync(db.ListEntries.AsNoTracking(), list, code, cancellation) is not var (_, entry)) return Problems.NotFound();
        var imports = db.Database.SqlQuery<Guid>($"""
            select u.change_id as "Value" from import_rows r join import_runs u on u.id = r.run_id and u.generation = r.generation
            where r.entry_id = {entry.Id} and u.change_id is not null
            """);
        var changes = await db.Changes.AsNoTracking().Where(c => c.SubjectId == entry.Id || imports.Contains(c.Id)).OrderByDescending(c => c.At).Take(200).ToListAsync(cancellation);
        return TypedResults.Ok(changes.Select(c => new EntryChange(c.ByName, c.At, c.Origin, c.Action, c.Why, c.Details is null ? null : JsonNode.Parse(c.Details)!.AsObject())).ToArray());
    }

    /// <summary>The list and the entry with a code, capitals aside; null where there is none.</summary>
    internal static async Task<(ListDefinition List, ListEntry Entry)?> FindAsync(IQueryable<ListEntry> entries, string list, string code, CancellationToken cancellation) =>
        ShippedLists.Find(list) is { } definition && await entries.Coded(list, code).FirstOrDefaultAsync(cancellation) is { } entry ? (definition, entry) : null;

    internal static async Task<EntryResponse> DescribeAsync(FidDb db, EntryHolders holders, ListDefinition list, ListEntry entry, NodaTime.LocalDate today, CancellationToken cancellation)
    {
        var usage = await new ListUsage(db, today).CountAsync(list, holders, cancellation);
        int? held = list.Key == "seats" ? (await SeatHolders.CountAsync(db, today, cancellation)).GetValueOrDefault(entry.Code) : null;
        return EntryResponse.Of(entry, usage.GetValueOrDefault(entry.Code), held);
    }

    /// <summary>An entry as it was entered, with what is wrong with it.</summary>
    internal static async Task<ReadEntry> ReadAsync(FidDb db, ListDefinition list, EntryRequest request, string code, CancellationToken cancellation)
    {
        var index = await EntryIndex.LoadAsync(db, list, cancellation);
        index.Add(list.Key, code, request.Name, null); // it may be chosen as its own parent: that is a loop, not an unknown entry
        var read = EntryReader.Read(list, code, request.Name, request.NameDe, c => request.Values[c.Key] is { } json ? ColumnValue.FromJson(c, JsonSerializer.SerializeToElement(json)) : CellValue.Empty, index.Find);
        var unknown = request.Values.Where(v => list.Find(v.Key) is null).Select(v => new EntryProblem(v.Key, "unknown-column", $"The list has no column {v.Key}."));
        return read with { Problems = [.. read.Problems, .. unknown] };
    }

    internal static ProblemHttpResult Invalid(IEnumerable<EntryProblem> problems) => Problems.Invalid([.. problems.Select(p => new Problem(PathOf(p.Column), p.Code, p.Message))]);

    private static string PathOf(string column) => column switch
    {
        EntryReader.Code => "/code",
        EntryReader.Name => "/name",
        EntryReader.NameDe => "/nameDe",
        _ => $"/values/{column}",
    };
}

/// <summary>An entry to save.</summary>
/// <param name="Code">For a new one; that of an entry that is there never changes.</param>
/// <param name="Values">Values by column key; what is left out is empty.</param>
public sealed record EntryRequest(string Code, string Name, JsonObject Values, string? NameDe = null);

/// <summary>Entries of a list.</summary>
/// <param name="Next">What to ask after for the rest; null at the end.</param>
public sealed record EntryPage(EntryResponse[] Entries, string? Next);

/// <summary>An entry of a list.</summary>
/// <param name="Usage">Who uses it; null for nobody.</param>
/// <param name="Held">For a seat, how many people hold it.</param>
/// <param name="Head">For a department among others, the name of who leads it now.</param>
/// <param name="Version">What to send as If-Match when saving.</param>
public sealed record EntryResponse(
    string Code, string Name, string? NameDe, bool Retired, JsonObject Values, UsageCount? Usage, int? Held, string? Head, string Version)
{
    internal static EntryResponse Of(ListEntry entry, UsageCount? usage, int? held, string? head = null) => new(
        entry.Code, entry.Name, entry.NameDe, entry.Retired, JsonNode.Parse(entry.Values)!.AsObject(), usage, held, head, Versions.Tag(entry.Version));
}

/// <summary>A change of an entry.</summary>
/// <param name="Details">What it was before and after.</param>
public sealed record EntryChange(string By, NodaTime.Instant At, string Origin, string Action, string? Why, JsonObject? Details);
