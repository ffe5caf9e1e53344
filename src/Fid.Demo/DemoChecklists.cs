using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Demo;

/// <summary>Who changes jobs or leaves: a rigger in her last fortnight with things to give back, and a deckhand who becomes bosun on the first of
/// next month.</summary>
internal sealed class DemoChecklists(FidDb db, RecordWriter writer, DemoRecords records, SensitiveValues sensitive, Author author, Actor coordinator)
{
    private LocalDate Today => coordinator.Today;

    public async Task AddAsync(Employment leaver)
    {
        var next = Today.With(DateAdjusters.StartOfMonth).PlusMonths(1);
        var deckhand = await DeckhandAsync(next);
        var (leaving, change) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        // Before what they name, and with the hires that are looked at later: in the order in which locks are taken.
        await Locks.RecordsAsync(db, [leaver.Id, deckhand], default);
        await Locks.HiresAsync(db, [.. await db.Hires.Select(h => h.Id).ToListAsync(), leaving, change], default);
        await IssueAsync(leaver, "TOOLROLL", "RADIO", "LOCKER");
        // A Friday at least a week away.
        var lastDay = Today.PlusDays(6).Next(IsoDayOfWeek.Friday);
        await OpenAsync(
            leaving,
            leaver.Id,
            Occasion.Leaving,
            "leaver",
            lastDay,
            19,
            new() { ["end_reason"] = "own-wish" },
            ["notice-confirm", "last-talk", "roster-free"]
        );
        await OpenAsync(
            change,
            deckhand,
            Occasion.JobChange,
            "new-job",
            next,
            12,
            new()
            {
                ["job"] = "DK-4",
                ["site"] = "mv-corran",
                ["pay_rate"] = 21.8m,
            },
            ["terms"]
        );
    }

    // One who has been here for long, and is nobody's story yet.
    private async Task<Guid> DeckhandAsync(LocalDate next) =>
        await db
            .CurrentRecords.Where(r => r.JobCode == "DK-2" && !db.Hires.Any(h => h.EmploymentId == r.EmploymentId))
            .Join(db.Employments.Where(e => e.Start < next.PlusYears(-2)), r => r.EmploymentId, e => e.Id, (_, e) => e)
            .OrderBy(e => e.Number)
            .Select(e => e.Id)
            .FirstAsync();

    private async Task OpenAsync(
        Guid id,
        Guid employment,
        Occasion occasion,
        string template,
        LocalDate day,
        int daysAgo,
        Dictionary<string, object> values,
        string[] done
    )
    {
        var open = new OpenChecklist(db, new EnteredValues(db, new UniqueValues(db, sensitive)), new OccasionRecord(db, writer));
        var request = new OpenChecklistRequest(
            id,
            employment,
            occasion,
            template,
            day,
            values.ToDictionary(v => v.Key, v => JsonSerializer.SerializeToElement(v.Value)),
            null
        );
        if (!(await open.DoAsync(request, coordinator, default)).IsDone(out _, out var refusal))
            throw new InvalidOperationException($"{template}: {string.Join(" ", refusal.Problems.Select(p => $"{p.Path} {p.Message}"))} {refusal.Message}");
        db.ChangeTracker.Clear();
        var hire = await db.Hires.Include(h => h.Tasks).SingleAsync(h => h.Id == id);
        var opened = Today.PlusDays(-daysAgo);
        db.Entry(hire).Property(h => h.Entered).CurrentValue = opened;
        db.Entry(hire).Property(h => h.Accepted).CurrentValue = opened;
        for (var i = 0; i < done.Length; i++)
        {
            var task = hire.Tasks.Single(t => t.Key == done[i]);
            (task.Done, task.DoneBy) = (opened.PlusDays(daysAgo * (i + 1) / (done.Length + 1)), author.Name);
        }
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
    }

    private async Task IssueAsync(Employment to, params string[] items)
    {
        var issued = JsonSerializer.SerializeToElement(to.Start.ToString("uuuu-MM-dd", null));
        var edits = items
            .SelectMany(item =>
            {
                var row = Guid.CreateVersion7();
                return new[]
                {
                    new FieldEdit(FieldAddress.Of("items.item", row), JsonSerializer.SerializeToElement(item), "import", null),
                    new FieldEdit(FieldAddress.Of("items.issued", row), issued, "import", null),
                };
            })
            .ToList();
        await records.SaveAsync(to.Id, "record.imported", edits);
    }
}
