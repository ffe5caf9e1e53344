using System.Globalization;
using System.Text.RegularExpressions;
using Fid.Core.Calendars;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Lists;

/// <summary>Numbers, dates and words as people and spreadsheets write them.</summary>
public static partial class CellText
{
    // Spreadsheets count days from here: 1 is 1900-01-01, and 60 a 29 February that never was, so that from 61 on it is one less.
    private static readonly LocalDate SerialZero = new(1899, 12, 30);
    private const int FirstSerial = 61,
        LastSerial = 109_574; // to 2199-12-31

    /// <summary>A number: digits with the style's decimal mark, thousands grouped by the other mark, spaces or apostrophes; a
    /// currency or percent sign around it is passed over. Null where the text is no number.</summary>
    public static decimal? Number(string text, CellStyle style)
    {
        var bare = Signs().Replace(text, "");
        if (!NumberShape().IsMatch(bare))
            return null;
        var group = style.Decimal == ',' ? '.' : ',';
        var (whole, fraction) = bare.IndexOf(style.Decimal, StringComparison.Ordinal) is var at and >= 0 ? (bare[..at], bare[(at + 1)..]) : (bare, "");
        if (fraction.Contains(group, StringComparison.Ordinal) || fraction.Contains(style.Decimal, StringComparison.Ordinal))
            return null;
        var groups = whole.TrimStart('-', '+').Split(group);
        // "1,5" where commas group thousands is a slip of the keyboard, not fifteen.
        if (groups.Length > 1 && (groups[0].Length is 0 or > 3 || groups.Skip(1).Any(g => g.Length != 3)))
            return null;
        var plain = whole.Replace(group.ToString(), "", StringComparison.Ordinal) + (fraction.Length > 0 ? "." + fraction : "");
        return decimal.TryParse(plain, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            ? number
            : null;
    }

    /// <summary>A date: ISO 8601, digits in the style's order, or a spreadsheet's serial number. Null where the text is none of
    /// these, or where digits could be read in two ways and the style does not say which.</summary>
    public static LocalDate? Date(string text, CellStyle style)
    {
        text = text.Trim();
        if (LocalDatePattern.Iso.Parse(text.Length > 10 && text[10] is 'T' or ' ' ? text[..10] : text).TryGetValue(default, out var iso))
            return Sensible(iso);
        if (int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var serial))
            return serial is >= FirstSerial and <= LastSerial ? SerialZero.PlusDays(serial) : null;
        var match = DateShape().Match(text);
        if (!match.Success)
            return null;
        int a = Part(match, 1),
            b = Part(match, 2),
            c = Part(match, 3);
        if (match.Groups[1].Length == 4)
            return Make(a, b, c);
        if (match.Groups[3].Length <= 2)
            c = TwoDigitYear.Full(c);
        return style.Dates switch
        {
            DateOrder.DayMonthYear => Make(c, b, a),
            DateOrder.MonthDayYear => Make(c, a, b),
            _ => a > 12 ? Make(c, b, a)
            : b > 12 ? Make(c, a, b)
            : a == b ? Make(c, a, b)
            : null,
        };
    }

    /// <summary>Which orders of day and month a date of digits allows; both for an ambiguous one, neither for what is no such date.</summary>
    public static (bool DayFirst, bool MonthFirst) Orders(string text)
    {
        var match = DateShape().Match(text.Trim());
        if (!match.Success || match.Groups[1].Length == 4)
            return (false, false);
        int a = Part(match, 1),
            b = Part(match, 2);
        return (a is >= 1 and <= 31 && b is >= 1 and <= 12, a is >= 1 and <= 12 && b is >= 1 and <= 31);
    }

    /// <summary>Yes or no, in English or German, as a word, a letter, a digit or a mark. Null for anything else.</summary>
    public static bool? YesNo(string text) =>
        text.Trim().ToUpperInvariant() switch
        {
            "YES" or "Y" or "TRUE" or "1" or "X" or "JA" or "J" or "WAHR" or "✓" => true,
            "NO" or "N" or "FALSE" or "0" or "NEIN" or "FALSCH" or "-" => false,
            _ => null,
        };

    /// <summary>A number as Fid writes it.</summary>
    public static string Plain(decimal number) => number.ToString("0.##########", CultureInfo.InvariantCulture);

    private static int Part(Match match, int group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    private static LocalDate? Make(int year, int month, int day) =>
        year is >= 1900 and <= 2199 && month is >= 1 and <= 12 && day >= 1 && day <= DateTime.DaysInMonth(year, month) ? new LocalDate(year, month, day) : null;

    private static LocalDate? Sensible(LocalDate date) => date.Year is >= 1900 and <= 2199 ? date : null;

    [GeneratedRegex(@"[\s\u00A0\u202F'’€$£%]")]
    private static partial Regex Signs();

    [GeneratedRegex(@"^[-+]?[0-9.,]*[0-9][0-9.,]*$")]
    private static partial Regex NumberShape();

    [GeneratedRegex(@"^(\d{1,4})[./\-\s](\d{1,2})[./\-\s](\d{2}|\d{4})(?:\s+0?0:00(?::00)?)?$")]
    private static partial Regex DateShape();
}
