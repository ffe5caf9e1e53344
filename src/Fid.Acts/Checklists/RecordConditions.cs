using Fid.Acts.Calendars;
using Fid.Acts.People;
using Fid.Acts.Tasks;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Templates;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Checklists;

/// <summary>Tasks of hires under way that come to apply, or cease to, with the records of whom they are about.</summary>
internal static class RecordConditions
{
    /// <summary>Brings those of some hires under way to what their records say, as part of an act that holds the hires.</summary>
    /// <returns>How many of them apply now that did not, or do not that did.</returns>
    public static async Task<int> FollowRecordsAsync(FidDb db, ActScope act, Actor actor, IReadOnlyCollection<Guid> hires, CancellationToken cancellation)
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
        var returning = await TemplateUpdates.ReturningAsync(db, cancellation, employments);
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var (author, count) = (actor.Author("checklist"), 0);
        foreach (var hire in conditional.OrderBy(h => h.Id))
        {
            var facts = values[hire.EmploymentId].ToDictionary(StringComparer.Ordinal);
            var conditions = new TaskConditions(ConditionalTasks.With(facts, returning.Contains(hire.EmploymentId)), actor.Today, calendars.OfRecord(facts));
            ConditionalTasks.Follow(hire.Tasks, hire.Entries, conditions);
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
}
