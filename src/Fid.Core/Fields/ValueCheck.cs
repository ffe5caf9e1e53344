using System.Text.Json;
using Fid.Core.Clock;
using Fid.Core.Pay;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Fields;

/// <summary>Checks a value that was entered against its field, and brings it into the form that is stored.</summary>
public static class ValueCheck
{
    /// <summary>
    /// The value to store: null for nothing (null, or a text of spaces), text trimmed and in Unicode normal form C, numbers as
    /// numbers, dates as ISO 8601 texts. Problems have the path "/" and the field's key. Whether a list entry or a person exists
    /// is for the caller to see.
    /// </summary>
    /// <param name="field">The field.</param>
    /// <param name="value">What was entered.</param>
    public static (JsonElement? Value, Problem? Problem) Check(RecordField field, JsonElement? value)
    {
        if (value is not { } entered || entered.ValueKind is JsonValueKind.Null or JsonValueKind.Undefined) return (null, null);
        return field.Type is FieldType.Number or FieldType.Money ? CheckNumber(field, entered) : CheckText(field, entered);
    }

    private static (JsonElement?, Problem?) CheckNumber(RecordField field, JsonElement entered)
    {
        if (entered.ValueKind != JsonValueKind.Number || !entered.TryGetDecimal(out var number))
            return Wrong(field, "wrong-type", "Enter a number.");
        if (number < field.Min || number > field.Max)
            return Wrong(field, "out-of-range", $"Enter a number from {field.Min} to {field.Max}.");
        if (field.Type == FieldType.Money && number != Math.Round(number, 4))
            return Wrong(field, "too-fine", "Enter at most four decimals.");
        return (JsonSerializer.SerializeToElement(field.Type == FieldType.Money ? Rate(number) : number), null);
    }

    // A rate keeps the decimals it was entered with, but at least the minor unit's.
    private static decimal Rate(decimal number) => number.Scale < 2 ? Money.Decimals(number, 2) : number;

    private static (JsonElement?, Problem?) CheckText(RecordField field, JsonElement entered)
    {
        if (entered.ValueKind != JsonValueKind.String) return Wrong(field, "wrong-type", "Enter a text.");
        if (!TextRules.TryClean(entered, out var text)) return Wrong(field, "bad-characters", TextRules.BadCharacters);
        if (text.Length == 0) return (null, null);
        if (text.Length > RecordField.LongestText)
            return Wrong(field, "too-long", $"Enter at most {RecordField.LongestText} characters.");
        var message = field.Type switch
        {
            FieldType.Date when !LocalDatePattern.Iso.Parse(text).TryGetValue(default, out var date) || !IsSensible(date) =>
                "Enter a date from 1900 to 2199.",
            FieldType.Choice when field.Options!.All(o => o.Value != text) =>
                $"Choose one of {string.Join(", ", field.Options!.Select(o => o.English))}.",
            FieldType.Email when !TextRules.IsEmail(text) => "Enter an e-mail address, such as name@example.org.",
            FieldType.Phone when !TextRules.IsPhone(text) => "Enter a telephone number: digits, spaces, + ( ) - only.",
            FieldType.Badge when !Badges.IsNumber(text) => "Enter 1 to 20 digits and nothing else.",
            FieldType.Person when !Guid.TryParse(text, out _) => "Choose a person.",
            _ => null,
        };
        if (message is not null) return Wrong(field, "bad-value", message);
        return (JsonSerializer.SerializeToElement(text), null);
    }

    /// <summary>Whether a date can belong to a working life: in the years 1900 to 2199.</summary>
    public static bool IsSensible(LocalDate date) => date.Year is >= 1900 and < 2200;

    private static (JsonElement?, Problem?) Wrong(RecordField field, string code, string message) =>
        (null, new Problem($"/{field.Key}", code, message));
}
