using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.Hires;
using Fid.Data.Lists;
using Fid.Data.People;
using Fid.Data.Templates;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Opening a hire from a template.</summary>
internal static class NewHire
{
    /// <summary>What the hire would start with, as typed so far. What is wrong with it is part of the answer.</summary>
    public static async Task<Results<Ok<HirePreview>, ProblemHttpResult>> Preview(
        NewHireRequest request, ClaimsPrincipal user, FidDb db, SensitiveValues sensitive, HireOpening opening, FirmClock clock, CancellationToken cancellation)
    {
        var today = await clock.TodayAsync(db, cancellation);
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        var prepared = await PrepareAsync(request, user, fields, db, sensitive, opening, today, cancellation);
        if (prepared.Draft is not { } draft) return Problems.Invalid(prepared.Problems);

        var names = await ListNames.LoadAsync(db, cancellation);
        var calendars = await CalendarBook.LoadAsync(db, cancellation);
        var stages = await StagesAsync(db, cancellation);
        var roles = ShownRecord.RolesOf(user);
        var shown = await RecordReader.DisplayAsync(db, fields, draft.Values.Select(v => (v.Key, v.Value.Value)), names, cancellation);
        var values = draft.Values.Where(v => ShownRecord.Sees(fields, roles, [v.Key])).Select(v => new PreviewValue(v.Key, v.Value.Value, shown.GetValueOrDefault(v.Key), ValueSource.Of(v.Value.From, prepared.Templates))).ToArray();
        var calendar = draft.Values.TryGetValue("holiday_calendar", out var own) && own.Value.ValueKind == JsonValueKind.String ? own.Value.GetString() : null;
        var plan = request.Start is { } start && ValueCheck.IsSensible(start)
            ? HirePlan.Of(HirePlan.Question(today, start, LocalDate.Min(today, start), calendars, stages, [.. Rows(draft).Select(t => t.ToPlan(calendar))]), SoonestSearch.WhenNotFeasible)
            : null;
        var completeness = Completeness.Count(fields.Set, Facts(draft, request.Start), LocalDate.Max(today, request.Start ?? today));
        return TypedResults.Ok(new HirePreview(
            values,
            [.. prepared.Problems.Select(p => new ProblemEntry(p.Path, p.Code, p.Message))],
            completeness.Filled, completeness.Of,
            [.. completeness.Missing.Where(m => fields.Set.IsRequiredFirst(m) && ShownRecord.Sees(fields, roles, [m]))],
            plan?.Feasible, plan?.SoonestStart,
            plan is null ? null : HoldUpResponse.Of(plan, [.. Rows(draft)], calendar, calendars, names),
            [.. draft.Tasks.GroupBy(t => t.Owner).Select(g => new OwnerShare(g.Key, names.Owner(g.Key), g.Count())).OrderByDescending(s => s.Count)],
            draft.Template.Name, draft.Template.Version));
    }

    public static async Task<Results<Created<OpenedHire>, ProblemHttpResult>> Open(
        NewHireRequest request, ClaimsPrincipal user, FidDb db, SensitiveValues sensitive, HireOpening opening, RecordWriter records, FirmClock clock, CancellationToken cancellation)
    {
        // Sent twice, opened once: the browser names the hire it wants to open.
        if (await FindAsync(request.Id, db, cancellation) is { } there) return TypedResults.Created($"/api/hires/{there.Id}", there);
        var today = await clock.TodayAsync(db, cancellation);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await opening.LockBadgesAsync(cancellation);
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        await records.HoldUniqueAsync(request.Typed.Keys, cancellation);
        var prepared = await PrepareAsync(request, user, fields, db, sensitive, opening, today, cancellation);
        var problems = prepared.Problems.ToList();
        if (request.Start is null) problems.Add(new Problem("/start", "missing", "Say when the person starts."));
        if (prepared.Draft is { } checkedDraft)
            problems.AddRange(HireOpening.Needed.Where(f => !Has(checkedDraft, f) && problems.All(p => p.Path != $"/typed/{f}"))
                .Select(f => new Problem($"/typed/{f}", "missing", "Fill this in.")));
        if (problems.Count > 0 || prepared.Draft is not { } draft) return Problems.Invalid(problems);

        var start = request.Start!.Value;
        await records.HoldEntriesAsync(request.Typed.Select(t => (t.Key, (JsonElement?)t.Value)), cancellation);
        var number = await opening.NextNumberAsync(start, cancellation);
        var author = user.Author(clock, "newHire");
        var hire = await opening.AddAsync(draft, request.Id, number, start, LocalDate.Min(today, start), user.Id(), author, today, cancellation);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Created($"/api/hires/{hire.Id}", new OpenedHire(hire.Id, hire.EmploymentId, number));
    }

    private static async Task<OpenedHire?> FindAsync(Guid id, FidDb db, CancellationToken cancellation) =>
        await db.Hires.Where(h => h.Id == id)
            .Join(db.Employments, h => h.EmploymentId, e => e.Id, (h, e) => new OpenedHire(h.Id, e.Id, e.Number))
            .FirstOrDefaultAsync(cancellation);

    private static async Task<Prepared> PrepareAsync(
        NewHireRequest request, ClaimsPrincipal user, LiveFields fields, FidDb db, SensitiveValues sensitive, HireOpening opening, LocalDate today, CancellationToken cancellation)
    {
        var templates = await TemplateBook.LoadAsync(db, cancellation);
        if (templates.Find(request.Template) is not { Opens: true } template)
            return new Prepared(null, templates, [new Problem("/template", "unknown-template", "Choose a role template.")]);
        var problems = new List<Problem>();
        if (request.Start is { } start && !ValueCheck.IsSensible(start))
            problems.Add(new Problem("/start", "bad-date", "Enter a date from 1900 to 2199."));
        var entries = await EnteredValues.CheckAsync(db, sensitive, fields, request.Typed, ShownRecord.RolesOf(user), null, cancellation);
        problems.AddRange(entries.Problems.Select(p => p with { Path = "/typed" + p.Path }));
        var typed = entries.Values.Where(v => v.Value is not null).ToDictionary(v => v.Key, v => v.Value!.Value);
        var drafted = await opening.DraftAsync(templates, template, typed, request.Start is { } on && ValueCheck.IsSensible(on) ? on : null, today, cancellation);
        problems.AddRange(drafted.Problems.Select(p => p with { Path = "/template" }));
        return new Prepared(drafted.Answer, templates, problems);
    }

    private static Dictionary<string, JsonElement> Facts(HireDraft draft, LocalDate? start)
    {
        var facts = draft.Values.ToDictionary(v => v.Key, v => v.Value.Value);
        if (start is { } first) facts["start_date"] = JsonSerializer.SerializeToElement(first.ToString("uuuu-MM-dd", null));
        return facts;
    }

    private static bool Has(HireDraft draft, string field) =>
        draft.Values.TryGetValue(field, out var value) && value.Value.ValueKind is not (JsonValueKind.Null or JsonValueKind.Undefined);

    private static IEnumerable<TaskRow> Rows(HireDraft draft) => draft.Tasks.Select(TaskRow.Of);

    internal static async Task<List<PlanStage>> StagesAsync(FidDb db, CancellationToken cancellation) =>
        (await db.Stages.AsNoTracking().OrderBy(s => s.Position).ToListAsync(cancellation)).ConvertAll(s => s.ToPlan());

    private sealed record Prepared(HireDraft? Draft, TemplateBook Templates, IReadOnlyList<Problem> Problems);
}

/// <summary>A hire to open.</summary>
/// <param name="Id">Chosen by the browser, so that the same request sent twice opens one hire.</param>
/// <param name="Template">The code of the role template.</param>
/// <param name="Start">The first day; may lie in the past.</param>
/// <param name="Typed">What the coordinator typed, by field key.</param>
public sealed record NewHireRequest(Guid Id, string Template, LocalDate? Start, Dictionary<string, JsonElement> Typed);

public sealed record OpenedHire(Guid Id, Guid EmploymentId, string Number);

/// <summary>What a hire would start with.</summary>
/// <param name="Problems">What is wrong with what was typed so far.</param>
/// <param name="Missing">Keys of fields needed to prepare and still empty.</param>
/// <param name="Feasible">Whether everything can be ready by the start; null while there is no start.</param>
public sealed record HirePreview(
    PreviewValue[] Values, ProblemEntry[] Problems, int Filled, int Of, string[] Missing, bool? Feasible, LocalDate? SoonestStart,
    HoldUpResponse? HoldUp, OwnerShare[] Owners, string TemplateName, int TemplateVersion);

public sealed record PreviewValue(string Field, JsonElement Value, string? Display, ValueSource Source);

public sealed record OwnerShare(string Owner, string? OwnerName, int Count);
