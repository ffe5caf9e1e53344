using System.Runtime.CompilerServices;
using System.Text.Json;
using Fid.Core.Clock;
using Fid.Core.Pay;
using Fid.Core.Texts;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Fields;

/// <summary>Checks a value that was entered against its field, and brings it into the form that is stored.</summary>
public static class ValueCheck
{
    /// <summary>The longest text of several lines, in characters.</summary>
    public const int LongestLongText = 4000;

    private const decimal MostNumber = 1_000_000_000;
    private const int MostChoices = 100;
    private const string BadgeField = "badge";

    // Reading a pattern takes far longer than matching with it; a definition keeps the one it has.
    private static readonly ConditionalWeakTable<FieldDefinition, StrongBox<TextPattern?>> Patterns = [];

    /// <summary>
    /// The value to store: null for nothing (null, or a text of spaces), text trimmed and in Unicode normal form C, numbers as
    /// numbers, dates as ISO 8601 texts. Problems have the path "/" and the field's key. Whether a list entry or a person exists
    /// is for the caller to see.
    /// </summary>
    /// <param name="field">The field.</param>
    /// <param name="value">What was entered.</param>
    public static (JsonElement? Value, Problem? Problem) Check(FieldDefinition field, JsonElement? value)
    {
        if (value is not { } entered || entered.ValueKind is JsonValueKind.Null or JsonValueKind.Undefined)
            return (null, null);
        if (field.Sensitive && SealedText.IsMask(entered))
            return Masked(field);
        return field.Type switch
        {
            FieldType.Computed => Wrong(field, "read-only", "This is computed and is not entered."),
            FieldType.Rows => Wrong(field, "wrong-type", "This holds rows. Change the cells of a row, or take a row away, one by one."),
            FieldType.Number or FieldType.Money => CheckNumber(field, entered),
            FieldType.YesNo => entered.ValueKind is JsonValueKind.True or JsonValueKind.False
                ? (entered, null)
                : Wrong(field, "wrong-type", "Enter yes or no."),
            FieldType.Choices => CheckChoices(field, entered),
            _ => CheckText(field, entered),
        };
    }

    private static (JsonElement?, Problem?) Masked(FieldDefinition field) => Wrong(field, "masked", "This is the mask that stands for the value, not a value.");

    private static (JsonElement?, Problem?) CheckNumber(FieldDefinition field, JsonElement entered)
    {
        if (entered.ValueKind != JsonValueKind.Number || !entered.TryGetDecimal(out var number))
            return Wrong(field, "wrong-type", "Enter a number.");
        if (Math.Abs(number) > MostNumber || (field.Min?.Number is { } min && number < min) || (field.Max?.Number is { } max && number > max))
            return Wrong(field, "out-of-range", $"Enter a number from {field.Min?.Number ?? -MostNumber} to {field.Max?.Number ?? MostNumber}.");
        if (field.Type == FieldType.Money && number != Math.Round(number, 4))
            return Wrong(field, "too-fine", "Enter at most four decimals.");
        return (JsonSerializer.SerializeToElement(field.Type == FieldType.Money ? Rate(number) : number), null);
    }

    // A rate keeps the decimals it was entered with, but at least the minor unit's.
    private static decimal Rate(decimal number) => number.Scale < 2 ? Money.Decimals(number, 2) : number;

    private static (JsonElement?, Problem?) CheckChoices(FieldDefinition field, JsonElement entered)
    {
        if (!ValueFit.IsOfType(FieldType.Choices, entered))
            return Wrong(field, "wrong-type", "Choose from the list.");
        var chosen = FieldValues.Texts(entered).Distinct(StringComparer.Ordinal).ToArray();
        if (chosen.Length == 0)
            return (null, null);
        if (chosen.Length > MostChoices)
            return Wrong(field, "too-many", $"Choose at most {MostChoices}.");
        if (field.Options is { } options && chosen.FirstOrDefault(c => options.All(o => o.Value != c)) is not null)
            return WrongOption(field, options);
        return ((decimal)chosen.Length) switch
        {
            var count when field.Min?.Number is { } min && count < min => Wrong(field, "out-of-range", $"Choose at least {min}."),
            var count when field.Max?.Number is { } max && count > max => Wrong(field, "out-of-range", $"Choose at most {max}."),
            _ => (JsonSerializer.SerializeToElement(chosen), null),
        };
    }

    private static (JsonElement?, Problem?) CheckText(FieldDefinition field, JsonElement entered)
    {
        if (entered.ValueKind != JsonValueKind.String)
            return Wrong(field, "wrong-type", "Enter a text.");
        var isLong = field.Type == FieldType.LongText;
        var (text, longest) = ("", isLong ? LongestLongText : TextRules.Longest);
        if (!(isLong ? TextRules.TryCleanLines(entered, out text) : TextRules.TryClean(entered, out text)))
            return Wrong(field, "bad-characters", TextRules.BadCharacters);
        if (text.Length == 0)
            return (null, null);
        // Looked at as it would be stored: spaces before it would else hide that it is one.
        if (SealedText.IsSealed(text))
            return Masked(field);
        if (text.Length > longest)
            return Wrong(field, "too-long", $"Enter at most {longest} characters.");
        if (field.Type == FieldType.Choice && field.Options is { } options && options.All(o => o.Value != text))
            return WrongOption(field, options);
        var message = field.Type switch
        {
            FieldType.Date when !LocalDatePattern.Iso.Parse(text).TryGetValue(default, out var date) || !IsSensible(date) => "Enter a date from 1900 to 2199.",
            FieldType.Date when field.Min?.Date is { } min && string.CompareOrdinal(text, min) < 0 => $"Enter a date from {min} on.",
            FieldType.Date when field.Max?.Date is { } max && string.CompareOrdinal(text, max) > 0 => $"Enter a date up to {max}.",
            FieldType.Email when !TextRules.IsEmail(text) => "Enter an e-mail address, such as name@example.org.",
            FieldType.Phone when !TextRules.IsPhone(text) => "Enter a telephone number: digits, spaces, + ( ) - only.",
            FieldType.Iban => Iban.Read(text, out text),
            FieldType.Person when !Guid.TryParse(text, out _) => "Choose a person.",
            FieldType.File when !Guid.TryParse(text, out _) => "Choose a file.",
            FieldType.Text or FieldType.LongText or FieldType.Identifier when field.Min?.Number is { } least && text.Length < least =>
                $"Enter at least {least} characters.",
            FieldType.Text or FieldType.LongText or FieldType.Identifier when field.Max?.Number is { } most && text.Length > most =>
                $"Enter at most {most} characters.",
            _ when field.Key == BadgeField && !Badges.IsNumber(text) => "Enter 1 to 20 digits and nothing else.",
            _ when field.Pattern is not null
                    && Patterns.GetValue(field, f => new(TextPattern.Read(f.Pattern!).Pattern)).Value is { } pattern
                    && !pattern.Matches(text) => "This is not written as the field wants it.",
            _ => null,
        };
        if (message is not null)
            return Wrong(field, "bad-value", message);
        return (JsonSerializer.SerializeToElement(text), null);
    }

    /// <summary>Whether a date can belong to a working life: in the years 1900 to 2199.</summary>
    public static bool IsSensible(LocalDate date) => date.Year is >= 1900 and < 2200;

    private static (JsonElement?, Problem?) WrongOption(FieldDefinition field, IReadOnlyList<FieldOption> options) =>
        Wrong(field, "bad-value", $"Choose one of {string.Join(", ", options.Where(o => !o.Retired).Take(12).Select(o => o.Label("en")))}.");

    private static (JsonElement?, Problem?) Wrong(FieldDefinition field, string code, string message) => (null, new Problem($"/{field.Key}", code, message));
}
