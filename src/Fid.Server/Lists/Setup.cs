using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Core.People;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.Lists;
using Fid.Data.Templates;
using Fid.Server.Platform;
using FluentValidation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Lists;

/// <summary>Setting the firm up: what is still missing before the first hire, starter sets to take, and the firm's settings.</summary>
internal static class Setup
{
    /// <summary>Stands for role templates, which have a starter set too.</summary>
    private const string Templates = "templates";

    public static void MapSetup(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/setup", Show).WhoMay(Access.Coordinates);
        app.MapGet("/api/setup/starters/calendars", Calendars).WhoMay(Access.Coordinates).ProducesProblem(400);
        app.MapPost("/api/setup/starters/{list}", Take).WhoMay(Access.Coordinates).ProducesProblem(400).ProducesProblem(404);
        app.MapGet("/api/setup/number", NextNumber).WhoMay(Access.Coordinates).ProducesProblem(400);
        app.MapPut("/api/setup/settings", Save).WhoMay(Access.Coordinates).Validated<SettingsRequest>().ProducesProblem(400);
    }

    private static async Task<Ok<SetupResponse>> Show(FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        var (country, today) = (CountryHolidays.OfTimeZone(firm.TimeZone), await clock.TodayAsync(db, cancellation));
        var counts = await db.ListEntries.Where(e => !e.Retired).GroupBy(e => e.List).Select(g => new { g.Key, Count = g.Count() }).ToDictionaryAsync(g => g.Key, g => g.Count, cancellation);
        var templates = (await TemplateBook.LoadAsync(db, cancellation)).Opening.Count();
        var lists = ShippedLists.All.Select(l => new SetupList(l.Key, l.NeededToOpen, counts.GetValueOrDefault(l.Key), StarterSets.For(l, firm, country, today))).ToList();
        lists.Add(new SetupList(Templates, true, templates, [.. StarterSets.Templates().Select(t => new Dictionary<string, string> { ["code"] = t.Code, [EntryReader.Name] = t.Spec.Name, [EntryReader.NameDe] = t.Spec.NameDe ?? "" })]));
        return TypedResults.Ok(new SetupResponse(
            [.. lists], [.. lists.Where(l => l.Needed && l.Count == 0).Select(l => l.Key)],
            SettingsRequest.Of(firm), country, [.. CountryHolidays.Countries]));
    }

    /// <summary>The starter calendars with the holidays of a country; without holidays where none is named.</summary>
    private static async Task<Results<Ok<IReadOnlyDictionary<string, string>[]>, ProblemHttpResult>> Calendars(string? country, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        if (country is not null && !CountryHolidays.Countries.Contains(country)) return Problems.Invalid(new Problem("/country", "unknown-country", "Choose a country of the list, or none."));
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        return TypedResults.Ok(StarterSets.For(ShippedLists.Get("calendars"), firm, country, await clock.TodayAsync(db, cancellation)).ToArray());
    }

    /// <summary>Takes rows of a starter set, as they are or as they were edited.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Take(
        string list, StarterRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var author = user.Author(clock, "setup");
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        if (list == Templates)
        {
            var there = await db.RoleTemplates.Select(t => t.Code).ToListAsync(cancellation);
            foreach (var template in StarterSets.Templates().Where(t => !there.Contains(t.Code)))
            {
                var row = Array.FindIndex(request.Rows, r => r.GetValueOrDefault("code") == template.Code);
                if (row < 0) continue;
                var name = request.Rows[row].GetValueOrDefault(EntryReader.Name, template.Spec.Name).Trim();
                var german = request.Rows[row].GetValueOrDefault(EntryReader.NameDe, "").Trim();
                foreach (var (column, said) in new[] { (EntryReader.Name, name), (EntryReader.NameDe, german) })
                    if (EntryCheck.Name(said, required: column == EntryReader.Name) is { IsWrong: true } wrong)
                        return Problems.Invalid(new Problem($"/rows/{row}/{column}", wrong.Code!, wrong.Message!));
                template.Spec = await StarterSets.FittingAsync(db, template.Spec with { Name = name, NameDe = german.Length > 0 ? german : null }, cancellation);
                new TemplatePublishing(db).Add(template, author);
            }
            await db.SaveChangesAsync(cancellation);
            await transaction.CommitAsync(cancellation);
            return TypedResults.NoContent();
        }
        if (ShippedLists.Find(list) is not { } definition) return Problems.NotFound();
        if (request.Rows.Length > 500) return Problems.Invalid(new Problem("/rows", "out-of-range", "Take at most 500 rows at once."));
        var problems = await new ListLoader(db).AddAsync(definition, request.Rows, author, cancellation);
        if (problems.Count > 0) return Problems.Invalid([.. problems.Select(p => new Problem($"/rows/{p.Row}/{p.Problem.Column}", p.Problem.Code, p.Problem.Message))]);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>What the next employee number would be by a pattern, for somebody who starts today. Nothing is counted.</summary>
    private static async Task<Results<Ok<NumberResponse>, ProblemHttpResult>> NextNumber(string pattern, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var read = EmployeeNumberPattern.Read(pattern);
        if (read.Answer is not { } numbers) return Problems.Invalid([.. read.Problems.Select(p => p with { Path = "/numberPattern" })]);
        var today = await clock.TodayAsync(db, cancellation);
        var (year, before) = NumberCounter.Of(numbers, today);
        var last = await db.NumberCounters.Where(c => c.Year == year).Select(c => (long?)c.Last).FirstOrDefaultAsync(cancellation) ?? before;
        return TypedResults.Ok(new NumberResponse(numbers.Format(last + 1, today.Year) ?? ""));
    }

    private static async Task<NoContent> Save(SettingsRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var firm = await db.Firms.SingleAsync(cancellation);
        var before = JsonSerializer.Serialize(SettingsRequest.Of(firm), JsonSerializerOptions.Web);
        (firm.FullTimeHours, firm.LegalWeeklyHours, firm.BadgeRestDays, firm.BridgeDays, firm.NumberPattern) =
            (request.FullTimeHours, request.LegalWeeklyHours, request.BadgeRestDays, request.BridgeDays, request.NumberPattern);
        db.Changes.Add(user.Author(clock, "setup").Change("firm.settings", firm.Id) with { Details = ListWriter.Details(before, JsonSerializer.Serialize(request, JsonSerializerOptions.Web)) });
        await db.SaveChangesAsync(cancellation);
        return TypedResults.NoContent();
    }
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

/// <summary>The firm's settings.</summary>
/// <param name="BridgeDays">The longest break between two stints over which service counts on.</param>
/// <param name="NumberPattern">How employee numbers are written: see <see cref="EmployeeNumberPattern"/>.</param>
public sealed record SettingsRequest(decimal FullTimeHours, decimal LegalWeeklyHours, int BadgeRestDays, int BridgeDays, string NumberPattern)
{
    internal static SettingsRequest Of(Firm firm) => new(firm.FullTimeHours, firm.LegalWeeklyHours, firm.BadgeRestDays, firm.BridgeDays, firm.NumberPattern);
}

/// <summary>An employee number.</summary>
public sealed record NumberResponse(string Number);

internal sealed class SettingsValidator : AbstractValidator<SettingsRequest>
{
    public SettingsValidator()
    {
        RuleFor(r => r.FullTimeHours).Must(h => h is > 0 and <= 168).WithErrorCode("out-of-range").WithMessage("Enter a number above 0, at most 168.");
        RuleFor(r => r.LegalWeeklyHours).Must(h => h is > 0 and <= 168).WithErrorCode("out-of-range").WithMessage("Enter a number above 0, at most 168.");
        RuleFor(r => r.NumberPattern).Custom((pattern, context) =>
        {
            foreach (var problem in EmployeeNumberPattern.Read(pattern).Problems)
                context.AddFailure(new FluentValidation.Results.ValidationFailure(context.PropertyPath, problem.Message) { ErrorCode = problem.Code });
        });
        RuleFor(r => r.BridgeDays).Must(d => d is >= 0 and <= 3650).WithErrorCode("out-of-range").WithMessage("Enter a number from 0 to 3650.");
        RuleFor(r => r.BadgeRestDays).Must(d => d is >= 0 and <= 3650).WithErrorCode("out-of-range").WithMessage("Enter a number from 0 to 3650.");
    }
}
