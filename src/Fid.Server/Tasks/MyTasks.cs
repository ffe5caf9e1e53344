using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Hires;
using Fid.Server.Lists;
using Fid.Server.PayRuns;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Tasks;

/// <summary>What is mine, by when, for whom.</summary>
internal static class MyTasks
{
    private const int Most = 500;

    public static void MapMyTasks(this IEndpointRouteBuilder app) => app.MapGet("/api/tasks", Show).WhoMay(Access.SignedIn);

    private static async Task<Ok<MyTasksResponse>> Show(Actor actor, FidDb db, OpenTaskCache tasks, CancellationToken cancellation)
    {
        var today = actor.Today;
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var stages = await StagePlans.LoadAsync(db, cancellation);
        var own = new OwnTasks(actor, db);
        var hires = await HiresUnderWay.LoadAsync(db, hires => own.Concerning(hires, openOnly: true), cancellation, tasks);

        var seen = new VisibleFacts(reader, names);
        var takers = await TakersAsync(hires, db, cancellation);
        var mine = new List<MyTask>();
        foreach (var hire in hires)
        {
            var head = seen.Of(hire.Head);
            var plan = HirePlan.Of(hire.Question(today, calendars, stages), SoonestSearch.Never);
            for (var i = 0; i < hire.Tasks.Count; i++)
            {
                var (task, planned) = (hire.Tasks[i], plan.Tasks[i]);
                if (!planned.Unfinished || !own.Include(task.Owner, hire.Head))
                    continue;
                mine.Add(
                    new MyTask(
                        head.Id,
                        head.Occasion,
                        head.FullName,
                        names.Job(head.JobCode),
                        names.Site(head.SiteCode),
                        head.Start,
                        task.Key,
                        task.Called,
                        task.Owner,
                        names.Owner(task.Owner, head),
                        planned.State,
                        planned.CanStart,
                        planned.Due,
                        planned.EarliestStart!.Value,
                        planned.LatestFinish,
                        planned.Slack,
                        task.Work,
                        null,
                        head.IsBeforeKnown(planned),
                        [],
                        null,
                        HireTask.TeamOf(task.Owner) is not null,
                        task.TakenById is { } taken ? takers.GetValueOrDefault(taken) : null,
                        task.TakenById is not null && task.TakenById == actor.AccountId,
                        task.Pinned,
                        task.CompletesItself,
                        null,
                        [],
                        null
                    )
                );
            }
        }
        var first = mine.OrderByDescending(t => t.CanStart)
            .ThenBy(t => t.Due ?? t.LatestFinish ?? LocalDate.MaxIsoValue)
            .ThenBy(t => t.EarliestStart)
            .ThenBy(t => t.Start)
            .Take(Most)
            .ToArray();
        var details = await DetailsAsync(first, reader, db, cancellation);
        return TypedResults.Ok(
            new MyTasksResponse(
                today,
                [
                    .. first.Select(t =>
                        details.GetValueOrDefault((t.HireId, t.Key)) is { } detail
                            ? t with
                            {
                                Instructions = detail.Instructions,
                                Note = detail.Note,
                                Attachments = detail.Attachments,
                                Meeting = detail.Meeting,
                                Steps = detail.Steps,
                                Automatic = detail.Automatic,
                            }
                            : t
                    ),
                ],
                mine.Count,
                await RunChecklistEndpoints.OwnAsync(db, actor, names, cancellation)
            )
        );
    }

    private static Task<Dictionary<Guid, string>> TakersAsync(IReadOnlyList<HireUnderWay> hires, FidDb db, CancellationToken cancellation)
    {
        var ids = hires.SelectMany(h => h.Tasks).Select(t => t.TakenById).OfType<Guid>().Distinct().ToArray();
        return db.Users.Where(u => ids.Contains(u.Id)).ToDictionaryAsync(u => u.Id, u => u.DisplayName, cancellation);
    }

    private static async Task<Dictionary<(Guid, string), Detail>> DetailsAsync(MyTask[] tasks, Reader reader, FidDb db, CancellationToken cancellation)
    {
        var hires = tasks.Select(t => t.HireId).Distinct().ToArray();
        var rows = await db
            .HireTasks.AsNoTracking()
            .Where(t =>
                hires.Contains(t.HireId)
                && (
                    t.Instructions != null
                    || t.InstructionsDe != null
                    || t.Note != null
                    || t.Attachments.Length > 0
                    || t.MeetsAt != null
                    || t.Place != null
                    || t.Steps.Length > 0
                    || t.SetFields.Length > 0
                )
            )
            .Select(t => new
            {
                t.HireId,
                t.Key,
                Instructions = ReaderLanguage.Choose(t.Instructions, t.InstructionsDe),
                t.Note,
                t.Attachments,
                t.MeetsAt,
                t.Minutes,
                t.Place,
                t.Steps,
                t.StepsDe,
                t.StepsDone,
                t.SetFields,
                t.SetFormulas,
                t.Trouble,
                t.TroubleCode,
            })
            .ToListAsync(cancellation);
        var names = await Files.NamesAsync(db, rows.SelectMany(r => r.Attachments), cancellation);
        return rows.ToDictionary(
            r => (r.HireId, r.Key),
            r => new Detail(
                r.Instructions,
                r.Note,
                [.. r.Attachments.Where(names.ContainsKey).Select(f => new TaskFile(f, names[f]))],
                MeetingResponse.Of(r.MeetsAt, r.Minutes, r.Place),
                StepResponse.Of(r.Steps, r.StepsDe, r.StepsDone),
                AutomaticResponse.Of(r.SetFields, r.SetFormulas, r.Trouble, r.TroubleCode, reader)
            )
        );
    }

    private sealed record Detail(
        string? Instructions,
        string? Note,
        TaskFile[] Attachments,
        MeetingResponse? Meeting,
        StepResponse[] Steps,
        AutomaticResponse? Automatic
    );
}

/// <summary>A person's open tasks, those that can be worked on first.</summary>
/// <param name="All">How many there are, should there be more than are listed.</param>
/// <param name="Runs">Those of pay runs, which are nobody's.</param>
public sealed record MyTasksResponse(LocalDate Today, MyTask[] Tasks, int All, OwnRunTask[] Runs);

/// <param name="Occasion">What its checklist is run for: what day <paramref name="Start"/> is.</param>
/// <param name="IsTeams">Whether it is a team's: any of its members does it.</param>
/// <param name="TakenBy">Who of the team took it on.</param>
/// <param name="Pinned">The day it is to be done on, whatever the plan says.</param>
/// <param name="Steps">Its steps, where it is a group of them.</param>
/// <param name="Automatic">What it sets by itself; null where somebody does it.</param>
/// <param name="Meeting">When and where one meets for it.</param>
/// <param name="CompletesItself">Whether the record says if it is done, and nobody ticks it off.</param>
public sealed record MyTask(
    Guid HireId,
    Occasion Occasion,
    string Hire,
    string? Job,
    string? Site,
    LocalDate Start,
    string Key,
    string Name,
    string Owner,
    string? OwnerName,
    TaskState State,
    bool CanStart,
    LocalDate? Due,
    LocalDate EarliestStart,
    LocalDate? LatestFinish,
    int? Slack,
    int Work,
    string? Instructions,
    bool BeforeKnown,
    TaskFile[] Attachments,
    string? Note,
    bool IsTeams,
    string? TakenBy,
    bool IsTakenByMe,
    LocalDate? Pinned,
    bool CompletesItself,
    MeetingResponse? Meeting,
    StepResponse[] Steps,
    AutomaticResponse? Automatic
);
