using Fid.Acts.Plans;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.Work;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Checklists;

/// <summary>Asks for what Fid does by itself to be done, as soon as it can be: in a job of its own, since it writes into the record.</summary>
internal sealed class AutomaticTasks(FidDb db, LocalDate today)
{
    private readonly List<(Guid Hire, string Key)> _ready = [];

    /// <summary>Looks for tasks of a hire that can be begun and are done by Fid itself.</summary>
    public void Look(HireUnderWay hire, Plan plan) => _ready.AddRange(ReadyOf(hire, plan).Select(key => (hire.Head.Id, key)));

    /// <summary>The keys of the tasks of a hire that can be begun and are done by Fid itself, in their order.</summary>
    public static IEnumerable<string> ReadyOf(HireUnderWay hire, Plan plan) =>
        hire.Tasks.Where((task, i) => task.Kind == TaskKind.Run && plan.Tasks[i] is { Unfinished: true, CanStart: true }).Select(task => task.Key);

    /// <summary>Narrows tasks to those worth trying: never tried, or in vain with another record or on another day.</summary>
    public static IQueryable<HireTask> WorthTrying(FidDb db, LocalDate today) =>
        from task in db.HireTasks
        join hire in db.Hires on task.HireId equals hire.Id
        join record in db.CurrentRecords on hire.EmploymentId equals record.EmploymentId
        where
            task.Kind == TaskKind.Run
            && task.Done == null
            && task.SkippedWhy == null
            && (task.Trouble == null || task.TriedOn < today || task.TriedWith != record.Saved)
        select task;

    /// <summary>Asks for what was found, as part of an act that holds the hires.</summary>
    public async Task AskAsync(Instant now, CancellationToken cancellation)
    {
        if (_ready.Count == 0)
            return;
        var hires = _ready.Select(r => r.Hire).Distinct().ToArray();
        var worth = (
            await WorthTrying(db, today).Where(t => hires.Contains(t.HireId)).Select(t => new { t.HireId, t.Key }).ToListAsync(cancellation)
        ).ToHashSet();
        foreach (var hire in _ready.Where(r => worth.Contains(new { HireId = r.Hire, r.Key })).Select(r => r.Hire).Distinct())
            db.Jobs.Add(Job.Once(RunTask.Kind, hire, now));
        await db.SaveChangesAsync(cancellation);
    }
}
