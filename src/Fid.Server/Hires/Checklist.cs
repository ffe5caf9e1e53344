using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Templates;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>A hire with its planned checklist.</summary>
internal static class Checklist
{
    public static async Task<Results<Ok<ChecklistResponse>, ProblemHttpResult>> Show(
        Guid id,
        Actor actor,
        FidDb db,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (await HireAccess.FindPastTooAsync(id, actor, db, cancellation) is not { } hire)
            return Problems.NotFound();
        Versions.Show(http.Response, hire.Head.Version);
        return TypedResults.Ok(await DescribeAsync(hire, actor, db, cancellation));
    }

    /// <summary>Whose a hire is, also one that came to nothing: links to it are kept in mails and notes.</summary>
    public static async Task<Results<Ok<HirePerson>, ProblemHttpResult>> Whose(Guid id, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var visible = await HireAccess.VisibleAsync(actor, db, cancellation);
        return
            await visible(db.Hires.Where(h => h.Id == id)).Select(h => new HirePerson(h.EmploymentId, h.Outcome == null)).SingleOrDefaultAsync(cancellation)
                is { } whose
            ? TypedResults.Ok(whose)
            : Problems.NotFound();
    }

    public static async Task<ChecklistResponse> DescribeAsync(HireUnderWay hire, Actor actor, FidDb db, CancellationToken cancellation)
    {
        // Of who has settled, as it was on that day.
        var today = hire.Head.Closed ?? actor.Today;
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var seen = new VisibleFacts(reader, names);
        var head = seen.Of(hire.Head);
        var (filled, of) = await FilledAsync(hire.Head, reader, db, today, cancellation);
        var templates = await TemplateSet.LoadAsync(db, cancellation);
        var stages = await db.Stages.AsNoTracking().Where(s => s.Occasion == head.Occasion).OrderBy(s => s.Position).ToListAsync(cancellation);
        var planStages = new StagePlans(stages);
        var standings = await db.HireStages.AsNoTracking().Where(s => s.HireId == head.Id).ToDictionaryAsync(s => s.StageKey, cancellation);
        var details = await db
            .HireTasks.AsNoTracking()
            .Where(t => t.HireId == head.Id)
            .Select(t => new TaskDetail(
                t.Key,
                ReaderLanguage.Choose(t.Instructions, t.InstructionsDe),
                t.DoneBy,
                t.SkippedWhy,
                t.SkippedByCondition,
                t.When,
                t.Contact,
                ReaderLanguage.Choose(t.ContactWhy, t.ContactWhyDe),
                t.Attachments,
                db.Users.Where(u => u.Id == t.TakenById).Select(u => u.DisplayName).FirstOrDefault(),
                t.Note,
                t.About,
                t.MeetsAt,
                t.Minutes,
                t.Place,
                t.Steps,
                t.StepsDe,
                t.StepsDone,
                t.SetFields,
                t.SetFormulas,
                t.Trouble,
                t.TroubleCode
            ))
            .ToDictionaryAsync(t => t.Key, cancellation);
        var manager = await db.CurrentRecords.AsNoTracking().FirstOrDefaultAsync(r => r.EmploymentId == head.ManagerId, cancellation);

        var changes = await db
            .Changes.AsNoTracking()
            .Where(c => c.SubjectId == head.Id && c.Part != null && c.Action.StartsWith("task."))
            .GroupBy(c => c.Part!)
            .Select(g => g.OrderByDescending(c => c.At).First())
            .ToDictionaryAsync(c => c.Part!, cancellation);
        var files = await Files.NamesAsync(db, details.Values.SelectMany(d => d.Attachments), cancellation);
        var question = hire.Question(today, calendars, planStages);
        var plan = HirePlan.Of(question, SoonestSearch.Always);
        // From the day the hire was opened on, what is possible now may have been possible for long.
        var since = HirePlan.Of(hire.Question(LocalDate.Min(head.Entered, today), calendars, planStages), SoonestSearch.Never).Tasks;
        var (mayChange, own) = (reader.May(Actions.Edit, Things.Task, hire.Head.Record), new OwnTasks(actor, db));
        var needs = await TaskNeeds.LoadAsync(db, actor, hire, reader, names, cancellation);
        var taskNames = hire.Tasks.ToDictionary(t => t.Key, t => t.Called);
        return new ChecklistResponse(
            head.Id,
            head.EmploymentId,
            head.Occasion,
            head.Number,
            head.GivenName,
            head.FamilyName,
            names.Job(head.JobCode),
            names.Kind(head.Kind),
            names.Site(head.SiteCode),
            manager is not null && seen.On(hire.Head.Record).Manager ? manager.FullName : null,
            templates.Find(head.TemplateCode)?.Name ?? head.TemplateCode,
            head.TemplateVersion,
            filled,
            of,
            Versions.Tag(head.Version),
            today,
            head.Start,
            head.Accepted,
            head.Closed,
            head.RemindersPaused,
            [.. stages.Select((s, i) => StageOf(s, plan.Stages[i], question, plan, standings.GetValueOrDefault(s.Key)))],
            [
                .. hire.Tasks.Select(
                    (t, i) =>
                        TaskOf(t, plan.Tasks[i], details[t.Key], taskNames, names, head, files) with
                        {
                            MayTick = head.Closed is null && !t.CompletesItself && (mayChange || own.Include(t.Owner, hire.Head)),
                            // A condition is said to those who see what it reads.
                            When = details[t.Key].When is { } when && !reader.Reads(when) ? when : null,
                            Needs = needs.Of(t.Kind, details[t.Key].About),
                            Automatic = details[t.Key] is var d ? AutomaticResponse.Of(d.SetFields, d.SetFormulas, d.Trouble, d.TroubleCode, reader) : null,
                            Since = plan.Tasks[i].CanStart ? since[i].EarliestStart : null,
                            Change = changes.TryGetValue(t.Key, out var c) ? new TaskChange(c.ByName, c.At, c.Action) : null,
                        }
                ),
            ],
            plan.Feasible,
            plan.SoonestStart,
            new ReadinessResponse(plan.Readiness.Done, plan.Readiness.Of, plan.Readiness.Percent),
            HoldUpResponse.Of(plan, hire with { Head = head }, calendars, names),
            plan.HoldUp is { } first
                ?
                [
                    .. PlanChain
                        .Of(question, plan, first)
                        .Select(l => new ChainLinkResponse(
                            l.Task,
                            taskNames[l.Task],
                            l.EarliestFinish,
                            l.LatestFinish,
                            l.By,
                            l.Next is { } next ? taskNames[next] : null,
                            l.Day
                        )),
                ]
                : []
        );
    }

    // Of the fields the reader may see.
    private static async Task<(int Filled, int Of)> FilledAsync(HireHead head, Reader reader, FidDb db, LocalDate today, CancellationToken cancellation)
    {
        var rights = reader.On(head.Record);
        if (reader.Fields.Set.FieldsAndColumns.All(f => rights.Sees(f.Key)))
            return (head.Filled, head.Of);
        var employment = await db.Employments.AsNoTracking().SingleAsync(e => e.Id == head.EmploymentId, cancellation);
        var values = (await ShownValues.OfAsync(db, employment, today, cancellation)).ToDictionary(v => v.Key, v => v.Value.Value);
        var record = await ShownRecord.EvaluateAsync(db, reader.Fields, values, rights, reader.Fields.Set.Keys, [], null, today, cancellation);
        return (record.Shown.Count(record.Values.ContainsKey), record.Shown.Count);
    }

    private static StageResponse StageOf(Stage stage, PlannedStage planned, PlanQuestion question, Plan plan, HireStage? standing)
    {
        int done = 0,
            of = 0;
        LocalDate? opens = null;
        for (var i = 0; i < question.Tasks.Count; i++)
        {
            var task = question.Tasks[i];
            if (task.Stage != stage.Key)
                continue;
            if (plan.Tasks[i].EarliestStart is { } earliest && (opens is null || earliest < opens))
                opens = earliest;
            if (!task.Required || task.Skipped)
                continue;
            of++;
            if (task.Done is not null)
                done++;
        }
        return new StageResponse(
            stage.Key,
            stage.Called,
            planned.State,
            opens,
            done,
            of,
            stage.WaitsFor,
            planned.State == StageState.Passed ? standing?.Passed : null,
            standing is { ByHand: true, By: { } by } ? new StageWord(by, standing.Why ?? "") : null
        );
    }

    private static TaskResponse TaskOf(
        TaskRow task,
        PlannedTask planned,
        TaskDetail detail,
        Dictionary<string, string> taskNames,
        ListNames names,
        HireHead hire,
        Dictionary<Guid, string> files
    ) =>
        new(
            task.Key,
            task.Called,
            task.StageKey,
            task.Owner,
            names.Owner(task.Owner, hire),
            planned.State,
            planned.Due,
            planned.EarliestStart,
            planned.EarliestFinish,
            planned.LatestStart,
            planned.LatestFinish,
            planned.Slack,
            planned.CanStart,
            task.Work,
            [.. task.After.Select((k, i) => new TaskLinkResponse(k, taskNames.GetValueOrDefault(k, k), task.Lags[i]))],
            task.Required,
            task.DayOne,
            task.Done,
            detail.DoneBy,
            detail.SkippedWhy,
            detail.SkippedByCondition,
            null,
            detail.Instructions,
            hire.IsBeforeKnown(planned),
            detail.Contact,
            detail.Contact is { } contact ? names.Owner(contact, hire) : null,
            detail.ContactWhy,
            [.. detail.Attachments.Where(files.ContainsKey).Select(f => new TaskFile(f, files[f]))],
            null,
            null,
            false,
            task.Pinned,
            detail.TakenBy,
            detail.Note,
            task.Added,
            task.RemindersPaused,
            task.Kind,
            task.CompletesItself,
            [],
            MeetingResponse.Of(detail.MeetsAt, detail.Minutes, detail.Place),
            StepResponse.Of(detail.Steps, detail.StepsDe, detail.StepsDone),
            null
        );

    private sealed record TaskDetail(
        string Key,
        string? Instructions,
        string? DoneBy,
        string? SkippedWhy,
        bool SkippedByCondition,
        string? When,
        string? Contact,
        string? ContactWhy,
        Guid[] Attachments,
        string? TakenBy,
        string? Note,
        string[] About,
        LocalTime? MeetsAt,
        int? Minutes,
        string? Place,
        string[] Steps,
        string[] StepsDe,
        int[] StepsDone,
        string[] SetFields,
        string[] SetFormulas,
        string? Trouble,
        string? TroubleCode
    );
}
