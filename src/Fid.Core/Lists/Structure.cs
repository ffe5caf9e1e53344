using System.Text.Json;
using System.Text.Json.Serialization;
using Fid.Core.Pay;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Lists;

/// <summary>A column type that holds several parts: how they are read, written and checked.</summary>
internal abstract class Structure
{
    /// <summary>More parts than any firm needs; a bound on what one entry can hold.</summary>
    private const int MostParts = 500;

    private static readonly Dictionary<ColumnType, Structure> ByType = new()
    {
        [ColumnType.Bands] = new Of<BandFrom>(
            StructureText.Band,
            StructureText.Band,
            "a date, three amounts and year or hour, such as 2027-01-01 30000-36000-42000 year",
            StructureCheck.Bands
        ),
        [ColumnType.Heads] = new Of<HeadFrom>(
            StructureText.Head,
            StructureText.Head,
            "a date and an employee number, such as 2027-01-01 1042",
            StructureCheck.Heads
        ),
        [ColumnType.Requirements] = new Of<Requirement>(
            (t, _) => StructureText.Requirement(t),
            StructureText.Requirement,
            "a certificate and essential or desirable, such as SEA essential",
            StructureCheck.Requirements
        ),
        [ColumnType.Rates] = new Of<RateFrom>(
            StructureText.Rate,
            StructureText.Rate,
            "a date, flat, percent or amount, and a figure, such as 2027-01-01 percent 10",
            StructureCheck.Rates
        ),
        [ColumnType.Brackets] = new Of<PayBracket>(
            StructureText.Bracket,
            StructureText.Bracket,
            "a percentage and its upper end, such as 18% to 30000",
            StructureCheck.Brackets
        ),
        [ColumnType.Holidays] = new Of<HolidayEntry>(
            (t, _) => StructureText.Holiday(t),
            StructureText.Holiday,
            "a day and a name, such as --12-25 Midwinter",
            StructureCheck.Holidays
        ),
        [ColumnType.Shifts] = new Of<ShiftEntry>(
            (t, _) => StructureText.Shift(t),
            StructureText.Shift,
            "a letter, the times and the unpaid minutes, such as E 06:00-14:00 30",
            StructureCheck.Shifts
        ),
        [ColumnType.Options] = new Of<OptionEntry>(
            (t, _) => StructureText.Option(t),
            StructureText.Option,
            "a value and its labels, such as S: small | klein",
            StructureCheck.Options
        ),
    };

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new DateConverter() },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        RespectRequiredConstructorParameters = true,
        RespectNullableAnnotations = true,
        NumberHandling = JsonNumberHandling.Strict,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    /// <summary>The structure of a type; null for those that hold one value.</summary>
    public static Structure? For(ColumnType type) => ByType.GetValueOrDefault(type);

    public abstract CellValue FromText(string text, CellStyle style);

    public abstract CellValue FromJson(JsonElement json);

    public abstract string ToText(object value);

    public static void Write(Utf8JsonWriter writer, object value) => JsonSerializer.Serialize(writer, value, value.GetType(), Json);

    private sealed class Of<T>(Func<string, CellStyle, T?> read, Func<T, string> write, string example, Func<IReadOnlyList<T>, string?> check) : Structure
        where T : class
    {
        public override CellValue FromText(string text, CellStyle style)
        {
            var parts = new List<T>();
            foreach (var part in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
            {
                if (read(part, style) is not { } made)
                    return CellValue.Wrong("bad-value", $"“{part}” cannot be read. Write {example}; separate several with semicolons.");
                parts.Add(made);
            }
            return Checked(parts);
        }

        public override CellValue FromJson(JsonElement json)
        {
            try
            {
                return Checked(json.Deserialize<T[]>(Json) ?? []);
            }
            catch (Exception e) when (e is JsonException or NotSupportedException or InvalidOperationException)
            {
                return CellValue.Wrong("wrong-type", $"Enter {example}.");
            }
        }

        public override string ToText(object value) => string.Join("; ", ((IReadOnlyList<T>)value).Select(write));

        private CellValue Checked(IReadOnlyList<T> parts)
        {
            if (parts.Count == 0)
                return CellValue.Empty;
            if (parts.Count > MostParts)
                return CellValue.Wrong("out-of-range", $"Enter at most {MostParts} of these.");
            if (parts.Contains(null!))
                return CellValue.Wrong("wrong-type", $"Enter {example}.");
            return check(parts) is { } wrong ? CellValue.Wrong("bad-value", wrong) : CellValue.Of(parts.ToArray());
        }
    }

    private sealed class DateConverter : JsonConverter<LocalDate>
    {
        public override LocalDate Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String && LocalDatePattern.Iso.Parse(reader.GetString()!).TryGetValue(default, out var date)
                ? date
                : throw new JsonException("Not an ISO 8601 date.");

        public override void Write(Utf8JsonWriter writer, LocalDate value, JsonSerializerOptions options) =>
            writer.WriteStringValue(LocalDatePattern.Iso.Format(value));
    }
}
