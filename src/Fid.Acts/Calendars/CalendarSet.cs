using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Calendars;

/// <summary>The firm's calendars, ready for counting, by code.</summary>
public sealed class CalendarSet
{
    // Recurring holidays are laid out over these years: wider than any working life that is planned.
    private const int FirstYear = 1950,
        LastYear = 2100;

    // The last that was loaded, for as long as the entries are the same: laying out a century and a half of holidays takes milliseconds.
    private static volatile Loaded? _last;

    private readonly Dictionary<string, EntryContent> _entries;

    private CalendarSet(Dictionary<string, EntryContent> entries)
    {
        _entries = entries;
        var calendars = entries.Values.ToDictionary(e => e.Code, Make, StringComparer.Ordinal);
        calendars[Unknown] = Weekdays;
        ByCode = calendars;
    }

    public IReadOnlyDictionary<string, WorkCalendar> ByCode { get; }

    /// <summary>The calendar with a code; working Monday to Friday where there is none such.</summary>
    public WorkCalendar this[string? code] => code is not null && ByCode.TryGetValue(code, out var calendar) ? calendar : Weekdays;

    /// <summary>The code to ask with where a record has no calendar yet: Monday to Friday, without holidays.</summary>
    public const string Unknown = "";

    private static WorkCalendar Weekdays { get; } = new(RestMask.Weekend, []);

    /// <summary>The firm's calendars as they are now.</summary>
    public static async Task<CalendarSet> LoadAsync(FidDb db, CancellationToken cancellation)
    {
        var entries = await db.ListEntries.AsNoTracking().Where(e => e.List == "calendars").OrderBy(e => e.Code).ToListAsync(cancellation);
        WrittenEntry[] written = [.. entries.Select(e => new WrittenEntry(e.Code, e.Name, e.NameDe, e.Values))];
        if (_last is { } last && last.Written.AsSpan().SequenceEqual(written))
            return last.Set;
        var set = new CalendarSet(entries.ToDictionary(e => e.Code, e => e.Content(), StringComparer.Ordinal));
        _last = new Loaded(written, set);
        return set;
    }

    /// <summary>The calendar that formulas of a record count in: its own holiday calendar; null where none is named or none is needed.</summary>
    public static async Task<WorkCalendar?> OfRecordAsync(
        FidDb db,
        FieldSet set,
        IReadOnlyDictionary<string, JsonElement> values,
        CancellationToken cancellation
    ) => set.CountsWorkingDays && values.ContainsKey("holiday_calendar") ? (await LoadAsync(db, cancellation)).OfRecord(values) : null;

    /// <summary>The calendar that formulas of a record count in; null where it names none.</summary>
    public WorkCalendar? OfRecord(IReadOnlyDictionary<string, JsonElement> values) =>
        values.TryGetValue("holiday_calendar", out var code) && code.ValueKind == JsonValueKind.String ? this[code.GetString()] : null;

    /// <summary>The book with one calendar as it is being edited in its place.</summary>
    public CalendarSet With(EntryContent calendar) =>
        new(new Dictionary<string, EntryContent>(_entries, StringComparer.Ordinal) { [calendar.Code] = calendar });

    /// <summary>The days off of a year, in order: those of the calendar and of all it builds on, each with the code of the
    /// calendar that gives it.</summary>
    public IReadOnlyList<DayOff> DaysOff(string code, int year) =>
        [
            .. Chain(code)
                .SelectMany(c =>
                    Holidays(c).SelectMany(h => new[] { year - 1, year }.SelectMany(h.In).Where(d => d.Year == year).Select(d => new DayOff(d, h.Name, c.Code)))
                )
                .OrderBy(d => d.Date),
        ];

    /// <summary>What each day off of some years is called, by date: of two on one day the first.</summary>
    /// <param name="code">The code of a calendar; null for none, which has no days off.</param>
    public Dictionary<LocalDate, string> NamesOfDaysOff(string? code, IEnumerable<int> years) =>
        years.SelectMany(y => code is null ? [] : DaysOff(code, y)).GroupBy(d => d.Date).ToDictionary(g => g.Key, g => g.First().Name);

    /// <summary>A calendar's rest days.</summary>
    public static RestMask Rest(EntryContent calendar) => RestMask.TryParse(calendar.Text("rest"), out var rest) ? rest : RestMask.Weekend;

    private WorkCalendar Make(EntryContent calendar) =>
        new(
            Rest(calendar),
            Chain(calendar.Code).SelectMany(c => Holidays(c).SelectMany(h => h.Rule is HolidayRule.Once once ? h.In(once.Date.Year) : Years.SelectMany(h.In)))
        );

    private static IEnumerable<int> Years => Enumerable.Range(FirstYear, LastYear - FirstYear + 1);

    private IEnumerable<EntryContent> Chain(string code)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        for (
            var c = _entries.GetValueOrDefault(code);
            c is not null && seen.Add(c.Code);
            c = c.Text("based_on") is { } on ? _entries.GetValueOrDefault(on) : null
        )
            yield return c;
    }

    private static IEnumerable<Holiday> Holidays(EntryContent calendar) =>
        calendar.Parts<HolidayEntry>("holidays").Select(h => new Holiday(HolidayRule.Read(h.On)!, h.Name, h.Days));

    private sealed record Loaded(WrittenEntry[] Written, CalendarSet Set);

    // All that a set is made of, as it is stored.
    private sealed record WrittenEntry(string Code, string Name, string? NameDe, string Values);
}

/// <summary>A day off.</summary>
/// <param name="Calendar">The code of the calendar that gives it.</param>
public sealed record DayOff(LocalDate Date, string Name, string Calendar);
