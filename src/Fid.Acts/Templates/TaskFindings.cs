using System.Text.Json;
using Fid.Acts.Plans;
using Fid.Core;
using Fid.Core.Calendars;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using Fid.Core.Planning;
using Fid.Core.Templates;
using Fid.Data.Hires;
using Fid.Data.Templates;
using NodaTime;

namespace Fid.Acts.Templates;

/// <summary>What is wrong with the tasks of a template.</summary>
/// <param name="stages">The keys of the stages that its checklists go through.</param>
public sealed class TaskFindings(FieldSet fields, IReadOnlySet<string> stages, IReadOnlySet<(string List, string Code)> entries, IReadOnlySet<Guid> people)
{
    /// <summary>The longest piece of work, in working days.</summary>
    public const int MostWork = 400;

    /// <summary>The longest that one meets, in minutes.</summary>
    public const int MostMinutes = 720;

    private const int MostSteps = 30;
    private const int MostSettings = 20;
    private const int LongestInstructions = 8000;
    private const int MostOffset = 1000;
    private const int MostAbout = 50;

    private static readonly string[] Roles = ["newcomer", "manager", "buddy", "coordinator"];

    /// <summary>What a task of a pay run says: it is nobody's, so that what speaks of a person or their record is not for it.</summary>
    private static readonly HashSet<string> OfPayRun =
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
        "instructions",
        "instructionsDe",
    ];

    /// <summary>What each entry of a template says for itself: whether all it needs is there follows from the layers below it.</summary>
    public IEnumerable<TemplateFinding> Of(TemplateSpec spec)
    {
        foreach (var entry in spec.Entries(TemplateLists.Tasks).Where(e => !e.Drop))
        foreach (var finding in Of(entry).Concat(spec.Occasion == Occasion.PayRun ? NotOfPayRun(entry) : AnchorsOf(entry)))
            yield return finding;
    }

    private static IEnumerable<TemplateFinding> NotOfPayRun(TemplateEntry entry)
    {
        foreach (var (name, value) in entry.Properties)
            if (name == "owner" && value.ValueKind == JsonValueKind.String && Roles.Contains(value.GetString()))
                yield return new TemplateFinding(
                    TemplateLists.Tasks,
                    entry.Key,
                    name,
                    "not-of-pay-run",
                    "A pay run has none of these. Choose a team or a person."
                );
            else if (!OfPayRun.Contains(name) && value.ValueKind is not (JsonValueKind.Null or JsonValueKind.False) && !IsToDo(name, value))
                yield return new TemplateFinding(
                    TemplateLists.Tasks,
                    entry.Key,
                    name,
                    "not-of-pay-run",
                    "Tasks of a pay run have no such thing. Take this away."
                );

        static bool IsToDo(string name, JsonElement value) => name == "kind" && value.ValueKind == JsonValueKind.String && value.GetString() == "toDo";
    }

    // What is counted from the pay day is of a pay run alone.
    private static IEnumerable<TemplateFinding> AnchorsOf(TemplateEntry entry) =>
        entry
            .Properties.Where(p =>
                p.Value.ValueKind == JsonValueKind.Object
                && p.Value.TryGetProperty("anchor", out var anchor)
                && anchor.ValueKind == JsonValueKind.String
                && anchor.GetString() == RunPlan.PayDate
            )
            .Select(p => new TemplateFinding(TemplateLists.Tasks, entry.Key, p.Key, "unknown-anchor", UnknownAnchor));

    private const string UnknownAnchor = "Count from the start or from the day the offer was accepted.";

    /// <summary>What one entry says wrongly.</summary>
    public IEnumerable<TemplateFinding> Of(TemplateEntry entry)
    {
        foreach (var (name, value) in entry.Properties)
            if (Wrong(name, value) is var (code, message))
                yield return new TemplateFinding(TemplateLists.Tasks, entry.Key, name, code, message);
    }

    /// <summary>What keeps the tasks that layers come to from being a checklist: something missing, a ring, a task that comes after one there is not.</summary>
    public static IEnumerable<TemplateFinding> OfChecklist(
        Layered layered,
        IReadOnlyList<PlanStage> stages,
        IReadOnlyDictionary<string, WorkCalendar> calendars,
        LocalDate today
    )
    {
        var tasks = new List<HireTask>();
        var keys = layered.Tasks.Select(t => t.Key).ToHashSet(StringComparer.Ordinal);
        var findings = new List<TemplateFinding>();
        foreach (var task in layered.Tasks)
        {
            string[] missing = [.. new[] { "name", "stage", "owner" }.Where(p => !task.Properties.ContainsKey(p))];
            findings.AddRange(missing.Select(p => new TemplateFinding(TemplateLists.Tasks, task.Key, p, "missing", "Fill this in: no layer below says it.")));
            if (missing.Length > 0)
                continue;
            try
            {
                var spec = TaskSpec.Read(task);
                findings.AddRange(
                    (spec.After ?? [])
                        .Where(a => !keys.Contains(a.Id) && layered.Dropped.All(d => d.Key != a.Id))
                        .Select(a => new TemplateFinding(TemplateLists.Tasks, task.Key, "after", "unknown-task", $"There is no task {a.Id}."))
                );
                if (TaskFulfilment.IsAbout(spec.Kind) && spec.About is not { Length: > 0 })
                    findings.Add(new TemplateFinding(TemplateLists.Tasks, task.Key, "about", "missing", "Choose what it is about."));
                if (spec.Kind == TaskKind.Steps && spec.Steps is not { Length: > 0 })
                    findings.Add(new TemplateFinding(TemplateLists.Tasks, task.Key, "steps", "missing", "Say what its steps are, one to a line."));
                if (spec.Kind == TaskKind.Run && spec.Sets is not { Length: > 0 })
                    findings.Add(new TemplateFinding(TemplateLists.Tasks, task.Key, "sets", "missing", "Choose at least one field to set."));
                tasks.Add(spec.ToHireTask(task.Key, tasks.Count, keys));
            }
            catch (JsonException)
            {
                // Told at the property, by the template that sets it.
            }
        }
        if (findings.Count > 0)
            return findings;
        // As much time as anybody could wish for: what is too late then is so whatever one does.
        var (accepted, start) = (today, today.PlusYears(1));
        var question = new PlanQuestion(
            today,
            new Dictionary<string, LocalDate>
            {
                [PlanQuestion.Start] = start,
                [HirePlan.Accepted] = accepted,
                [RunPlan.PayDate] = start,
            },
            calendars,
            stages,
            [.. tasks.Select(t => TaskRow.Of(t).ToPlan(null))]
        );
        var outcome = Planner.Plan(question, SoonestSearch.Never);
        if (outcome.Answer is { } plan)
            return plan
                .Tasks.Where(t => t.Slack < 0)
                .Select(t => new TemplateFinding(
                    TemplateLists.Tasks,
                    t.Id,
                    "due",
                    "never-in-time",
                    "This cannot be finished in time, however early one begins. Give it more time, or less work.",
                    Blocks: false
                ));
        return outcome
            .Problems.Select(p => new TemplateFinding(TemplateLists.Tasks, TaskAt(p, tasks), "after", p.Code, p.Message))
            .DistinctBy(f => (f.Key, f.Code));
    }

    private static string? TaskAt(Problem problem, List<HireTask> tasks)
    {
        var parts = problem.Path.Split('/');
        return parts is [_, "tasks", var at, ..] && int.TryParse(at, out var i) && i < tasks.Count ? tasks[i].Key : null;
    }

    private (string Code, string Message)? Wrong(string name, JsonElement value)
    {
        var text = value.ValueKind == JsonValueKind.String ? value.GetString()! : null;
        switch (name)
        {
            case "name":
                return string.IsNullOrWhiteSpace(text) ? ("missing", "Give the task a name.") : TooLong(text, HireTask.LongestName);
            case "nameDe":
                return TextOrNone(value, HireTask.LongestName);
            case "stage":
                return text is not null && stages.Contains(text) ? null : ("unknown-stage", "Choose a stage.");
            case "owner":
                return Owner(text);
            case "contact":
                return value.ValueKind == JsonValueKind.Null ? null : Owner(text);
            case "calendar":
                return text is not null && (text == HireTask.OwnCalendar || entries.Contains(("calendars", text)))
                    ? null
                    : ("unknown-entry", "Choose a calendar.");
            case "work":
                return IsWhole(value, out var days) && days is >= 0 and <= MostWork
                    ? null
                    : ("out-of-range", $"Enter a whole number of working days from 0 to {MostWork}.");
            case "required" or "dayOne":
                return value.ValueKind is JsonValueKind.True or JsonValueKind.False ? null : ("wrong-type", "Say yes or no.");
            case "about":
                return About(value);
            case "when":
                return value.ValueKind == JsonValueKind.Null ? null
                    : text is null ? ("wrong-type", "Enter a formula.")
                    : Condition(text);
            case "instructions" or "instructionsDe":
                return TextOrNone(value, LongestInstructions);
            case "contactWhy" or "contactWhyDe":
                return TextOrNone(value, HireTask.LongestReason);
            case "place":
                return TextOrNone(value, HireTask.LongestName);
            case "at":
                return value.ValueKind == JsonValueKind.Null || (text is not null && TaskSpec.TimeOf(text) is not null)
                    ? null
                    : ("bad-time", "Enter a time of day, such as 09:30.");
            case "minutes":
                return value.ValueKind == JsonValueKind.Null || (IsWhole(value, out var minutes) && minutes is >= 5 and <= MostMinutes)
                    ? null
                    : ("out-of-range", $"Enter from 5 to {MostMinutes} minutes.");
            case "steps":
                return Structured(name, value) ?? Steps(value);
            case "sets":
                return Structured(name, value) ?? Settings(value);
            case "kind" or "after" or "opens" or "due" or "attachments":
                return Structured(name, value);
            default:
                return ("unknown-property", "Tasks have no such property.");
        }
    }

    private static (string, string)? Steps(JsonElement value)
    {
        if (value.ValueKind == JsonValueKind.Null)
            return null;
        var steps = value.EnumerateArray().ToList();
        if (steps.Count > MostSteps)
            return ("too-many", $"Give at most {MostSteps} steps.");
        var names = steps.ConvertAll(s => s.GetProperty("name").GetString() ?? "");
        if (names.Exists(string.IsNullOrWhiteSpace))
            return ("missing", "Give each step a name.");
        if (
            names
                .Concat(steps.Select(s => s.TryGetProperty("nameDe", out var german) ? german.GetString() ?? "" : ""))
                .Any(n => n.Length > HireTask.LongestName)
        )
            return ("too-long", $"Enter at most {HireTask.LongestName} characters.");
        return names.Distinct(StringComparer.Ordinal).Count() < names.Count ? ("twice", "Two steps are called the same. Name each its own way.") : null;
    }

    private (string, string)? Settings(JsonElement value)
    {
        if (value.ValueKind == JsonValueKind.Null)
            return null;
        var settings = value
            .EnumerateArray()
            .Select(s => (Field: s.GetProperty("field").GetString()!, Formula: s.GetProperty("formula").GetString()!))
            .ToList();
        if (settings.Count > MostSettings)
            return ("too-many", $"Set at most {MostSettings} fields.");
        if (settings.DistinctBy(s => s.Field).Count() < settings.Count)
            return ("twice", "One field is set twice. Keep one of the two.");
        foreach (var (field, formula) in settings)
        {
            if (fields.Find(field) is not { } set)
                return ("unknown-field", $"There is no field {field}.");
            if (!FieldSettings.Takes(set))
                return ("not-settable", $"{field} cannot be set by itself. Choose another field, or have somebody fill it.");
            if (string.IsNullOrWhiteSpace(formula))
                return ("missing", $"Say what {field} becomes.");
            if (Condition(formula) is { } wrong)
                return (wrong.Item1, $"{field}: {wrong.Item2}");
        }
        return null;
    }

    private static bool IsWhole(JsonElement value, out int number)
    {
        number = 0;
        return value.ValueKind == JsonValueKind.Number && value.TryGetInt32(out number);
    }

    private (string, string)? Condition(string text) =>
        RecordFormula.Read(text) switch
        {
            (_, { } mistake) => ("formula-error", mistake.Message),
            ({ } formula, _) when formula.Names.FirstOrDefault(n => fields.Find(n) is null && n != TemplateSet.Returning) is { } unknown => (
                "unknown-field",
                $"There is no field {unknown}."
            ),
            _ => null,
        };

    private static (string, string)? TextOrNone(JsonElement value, int most) =>
        value.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.String => TooLong(value.GetString()!, most),
            _ => ("wrong-type", "Enter a text."),
        };

    private static (string, string)? TooLong(string text, int most) => text.Length > most ? ("too-long", $"Enter at most {most} characters.") : null;

    private (string, string)? Owner(string? owner)
    {
        if (owner is not null && Roles.Contains(owner))
            return null;
        if (owner is not null && HireTask.TeamOf(owner) is { } team && entries.Contains(("teams", team)))
            return null;
        return owner is not null && HireTask.PersonOf(owner) is { } person && people.Contains(person) ? null : ("unknown-owner", "Choose who does it.");
    }

    // Of what kind they have to be follows from the kind of the task, which another layer may say.
    private (string, string)? About(JsonElement value)
    {
        if (value.ValueKind == JsonValueKind.Null)
            return null;
        if (value.ValueKind != JsonValueKind.Array || value.EnumerateArray().Any(a => a.ValueKind != JsonValueKind.String))
            return ("bad-value", "This is not of the kind expected here.");
        var about = value.EnumerateArray().Select(a => a.GetString()!).ToList();
        if (about.Count > MostAbout)
            return ("too-many", $"Choose at most {MostAbout}.");
        return
            about.Find(a => fields.Find(a) is not { IsColumn: false } && !entries.Contains(("items", a)) && !entries.Contains(("certificates", a)))
                is { } unknown
            ? ("unknown-entry", $"{unknown} is neither a field of the record nor an item or a certificate of the firm.")
            : null;
    }

    // Read as a whole with what every task has, so that what stands in the property alone can be wrong.
    private static (string, string)? Structured(string name, JsonElement value)
    {
        if (value.ValueKind == JsonValueKind.Null)
            return null;
        try
        {
            var nothing = JsonSerializer.SerializeToElement("");
            var task = TaskSpec.Read(
                new Dictionary<string, JsonElement>
                {
                    ["name"] = nothing,
                    ["stage"] = nothing,
                    ["owner"] = nothing,
                    [name] = value,
                }
            );
            var offset = name == "due" ? task.Due : task.Opens;
            if (offset is not null && Math.Abs(offset.Offset) > MostOffset)
                return ("out-of-range", $"Enter at most {MostOffset}.");
            if (offset is not null && offset.Anchor is not (PlanQuestion.Start or HirePlan.Accepted or RunPlan.PayDate))
                return ("unknown-anchor", UnknownAnchor);
            return task.After is { } after && after.Any(a => a.Lag is < 0 or > MostWork) ? ("out-of-range", $"Wait from 0 to {MostWork} working days.") : null;
        }
        catch (JsonException)
        {
            return ("bad-value", "This is not of the kind expected here.");
        }
    }
}
