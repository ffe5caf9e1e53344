using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.People;
using Fid.Acts.Tasks;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Checklists;

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

    /// <summary>Brings those of some hires under way to what their records say, as part of an act that holds the hires.</summary>
    /// <returns>How many of them apply now that did not, or do not that did.</returns>
    internal static async Task<int> FollowRecordsAsync(FidDb db, ActScope act, Actor actor, IReadOnlyCollection<Guid> hires, CancellationToken cancellation)
    {
        var conditional = await db
            .Hires.Where(h =>
                hires.Contains(h.Id) && h.Closed == null && (h.Tasks.Any(t => t.When != null) || h.Entries.Any(e => e.List == TemplateLists.Stages))
            )
            .Include(h => h.Tasks)
            .Include(h => h.Entries.Where(e => e.List == TemplateLists.Stages))
            .AsSplitQuery()
            .ToListAsync(cancellation);
        if (conditional.Count == 0)
            return 0;
        Guid[] employments = [.. conditional.Select(h => h.EmploymentId).Distinct()];
        var values = await ShownValues.LoadAsync(db, employments, cancellation);
        var returning = (
            await db
                .Employments.Where(e => employments.Contains(e.Id) && db.Employments.Any(o => o.PersonId == e.PersonId && o.Start < e.Start))
                .Select(e => e.Id)
                .ToListAsync(cancellation)
        ).ToHashSet();
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var (author, count) = (actor.Author("checklist"), 0);
        foreach (var hire in conditional.OrderBy(h => h.Id))
        {
            var facts = values[hire.EmploymentId].ToDictionary(StringComparer.Ordinal);
            var conditions = new TaskConditions(With(facts, returning.Contains(hire.EmploymentId)), actor.Today, calendars.OfRecord(facts));
            Follow(hire.Tasks, hire.Entries, conditions);
            foreach (var task in hire.Tasks.OrderBy(t => t.Position))
            {
                if (TaskFacts.OfChange(db, task) is not { } changed)
                    continue;
                act.Note(author.Change(task.SkippedByCondition ? "task.skipped" : "task.unskipped", hire.Id, task.Key) with { Details = changed.Write() });
                count++;
            }
        }
        await db.SaveChangesAsync(cancellation);
        return count;
    }

    private static Dictionary<string, JsonElement> With(Dictionary<string, JsonElement> facts, bool returning)
    {
        facts[TemplateSet.Returning] = JsonSerializer.SerializeToElement(returning ? "yes" : "no");
        return facts;
    }
}
