using System.Globalization;
using Fid.Core.Calendars;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Lists;

/// <summary>
/// Bands, holidays, shifts and the like as one cell of a sheet: entries separated by semicolons, each entry its parts in order.
/// What is written can be read back; a reader names the entry it cannot make out.
/// </summary>
internal static class StructureText
{
    private static readonly LocalTimePattern Time = LocalTimePattern.CreateWithInvariantCulture("H':'mm");

    /// <summary>"2027-01-01 30000-36000-42000 year".</summary>
    public static BandFrom? Band(string text, CellStyle style)
    {
        var parts = Words(text);
        var figures = parts.Length > 1 ? parts[1].Replace('–', '-').Split('-') : [];
        if (parts.Length is not (2 or 3) || figures.Length != 3 || CellText.Date(parts[0], style) is not { } from)
            return null;
        return CellText.Number(figures[0], style) is { } min && CellText.Number(figures[1], style) is { } mid && CellText.Number(figures[2], style) is { } max
            ? new BandFrom(from, min, mid, max, parts.Length == 3 ? parts[2].ToLowerInvariant() : "year")
            : null;
    }

    public static string Band(BandFrom band) => $"{Iso(band.From)} {CellText.Plain(band.Min)}-{CellText.Plain(band.Mid)}-{CellText.Plain(band.Max)} {band.Per}";

    /// <summary>"2027-01-01 1042"; a dash for nobody.</summary>
    public static HeadFrom? Head(string text, CellStyle style) =>
        Words(text) is [var date, var person] && CellText.Date(date, style) is { } from ? new HeadFrom(from, person == "-" ? null : person) : null;

    public static string Head(HeadFrom head) => $"{Iso(head.From)} {head.Person ?? "-"}";

    /// <summary>"SEA essential"; essential when nothing is said.</summary>
    public static Requirement? Requirement(string text) =>
        Words(text) switch
        {
            [var code] => new Requirement(code, true),
            [.. var code, var need] when need.ToLowerInvariant() is "essential" or "desirable" or "unerlässlich" or "erwünscht" => new Requirement(
                string.Join(' ', code),
                need.ToLowerInvariant() is "essential" or "unerlässlich"
            ),
            { Length: > 1 } code => new Requirement(string.Join(' ', code), true),
            _ => null,
        };

    public static string Requirement(Requirement requirement) => $"{requirement.Certificate} {(requirement.Essential ? "essential" : "desirable")}";

    /// <summary>"2027-01-01 percent 10".</summary>
    public static RateFrom? Rate(string text, CellStyle style) =>
        Words(text) is [var date, var how, var value] && CellText.Date(date, style) is { } from && CellText.Number(value, style) is { } figure
            ? new RateFrom(from, how.ToLowerInvariant(), figure)
            : null;

    public static string Rate(RateFrom rate) => $"{Iso(rate.From)} {rate.How} {CellText.Plain(rate.Value)}";

    /// <summary>"18% to 30000"; without an end for the last.</summary>
    public static Pay.PayBracket? Bracket(string text, CellStyle style)
    {
        var words = Words(text.Replace("%", " ", StringComparison.Ordinal));
        if (words.Length is not (1 or 3) || CellText.Number(words[0], style) is not { } percent)
            return null;
        if (words.Length == 1)
            return new Pay.PayBracket(percent);
        return words[1].ToLowerInvariant() is "to" or "bis" && CellText.Number(words[2], style) is { } upTo ? new Pay.PayBracket(percent, upTo) : null;
    }

    public static string Bracket(Pay.PayBracket bracket) =>
        $"{CellText.Plain(bracket.Percent)}%{(bracket.UpTo is { } upTo ? $" to {CellText.Plain(upTo)}" : "")}";

    /// <summary>"--03-17 Founders' Day", "--05 1MO Spring holiday", "--07 1MO x12 Shutdown".</summary>
    public static HolidayEntry? Holiday(string text)
    {
        var words = Words(text);
        for (var length = Math.Min(2, words.Length); length >= 1; length--)
        {
            if (HolidayRule.Read(string.Join(' ', words[..length])) is not { } rule)
                continue;
            var rest = words[length..];
            var days = 1;
            if (
                rest.Length > 0
                && rest[0].Length > 1
                && rest[0][0] == 'x'
                && int.TryParse(rest[0].AsSpan(1), NumberStyles.None, CultureInfo.InvariantCulture, out var many)
            )
                (days, rest) = (many, rest[1..]);
            return new HolidayEntry(rule.Text, string.Join(' ', rest), days);
        }
        return null;
    }

    public static string Holiday(HolidayEntry holiday) =>
        $"{holiday.On}{(holiday.Days > 1 ? string.Create(CultureInfo.InvariantCulture, $" x{holiday.Days}") : "")} {holiday.Name}".TrimEnd();

    /// <summary>"E 06:00-14:00 30"; no break when nothing is said.</summary>
    public static ShiftEntry? Shift(string text)
    {
        var words = Words(text.Replace('–', '-'));
        var times = words.Length > 1 ? words[1].Split('-') : [];
        if (words.Length is not (2 or 3) || times.Length != 2)
            return null;
        var unpaid = 0;
        if (words.Length == 3 && !int.TryParse(words[2], NumberStyles.None, CultureInfo.InvariantCulture, out unpaid))
            return null;
        return ReadTime(times[0]) is { } start && ReadTime(times[1]) is { } end ? new ShiftEntry(words[0], WriteTime(start), WriteTime(end), unpaid) : null;
    }

    public static string Shift(ShiftEntry shift) => string.Create(CultureInfo.InvariantCulture, $"{shift.Letter} {shift.Start}-{shift.End} {shift.Break}");

    /// <summary>"E E N N - - - -", or without spaces where every letter is one character; null for an empty one.</summary>
    public static string? Cycle(string text)
    {
        var words = Words(text);
        var days = words.Length == 1 && words[0].Length > 1 ? words[0].Select(c => c.ToString()).ToArray() : words;
        return days.Length == 0 ? null : string.Join(' ', days);
    }

    /// <summary>"S: small | klein", "S", or "S: small (retired)".</summary>
    public static OptionEntry? Option(string text)
    {
        const string Retired = "(retired)";
        var retired = text.TrimEnd().EndsWith(Retired, StringComparison.OrdinalIgnoreCase);
        if (retired)
            text = text.TrimEnd()[..^Retired.Length];
        var colon = text.IndexOf(':', StringComparison.Ordinal);
        var value = (colon < 0 ? text : text[..colon]).Trim();
        var labels = colon < 0 ? [] : text[(colon + 1)..].Split('|');
        if (value.Length == 0 || labels.Length > 2)
            return null;
        var en = labels.Length > 0 ? labels[0].Trim() : "";
        var de = labels.Length > 1 ? labels[1].Trim() : "";
        return new OptionEntry(value, en.Length > 0 ? en : value, de.Length > 0 ? de : null, retired);
    }

    public static string Option(OptionEntry option) =>
        $"{option.Value}: {option.En}{(option.De is null ? "" : $" | {option.De}")}{(option.Retired ? " (retired)" : "")}";

    /// <summary>A time of day, such as 6:00 or 06:00.</summary>
    public static LocalTime? ReadTime(string text) => Time.Parse(text.Trim()).TryGetValue(default, out var time) ? time : null;

    public static string WriteTime(LocalTime time) => time.ToString("HH':'mm", CultureInfo.InvariantCulture);

    private static string Iso(LocalDate date) => LocalDatePattern.Iso.Format(date);

    private static string[] Words(string text) => text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
}
