using System.Text.Json;
using NodaTime;

namespace Fid.Core.Json;

/// <summary>Writing what answers have in common.</summary>
internal static class Answers
{
    /// <summary>Writes a date as ISO 8601, or null.</summary>
    public static void Date(this Utf8JsonWriter writer, JsonEncodedText name, LocalDate? date)
    {
        writer.WritePropertyName(name);
        writer.Date(date);
    }

    public static void Date(this Utf8JsonWriter writer, LocalDate? date)
    {
        if (date is not { } d)
        {
            writer.WriteNullValue();
            return;
        }
        var (year, month, day) = d;
        Span<byte> text =
        [
            Digit(year / 1000),
            Digit(year / 100),
            Digit(year / 10),
            Digit(year),
            (byte)'-',
            Digit(month / 10),
            Digit(month),
            (byte)'-',
            Digit(day / 10),
            Digit(day),
        ];
        writer.WriteStringValue(text);

        static byte Digit(int number) => (byte)('0' + number % 10);
    }

    /// <summary>Writes a list of texts.</summary>
    public static void Texts(this Utf8JsonWriter writer, string name, IReadOnlyList<string> texts)
    {
        writer.WriteStartArray(name);
        foreach (var text in texts)
            writer.WriteStringValue(text);
        writer.WriteEndArray();
    }

    /// <summary>The answer of a result; otherwise its problems are noted and null comes back.</summary>
    public static T? Take<T>(this Result<T> result, ref QuestionReader question)
        where T : class
    {
        question.Report(result.Problems);
        return result.Answer;
    }
}
