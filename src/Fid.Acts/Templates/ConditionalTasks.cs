using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.Checklists;
using Fid.Core.Templates;
using Fid.Data.Hires;
using NodaTime;

namespace Fid.Acts.Templates;

/// <summary>Tasks that apply as long as a condition on them, or on their stage, holds for whom they are about.</summary>
public static class ConditionalTasks
{
    private const string When = "when";

    /// <summary>What conditions on stages say among the entries of a hire, by stage.</summary>
    private static Dictionary<string, string> OfStages(IEnumerable<HireEntry> entries) =>
        entries
            .Where(e => e.List == TemplateLists.Stages && e.Properties.TryGetValue(When, out var when) && when.ValueKind == JsonValueKind.String)
            .ToDictionary(e => e.Key, e => e.Properties[When].GetString()!, StringComparer.Ordinal);

    /// <summary>Brings tasks to what the conditions say. What is done, or was skipped by a person, stays.</summary>
    public static void Follow(IEnumerable<HireTask> tasks, IEnumerable<HireEntry> entries, TaskConditions conditions)
    {
        var stages = OfStages(entries);
        foreach (var task in tasks.Where(t => t.Done is null))
        {
            var applies = conditions.Hold(task.When) && conditions.Hold(stages.GetValueOrDefault(task.StageKey));
            if (applies && task.SkippedByCondition)
                (task.SkippedWhy, task.SkippedByCondition) = (null, false);
            else if (!applies && task.SkippedWhy is null)
                (task.SkippedWhy, task.SkippedByCondition) = (HireTask.ByCondition, true);
        }
    }

    /// <summary>The same of a hire that is not there yet.</summary>
    /// <param name="values">What its record would hold.</param>
    /// <param name="returning">Whether the person was here before.</param>
    public static void Follow(
        IEnumerable<HireTask> tasks,
        IEnumerable<HireEntry> entries,
        IReadOnlyDictionary<string, JsonElement> values,
        LocalDate? start,
        bool returning,
        LocalDate today
    )
    {
        var facts = new Dictionary<string, JsonElement>(values, StringComparer.Ordinal);
        if (start is { } first)
            facts[StartCorrection.Field] = JsonSerializer.SerializeToElement(first.ToString("uuuu-MM-dd", null));
        Follow(tasks, entries, new TaskConditions(With(facts, returning), today, null));
    }

    /// <summary>What conditions ask of somebody: the record, and whether they were here before.</summary>
    internal static Dictionary<string, JsonElement> With(Dictionary<string, JsonElement> facts, bool returning)
    {
        facts[TemplateSet.Returning] = JsonSerializer.SerializeToElement(returning ? "yes" : "no");
        return facts;
    }
}
