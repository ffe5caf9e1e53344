using System.Text.Json;
using System.Text.RegularExpressions;
using Fid.Acts.Fields;
using Fid.Core.Fields;
using Fid.Core.Templates;
using Fid.Data.Hires;
using Fid.Data.Templates;

namespace Fid.Acts.Templates;

/// <summary>What a template refers to in the firm's lists: values of fields that hold entries, the teams and calendars of tasks,
/// and what formulas compare such fields with.</summary>
public static partial class TemplateReferences
{
    // The properties of a task that name who it is about, perhaps a team.
    private static readonly string[] Owners = ["owner", "contact"];

    /// <summary>The codes of entries of a list that a template refers to.</summary>
    public static IEnumerable<string> Of(TemplateSpec spec, string list, LiveFields fields)
    {
        foreach (var (field, value) in spec.Values)
        {
            if (TemplateSpec.FormulaOf(value) is { } formula)
                foreach (var code in Compared(formula, list, fields))
                    yield return code;
            else if (fields.ListOf(field) == list)
                foreach (var code in FieldValues.Texts(value))
                    yield return code;
        }
        foreach (var when in Conditions(spec))
        foreach (var code in Compared(when, list, fields))
            yield return code;
        foreach (var code in spec.Entries(TemplateLists.Tasks).SelectMany(t => OfTask(t.Properties, list)))
            yield return code;
        foreach (var (name, _) in TemplateReview.KeyedBy.Where(k => k.Value == list))
        foreach (var entry in spec.Entries(name))
            yield return entry.Key;
    }

    private static IEnumerable<string> Conditions(TemplateSpec spec) =>
        spec.Lists.Values.SelectMany(l => l).Select(e => e.Condition).Prepend(spec.When).OfType<string>();

    /// <summary>The codes of entries of a list that a task refers to: the teams that do it or can help, and its calendar.</summary>
    public static IEnumerable<string> OfTask(IReadOnlyDictionary<string, JsonElement> properties, string list) =>
        list switch
        {
            "teams" => Owners.Select(p => Property(properties, p)).OfType<string>().Select(HireTask.TeamOf).OfType<string>(),
            "calendars" when Property(properties, "calendar") is { } calendar and not HireTask.OwnCalendar => [calendar],
            _ => [],
        };

    /// <summary>What a task says with one entry replaced by another wherever it refers to it.</summary>
    public static Dictionary<string, JsonElement> ReplaceInTask(IReadOnlyDictionary<string, JsonElement> properties, string list, string from, string to) =>
        properties.ToDictionary(
            p => p.Key,
            p =>
                (list, p.Key) switch
                {
                    ("teams", _) when Owners.Contains(p.Key) && Text(p.Value) == HireTask.TeamPrefix + from => JsonSerializer.SerializeToElement(
                        HireTask.TeamPrefix + to
                    ),
                    ("calendars", "calendar") when Text(p.Value) == from => JsonSerializer.SerializeToElement(to),
                    _ => p.Value,
                }
        );

    /// <summary>What a template says with one entry replaced by another wherever it refers to it.</summary>
    public static TemplateSpec Replace(TemplateSpec spec, string list, string from, string to, LiveFields fields) =>
        spec with
        {
            Values = spec.Values.ToDictionary(
                v => v.Key,
                v =>
                    TemplateSpec.FormulaOf(v.Value) is { } formula
                        ? JsonSerializer.SerializeToElement(new { formula = InFormula(formula, list, from, to, fields) })
                    : fields.ListOf(v.Key) == list ? FieldValues.Replace(v.Value, from, to)
                    : v.Value
            ),
            When = spec.When is { } when ? InFormula(when, list, from, to, fields) : null,
            Lists = spec.Lists.ToDictionary(
                l => l.Key,
                l =>
                    (IReadOnlyList<TemplateEntry>)
                        [
                            .. l.Value.Select(e =>
                                e with
                                {
                                    Key = TemplateReview.KeyedBy.GetValueOrDefault(l.Key) == list && e.Key == from ? to : e.Key,
                                    Properties = InCondition(l.Key == TemplateLists.Tasks ? ReplaceInTask(e.Properties, list, from, to) : e.Properties, when =>
                                        InFormula(when, list, from, to, fields)
                                    ),
                                }
                            ),
                        ]
            ),
        };

    private static IReadOnlyDictionary<string, JsonElement> InCondition(IReadOnlyDictionary<string, JsonElement> properties, Func<string, string> replace) =>
        Property(properties, "when") is { } when
            ? properties.ToDictionary(p => p.Key, p => p.Key == "when" ? JsonSerializer.SerializeToElement(replace(when)) : p.Value)
            : properties;

    private static IEnumerable<string> Compared(string formula, string list, LiveFields fields) =>
        Comparison().Matches(formula).Where(m => fields.ListOf(m.Groups["field"].Value) == list).Select(m => m.Groups["code"].Value);

    private static string InFormula(string formula, string list, string from, string to, LiveFields fields) =>
        Comparison()
            .Replace(formula, m =>
                fields.ListOf(m.Groups["field"].Value) == list && m.Groups["code"].Value == from
                    ? $"{m.Groups["before"].Value}{to}{m.Groups["quote"].Value}"
                    : m.Value
            );

    private static string? Property(IReadOnlyDictionary<string, JsonElement> properties, string name) =>
        properties.TryGetValue(name, out var value) ? Text(value) : null;

    private static string? Text(JsonElement value) => value.ValueKind == JsonValueKind.String ? value.GetString() : null;

    [GeneratedRegex("""(?<before>\b(?<field>[A-Za-z_][A-Za-z0-9_]*)\s*[=!]=\s*(?<quote>['"]))(?<code>[^'"]*)\k<quote>""")]
    private static partial Regex Comparison();
}
