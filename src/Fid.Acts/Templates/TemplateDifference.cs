using System.Text.Json;
using Fid.Core.Json;
using Fid.Core.Templates;
using Fid.Data.Templates;

namespace Fid.Acts.Templates;

/// <summary>A difference between two versions of a template.</summary>
/// <param name="Part">"values", one of <see cref="TemplateLists.All"/>, or for what concerns the whole "name", "nameDe", "buildsOn", "when", "order",
/// "opens".</param>
/// <param name="Key">The field or the entry; null for what concerns the whole.</param>
/// <param name="Property">The entry's property; null where the entry itself came, went, or is dropped.</param>
/// <param name="Before">What it was; null for nothing.</param>
/// <param name="After">What it is; null for nothing.</param>
public sealed record TemplateDifference(string Part, string? Key, string? Property, JsonElement? Before, JsonElement? After)
{
    /// <summary>What differs, values first, then list by list in the order of the entries.</summary>
    public static IReadOnlyList<TemplateDifference> Of(TemplateSpec before, TemplateSpec after)
    {
        var differences = new List<TemplateDifference>();
        Whole("name", before.Name, after.Name);
        Whole("nameDe", before.NameDe, after.NameDe);
        Whole("buildsOn", before.BuildsOn, after.BuildsOn);
        Whole("when", before.When, after.When);
        Whole("order", before.Order, after.Order);
        Whole("opens", before.Opens, after.Opens);
        foreach (var field in before.Values.Keys.Union(after.Values.Keys, StringComparer.Ordinal))
            Add("values", field, null, Of(before.Values, field), Of(after.Values, field));
        foreach (var list in TemplateLists.All)
        {
            var (was, will) = (
                before.Entries(list).ToDictionary(e => e.Key, StringComparer.Ordinal),
                after.Entries(list).ToDictionary(e => e.Key, StringComparer.Ordinal)
            );
            foreach (var key in was.Keys.Union(will.Keys, StringComparer.Ordinal))
            {
                var (old, now) = (was.GetValueOrDefault(key), will.GetValueOrDefault(key));
                Add(list, key, null, State(old), State(now));
                if (old is not null && now is not null)
                    foreach (var property in old.Properties.Keys.Union(now.Properties.Keys, StringComparer.Ordinal))
                        Add(list, key, property, Of(old.Properties, property), Of(now.Properties, property));
            }
        }
        return differences;

        void Whole<T>(string part, T old, T now) => Add(part, null, null, Json(old), Json(now));

        void Add(string part, string? key, string? property, JsonElement? old, JsonElement? now)
        {
            if (!JsonValues.Same(old, now))
                differences.Add(new TemplateDifference(part, key, property, old, now));
        }
    }

    private static JsonElement? Json<T>(T value) => value is null ? null : JsonSerializer.SerializeToElement(value);

    private static JsonElement? State(TemplateEntry? entry) => entry is null ? null : JsonSerializer.SerializeToElement(entry.Drop ? "dropped" : "there");

    private static JsonElement? Of(IReadOnlyDictionary<string, JsonElement> values, string key) => values.TryGetValue(key, out var value) ? value : null;
}
