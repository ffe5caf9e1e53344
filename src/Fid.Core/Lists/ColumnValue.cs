using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Formulas;
using Fid.Core.Texts;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Lists;

/// <summary>
/// Reads and writes the values of list columns: from cells, where everything is text, and from JSON, as they are kept. Dates are
/// kept as ISO 8601 texts. Whether an entry that is referred to exists is for <see cref="EntryCheck"/> to see.
/// </summary>
public static class ColumnValue
{
    /// <summary>The longest text of several lines, in characters.</summary>
    public const int LongestLongText = 2000;

    private static readonly HashSet<string> Countries =
    [
        .. (
            "AD AE AF AG AI AL AM AO AQ AR AS AT AU AW AX AZ BA BB BD BE BF BG BH BI BJ BL BM BN BO BQ BR BS BT BV BW BY BZ CA CC CD CF CG "
            + "CH CI CK CL CM CN CO CR CU CV CW CX CY CZ DE DJ DK DM DO DZ EC EE EG EH ER ES ET FI FJ FK FM FO FR GA GB GD GE GF GG GH GI GL "
            + "GM GN GP GQ GR GS GT GU GW GY HK HM HN HR HT HU ID IE IL IM IN IO IQ IR IS IT JE JM JO JP KE KG KH KI KM KN KP KR KW KY KZ LA "
            + "LB LC LI LK LR LS LT LU LV LY MA MC MD ME MF MG MH MK ML MM MN MO MP MQ MR MS MT MU MV MW MX MY MZ NA NC NE NF NG NI NL NO NP "
            + "NR NU NZ OM PA PE PF PG PH PK PL PM PN PR PS PT PW PY QA RE RO RS RU RW SA SB SC SD SE SG SH SI SJ SK SL SM SN SO SR SS ST SV "
            + "SX SY SZ TC TD TF TG TH TJ TK TL TM TN TO TR TT TV TW TZ UA UG UM US UY UZ VA VC VE VG VI VN VU WF WS YE YT ZA ZM ZW"
        ).Split(' '),
    ];

    private static readonly Dictionary<string, string> Zones = DateTimeZoneProviders.Tzdb.Ids.ToDictionary(id => id, StringComparer.OrdinalIgnoreCase);

    /// <summary>The value of a cell. A cell of spaces is empty.</summary>
    /// <param name="column">The column it stands in.</param>
    /// <param name="text">The cell.</param>
    /// <param name="style">How the sheet writes dates and numbers.</param>
    public static CellValue FromText(ListColumn column, string text, CellStyle style)
    {
        text = text.Trim();
        if (text.Length == 0)
            return CellValue.Empty;
        switch (column.Type)
        {
            case ColumnType.Number or ColumnType.Whole:
                return CellText.Number(text, style) is { } number ? Number(column, number) : CellValue.Wrong("wrong-type", "Enter a number.");
            case ColumnType.Date:
                return CellText.Date(text, style) is { } date
                    ? CellValue.Of(LocalDatePattern.Iso.Format(date))
                    : CellValue.Wrong("bad-date", "Enter a date, such as 2027-03-22.");
            case ColumnType.YesNo:
                return CellText.YesNo(text) is { } yes ? CellValue.Of(yes) : CellValue.Wrong("bad-value", "Enter yes or no.");
            case ColumnType.Entries:
                return Codes(text.Split([';', ',', '\n'], StringSplitOptions.RemoveEmptyEntries));
            case ColumnType.Choice:
                return Option(column, text);
            default:
                return Structure.For(column.Type) is { } structure ? structure.FromText(text, style) : Text(column, text);
        }
    }

    /// <summary>The value of a JSON value; null is nothing.</summary>
    public static CellValue FromJson(ListColumn column, JsonElement json)
    {
        if (json.ValueKind is JsonValueKind.Null or JsonValueKind.Undefined)
            return CellValue.Empty;
        switch (column.Type)
        {
            case ColumnType.Number or ColumnType.Whole:
                return json.ValueKind == JsonValueKind.Number && json.TryGetDecimal(out var number)
                    ? Number(column, number)
                    : CellValue.Wrong("wrong-type", "Enter a number.");
            case ColumnType.YesNo:
                return json.ValueKind is JsonValueKind.True or JsonValueKind.False
                    ? CellValue.Of(json.GetBoolean())
                    : CellValue.Wrong("wrong-type", "Enter yes or no.");
            case ColumnType.Entries:
                return json.ValueKind == JsonValueKind.Array && json.EnumerateArray().All(e => e.ValueKind == JsonValueKind.String)
                    ? Codes(json.EnumerateArray().Select(e => e.GetString()!))
                    : CellValue.Wrong("wrong-type", "Enter a list of codes.");
        }
        if (Structure.For(column.Type) is { } structure)
            return structure.FromJson(json);
        if (json.ValueKind != JsonValueKind.String)
            return CellValue.Wrong("wrong-type", "Enter a text.");
        if (!Clean(column, json, out var text))
            return CellValue.Wrong("bad-characters", TextRules.BadCharacters);
        return FromText(column, text, CellStyle.Own);
    }

    /// <summary>The value as one cell of a sheet, readable again by <see cref="FromText"/> in Fid's own style.</summary>
    public static string ToText(ListColumn column, object? value) =>
        value switch
        {
            null => "",
            string text => text,
            decimal number => CellText.Plain(number),
            bool yes => yes ? "yes" : "no",
            string[] codes => string.Join("; ", codes),
            _ => Structure.For(column.Type)!.ToText(value),
        };

    /// <summary>Writes the value as it is kept.</summary>
    public static void Write(Utf8JsonWriter writer, object? value)
    {
        switch (value)
        {
            case null:
                writer.WriteNullValue();
                break;
            case string text:
                writer.WriteStringValue(text);
                break;
            case decimal number:
                writer.WriteNumberValue(number);
                break;
            case bool yes:
                writer.WriteBooleanValue(yes);
                break;
            default:
                Structure.Write(writer, value);
                break;
        }
    }

    private static bool Clean(ListColumn column, JsonElement json, out string text)
    {
        if (column.Type != ColumnType.LongText)
            return TextRules.TryClean(json, out text);
        text = "";
        try
        {
            text = json.GetString()!;
            return true; // its lines are looked at one by one
        }
        catch (InvalidOperationException)
        {
            return false; // not even Unicode
        }
    }

    private static CellValue Number(ListColumn column, decimal number)
    {
        if (column.Type == ColumnType.Whole && number != decimal.Truncate(number))
            return CellValue.Wrong("wrong-type", "Enter a whole number.");
        if (number < column.Min || number > column.Max)
            return CellValue.Wrong("out-of-range", $"Enter a number from {CellText.Plain(column.Min)} to {CellText.Plain(column.Max)}.");
        return number == Math.Round(number, 6) ? CellValue.Of(number) : CellValue.Wrong("too-fine", "Enter at most six decimals.");
    }

    private static CellValue Codes(IEnumerable<string> codes)
    {
        var clean = codes.Select(c => c.Trim()).Where(c => c.Length > 0).Distinct(StringComparer.OrdinalIgnoreCase).ToArray();
        return clean.Length == 0 ? CellValue.Empty
            : clean.Length > 200 ? CellValue.Wrong("out-of-range", "Enter at most 200 codes.")
            : CellValue.Of(clean);
    }

    private static CellValue Option(ListColumn column, string text) =>
        NamedChoice.Find([.. column.Options!.Select(o => new NamedChoice(o.Value, o.Label.All))], text) is { } option
            ? CellValue.Of(option)
            : CellValue.Wrong("unknown-option", $"Choose one of {string.Join(", ", column.Options!.Select(o => o.Label.En))}.");

    private static CellValue Text(ListColumn column, string text)
    {
        var longest = column.Type switch
        {
            ColumnType.LongText => LongestLongText,
            ColumnType.Formula => NumberFormula.Longest,
            ColumnType.Cycle => 2000,
            ColumnType.Entry => EntryCheck.LongestCode * 5,
            ColumnType.Link => 500,
            _ => TextRules.Longest,
        };
        if (text.Length > longest)
            return CellValue.Wrong("too-long", $"Enter at most {longest} characters.");
        if (column.Type == ColumnType.LongText)
        {
            text = text.ReplaceLineEndings("\n");
            return text.Split('\n').All(line => TextRules.TryClean(line, out _))
                ? CellValue.Of(text)
                : CellValue.Wrong("bad-characters", TextRules.BadCharacters);
        }
        if (!TextRules.TryClean(text, out text))
            return CellValue.Wrong("bad-characters", TextRules.BadCharacters);
        return column.Type switch
        {
            ColumnType.Phone when !TextRules.IsPhone(text) => CellValue.Wrong("bad-value", "Enter a telephone number: digits, spaces, + ( ) - only."),
            ColumnType.Link when !Uri.TryCreate(text, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https" or "geo") => CellValue.Wrong(
                "bad-value",
                "Enter an address on the web that begins with https://, or a place as geo:53.3,-6.2."
            ),
            ColumnType.TimeZone => Zone(text),
            ColumnType.Country => Countries.Contains(text.ToUpperInvariant())
                ? CellValue.Of(text.ToUpperInvariant())
                : CellValue.Wrong("bad-value", "Enter the two letters of a country, such as IE."),
            ColumnType.Currency => text.Length == 3 && text.All(char.IsAsciiLetter)
                ? CellValue.Of(text.ToUpperInvariant())
                : CellValue.Wrong("bad-value", "Enter the three letters of a currency, such as EUR."),
            ColumnType.RestDays => RestDays(text),
            ColumnType.Cycle => StructureText.Cycle(text) is { } cycle ? CellValue.Of(cycle) : CellValue.Empty,
            ColumnType.Formula => NumberFormula.Read(text).Problems is [var problem, ..] ? CellValue.Wrong(problem.Code, problem.Message) : CellValue.Of(text),
            _ => CellValue.Of(text),
        };
    }

    private static CellValue Zone(string text) =>
        Zones.TryGetValue(text, out var zone) ? CellValue.Of(zone) : CellValue.Wrong("unknown-time-zone", "Enter a time zone, such as Europe/Dublin.");

    private static CellValue RestDays(string text)
    {
        // A spreadsheet takes "0000011" for the number eleven.
        var mask = text.All(char.IsAsciiDigit) ? text.PadLeft(7, '0') : text;
        if (mask == "1111111")
            return CellValue.Wrong("no-working-day", "Leave at least one day of the week for work.");
        return RestMask.TryParse(mask, out _) ? CellValue.Of(mask) : CellValue.Wrong("bad-value", "Enter seven digits, Monday first: 1 for rest, 0 for work.");
    }
}
