using System.Text.Json;
using Fid.Core.Formulas;
using Fid.Core.Texts;

namespace Fid.Core.Fields;

/// <summary>What is wrong with a value of a field. Its numbers say in which order it is looked for.</summary>
public enum Misfit
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>It is not of the field's type.</summary>
    Type,

    /// <summary>It is none of the options, or no entry of the list.</summary>
    Option,

    /// <summary>It is an option, but not under the value of the parent field.</summary>
    Within,

    /// <summary>It does not match the pattern.</summary>
    Pattern,

    /// <summary>It is below the least.</summary>
    Min,

    /// <summary>It is above the most.</summary>
    Max,
}

/// <summary>Holds a value against its field.</summary>
internal static class ValueFit
{
    /// <summary>The first thing wrong with a value that is not empty.</summary>
    /// <param name="field">The field.</param>
    /// <param name="value">Its value.</param>
    /// <param name="entries">The codes of the field's list, or null where that is not to be looked at.</param>
    /// <param name="pattern">The field's pattern, or null.</param>
    /// <param name="parent">The value of the parent field; empty where it does not narrow.</param>
    /// <param name="chosenNow">Whether it was chosen just now, so that a retired option is none.</param>
    public static Misfit Check(
        FieldDefinition field,
        JsonElement value,
        IReadOnlySet<string>? entries,
        TextPattern? pattern,
        JsonElement? parent = null,
        bool chosenNow = false
    )
    {
        if (!IsOfType(field.Type, value))
            return Misfit.Type;
        if (field.Type is FieldType.Computed or FieldType.Rows)
            return Misfit.None;
        foreach (var one in FieldValues.Texts(value))
            if (IsOption(field, one, entries, chosenNow, parent) is var misfit and not Misfit.None)
                return misfit;
        if (pattern is not null && value.ValueKind == JsonValueKind.String && !pattern.Matches(value.GetString()!))
            return Misfit.Pattern;
        if (field.Min is { } min && Compare(field, value, min) < 0)
            return Misfit.Min;
        if (field.Max is { } max && Compare(field, value, max) > 0)
            return Misfit.Max;
        return Misfit.None;
    }

    /// <summary>Whether a value is of a type.</summary>
    public static bool IsOfType(FieldType type, JsonElement value) =>
        type switch
        {
            FieldType.Number or FieldType.Money => value.ValueKind == JsonValueKind.Number && value.TryGetDecimal(out _),
            FieldType.YesNo => value.ValueKind is JsonValueKind.True or JsonValueKind.False,
            FieldType.Choices => value.ValueKind == JsonValueKind.Array && value.EnumerateArray().All(v => v.ValueKind == JsonValueKind.String),
            FieldType.Computed or FieldType.Rows => true,
            _ => value.ValueKind == JsonValueKind.String
                && type switch
                {
                    FieldType.Date => RecordFormula.IsDate(value.GetString()!, out _),
                    FieldType.Email => TextRules.IsEmail(value.GetString()!),
                    FieldType.Iban => Iban.Read(value.GetString()!, out _) is null,
                    FieldType.Phone => TextRules.IsPhone(value.GetString()!),
                    _ => true,
                },
        };

    private static Misfit IsOption(FieldDefinition field, string value, IReadOnlySet<string>? entries, bool chosenNow, JsonElement? parent)
    {
        if (field.Options is { } options)
        {
            if (options.FirstOrDefault(o => o.Value == value) is not { } option || (chosenNow && option.Retired))
                return Misfit.Option;
            if (option.Within is { } within && !FieldValues.IsEmpty(parent) && !FieldValues.Texts(parent!.Value).Any(within.Contains))
                return Misfit.Within;
        }
        else if (field.IsChosen && entries is not null && !entries.Contains(value.Trim()))
            return Misfit.Option;
        return Misfit.None;
    }

    private static int Compare(FieldDefinition field, JsonElement value, FieldLimit limit) =>
        value.ValueKind switch
        {
            JsonValueKind.Number when limit.Number is { } number => value.GetDecimal().CompareTo(number),
            JsonValueKind.Array when limit.Number is { } number => ((decimal)value.GetArrayLength()).CompareTo(number),
            // A file's limit is its size; what is stored is its id.
            _ when field.Type == FieldType.File => 0,
            // ISO 8601 dates are in order as texts.
            JsonValueKind.String when field.Type == FieldType.Date => limit.Date is null ? 0 : string.CompareOrdinal(value.GetString(), limit.Date),
            JsonValueKind.String when limit.Number is { } number && !field.IsChosen => ((decimal)value.GetString()!.Length).CompareTo(number),
            _ => 0,
        };
}
