using System.Text;
using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Lists;
using Fid.Core;
using Fid.Core.Calendars;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Server.Platform;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;

namespace Fid.Server.Lists;

/// <summary>Holiday calendars as iCalendar files (RFC 5545).</summary>
internal static class CalendarFiles
{
    private const int MostHolidays = 500;
    private const int MostEvents = 2_000;
    private const int LongestFile = 900_000;

    // Of a rule that hardly ever meets a day, so many times are tried before it is given up.
    private const int MostMisses = 400;
    private static readonly TimeSpan LongestReading = TimeSpan.FromSeconds(3);

    public static void MapICalendar(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/lists/calendars/entries/{code}/calendar.ics", Export).WhoMay(Actions.See, Things.List).ProducesProblem(400).ProducesProblem(404);
        app.MapPost("/api/lists/calendars/read-ics", Import).WhoMay(Actions.Edit, Things.List).RequireRateLimiting(RateLimits.Costly).ProducesProblem(400);
    }

    /// <summary>The holidays of a calendar, and of all it builds on, from one year to another, each a day of its own.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Export(
        string code,
        int? from,
        int? to,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (await EntryRequest.FindAsync(db.ListEntries, "calendars", code, cancellation) is not var (_, entry))
            return Problems.NotFound();
        var first = from ?? actor.Today.Year;
        var last = to ?? first + 2;
        if (first < 1950 || last > 2100 || last < first)
            return Problems.Invalid(new Problem("/to", "out-of-range", "Choose years from 1950 to 2100, the first before the last."));
        var book = await CalendarSet.LoadAsync(db, cancellation);
        var calendar = new Calendar { ProductId = "-//Fid//Holiday calendar//EN", Scale = "GREGORIAN" };
        calendar.AddProperty("X-WR-CALNAME", entry.Name);
        foreach (var day in Enumerable.Range(first, last - first + 1).SelectMany(y => book.DaysOff(entry.Code, y)))
        {
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = $"{day.Date:uuuuMMdd}-{entry.Id:N}@fid",
                    Summary = day.Name,
                    Start = new CalDateTime(day.Date.Year, day.Date.Month, day.Date.Day),
                    End = new CalDateTime(day.Date.PlusDays(1).Year, day.Date.PlusDays(1).Month, day.Date.PlusDays(1).Day),
                    Transparency = TransparencyType.Transparent,
                    DtStamp = new CalDateTime(actor.Clock.Now.ToDateTimeUtc()),
                }
            );
        }
        var bytes = Encoding.UTF8.GetBytes(new CalendarSerializer().SerializeToString(calendar)!);
        return TypedResults.File(bytes, "text/calendar; charset=utf-8", $"{entry.Code}.ics");
    }

    /// <summary>The holidays in an iCalendar file, as the editor takes them: what recurs yearly stays one holiday, other
    /// recurrences are laid out. Nothing is saved.</summary>
    private static async Task<Results<Ok<HolidayEntry[]>, ProblemHttpResult>> Import(
        CalendarText request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var today = actor.Today;
        if (request.Text.Length > LongestFile)
            return Problems.Invalid(new Problem("/text", "too-long", "The file is too large for a calendar of holidays. Take fewer years."));
        Calendar? calendar;
        HolidayEntry[] holidays;
        try
        {
            calendar = Calendar.Load(request.Text);
            if (calendar?.Events.Count > MostEvents)
                return Problems.Invalid(new Problem("/text", "out-of-range", $"The file holds more than {MostEvents} events. Take fewer years."));
            var began = System.Diagnostics.Stopwatch.GetTimestamp();
            holidays =
            [
                .. (calendar?.Events ?? Enumerable.Empty<CalendarEvent>())
                    .SelectMany(e => Read(e, today, Watched))
                    .DistinctBy(h => h.On)
                    .Take(MostHolidays + 1),
            ];

            void Watched()
            {
                cancellation.ThrowIfCancellationRequested();
                if (System.Diagnostics.Stopwatch.GetElapsedTime(began) > LongestReading)
                    throw new TimeoutException();
            }
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // The parser throws whatever its parts throw; to the reader all of it means one thing.
            (calendar, holidays) = (null, []);
        }
        if (calendar is null || calendar.Events.Count == 0)
            return Problems.Invalid(new Problem("/text", "bad-calendar", "No events can be read from this. Choose an iCalendar file (.ics)."));
        return holidays.Length switch
        {
            0 => Problems.Invalid(new Problem("/text", "bad-calendar", "None of the events is a day.")),
            > MostHolidays => Problems.Invalid(new Problem("/text", "out-of-range", $"The file holds more than {MostHolidays} holidays. Take fewer years.")),
            _ => TypedResults.Ok(holidays),
        };
    }

    private static IEnumerable<HolidayEntry> Read(CalendarEvent happening, LocalDate today, Action watch)
    {
        watch();
        if (happening.Start is not { } start || !TextRules.TryClean((happening.Summary ?? "").ReplaceLineEndings(" "), out var name))
            yield break;
        if (name.Length > TextRules.Longest)
            name = name[..TextRules.Longest];
        var date = new LocalDate(start.Year, start.Month, start.Day);
        var days = happening.End is { } end
            ? Math.Clamp(NodaTime.Period.DaysBetween(date, new LocalDate(end.Year, end.Month, end.Day)), 1, Holiday.Longest)
            : 1;
        if (happening.RecurrenceRule is not { } rule)
        {
            yield return new HolidayEntry(new HolidayRule.Once(date).Text, name, days);
            yield break;
        }
        var endless = rule.Frequency == FrequencyType.Yearly && rule.Interval <= 1 && rule.Count is null && rule.Until is null;
        if (endless && rule.ByDay.Count == 0 && rule.ByMonthDay.Count <= 1 && rule.ByMonth.Count <= 1)
            yield return new HolidayEntry(
                new HolidayRule.Yearly(
                    rule.ByMonth.Count == 1 ? rule.ByMonth[0] : date.Month,
                    rule.ByMonthDay.Count == 1 && rule.ByMonthDay[0] > 0 ? rule.ByMonthDay[0] : date.Day
                ).Text,
                name,
                days
            );
        else if (endless && rule.ByDay is [{ Offset: { } nth and (>= -5 and <= -1 or >= 1 and <= 5) } weekday] && rule.ByMonth.Count <= 1)
            yield return new HolidayEntry(
                new HolidayRule.NthWeekday(
                    rule.ByMonth.Count == 1 ? rule.ByMonth[0] : date.Month,
                    nth,
                    weekday.DayOfWeek == DayOfWeek.Sunday ? IsoDayOfWeek.Sunday : (IsoDayOfWeek)weekday.DayOfWeek
                ).Text,
                name,
                days
            );
        else if (rule.Frequency is FrequencyType.Secondly or FrequencyType.Minutely or FrequencyType.Hourly)
            // A day off is a day: what recurs within one is no more than that day.
            yield return new HolidayEntry(new HolidayRule.Once(date).Text, name, days);
        else
            foreach (
                var occurrence in happening
                    .GetOccurrences(
                        new CalDateTime(today.Year - 1, 1, 1),
                        new Ical.Net.Evaluation.EvaluationOptions { MaxUnmatchedIncrementsLimit = MostMisses }
                    )
                    .TakeWhile(o => o.Period.StartTime.Year <= today.Year + 5)
                    .Take(MostHolidays)
            )
            {
                watch();
                var at = occurrence.Period.StartTime;
                yield return new HolidayEntry(new HolidayRule.Once(new LocalDate(at.Year, at.Month, at.Day)).Text, name, days);
            }
    }
}

/// <summary>The text of an iCalendar file.</summary>
public sealed record CalendarText(string Text);
