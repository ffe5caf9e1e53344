using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Acts.Lists;
using Fid.Acts.ListUse;
using Fid.Core.Lists;
using Fid.Core.Rights;
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
        list.MapGet("", Page).WhoMay(Actions.See, Things.List).ProducesProblem(404);
        list.MapPost("", Add).WhoMay(Actions.Edit, Things.List).ProducesProblem(400).ProducesProblem(404);
        list.MapGet("/{code}", Show).WhoMay(Actions.See, Things.List).ProducesProblem(404);
        list.MapPut("/{code}", Save).WhoMay(Actions.Edit, Things.List).ProducesProblem(400).ProducesProblem(404).ProducesProblem(412).ProducesProblem(428);
        list.MapDelete("/{code}", Delete).WhoMay(Actions.Edit, Things.List).ProducesProblem(404).ProducesProblem(409);
        list.MapGet("/{code}/history", History).WhoMay(Actions.See, Things.List).ProducesProblem(404);
        list.MapEntryUse();
    }

    private static async Task<Results<Ok<EntryPage>, ProblemHttpResult>> Page(
        string list,
        string? find,
        string? after,
        bool? retired,
        Actor actor,
        FidDb db,
        EntryHolders holders,
        CancellationToken cancellation
    )
    {
        if (ShippedLists.Find(list) is not { } definition)
            return Problems.NotFound();
        var today = actor.Today;
        var wanted = (find ?? "").Trim().ToLowerInvariant();
        var entries = await db
            .ListEntries.FromSql(
                $"""
                select *, xmin from list_entries
                where list = {list} and (retired = {retired ?? false}) and position({wanted} in lower(code || ' ' || name || ' ' || coalesce(name_de, ''))) > 0
                  and ({after ?? ""} = '' or lower(code) > lower({after ?? ""}))
                order by lower(code) limit {PageSize + 1}
                """
            )
            .AsNoTracking()
            .ToListAsync(cancellation);
        var usage = await new ListUsage(db, today).CountAsync(definition, holders, cancellation);
        var held = definition.Key == "seats" ? await SeatHolders.CountAsync(db, today, cancellation) : [];
        var heads = await HeadsAsync(db, entries, today, cancellation);
        return TypedResults.Ok(
            new EntryPage(
                [
                    .. entries
                        .Take(PageSize)
                        .Select(e =>
                            EntryResponse.Of(
                                e,
                                usage.GetValueOrDefault(e.Code),
                                held.TryGetValue(e.Code, out var n) ? n : null,
                                heads.GetValueOrDefault(e.Code)
                            )
                        ),
                ],
                entries.Count > PageSize ? entries[PageSize - 1].Code : null
            )
        );
    }

    private static async Task<Dictionary<string, string>> HeadsAsync(
        FidDb db,
        List<ListEntry> entries,
        NodaTime.LocalDate today,
        CancellationToken cancellation
    )
    {
        var heads = entries
            .Where(e => e.List == "departments")
            .Select(e => (e.Code, e.Content().Parts<HeadFrom>("heads").Where(h => h.From <= today).MaxBy(h => h.From)?.Person))
            .Where(h => h.Person is not null)
            .ToList();
        var numbers = heads.ConvertAll(h => h.Person!);
        var names = await db
            .Employments.Where(e => numbers.Contains(e.Number))
            .Join(
                db.CurrentRecords,
                e => e.Id,
                r => r.EmploymentId,
                (e, r) =>
                    new
                    {
                        e.Number,
                        r.GivenName,
                        r.FamilyName,
                    }
            )
            .ToDictionaryAsync(p => p.Number, p => $"{p.GivenName} {p.FamilyName}", cancellation);
        return heads.Where(h => names.ContainsKey(h.Person!)).ToDictionary(h => h.Code, h => names[h.Person!]);
    }

    private static async Task<Results<Ok<EntryResponse>, ProblemHttpResult>> Show(
        string list,
        string code,
        HttpResponse response,
        Actor actor,
        FidDb db,
        EntryHolders holders,
        CancellationToken cancellation
    )
    {
        if (await EntryRequest.FindAsync(db.ListEntries.AsNoTracking(), list, code, cancellation) is not var (definition, entry))
            return Problems.NotFound();
        Versions.Show(response, entry.Version);
        return TypedResults.Ok(await DescribeAsync(db, holders, definition, entry, actor.Today, cancellation));
    }

    private static async Task<Results<Created<EntryResponse>, ProblemHttpResult>> Add(
        string list,
        EntryRequest request,
        Actor actor,
        FidDb db,
        EntryHolders holders,
        AddEntry add,
        CancellationToken cancellation
    )
    {
        if (!(await add.DoAsync(new AddEntryRequest(list, request), actor, cancellation)).IsDone(out var code, out var refusal))
            return Problems.Of(refusal);
        return TypedResults.Created(
            $"/api/lists/{list}/entries/{Uri.EscapeDataString(code)}",
            await DescribeAsync(db, holders, list, code, actor, cancellation)
        );
    }

    private static async Task<Results<Ok<EntryResponse>, ProblemHttpResult>> Save(
        string list,
        string code,
        EntryRequest request,
        HttpRequest http,
        Actor actor,
        FidDb db,
        EntryHolders holders,
        SaveEntry save,
        CancellationToken cancellation
    )
    {
        var result = await save.DoAsync(new SaveEntryRequest(list, code, request, Versions.Seen(http)), actor, cancellation);
        var now = result.Refusal is null or { Kind: RefusalKind.ChangedMeanwhile } ? await DescribeAsync(db, holders, list, code, actor, cancellation) : null;
        return result.Refusal is { } refusal ? Problems.Of(refusal, now) : TypedResults.Ok(now);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(
        string list,
        string code,
        Actor actor,
        DeleteEntry delete,
        CancellationToken cancellation
    ) => (await delete.DoAsync(new DeleteEntryRequest(list, code), actor, cancellation)).Answer();

    private static async Task<Results<Ok<EntryChange[]>, ProblemHttpResult>> History(string list, string code, FidDb db, CancellationToken cancellation)
    {
        if (await EntryRequest.FindAsync(db.ListEntries.AsNoTracking(), list, code, cancellation) is not var (_, entry))
            return Problems.NotFound();
        var imports = db.Database.SqlQuery<Guid>(
            $"""
            select u.change_id as "Value" from import_rows r join import_runs u on u.id = r.run_id and u.generation = r.generation
            where r.entry_id = {entry.Id} and u.change_id is not null
            """
        );
        var changes = await db
            .Changes.AsNoTracking()
            .Where(c => c.SubjectId == entry.Id || imports.Contains(c.Id))
            .OrderByDescending(c => c.At)
            .Take(200)
            .ToListAsync(cancellation);
        return TypedResults.Ok(
            changes
                .Select(c => new EntryChange(c.ByName, c.At, c.Origin, c.Action, c.Why, c.Details is null ? null : JsonNode.Parse(c.Details)!.AsObject()))
                .ToArray()
        );
    }

    internal static async Task<EntryResponse> DescribeAsync(
        FidDb db,
        EntryHolders holders,
        ListDefinition list,
        ListEntry entry,
        NodaTime.LocalDate today,
        CancellationToken cancellation
    )
    {
        var usage = await new ListUsage(db, today).CountAsync(list, holders, cancellation);
        int? held = list.Key == "seats" ? (await SeatHolders.CountAsync(db, today, cancellation)).GetValueOrDefault(entry.Code) : null;
        return EntryResponse.Of(entry, usage.GetValueOrDefault(entry.Code), held);
    }

    /// <summary>An entry that is there, as it is now.</summary>
    internal static async Task<EntryResponse> DescribeAsync(
        FidDb db,
        EntryHolders holders,
        string list,
        string code,
        Actor actor,
        CancellationToken cancellation
    )
    {
        var (definition, entry) = (await EntryRequest.FindAsync(db.ListEntries.AsNoTracking(), list, code, cancellation))!.Value;
        return await DescribeAsync(db, holders, definition, entry, actor.Today, cancellation);
    }
}

/// <summary>Entries of a list.</summary>
/// <param name="Next">What to ask after for the rest; null at the end.</param>
public sealed record EntryPage(EntryResponse[] Entries, string? Next);

/// <summary>An entry of a list.</summary>
/// <param name="Usage">Who uses it; null for nobody.</param>
/// <param name="Held">For a seat, how many people hold it.</param>
/// <param name="Head">For a department among others, the name of who leads it now.</param>
/// <param name="Version">What to send as If-Match when saving.</param>
public sealed record EntryResponse(
    string Code,
    string Name,
    string? NameDe,
    bool Retired,
    JsonObject Values,
    UsageCount? Usage,
    int? Held,
    string? Head,
    string Version
)
{
    internal static EntryResponse Of(ListEntry entry, UsageCount? usage, int? held, string? head = null) =>
        new(entry.Code, entry.Name, entry.NameDe, entry.Retired, JsonNode.Parse(entry.Values)!.AsObject(), usage, held, head, Versions.Tag(entry.Version));
}

/// <summary>A change of an entry.</summary>
/// <param name="Details">What it was before and after.</param>
public sealed record EntryChange(string By, NodaTime.Instant At, string Origin, string Action, string? Why, JsonObject? Details);
