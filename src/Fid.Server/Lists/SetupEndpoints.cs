using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Setup;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Core.People;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Lists;

/// <summary>Setting the firm up: what is still missing before the first hire, starter sets to take, and the firm's settings.</summary>
internal static class SetupEndpoints
{
    public static void MapSetup(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/setup", Show).WhoMay(Actions.Edit, Things.List);
        app.MapGet("/api/setup/starters/calendars", Calendars).WhoMay(Actions.Edit, Things.List).ProducesProblem(400);
        app.MapPost("/api/setup/starters/{list}", Take).WhoMay(Actions.Edit, Things.List).ProducesProblem(400).ProducesProblem(404);
        app.MapGet("/api/setup/number", NextNumber).WhoMay(Actions.Edit, Things.Settings).ProducesProblem(400);
        app.MapPut("/api/setup/settings", Save).WhoMay(Actions.Edit, Things.Settings).ProducesProblem(400);
    }

    private static async Task<Ok<SetupResponse>> Show(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        var (country, today) = (CountryHolidays.OfTimeZone(firm.TimeZone), actor.Today);
        var counts = await db
            .ListEntries.Where(e => !e.Retired)
            .GroupBy(e => e.List)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancellation);
        var templates = (await TemplateSet.LoadAsync(db, cancellation)).Opening.Count();
        var lists = ShippedLists
            .All.Select(l => new SetupList(l.Key, l.NeededToOpen, counts.GetValueOrDefault(l.Key), StarterSets.For(l, firm, country, today)))
            .ToList();
        lists.Add(
            new SetupList(
                TakeStarterSet.Templates,
                true,
                templates,
                [
                    .. StarterSets
                        .Templates()
                        .Select(t => new Dictionary<string, string>
                        {
                            ["code"] = t.Code,
                            [EntryReader.Name] = t.Spec.Name,
                            [EntryReader.NameDe] = t.Spec.NameDe ?? "",
                        }),
                ]
            )
        );
        return TypedResults.Ok(
            new SetupResponse(
                [.. lists],
                [.. lists.Where(l => l.Needed && l.Count == 0).Select(l => l.Key)],
                SettingsRequest.Of(firm),
                country,
                [.. CountryHolidays.Countries]
            )
        );
    }

    /// <summary>The starter calendars with the holidays of a country; without holidays where none is named.</summary>
    private static async Task<Results<Ok<IReadOnlyDictionary<string, string>[]>, ProblemHttpResult>> Calendars(
        string? country,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (country is not null && !CountryHolidays.Countries.Contains(country))
            return Problems.Invalid(new Problem("/country", "unknown-country", "Choose a country of the list, or none."));
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        return TypedResults.Ok(StarterSets.For(ShippedLists.Get("calendars"), firm, country, actor.Today).ToArray());
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Take(
        string list,
        StarterRequest request,
        Actor actor,
        TakeStarterSet take,
        CancellationToken cancellation
    ) => (await take.DoAsync(new TakeStarterSetRequest(list, request.Rows), actor, cancellation)).Answer();

    /// <summary>What the next employee number would be by a pattern, for somebody who starts today. Nothing is counted.</summary>
    private static async Task<Results<Ok<NumberResponse>, ProblemHttpResult>> NextNumber(string pattern, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var read = EmployeeNumberPattern.Read(pattern);
        if (read.Answer is not { } numbers)
            return Problems.Invalid([.. read.Problems.Select(p => p with { Path = "/numberPattern" })]);
        var today = actor.Today;
        var (year, before) = NumberCounter.Of(numbers, today);
        var last = await db.NumberCounters.Where(c => c.Year == year).Select(c => (long?)c.Last).FirstOrDefaultAsync(cancellation) ?? before;
        return TypedResults.Ok(new NumberResponse(numbers.Format(last + 1, today.Year) ?? ""));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Save(
        SettingsRequest request,
        Actor actor,
        SaveSettings save,
        CancellationToken cancellation
    ) => (await save.DoAsync(request, actor, cancellation)).Answer();
}

/// <summary>How far the firm is set up.</summary>
/// <param name="Missing">The lists, and "templates", that are empty and needed to open the first hire.</param>
/// <param name="Country">The country that the firm's time zone is of, with whose holidays calendars begin; null where that is not known.</param>
/// <param name="Countries">The countries whose holidays are known (ISO 3166-1 alpha-2).</param>
public sealed record SetupResponse(SetupList[] Lists, string[] Missing, SettingsRequest Settings, string? Country, string[] Countries);

/// <summary>A list in setting up.</summary>
/// <param name="Starter">Rows that can be taken, by column key; cells as in a sheet.</param>
public sealed record SetupList(string Key, bool Needed, int Count, IReadOnlyList<IReadOnlyDictionary<string, string>> Starter);

public sealed record StarterRequest(Dictionary<string, string>[] Rows);

/// <summary>An employee number.</summary>
public sealed record NumberResponse(string Number);
