using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Acts.Calendars;
using Fid.Core;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Lists;

/// <summary>What pickers offer, what lists there are, and dates as people type them.</summary>
internal static class ListsEndpoint
{
    /// <summary>Of a longer list only so many entries are sent with all others; its pickers ask for what was typed.</summary>
    private const int MostAtOnce = 300;

    private const int MostFound = 50;

    public static void MapLists(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/options", Options).WhoMay(Actions.See, Things.Record);
        app.MapGet("/api/options/{list}", Find).WhoMay(Actions.See, Things.Record).ProducesProblem(404);
        app.MapGet("/api/lists", Overview).WhoMay(Actions.See, Things.List);
        app.MapGet("/api/dates", ReadDate).WhoMay(Access.SignedIn).ProducesProblem(StatusCodes.Status400BadRequest);
        app.MapEntries();
        app.MapPreviews();
        app.MapSetup();
    }

    /// <summary>The first entries of every list, in one round trip.</summary>
    private static async Task<Ok<OptionsResponse>> Options(FidDb db, CancellationToken cancellation)
    {
        var rows = await db
            .Database.SqlQuery<ListOption>(
                $"""
                select list, code, name, name_de, retired from (
                  select list, code, name, name_de, retired, row_number() over (partition by list order by retired, name, code) as place from list_entries
                ) numbered where place <= {MostAtOnce + 1}
                """
            )
            .ToListAsync(cancellation);
        var byList = rows.GroupBy(r => r.List).ToArray();
        return TypedResults.Ok(
            new OptionsResponse(
                [.. byList.SelectMany(l => l.Take(MostAtOnce)).OrderBy(o => o.List, StringComparer.Ordinal).ThenBy(o => o.Name, StringComparer.Ordinal)],
                [.. byList.Where(l => l.Count() > MostAtOnce).Select(l => l.Key)],
                await TeamMembers.NobodyInAsync(db, cancellation)
            )
        );
    }

    /// <summary>Entries whose code or name, in any language, holds what was typed; those that begin with it first.</summary>
    private static async Task<Results<Ok<ListOption[]>, ProblemHttpResult>> Find(string list, string? find, FidDb db, CancellationToken cancellation)
    {
        if (ShippedLists.Find(list) is null)
            return Problems.NotFound();
        var wanted = (find ?? "").Trim().ToLowerInvariant();
        if (wanted.Length > 100)
            wanted = wanted[..100];
        return TypedResults.Ok(
            await db
                .Database.SqlQuery<ListOption>(
                    $"""
                    select list, code, name, name_de, retired from list_entries
                    where list = {list} and not retired and position({wanted} in lower(code || ' ' || name || ' ' || coalesce(name_de, ''))) > 0
                    order by not (starts_with(lower(code), {wanted}) or starts_with(lower(name), {wanted}) or starts_with(lower(coalesce(name_de, '')),
                      {wanted})), name, code
                    limit {MostFound}
                    """
                )
                .ToArrayAsync(cancellation)
        );
    }

    private static async Task<Ok<ListSummary[]>> Overview(FidDb db, CancellationToken cancellation)
    {
        var counts = await db
            .ListEntries.GroupBy(e => e.List)
            .Select(g => new
            {
                g.Key,
                All = g.Count(),
                Retired = g.Count(e => e.Retired),
            })
            .ToDictionaryAsync(g => g.Key, cancellation);
        return TypedResults.Ok(
            ShippedLists
                .All.Select(l => new ListSummary(
                    l.Key,
                    l.Group,
                    l.Label,
                    l.About,
                    l.NeededToOpen,
                    l.DeepestTree,
                    counts.TryGetValue(l.Key, out var c) ? c.All - c.Retired : 0,
                    c?.Retired ?? 0,
                    [.. l.Columns.Select(ColumnResponse.Of)]
                ))
                .ToArray()
        );
    }

    private static async Task<Results<Ok<DateResponse>, ProblemHttpResult>> ReadDate(
        string text,
        string? calendar,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var today = actor.Today;
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        if (text.Length > 100 || DateEntry.Read(text, today, calendars[calendar]) is not { } date || !ValueCheck.IsSensible(date))
            return Problems.Invalid(new Problem("/text", "bad-date", "Enter a date, such as 8/3, 8 Mar, next Monday or +10wd."));
        return TypedResults.Ok(new DateResponse(date, Period.DaysBetween(today, date)));
    }
}

/// <summary>What can be chosen.</summary>
/// <param name="More">Lists that have more entries than are sent; their pickers ask for what was typed.</param>
/// <param name="EmptyTeams">Codes of the teams that nobody is in: what they own nobody does.</param>
public sealed record OptionsResponse(ListOption[] Options, string[] More, string[] EmptyTeams);

/// <summary>An entry that can be chosen.</summary>
public sealed record ListOption(string List, string Code, string Name, string? NameDe, bool Retired);

/// <summary>A list, and how full it is.</summary>
/// <param name="Needed">Whether the first hire cannot be opened while it is empty.</param>
/// <param name="DeepestTree">The levels of a tree; 0 for a flat list.</param>
/// <param name="Count">Entries in use or to be used; retired ones are not among them.</param>
public sealed record ListSummary(
    string Key,
    ListGroup Group,
    Label Label,
    Label About,
    bool Needed,
    int DeepestTree,
    int Count,
    int Retired,
    ColumnResponse[] Columns
);

/// <summary>A column of a list.</summary>
public sealed record ColumnResponse(
    string Key,
    ColumnType Type,
    Label Label,
    Label Note,
    bool Required,
    string? List,
    ColumnOption[]? Options,
    decimal Min,
    decimal Max,
    string? Default
)
{
    internal static ColumnResponse Of(ListColumn c) => new(c.Key, c.Type, c.Label, c.Note, c.Required, c.List, c.Options?.ToArray(), c.Min, c.Max, c.Default);
}

/// <summary>A date that was typed.</summary>
/// <param name="Date">The date meant.</param>
/// <param name="DaysAhead">Days from today to it; negative in the past.</param>
public sealed record DateResponse(LocalDate Date, int DaysAhead);
