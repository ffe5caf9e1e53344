using System.Text.Json;

namespace Fid.Core.Fields;

/// <summary>Something in a configuration that would trip people up.</summary>
/// <param name="Code">The kind of finding, such as "nobody-can-fill".</param>
/// <param name="Fields">The keys of the fields it is about, the one to open first.</param>
/// <param name="Message">A sentence for somebody who keeps records, not computers.</param>
/// <param name="Suggestion">What was probably meant.</param>
/// <param name="Part">The part of the first field it is about, as a JSON Pointer within the field without the slash before it; null for the whole.</param>
/// <param name="Character">For a formula, the character, from 1, at which it is wrong.</param>
public sealed record Finding(string Code, IReadOnlyList<string> Fields, string Message, string? Suggestion = null, string? Part = null, int? Character = null);

/// <summary>A configuration to look through before it is published.</summary>
/// <param name="Fields">The fields, in the order they are shown.</param>
/// <param name="Stages">The stages, in order.</param>
/// <param name="Lists">The codes of each list.</param>
/// <param name="Roles">The roles there are.</param>
/// <param name="Live">The fields that are published now; null where that is not to be looked at.</param>
/// <param name="Stored">For each field, how many active records hold which value: texts as they are, other values as JSON.</param>
public sealed record ConfigurationQuestion(
    IReadOnlyList<FieldDefinition> Fields,
    IReadOnlyList<string> Stages,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Lists,
    IReadOnlyList<string> Roles,
    IReadOnlyList<FieldDefinition>? Live = null,
    IReadOnlyDictionary<string, IReadOnlyDictionary<string, int>>? Stored = null
)
{
    /// <summary>A stored value, from the text by which it is counted.</summary>
    internal static JsonElement StoredValue(FieldType type, string text)
    {
        if (type is FieldType.Number or FieldType.Money or FieldType.YesNo or FieldType.Choices or FieldType.Computed)
        {
            try
            {
                return JsonElement.Parse(text);
            }
            catch (JsonException)
            {
                // counted as the text it is
            }
        }
        return JsonSerializer.SerializeToElement(text);
    }
}
