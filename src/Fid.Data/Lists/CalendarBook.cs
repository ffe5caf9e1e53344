using Fid.Core.Calendars;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Data.Lists;

/// <summary>The firm's calendars, ready for counting, by code.</summary>
public sealed class CalendarBook
{
    private CalendarBook(Dictionary<string, WorkCalendar> calendars)
    {
        calendars[Unknown] = Weekdays;
        ByCode = calendars;
    }

    public IReadOnlyDictionary<string, WorkCalendar> ByCode { get; }

    /// <summary>The calendar with a code; working Monday to Friday where there is none such.</summary>
    public WorkCalendar this[string? code] => code is not null && ByCode.TryGetValue(code, out var calendar) ? calendar : Weekdays;

    /// <summary>The code to ask with where a record has no calendar yet: Monday to Friday, without holidays.</summary>
    public const string Unknown = "";

    private static WorkCalendar Weekdays { get; } = new(RestMask.Weekend, []);

    public static async Task<CalendarBook> LoadAsync(FidDb db, CancellationToken cancellation)
    {
        var entries = await db.HolidayCalendars.AsNoTracking().ToDictionaryAsync(c => c.Code, cancellation);
        return new CalendarBook(entries.ToDictionary(e => e.Key, e => Make(e.Value, entries)));
    }

    private static WorkCalendar Make(HolidayCalendar entry, Dictionary<string, HolidayCalendar> entries)
    {
        var days = new List<LocalDate>();
        var seen = new HashSet<string>();
        for (var c = entry; c is not null && seen.Add(c.Code); c = c.BasedOnCode is null ? null : entries.GetValueOrDefault(c.BasedOnCode))
            days.AddRange(c.Holidays.Select(h => h.Date));
        return new WorkCalendar(RestMask.TryParse(entry.Rest, out var rest) ? rest : RestMask.Weekend, days);
    }
}
