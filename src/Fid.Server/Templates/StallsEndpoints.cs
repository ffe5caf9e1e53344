using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Chasing;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Chasing;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;

namespace Fid.Server.Templates;

/// <summary>Where work stalls: how long tasks took and with whom, the hires behind it, and what a template should say instead.</summary>
internal static class StallsEndpoints
{
    private const int MostHires = 500,
        MostYears = 5;

    public static void MapStalls(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/stalls", Show).WhoMay(Actions.Edit, Things.Task).RequireRateLimiting(RateLimits.Costly).ProducesProblem(400);
        app.MapGet("/api/stalls/hires", Behind).WhoMay(Actions.Edit, Things.Task).RequireRateLimiting(RateLimits.Costly).ProducesProblem(400);
        app.MapGet("/api/stalls/tasks/{key}/trial", Try).WhoMay(Actions.Edit, Things.Task).ProducesProblem(400).ProducesProblem(404);
        app.MapPost("/api/stalls/tasks/{key}/drafts", Draft)
            .WhoMay(Actions.Edit, Things.Template)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(412);
    }

    private static async Task<Results<Ok<StallsResponse>, ProblemHttpResult>> Show(
        LocalDateParameter? from,
        LocalDateParameter? to,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var (first, last) = Span(from, to, actor.Today);
        if (Check(first, last, actor.Today) is { } bad)
            return Problems.Invalid(bad);
        var worked = await LoadAsync(first, last, actor, db, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var templates = await TemplateSet.LoadAsync(db, cancellation);
        var stalls = worked.Stalls();
        // Called as it was called last.
        var called = worked.Tasks.GroupBy(t => t.Task.Key).ToDictionary(g => g.Key, g => g.MaxBy(t => t.Hire.Entered)!.Task);
        return TypedResults.Ok(
            new StallsResponse(
                first,
                last,
                worked.Hires,
                [.. stalls.Tasks.Select(t => Row(t.Key, called[t.Key].Called, t.Figures, called[t.Key].Owner, t.Work, t.SuggestedWork))],
                [.. stalls.Owners.Select(o => Row(o.Owner, null, o.Figures, o.Owner))],
                [.. worked.ByTemplate().Select(t => Row(t.Owner, templates.Find(t.Owner)?.Name ?? t.Owner, t.Figures, null))]
            )
        );

        StallRow Row(string key, string? name, StallFigures f, string? owner, int? work = null, int? suggested = null) =>
            new(
                key,
                name,
                owner,
                owner is null ? null : names.Owner(owner),
                f.Count,
                f.Median,
                f.P90,
                f.Box?.P10,
                f.Box?.P25,
                f.Box?.P75,
                f.LateShare,
                f.HeldUpShare,
                f.Open,
                work,
                suggested
            );
    }

    /// <summary>The hires behind a row, what took longest first; what is still open before all.</summary>
    private static async Task<Results<Ok<StalledHire[]>, ProblemHttpResult>> Behind(
        string by,
        string key,
        LocalDateParameter? from,
        LocalDateParameter? to,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var (first, last) = Span(from, to, actor.Today);
        if (Check(first, last, actor.Today) is { } bad)
            return Problems.Invalid(bad);
        Func<WorkedOn, bool>? which = by switch
        {
            "task" => t => t.Task.Key == key,
            "owner" => t => t.Task.Owner == key,
            "template" => t => t.Hire.TemplateCode == key,
            _ => null,
        };
        if (which is null)
            return Problems.Invalid(new Problem("/by", "bad-value", "Ask by task, owner or template."));
        var worked = await LoadAsync(first, last, actor, db, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var facts = new VisibleFacts(reader, await ListNames.LoadAsync(db, cancellation, reader.SeesNames));
        return TypedResults.Ok(
            worked
                .Tasks.Where(which)
                .Where(t => t.Worked.Done is { } done ? first <= done && done <= last : t.Worked.Possible <= last)
                .Select(t => (Hire: facts.Of(t.Hire), t.Task, t.Worked, Days: Days(t.Worked)))
                .OrderBy(t => t.Worked.Done is null ? 0 : 1)
                .ThenByDescending(t => t.Days)
                .ThenBy(t => t.Hire.Number, StringComparer.Ordinal)
                .Take(MostHires)
                .Select(t => new StalledHire(
                    t.Hire.Id,
                    t.Hire.FullName,
                    t.Hire.Start,
                    t.Task.Called,
                    t.Worked.Possible,
                    t.Worked.Due,
                    t.Worked.Done,
                    t.Days,
                    t.Worked.HeldUp
                ))
                .ToArray()
        );

        int Days(WorkedTask t) => Math.Max(worked.Calendars.ByCode[t.Calendar].Count(t.Possible, t.Done ?? last), 1);
    }

    /// <summary>What another time of work would show of the hires under way, and which templates say the present one.</summary>
    private static async Task<Results<Ok<WorkTrial>, ProblemHttpResult>> Try(string key, int work, Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (work is < 0 or > TaskFindings.MostWork)
            return Problems.Invalid(new Problem("/work", "out-of-range", $"Enter a whole number of working days from 0 to {TaskFindings.MostWork}."));
        var visible = await HireAccess.VisibleAsync(actor, db, cancellation);
        var hires = await HiresUnderWay.LoadAsync(
            db,
            all => visible(all).Where(h => h.Tasks.Any(t => t.Key == key && t.Done == null && t.SkippedWhy == null)),
            cancellation
        );
        var templates = DraftWork.SayingOf([.. (await TemplateSet.LoadAsync(db, cancellation)).All.Where(t => !t.Retired)], key);
        if (templates.Count == 0)
            return Problems.NotFound();
        var (calendars, stages) = (await CalendarSet.LoadAsync(db, cancellation), await StagePlans.LoadAsync(db, cancellation));
        var newly = hires.Count(h => !IsShort(h) && IsShort(h with { Tasks = [.. h.Tasks.Select(t => t.Key == key ? t with { Work = work } : t)] }));
        return TypedResults.Ok(new WorkTrial(hires.Count, newly, [.. templates.Select(t => new TemplateName(t.Code, t.Name))]));

        bool IsShort(HireUnderWay hire) => !HirePlan.Of(hire.Question(actor.Today, calendars, stages), SoonestSearch.Never).Feasible;
    }

    private static async Task<Results<Ok<DraftedWork>, ProblemHttpResult>> Draft(
        string key,
        WorkDraft request,
        Actor actor,
        DraftWork draft,
        CancellationToken cancellation
    ) =>
        (await draft.DoAsync(new DraftWorkRequest(key, request.Work), actor, cancellation)).IsDone(out var codes, out var refusal)
            ? TypedResults.Ok(new DraftedWork([.. codes]))
            : Problems.Of(refusal);

    // Twelve months up to today, where nothing is said.
    private static (LocalDate From, LocalDate To) Span(LocalDateParameter? from, LocalDateParameter? to, LocalDate today) =>
        (to?.Date ?? today) is var last && from?.Date is { } first ? (first, last) : (last.PlusYears(-1).PlusDays(1), last);

    private static Problem? Check(LocalDate from, LocalDate to, LocalDate today) =>
        to > today ? new Problem("/to", "in-future", "Choose a last day up to today.")
        : to < from ? new Problem("/to", "not-in-order", "The time ends before it begins. Swap the two days.")
        : from < to.PlusYears(-MostYears) ? new Problem("/from", "out-of-range", $"Look at {MostYears} years at most.")
        : null;

    private static async Task<WorkedChecklists> LoadAsync(LocalDate from, LocalDate to, Actor actor, FidDb db, CancellationToken cancellation) =>
        await WorkedChecklists.LoadAsync(db, await HireAccess.VisibleAsync(actor, db, cancellation), from, to, actor.Today, cancellation);
}

/// <param name="From">The first day on which what is counted was done.</param>
/// <param name="To">The last; what is open is what was open on it.</param>
/// <param name="Hires">How many hires were under way between the two.</param>
/// <param name="Tasks">By task, what takes longest first.</param>
public sealed record StallsResponse(LocalDate From, LocalDate To, int Hires, StallRow[] Tasks, StallRow[] Owners, StallRow[] Templates);

/// <summary>How long something took, in working days; nothing where none was done.</summary>
/// <param name="Key">Of the task, the owner or the template.</param>
/// <param name="Name">What it is called; null for an owner.</param>
/// <param name="Owner">Whose it is, as templates write it; null for a template.</param>
/// <param name="Count">How many were done.</param>
/// <param name="Median">What half of them did not exceed.</param>
/// <param name="P90">What nine of ten did not.</param>
/// <param name="P10">What one of ten did not.</param>
/// <param name="P25">What a quarter did not.</param>
/// <param name="P75">What three quarters did not.</param>
/// <param name="LateShare">The share done after its due date.</param>
/// <param name="HeldUpShare">The share finished after the last day on which nothing else would have been late for it, though there was time.</param>
/// <param name="Open">How many are open and could be worked on.</param>
/// <param name="Work">The working days the last one was said to take.</param>
/// <param name="SuggestedWork">What four of five did not exceed, where that is another and enough were done.</param>
public sealed record StallRow(
    string Key,
    string? Name,
    string? Owner,
    string? OwnerName,
    int Count,
    decimal? Median,
    decimal? P90,
    decimal? P10,
    decimal? P25,
    decimal? P75,
    decimal? LateShare,
    decimal? HeldUpShare,
    int Open,
    int? Work,
    int? SuggestedWork
);

/// <summary>A task of a hire behind a row.</summary>
/// <param name="Possible">The day from which it could be worked on.</param>
/// <param name="Days">Working days it took, or has taken up to the last day.</param>
public sealed record StalledHire(
    Guid HireId,
    string Name,
    LocalDate Start,
    string Task,
    LocalDate Possible,
    LocalDate? Due,
    LocalDate? Done,
    int Days,
    bool HeldUp
);

/// <param name="UnderWay">How many hires under way have the task open.</param>
/// <param name="NewlyShort">How many of them would show that they are not ready in time, and do not now.</param>
/// <param name="Templates">Those that say how long it takes.</param>
public sealed record WorkTrial(int UnderWay, int NewlyShort, TemplateName[] Templates);

public sealed record TemplateName(string Code, string Name);

/// <param name="Work">Working days.</param>
public sealed record WorkDraft(int Work);

/// <param name="Templates">The codes of those whose drafts say it now.</param>
public sealed record DraftedWork(string[] Templates);
