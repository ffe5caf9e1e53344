using System.Text.Json;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.People;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>Opens the checklist of somebody who works here and changes jobs, or leaves: with it the record says so, from its day on.</summary>
public sealed class OpenChecklist(FidDb db, EnteredValues entered, OccasionRecord occasionRecord)
{
    public async Task<ActResult<Guid>> DoAsync(OpenChecklistRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Open, Things.Hire))
            return Refusal.Forbidden;
        if (Check(request).ToList() is { Count: > 0 } wrong)
            return Refusal.Invalid(wrong);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.RecordAsync(db, request.Employment, cancellation);
        if (await RecordAccess.FindAsync(actor, db, request.Employment, tracked: true, cancellation) is not var (employment, record))
            return Refusal.NotFound;
        // Sent twice, opened once: the user who asks names the checklist they want opened.
        if (act.IsDoneAlready || await db.Hires.AnyAsync(h => h.Id == request.Id && h.EmploymentId == request.Employment, cancellation))
            return request.Id;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (!reader.May(Actions.Open, Things.Hire, record))
            return Refusal.Forbidden;
        if (
            await db.Hires.AnyAsync(h => h.EmploymentId == request.Employment && h.Occasion == request.Occasion && h.Closed == null, cancellation)
            || await db.Hires.AnyAsync(h => h.Id == request.Id, cancellation)
        )
            return Refusal.Conflict("under-way", "This is under way for them already. Open that checklist.");
        var templates = await TemplateSet.LoadAsync(db, cancellation);
        var template = templates.Find(request.Template);
        var problems = DayProblems(request, employment).ToList();
        if (template?.OpensFor(request.Occasion) != true)
            problems.Add(new Problem("/template", "unknown-template", "Choose a template."));
        var values = await CheckValuesAsync(request, reader, employment, record, problems, cancellation);
        if (problems.Count > 0)
            return Refusal.Invalid(problems);

        var facts = await FactsAsync(employment, request.Day, values, cancellation);
        var returning = await db.Employments.AnyAsync(e => e.PersonId == employment.PersonId && e.Start < employment.Start, cancellation);
        var resolved = templates.Resolve(template!, facts, null, actor.Today, returning);
        if (resolved.Answer is not { } layered)
            return Refusal.Invalid([.. resolved.Problems.Select(p => p with { Path = "/template" })]);
        var (author, why) = (actor.Author("checklist"), Reason.Clean(request.Why));
        var (change, clash) = await occasionRecord.EnterAsync(
            new RecordInHand(employment, record),
            new OccasionDay(request.Occasion, request.Day),
            values,
            new ActAuthor(author, why, actor.Today),
            cancellation
        );
        if (clash.Count > 0)
            return Refusal.Invalid([.. clash.Select(AtRequest)]);
        var hire = Make(request, template!, layered, actor, change?.Id);
        ConditionalTasks.Follow(hire.Tasks, hire.Entries, facts, employment.Start, returning, actor.Today);
        db.Hires.Add(hire);
        act.Note(author.Change(ActionOf(request.Occasion), request.Id, template!.LayerId, why));
        await act.CommitAsync(cancellation);
        return request.Id;
    }

    private static IEnumerable<Problem> Check(OpenChecklistRequest request)
    {
        if (request.Occasion is not (Occasion.JobChange or Occasion.Leaving))
            yield return new Problem("/occasion", "bad-value", "Say whether they change jobs or leave.");
        if (MoveStart.CheckDay(request.Day, "/day") is { } day)
            yield return day;
        if (Reason.Check(request.Why) is { } reason)
            yield return reason;
    }

    private static IEnumerable<Problem> DayProblems(OpenChecklistRequest request, Employment employment)
    {
        if (CheckDay(request.Occasion, request.Day, employment) is { } problem)
            yield return problem with
            {
                Path = "/day",
            };
    }

    /// <summary>What is wrong with the day of a change of job or a leaving; null for nothing. The path is empty.</summary>
    internal static Problem? CheckDay(Occasion occasion, LocalDate day, Employment employment)
    {
        if (employment.Stint.NeverWas)
            return new Problem("", "never-was", "They never began here.");
        if (day < employment.Start || (day == employment.Start && occasion == Occasion.JobChange))
            return new Problem("", "before-start", "They have not begun here by then. Choose a later day.");
        return occasion == Occasion.JobChange && employment.End < day
            ? new Problem("", "after-end", "The record ends before that. Change its end first.")
            : null;
    }

    private async Task<Dictionary<string, JsonElement>> CheckValuesAsync(
        OpenChecklistRequest request,
        Reader reader,
        Employment employment,
        CurrentRecord record,
        List<Problem> problems,
        CancellationToken cancellation
    )
    {
        var rights = reader.On(record);
        var asked = (request.Values ?? []).Where(v => v.Value.ValueKind is not (JsonValueKind.Null or JsonValueKind.Undefined)).ToDictionary();
        // The last day is entered into the record by whoever may change it there.
        if (request.Occasion == Occasion.Leaving && employment.End != request.Day)
            asked[OccasionRecord.LastDay] = JsonSerializer.SerializeToElement(request.Day.ToString("uuuu-MM-dd", null));
        var checkedValues = await entered.CheckAsync(reader.Fields, new EnteredRecord(asked, employment.PersonId, employment.Id, rights), cancellation);
        problems.AddRange(checkedValues.Problems.Select(AtRequest));
        problems.AddRange(
            checkedValues
                .Values.Keys.Where(f => f != OccasionRecord.LastDay && !OccasionRecord.Takes(request.Occasion, reader.Fields.Set.Find(f)!))
                .Select(f => new Problem($"/values/{f}", "not-here", "Change this in the record itself."))
        );
        return checkedValues
            .Values.Where(v => v.Key != OccasionRecord.LastDay && v.Value is not null)
            .ToDictionary(v => v.Key, v => v.Value!.Value, StringComparer.Ordinal);
    }

    // What conditions of add-ons ask: the record as it is on the day, with what comes with it.
    private async Task<Dictionary<string, JsonElement>> FactsAsync(
        Employment employment,
        LocalDate day,
        Dictionary<string, JsonElement> values,
        CancellationToken cancellation
    )
    {
        var facts = await HireOrigins.ValuesAsync(db, employment, day, cancellation);
        foreach (var (field, value) in values)
            facts[field] = value;
        return facts;
    }

    private static Hire Make(OpenChecklistRequest request, RoleTemplate template, Layered layered, Actor actor, Guid? change) =>
        new()
        {
            Id = request.Id,
            EmploymentId = request.Employment,
            Occasion = request.Occasion,
            TemplateCode = template.Code,
            TemplateVersion = template.Version,
            Layers = [.. layered.Layers.Where(l => l != Layer.Typed)],
            Start = request.Day,
            Accepted = LocalDate.Min(actor.Today, request.Day),
            Entered = actor.Today,
            CoordinatorId = actor.Account,
            RecordChangeId = change,
            Tasks = [.. LayeredTasks.Of(layered)],
            Entries = [.. HireEntry.Of(layered)],
        };

    private static Problem AtRequest(Problem problem) =>
        problem with
        {
            Path = problem.Path == $"/{OccasionRecord.LastDay}" ? "/day" : $"/values{problem.Path}",
        };

    private static string ActionOf(Occasion occasion) => occasion == Occasion.Leaving ? "leaving.opened" : "jobChange.opened";
}

/// <param name="Id">The checklist's id, chosen by the user who opens it.</param>
/// <param name="Employment">Whose.</param>
/// <param name="Occasion">A change of job, or a leaving.</param>
/// <param name="Template">The code of a template for that.</param>
/// <param name="Day">The first day in the new job, or the last day; it may lie in the past.</param>
/// <param name="Values">What the record says from that day on, by field; of a leaving, its reason.</param>
public sealed record OpenChecklistRequest(
    Guid Id,
    Guid Employment,
    Occasion Occasion,
    string Template,
    LocalDate Day,
    Dictionary<string, JsonElement>? Values,
    string? Why
);
