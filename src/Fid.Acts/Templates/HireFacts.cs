using System.Text.Json;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Core.Templates;
using Fid.Data.Hires;

namespace Fid.Acts.Templates;

/// <summary>What a hire has, or layers come to, written flat so that three states of it can be merged: "values/pay_rate",
/// "tasks/radio" for there being such a task, "tasks/radio/work", "items/life-jacket".</summary>
internal static class HireFacts
{
    /// <summary>The properties of a task that a template says.</summary>
    public static IReadOnlyList<string> TaskProperties { get; } =
    [
        "name",
        "nameDe",
        "stage",
        "owner",
        "calendar",
        "work",
        "opens",
        "due",
        "after",
        "required",
        "dayOne",
        "kind",
        "about",
        "when",
        "instructions",
        "instructionsDe",
        "contact",
        "contactWhy",
        "contactWhyDe",
        "attachments",
        "at",
        "minutes",
        "place",
        "steps",
        "sets",
    ];

    /// <summary>What facts of the record begin with.</summary>
    public const string Values = "values/";

    private static readonly JsonElement There = JsonElement.Parse("true");

    /// <summary>What layers come to, whatever was typed over them.</summary>
    public static Dictionary<string, JsonElement> Of(Layered layered, IReadOnlyList<HireTask> tasks)
    {
        var facts = new Dictionary<string, JsonElement>(StringComparer.Ordinal);
        foreach (var (field, value) in layered.Values)
        {
            if (value.From != Layer.Typed)
                Set(facts, field, value.Value);
            else if (value.Displaced is [var below, ..])
                Set(facts, field, below.Value);
        }
        AddTasks(facts, tasks);
        AddEntries(facts, HireEntry.Of(layered));
        return facts;
    }

    /// <summary>What a hire has now.</summary>
    /// <param name="values">Its record.</param>
    /// <param name="fields">The fields of the record that are of interest.</param>
    public static Dictionary<string, JsonElement> Of(Hire hire, IReadOnlyDictionary<string, JsonElement> values, IEnumerable<string> fields)
    {
        var facts = new Dictionary<string, JsonElement>(StringComparer.Ordinal);
        foreach (var field in fields)
            if (values.TryGetValue(field, out var value))
                Set(facts, field, value);
        AddTasks(facts, hire.Tasks);
        AddEntries(facts, hire.Entries);
        return facts;
    }

    // Nothing and no value are one thing in a record.
    private static void Set(Dictionary<string, JsonElement> facts, string field, JsonElement value)
    {
        if (value.ValueKind is not (JsonValueKind.Null or JsonValueKind.Undefined))
            facts[Values + field] = value;
    }

    private static void AddTasks(Dictionary<string, JsonElement> facts, IEnumerable<HireTask> tasks)
    {
        foreach (var task in tasks)
        {
            facts[$"tasks/{task.Key}"] = There;
            foreach (var (name, value) in Properties(task))
                facts[$"tasks/{task.Key}/{name}"] = JsonSerializer.SerializeToElement(value);
        }
    }

    private static void AddEntries(Dictionary<string, JsonElement> facts, IEnumerable<HireEntry> entries)
    {
        foreach (var entry in entries)
            facts[$"{entry.List}/{entry.Key}"] = JsonSerializer.SerializeToElement(entry.Properties);
    }

    private static IEnumerable<(string Name, object? Value)> Properties(HireTask task) =>
        [
            ("name", task.Name),
            ("nameDe", task.NameDe),
            ("stage", task.StageKey),
            ("owner", task.Owner),
            ("calendar", task.CalendarCode),
            ("work", task.Work),
            ("opens", Offset(task.OpensAnchor, task.OpensAmount, task.OpensUnit)),
            ("due", Offset(task.DueAnchor, task.DueAmount, task.DueUnit)),
            ("after", task.After.Select((key, i) => new { key, lag = task.Lags[i] })),
            ("required", task.Required),
            ("dayOne", task.DayOne),
            ("kind", task.Kind == TaskKind.ToDo ? null : JsonNamingPolicy.CamelCase.ConvertName(task.Kind.ToString())),
            ("about", task.About.Length == 0 ? null : task.About),
            ("when", task.When),
            ("instructions", task.Instructions),
            ("instructionsDe", task.InstructionsDe),
            ("contact", task.Contact),
            ("contactWhy", task.ContactWhy),
            ("contactWhyDe", task.ContactWhyDe),
            ("attachments", task.Attachments),
            ("at", task.MeetsAt is { } at ? TaskSpec.TimeOfDay.Format(at) : null),
            ("minutes", task.Minutes),
            ("place", task.Place),
            ("steps", task.Steps.Length == 0 ? null : task.Steps.Select((name, i) => new { name, nameDe = task.StepsDe.ElementAtOrDefault(i) })),
            ("sets", task.SetFields.Length == 0 ? null : task.Settings.Select(s => new { field = s.Field, formula = s.Formula })),
        ];

    private static object? Offset(string? anchor, int amount, OffsetUnit unit) =>
        anchor is null
            ? null
            : new
            {
                anchor,
                offset = amount,
                unit = unit.ToString(),
            };

    /// <summary>Gives a task a property that another has.</summary>
    public static void Take(HireTask task, HireTask from, string property)
    {
        switch (property)
        {
            case "name":
                task.Name = from.Name;
                break;
            case "nameDe":
                task.NameDe = from.NameDe;
                break;
            case "stage":
                task.StageKey = from.StageKey;
                break;
            case "owner":
                task.Owner = from.Owner;
                break;
            case "calendar":
                task.CalendarCode = from.CalendarCode;
                break;
            case "work":
                task.Work = from.Work;
                break;
            case "opens":
                (task.OpensAnchor, task.OpensAmount, task.OpensUnit) = (from.OpensAnchor, from.OpensAmount, from.OpensUnit);
                break;
            case "due":
                (task.DueAnchor, task.DueAmount, task.DueUnit) = (from.DueAnchor, from.DueAmount, from.DueUnit);
                break;
            case "after":
                (task.After, task.Lags) = (from.After, from.Lags);
                break;
            case "required":
                task.Required = from.Required;
                break;
            case "dayOne":
                task.DayOne = from.DayOne;
                break;
            case "kind":
                task.Kind = from.Kind;
                break;
            case "about":
                task.About = from.About;
                break;
            case "when":
                task.When = from.When;
                break;
            case "instructions":
                task.Instructions = from.Instructions;
                break;
            case "instructionsDe":
                task.InstructionsDe = from.InstructionsDe;
                break;
            case "contact":
                task.Contact = from.Contact;
                break;
            case "contactWhy":
                task.ContactWhy = from.ContactWhy;
                break;
            case "contactWhyDe":
                task.ContactWhyDe = from.ContactWhyDe;
                break;
            case "attachments":
                task.Attachments = from.Attachments;
                break;
            case "at":
                task.MeetsAt = from.MeetsAt;
                break;
            case "minutes":
                task.Minutes = from.Minutes;
                break;
            case "place":
                task.Place = from.Place;
                break;
            case "steps":
                task.TakeSteps(from.Steps, from.StepsDe);
                break;
            case "sets":
                (task.SetFields, task.SetFormulas) = (from.SetFields, from.SetFormulas);
                // What stood in the way of the others says nothing of these.
                task.Tried(null, default, default);
                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(property), property, "Tasks have no such property.");
        }
    }
}
