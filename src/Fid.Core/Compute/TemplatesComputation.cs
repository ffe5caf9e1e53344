using System.Text.Json;
using Fid.Core.Formulas;
using Fid.Core.Json;
using Fid.Core.Templates;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`templates.resolve`: what a hire would start with, and why; `templates.merge`: what a new version of a template means
/// for a hire under way.</summary>
internal static class TemplatesComputation
{
    private static readonly Shape ResolveQuestion = new("facts?", "templates", "use", "addOns?", "typed?", "fields?", "today?");
    private static readonly Shape Template = new("id", "version", "buildsOn?", "values?", "tasks?", "items?", "documents?");
    private static readonly Shape AddOn = new("id", "version", "when?", "order?", "values?", "tasks?", "items?", "documents?");
    private static readonly Shape MergeQuestion = new("base", "mine", "theirs");

    // The lists the computation speaks of, in its order.
    private static readonly string[] Lists = [TemplateLists.Tasks, TemplateLists.Items, TemplateLists.Documents];

    private static readonly Choices Fates = new("same", "take", "keep", "agree", "conflict");

    public static void AnswerResolve(ref QuestionReader question, Utf8JsonWriter writer)
    {
        Dictionary<string, JsonElement> facts = [],
            typed = [];
        List<TemplateDefinition> templates = [];
        List<AddOnDefinition> addOns = [];
        var use = "";
        List<string>? fields = null;
        LocalDate? today = null;
        var seen = 0u;
        if (question.Object())
            while (question.Property(ResolveQuestion, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        facts = question.Named((ref q) => q.Json());
                        break;
                    case 1:
                        templates = question.Items(ReadTemplate);
                        break;
                    case 2:
                        use = question.Id();
                        break;
                    case 3:
                        addOns = question.Items(ReadAddOn);
                        break;
                    case 4:
                        typed = question.Named((ref q) => q.Json());
                        break;
                    case 5:
                        fields = question.Items((ref q) => q.Id());
                        break;
                    default:
                        today = question.Date();
                        break;
                }
            }
        if (!question.IsSound)
            return;
        var asked = new TemplateQuestion(facts, templates, use, addOns, typed, fields?.ToHashSet(StringComparer.Ordinal), today);
        if (TemplateResolution.Resolve(asked).Take(ref question) is { } layered)
            Write(writer, layered);
    }

    public static void AnswerMerge(ref QuestionReader question, Utf8JsonWriter writer)
    {
        var sides = new Dictionary<string, JsonElement>[] { [], [], [] };
        var seen = 0u;
        if (question.Object())
            while (question.Property(MergeQuestion, ref seen) is var at and >= 0)
                sides[at] = question.Named((ref q) => q.Json());
        if (!question.IsSound)
            return;
        writer.WriteStartObject();
        writer.WriteStartObject("fields");
        foreach (var (field, fate) in TemplateMerge.Merge(sides[0], sides[1], sides[2]))
            writer.WriteString(field, Fates.Word((int)fate));
        writer.WriteEndObject();
        writer.WriteEndObject();
    }

    private static TemplateDefinition ReadTemplate(ref QuestionReader question)
    {
        var (id, version) = ("", 0);
        string? buildsOn = null;
        var content = new Content();
        var seen = 0u;
        if (question.Object())
            while (question.Property(Template, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        id = question.Id();
                        break;
                    case 1:
                        version = question.Whole(0, int.MaxValue);
                        break;
                    case 2:
                        buildsOn = question.Id();
                        break;
                    default:
                        content.Read(ref question, at - 3);
                        break;
                }
            }
        return new TemplateDefinition(id, version, buildsOn, content.Done());
    }

    private static AddOnDefinition ReadAddOn(ref QuestionReader question)
    {
        var (id, version, order) = ("", 0, 0);
        RecordFormula? when = null;
        var content = new Content();
        var seen = 0u;
        if (question.Object())
            while (question.Property(AddOn, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        id = question.Id();
                        break;
                    case 1:
                        version = question.Whole(0, int.MaxValue);
                        break;
                    case 2:
                        when = question.Formula(question.Text());
                        break;
                    case 3:
                        order = question.Whole(int.MinValue, int.MaxValue);
                        break;
                    default:
                        content.Read(ref question, at - 4);
                        break;
                }
            }
        return new AddOnDefinition(id, version, when, order, content.Done());
    }

    /// <summary>What a template or an add-on sets, as it is read.</summary>
    private sealed class Content
    {
        private readonly Dictionary<string, IReadOnlyList<LayerEntry>> _lists = new(StringComparer.Ordinal);
        private Dictionary<string, LayerValue> _values = [];

        public void Read(ref QuestionReader question, int at)
        {
            if (at == 0)
                _values = question.Named(ReadValue);
            else
                _lists[Lists[at - 1]] = ReadEntries(ref question);
        }

        public LayerContent Done() => new(_values, _lists);

        private static LayerValue ReadValue(ref QuestionReader question)
        {
            var json = question.Json();
            if (json.ValueKind != JsonValueKind.Object)
            {
                question.Report("wrong-type", "This is to be an object with a value or a formula.");
                return new LayerValue(default, null);
            }
            var properties = json.EnumerateObject().ToList();
            foreach (var other in properties.Where(p => p.Name is not ("value" or "formula")))
                question.Report("unknown-property", "There is no such property here. Known: value, formula.", other.Name);
            if (properties is not [var only])
            {
                if (properties.Count(p => p.Name is "value" or "formula") != 1)
                    question.Report("bad-value", "Say either a value or a formula.");
                return new LayerValue(default, null);
            }
            if (only.Name != "formula")
                return new LayerValue(only.Value, null);
            if (only.Value.ValueKind == JsonValueKind.String)
                return new LayerValue(JsonValues.Null, question.Formula(only.Value.GetString()!, "formula"));
            question.Report("wrong-type", "This is to be a text.", "formula");
            return new LayerValue(default, null);
        }

        private static List<LayerEntry> ReadEntries(ref QuestionReader question)
        {
            var keys = new HashSet<string>(StringComparer.Ordinal);
            return question.Items(
                (ref q) =>
                {
                    var properties = q.Named((ref p) => p.Json());
                    var key = properties.Remove("key", out var k) && k.ValueKind == JsonValueKind.String ? k.GetString()! : "";
                    if (key.Length == 0)
                        q.Report(
                            k.ValueKind == JsonValueKind.Undefined ? "missing-property" : "bad-value",
                            "An entry needs a key: a text that is not empty.",
                            "key"
                        );
                    else if (!keys.Add(key))
                        q.Report("duplicate-key", $"The key {key} stands twice in this list. Keep one.", "key");
                    var drop = properties.Remove("drop", out var d) && d.ValueKind == JsonValueKind.True;
                    if (d.ValueKind is not (JsonValueKind.Undefined or JsonValueKind.True or JsonValueKind.False))
                        q.Report("wrong-type", "This is to be true or false.", "drop");
                    return new LayerEntry(key, properties, drop);
                }
            );
        }
    }

    private static void Write(Utf8JsonWriter writer, Layered layered)
    {
        writer.WriteStartObject();
        writer.WriteStartArray("layers");
        foreach (var layer in layered.Layers)
            writer.WriteStringValue(layer);
        writer.WriteEndArray();
        Values(writer, "values", layered.Values);
        foreach (var list in Lists)
            Entries(writer, list, layered.Lists[list]);
        writer.WriteStartArray("dropped");
        foreach (var dropped in layered.Dropped)
        {
            writer.WriteStartObject();
            writer.WriteString("list", dropped.List);
            writer.WriteString("key", dropped.Key);
            writer.WriteString("by", dropped.By);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static void Entries(Utf8JsonWriter writer, string name, IReadOnlyList<LayeredEntry> entries)
    {
        writer.WriteStartArray(name);
        foreach (var entry in entries)
        {
            writer.WriteStartObject();
            writer.WriteString("key", entry.Key);
            Values(writer, "properties", entry.Properties);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
    }

    private static void Values(Utf8JsonWriter writer, string name, IReadOnlyDictionary<string, LayeredValue> values)
    {
        writer.WriteStartObject(name);
        foreach (var (key, value) in values)
        {
            writer.WriteStartObject(key);
            Value(writer, value.Value);
            writer.WriteString("from", value.From);
            writer.WriteStartArray("displaced");
            foreach (var displaced in value.Displaced)
            {
                writer.WriteStartObject();
                writer.WriteString("from", displaced.From);
                Value(writer, displaced.Value);
                writer.WriteEndObject();
            }
            writer.WriteEndArray();
            writer.WriteEndObject();
        }
        writer.WriteEndObject();
    }

    private static void Value(Utf8JsonWriter writer, JsonElement value)
    {
        writer.WritePropertyName("value");
        value.WriteTo(writer);
    }
}
