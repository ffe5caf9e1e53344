using System.Text.Json;
using System.Text.RegularExpressions;
using Fid.Core.Fields;
using Fid.Core.Templates;
using Fid.Data.Fields;
using Fid.Data.Hires;

namespace Fid.Data.Templates;

/// <summary>What a template refers to in the firm's lists: values of fields that hold entries, the teams and calendars of tasks,
/// and what formulas compare such fields with.</summary>
public static partial class TemplateReferences
{
    /// <summary>The codes of entries of a list that a template refers to.</summary>
    public static IEnumerable<string> Of(TemplateSpec spec, string list, LiveFields fields)
    {
        foreach (var (field, value) in spec.Values)
        {
            if (TemplateSpec.FormulaOf(value) is { } formula)
                foreach (var code in Compared(formula, list, fields)) yield return code;
            else if (fields.ListOf(field) == list)
                foreach (var code in FieldValues.Texts(value)) yield return code;
        }
        if (spec.When is { } when)
            foreach (var code in Compared(when, list, fields)) yield return code;
        foreach (var properties in spec.Entries(TemplateLists.Tasks).Select(t => t.Properties))
        {
            if (list == "teams" && Property(properties, "owner") is { } owner && owner.StartsWith(HireTask.TeamPrefix, StringComparison.Ordinal))
                yield return owner[HireTask.TeamPrefix.Length..];
            if (list == "calendars" && Property(properties, "calendar") is { } calendar && calendar != HireTask.OwnCalendar) yield return calendar;
        }
        foreach (var (name, _) in TemplateReview.KeyedBy.Where(k => k.Value == list))
            foreach (var entry in spec.Entries(name)) yield return entry.Key;
    }

    /// <summary>What a template says with one entry replaced by another wherever it refers to it.</summary>
    public static TemplateSpec Replace(TemplateSpec spec, string list, string from, string to, LiveFields fields) => spec with
    {
        Values = spec.Values.ToDictionary(v => v.Key, v =>
            TemplateSpec.FormulaOf(v.Value) is { } formula ? JsonSerializer.SerializeToElement(new { formula = InFormula(formula, list, from, to, fields) })
            : fields.ListOf(v.Key) == list ? FieldValues.Replace(v.Value, from, to) : v.Value),
        When = spec.When is { } when ? InFormula(when, list, from, to, fields) : null,
        Lists = spec.Lists.ToDictionary(l => l.Key, l => (IReadOnlyList<TemplateEntry>)[.. l.Value.Select(e => e with
        {
            Key = TemplateReview.KeyedBy.GetValueOrDefault(l.Key) == list && e.Key == from ? to : e.Key,
            Properties = e.Properties.ToDictionary(p => p.Key, p => (l.Key, p.Key) switch
            {
                (TemplateLists.Tasks, "owner") when list == "teams" && Text(p.Value) == HireTask.TeamPrefix + from => JsonSerializer.SerializeToElement(HireTask.TeamPrefix + to),
                (TemplateLists.Tasks, "calendar") when list == "calendars" && Text(p.Value) == from => JsonSerializer.SerializeToElement(to),
                _ => p.Value,
            }),
        })]),
    };

    private static IEnumerable<string> Compared(string formula, string list, LiveFields fields) =>
        Comparison().Matches(formula).Where(m => fields.ListOf(m.Groups["field"].Value) == list).Select(m => m.Groups["code"].Value);

    private static string InFormula(string formula, string list, string from, string to, LiveFields fields) => Comparison().Replace(formula, m =>
        fields.ListOf(m.Groups["field"].Value) == list && m.Groups["code"].Value == from ? $"{m.Groups["before"].Value}{to}{m.Groups["quote"].Value}" : m.Value);

    private static string? Property(IReadOnlyDictionary<string, JsonElement> properties, string name) =>
        properties.TryGetValue(name, out var value) ? Text(value) : null;

    private static string? Text(JsonElement value) => value.ValueKind == JsonValueKind.String ? value.GetString() : null;

    [GeneratedRegex("""(?<before>\b(?<field>[A-Za-z_][A-Za-z0-9_]*)\s*[=!]=\s*(?<quote>['"]))(?<code>[^'"]*)\k<quote>""")]
    private static partial Regex Comparison();
}
