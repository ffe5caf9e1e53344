using Fid.Acts.Calendars;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.PayRuns;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Plans;

/// <summary>The hires under way, with the tasks their plans follow from: read in two or three queries, whatever their number.</summary>
public static class HiresUnderWay
{
    /// <summary>The hires that a query lets through, by start and name.</summary>
    /// <param name="db">The database.</param>
    /// <param name="which">Narrows the hires.</param>
    /// <param name="cancellation">Stops the reading.</param>
    /// <param name="cache">Where tasks read before are kept; null reads them all.</param>
    public static async Task<IReadOnlyList<HireUnderWay>> LoadAsync(
        FidDb db,
        Func<IQueryable<Hire>, IQueryable<Hire>> which,
        CancellationToken cancellation,
        OpenTaskCache? cache = null
    )
    {
        return await OfAsync(db, which(db.Hires.Where(h => h.Closed == null)), cancellation, cache);
    }

    /// <summary>The same of any hires, also those that are not under way any more.</summary>
    internal static async Task<IReadOnlyList<HireUnderWay>> OfAsync(
        FidDb db,
        IQueryable<Hire> hires,
        CancellationToken cancellation,
        OpenTaskCache? cache = null
    )
    {
        var heads = await HeadsAsync(db, hires, cancellation);
        var ids = heads.Select(h => h.Id).ToArray();
        var tasks = cache is null ? await TasksAsync(db, ids, cancellation) : await cache.LoadAsync(db, ids, cancellation);
        var gates = (await Gates(db, ids).ToListAsync(cancellation)).ToLookup(g => g.HireId);
        return [.. heads.Select(h => new HireUnderWay(h, tasks.GetValueOrDefault(h.Id) ?? [], [.. gates[h.Id]]))];
    }

    /// <summary>What lists show of hires, without their tasks, by start and name.</summary>
    public static Task<List<HireHead>> HeadsAsync(FidDb db, IQueryable<Hire> hires, CancellationToken cancellation) =>
        (
            from hire in hires
            join record in db.CurrentRecords on hire.EmploymentId equals record.EmploymentId
            join employment in db.Employments on hire.EmploymentId equals employment.Id
            join user in db.Users on hire.CoordinatorId equals user.Id into users
            from coordinator in users.DefaultIfEmpty()
            orderby hire.Start, record.FamilyName, record.GivenName, hire.Id
            select new HireHead(
                hire.Id,
                hire.EmploymentId,
                hire.Occasion,
                record.PersonId,
                employment.Number,
                record.GivenName,
                record.FamilyName,
                record.JobCode,
                record.Kind,
                record.SiteCode,
                record.DepartmentCode,
                record.Groups,
                record.ManagerId,
                record.BuddyId,
                hire.Start,
                hire.Accepted,
                hire.Entered,
                hire.CoordinatorId,
                coordinator!.DisplayName,
                record.CalendarCode,
                record.Missing,
                record.Filled,
                record.Of,
                hire.TemplateCode,
                hire.TemplateVersion,
                hire.Version,
                hire.Closed,
                hire.RemindersPaused
            )
        )
            .AsNoTracking()
            .ToListAsync(cancellation);

    /// <summary>The tasks of some hires, in their order, by hire; a hire that has none is left out.</summary>
    internal static async Task<Dictionary<Guid, IReadOnlyList<TaskRow>>> TasksAsync(FidDb db, Guid[] hires, CancellationToken cancellation) =>
        (await Tasks(db, hires).ToListAsync(cancellation)).GroupBy(t => t.HireId).ToDictionary(g => g.Key, g => (IReadOnlyList<TaskRow>)[.. g]);

    // Asked at every tick: understanding the query anew each time would take longer than the database does.
    private static readonly Func<FidDb, Guid[], IAsyncEnumerable<TaskRow>> Tasks = EF.CompileAsyncQuery(
        (FidDb db, Guid[] hires) =>
            from task in db.HireTasks
            where hires.Contains(task.HireId)
            orderby task.HireId, task.Position
            select new TaskRow(
                task.HireId,
                task.Key,
                task.Name,
                task.NameDe,
                task.StageKey,
                task.Owner,
                task.CalendarCode,
                task.Work,
                task.OpensAnchor,
                task.OpensAmount,
                task.OpensUnit,
                task.DueAnchor,
                task.DueAmount,
                task.DueUnit,
                task.After,
                task.Lags,
                task.Required,
                task.DayOne,
                task.Done,
                task.SkippedWhy != null,
                task.Pinned,
                task.TakenById,
                task.Added,
                task.RemindersPaused,
                task.Kind
            )
    );

    private static readonly Func<FidDb, Guid[], IAsyncEnumerable<HandledGate>> Gates = EF.CompileAsyncQuery(
        (FidDb db, Guid[] hires) =>
            from stage in db.HireStages
            where stage.ByHand && hires.Contains(stage.HireId)
            select new HandledGate(stage.HireId, stage.StageKey, stage.Passed)
    );
}

/// <summary>A hire under way, its tasks, and the gates of which a person has the say.</summary>
public sealed record HireUnderWay(HireHead Head, IReadOnlyList<TaskRow> Tasks, IReadOnlyList<HandledGate> Gates)
{
    public PlanQuestion Question(LocalDate today, CalendarSet calendars, StagePlans stages) =>
        HirePlan.Question(today, Head.Start, Head.Accepted, calendars, WithGates(stages.Of(Head.Occasion)), Tasks, Head.CalendarCode);

    private IReadOnlyList<PlanStage> WithGates(IReadOnlyList<PlanStage> stages) =>
        Gates.Count == 0
            ? stages
            : [.. stages.Select(s => Gates.FirstOrDefault(g => g.Stage == s.Id) is { } gate ? s with { Passed = gate.Passed, Held = gate.Passed is null } : s)];
}

/// <summary>A gate of which a person has the say.</summary>
/// <param name="Passed">The day on which they let it pass; null where they keep it from passing.</param>
public sealed record HandledGate(Guid HireId, string Stage, LocalDate? Passed);

/// <summary>Who a hire is.</summary>
/// <param name="Occasion">What its checklist is run for.</param>
public sealed record HireHead(
    Guid Id,
    Guid EmploymentId,
    Occasion Occasion,
    Guid PersonId,
    string Number,
    string GivenName,
    string FamilyName,
    string? JobCode,
    string? Kind,
    string? SiteCode,
    string? DepartmentCode,
    string[] Groups,
    Guid? ManagerId,
    Guid? BuddyId,
    LocalDate Start,
    LocalDate Accepted,
    LocalDate Entered,
    Guid CoordinatorId,
    string? CoordinatorName,
    string? CalendarCode,
    string[] Missing,
    int Filled,
    int Of,
    string TemplateCode,
    int TemplateVersion,
    uint Version,
    LocalDate? Closed,
    bool RemindersPaused
)
{
    /// <summary>Of the record, what says whom it is reached by.</summary>
    public CurrentRecord Record =>
        new()
        {
            EmploymentId = EmploymentId,
            PersonId = PersonId,
            SiteCode = SiteCode,
            DepartmentCode = DepartmentCode,
            Groups = Groups,
            ManagerId = ManagerId,
        };

    public string FullName => $"{GivenName} {FamilyName}".Trim();

    /// <summary>Whether a task is overdue only because it was due before anybody here knew of the hire.</summary>
    public bool IsBeforeKnown(PlannedTask task) => task.State == TaskState.Late && task.Due < Entered;
}

/// <summary>What the plan needs of a task, and what lists show of it.</summary>
public sealed record TaskRow(
    Guid HireId,
    string Key,
    string Name,
    string? NameDe,
    string StageKey,
    string Owner,
    string CalendarCode,
    int Work,
    string? OpensAnchor,
    int OpensAmount,
    OffsetUnit OpensUnit,
    string? DueAnchor,
    int DueAmount,
    OffsetUnit DueUnit,
    string[] After,
    int[] Lags,
    bool Required,
    bool DayOne,
    LocalDate? Done,
    bool Skipped,
    LocalDate? Pinned,
    Guid? TakenById,
    bool Added,
    bool RemindersPaused,
    TaskKind Kind
)
{
    /// <summary>Whether nobody ticks it off: the record says whether it is done.</summary>
    public bool CompletesItself => TaskFulfilment.CompletesItself(Kind);

    /// <summary>The anchor that stands for the day it is pinned to.</summary>
    public string PinAnchor => $"pin:{Key}";

    /// <summary>The name in the language of the user who reads: rows are kept for all of them.</summary>
    public string Called => ReaderLanguage.Choose(Name, NameDe);

    /// <param name="ownCalendar">The code of the newcomer's own holiday calendar; null where the record has none yet.</param>
    public PlanTask ToPlan(string? ownCalendar) =>
        new(
            Key,
            StageKey,
            CalendarOf(ownCalendar),
            Work,
                // Pinned to a day, it is finished on it and begun no earlier than that takes.
                Pinned is not null
                    ? new PlanOffset(PinAnchor, Math.Min(0, 1 - Work), OffsetUnit.Working)
                : OpensAnchor is null ? null
                : new PlanOffset(OpensAnchor, OpensAmount, OpensUnit),
            Pinned is not null ? new PlanOffset(PinAnchor, 0, OffsetUnit.Days)
                : DueAnchor is null ? null
                : new PlanOffset(DueAnchor, DueAmount, DueUnit),
            Links(),
            Required,
            DayOne,
            Done,
            Skipped
        );

    public static TaskRow Of(HireTask task) =>
        new(
            task.HireId,
            task.Key,
            task.Name,
            task.NameDe,
            task.StageKey,
            task.Owner,
            task.CalendarCode,
            task.Work,
            task.OpensAnchor,
            task.OpensAmount,
            task.OpensUnit,
            task.DueAnchor,
            task.DueAmount,
            task.DueUnit,
            task.After,
            task.Lags,
            task.Required,
            task.DayOne,
            task.Done,
            task.SkippedWhy is not null,
            task.Pinned,
            task.TakenById,
            task.Added,
            task.RemindersPaused,
            task.Kind
        );

    /// <summary>Of a task of a pay run: none is pinned, taken on or added, and none completes itself.</summary>
    public static TaskRow Of(RunTask task) =>
        new(
            task.ChecklistId,
            task.Key,
            task.Name,
            task.NameDe,
            task.StageKey,
            task.Owner,
            task.CalendarCode,
            task.Work,
            task.OpensAnchor,
            task.OpensAmount,
            task.OpensUnit,
            task.DueAnchor,
            task.DueAmount,
            task.DueUnit,
            task.After,
            task.Lags,
            task.Required,
            DayOne: false,
            task.Done,
            task.SkippedWhy is not null,
            Pinned: null,
            TakenById: null,
            Added: false,
            RemindersPaused: false,
            TaskKind.ToDo
        );

    public string CalendarOf(string? ownCalendar) => CalendarCode == HireTask.OwnCalendar ? ownCalendar ?? CalendarSet.Unknown : CalendarCode;

    private PlanLink[] Links()
    {
        if (After.Length == 0)
            return [];
        var links = new PlanLink[After.Length];
        for (var i = 0; i < links.Length; i++)
            links[i] = new PlanLink(After[i], Lags[i]);
        return links;
    }
}
