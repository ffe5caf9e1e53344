using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Lists;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Lists;

/// <summary>What an entry would come to, worked out while somebody edits it: a year of holidays, the next pay days, weeks of a
/// roster, a pay slip. Nothing is saved.</summary>
internal static class Previews
{
    private const int PeriodsShown = 12;
    private const int WeeksShown = 8;

    public static void MapPreviews(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/lists/calendars/year", Year).WhoMay(Actions.See, Things.List).OnlyReads().ProducesProblem(400);
        app.MapPost("/api/lists/payGroups/periods", PayPeriods).WhoMay(Actions.See, Things.List).OnlyReads().ProducesProblem(400);
        app.MapPost("/api/lists/shiftPatterns/weeks", Weeks).WhoMay(Actions.See, Things.List).OnlyReads().ProducesProblem(400);
        app.MapPost("/api/lists/payComponents/slip", Slip).WhoMay(Actions.See, Things.List).OnlyReads().ProducesProblem(400);
        app.MapComponentEffects();
        app.MapICalendar();
    }

    private static async Task<Results<Ok<CalendarYear>, ProblemHttpResult>> Year(EntryRequest request, int year, FidDb db, CancellationToken cancellation)
    {
        if (year is < 1950 or > 2100)
            return Problems.Invalid(new Problem("/year", "out-of-range", "Choose a year from 1950 to 2100."));
        var read = await ReadAsync(db, "calendars", request, cancellation);
        if (read.Problems.FirstOrDefault(p => p.Column is "rest" or "holidays" or "based_on") is { } wrong)
            return Invalid([wrong]);
        var calendar = read.Content with { Code = read.Content.Code.Length > 0 ? read.Content.Code : "\u0001" };
        var book = (await CalendarSet.LoadAsync(db, cancellation)).With(calendar);
        var names = await db.ListEntries.Where(e => e.List == "calendars").ToDictionaryAsync(e => e.Code, e => e.Name, cancellation);
        var days = book.DaysOff(calendar.Code, year);
        var work = book[calendar.Code];
        return TypedResults.Ok(
            new CalendarYear(
                year,
                CalendarSet.Rest(calendar).ToString(),
                work.Count(new LocalDate(year, 1, 1), new LocalDate(year, 12, 31)),
                [.. days.Select(d => new CalendarDay(d.Date, d.Name, d.Calendar == calendar.Code ? null : names.GetValueOrDefault(d.Calendar)))]
            )
        );
    }

    private static async Task<Results<Ok<PayPeriodsPreview>, ProblemHttpResult>> PayPeriods(
        EntryRequest request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var read = await ReadAsync(db, "payGroups", request, cancellation);
        if (read.Problems.Where(p => PayGroupEntry.TermColumns.Contains(p.Column)).ToArray() is { Length: > 0 } wrong)
            return Invalid(wrong);
        var group = read.Content;
        var today = actor.Today;
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var terms = PayGroupEntry.Terms(group, calendars[group.Text("calendar")]);
        var from = terms.FirstPeriodStart is { } start && start > today ? start : today;
        var runs = terms.Periods(from, from.PlusYears(terms.Every == PayPeriod.Year ? PeriodsShown : 1).PlusDays(31));
        if (runs.Answer is not { } answer)
            return Problems.Invalid(runs.Problems);

        var holidays = calendars.NamesOfDaysOff(
            group.Text("calendar"),
            answer.Select(r => r.End.Year).Append(today.Year).Distinct().SelectMany(y => new[] { y, y + 1 }).Distinct()
        );
        return TypedResults.Ok(
            new PayPeriodsPreview(
                today,
                [
                    .. answer
                        .Take(PeriodsShown)
                        .Select(r =>
                        {
                            // Where a holiday stood in the way, say which one it was.
                            var wanted = r.End.PlusDays(terms.PayDaysAfterEnd);
                            var inTheWay = Enumerable
                                .Range(0, Math.Max(0, Period.DaysBetween(r.PayDate, wanted)) + 1)
                                .Select(i => wanted.PlusDays(-i))
                                .Where(holidays.ContainsKey)
                                .Select(d => holidays[d])
                                .FirstOrDefault();
                            var between = Enumerable
                                .Range(1, Math.Max(0, Period.DaysBetween(r.CutOff, r.PayDate)))
                                .Select(r.CutOff.PlusDays)
                                .Where(d => holidays.ContainsKey(d) && d != wanted)
                                .Select(d => holidays[d])
                                .FirstOrDefault();
                            return new PayRunRow(r.Start, r.End, r.PayDate, r.CutOff, wanted == r.PayDate ? null : wanted, inTheWay, between);
                        }),
                ]
            )
        );
    }

    private static async Task<Results<Ok<PatternPreview>, ProblemHttpResult>> Weeks(
        EntryRequest request,
        LocalDateParameter? from,
        string? calendar,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var read = await ReadAsync(db, "shiftPatterns", request, cancellation);
        string[] used = ["shifts", "cycle", "cycle_start", "on_holiday"];
        if (read.Problems.Where(p => used.Contains(p.Column)).ToArray() is { Length: > 0 } wrong)
            return Invalid(wrong);
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        var today = actor.Today;
        var monday = (from?.Date ?? today).PlusDays(1).Previous(IsoDayOfWeek.Monday);
        var book = await CalendarSet.LoadAsync(db, cancellation);
        var days = book.NamesOfDaysOff(calendar, Enumerable.Range(monday.Year - 1, 3));
        var cycle = ShiftPatternEntry.Cycle(read.Content);
        var roster = cycle.Roster(
            firm.Zone,
            days.Keys.ToHashSet(),
            ShiftPatternEntry.OnHoliday(read.Content),
            monday,
            monday.PlusWeeks(WeeksShown).PlusDays(-1)
        );
        if (roster.Answer is not { } answer)
            return Problems.Invalid(roster.Problems);
        var most = (int)(firm.LegalWeeklyHours * 60);
        return TypedResults.Ok(
            new PatternPreview(
                firm.LegalWeeklyHours,
                [
                    .. answer
                        .Days.Chunk(7)
                        .Select(week => new PatternWeek(
                            week[0].Date,
                            week.Sum(d => d.PaidMinutes),
                            week.Sum(d => d.PaidMinutes) > most,
                            [.. week.Select(d => new PatternDay(d.Date, d.Shift, days.GetValueOrDefault(d.Date), d.PaidMinutes))]
                        )),
                ]
            )
        );
    }

    private static async Task<Results<Ok<PaySlip>, ProblemHttpResult>> Slip(SlipRequest request, FidDb db, CancellationToken cancellation)
    {
        var edited = await EditedComponents.ReadAsync(db, request.Entry, cancellation);
        if (edited.Problems.Count > 0)
            return Invalid(edited.Problems);
        var others = edited.After;
        // The example person's own pay takes the place of the example amounts of what stands for base pay.
        var components = others.Select(e =>
            request.Amount is { } pay && PayComponentEntry.StandsForBasePay(e)
                ? PayComponent.Fixed(PayComponentEntry.Component(e), pay)
                : PayComponentEntry.Component(e)
        );
        var preview = PayPreview.Of(request.Every, [.. components], PayWording.In(ReaderLanguage.Code));
        if (preview.Answer is not { } slip)
            return Problems.Invalid(preview.Problems);
        return TypedResults.Ok(
            new PaySlip(
                [
                    .. slip.Lines.Zip(others, (line, entry) =>
                        new PaySlipLine(line.Code, entry.Name, PayComponentEntry.Component(entry).Kind, line.Amount, line.Working)
                    ),
                ],
                slip.Gross,
                slip.Deductions,
                slip.Net,
                slip.EmployerCost,
                others.FirstOrDefault(PayComponentEntry.StandsForBasePay)?.Code
            )
        );
    }

    private static Task<ReadEntry> ReadAsync(FidDb db, string list, EntryRequest request, CancellationToken cancellation) =>
        request.ReadAsync(db, ShippedLists.Get(list), request.Code, cancellation);

    private static ProblemHttpResult Invalid(IEnumerable<EntryProblem> problems) => Problems.Invalid(EntryRequest.Problems(problems));
}

/// <summary>A year of a calendar.</summary>
/// <param name="Rest">The days of the week on which nobody works, Monday first, 1 for rest.</param>
/// <param name="WorkingDays">The working days of the year.</param>
public sealed record CalendarYear(int Year, string Rest, int WorkingDays, CalendarDay[] Days);

/// <summary>A holiday.</summary>
/// <param name="From">The calendar it is taken from; null for the calendar's own.</param>
public sealed record CalendarDay(LocalDate Date, string Name, string? From);

/// <summary>The next periods of a pay group.</summary>
public sealed record PayPeriodsPreview(LocalDate Today, PayRunRow[] Periods);

/// <summary>A pay period.</summary>
/// <param name="Wanted">The day it would be paid, had that been a working day; null when it was.</param>
/// <param name="Holiday">The holiday that stood in the way of pay day, if any.</param>
/// <param name="HolidayBefore">A holiday between cut-off and pay day, which moves the cut-off ahead.</param>
public sealed record PayRunRow(LocalDate Start, LocalDate End, LocalDate PayDate, LocalDate CutOff, LocalDate? Wanted, string? Holiday, string? HolidayBefore);

/// <summary>Weeks of a shift pattern.</summary>
/// <param name="MostHours">The most hours a week that the settings allow.</param>
public sealed record PatternPreview(decimal MostHours, PatternWeek[] Weeks);

public sealed record PatternWeek(LocalDate Start, int PaidMinutes, bool TooLong, PatternDay[] Days);

public sealed record PatternDay(LocalDate Date, string? Shift, string? Holiday, int PaidMinutes);

/// <summary>A pay component as it is being edited, and the example person whose pay is worked out with it.</summary>
/// <param name="Amount">The base pay of the example person for a period; null to leave the amounts as the components have them.</param>
public sealed record SlipRequest(EntryRequest Entry, PayPeriod Every, decimal? Amount = null);

/// <summary>A pay period of an example person.</summary>
/// <param name="Base">The code of a component that stands for base pay; null where none does.</param>
public sealed record PaySlip(PaySlipLine[] Lines, decimal Gross, decimal Deductions, decimal Net, decimal EmployerCost, string? Base);

public sealed record PaySlipLine(string Code, string Name, ComponentKind Kind, decimal Amount, string Working);
