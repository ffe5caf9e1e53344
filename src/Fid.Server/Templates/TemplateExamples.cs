using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.Templates;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Templates;

/// <summary>What a hire would get from a template as it is being edited, and whom an add-on would apply to. Nothing is saved.</summary>
internal static class TemplateExamples
{
    public static void MapTemplateExamples(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/templates/{code}/example", Work)
            .WhoMay(Actions.See, Things.Template)
            .OnlyReads()
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(404);
        app.MapPost("/api/templates/people", People).WhoMay(Actions.Edit, Things.Template).OnlyReads().RequireRateLimiting(RateLimits.Costly);
    }

    private static async Task<Results<Ok<TemplateExample>, ProblemHttpResult>> Work(
        string code,
        ExampleRequest request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var today = actor.Today;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var fields = reader.Fields;
        if (request.Spec is { } sent && reader.Forbidden(sent) is { Count: > 0 } forbidden)
            return Problems.Invalid(forbidden);
        var book = await TemplateSet.LoadAsync(db, cancellation);
        var version = book.Find(code)?.Version ?? 0;
        var edited = new RoleTemplate
        {
            Code = code,
            Version = request.Spec is null ? version : version + 1,
            Spec = request.Spec is { } spec ? reader.WithUnseen(spec, book.Find(code)?.Spec) : book.Find(code)?.Spec!,
        };
        if (edited.Spec is null)
            return Problems.NotFound();
        book = book.With(edited);
        var use = edited.IsAddOn
            ? book.Find(request.Use ?? "") ?? book.OpeningFor(edited.Spec.Occasion).OrderBy(t => t.Name, StringComparer.Ordinal).FirstOrDefault()
            : edited;
        if (use is null)
            return Problems.NotFound();
        var findings = (await TemplateFindings.OfAsync(db, fields, book, edited, today, cancellation)).ToList();
        var start = request.Start is { } on && ValueCheck.IsSensible(on) ? on : await WorkingDayAsync(today.PlusWeeks(4), db, cancellation);
        // What is chosen for the example stands in it as if it had been typed.
        var chosen = request.Facts.Where(f => reader.Sees(f.Key)).ToDictionary();
        var returning =
            request.Facts.TryGetValue(TemplateSet.Returning, out var before) && before.ValueKind == JsonValueKind.String && before.GetString() == "yes";
        var resolved = book.Resolve(use, chosen, start, today, returning);
        if (resolved.Answer is not { } layered)
        {
            findings.AddRange(
                resolved
                    .Problems.Where(p => findings.TrueForAll(f => f.Code != p.Code))
                    .Select(p => new TemplateFinding("example", null, null, p.Code, p.Message))
            );
            return TypedResults.Ok(new TemplateExample(use.Code, start, [], [], [], [], null, 0, [], [], [.. findings]));
        }
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        // A template's own values are shown as far as their fields are.
        layered = layered with { Values = layered.Values.Where(v => reader.Sees(v.Key)).ToDictionary() };
        var display = await RecordReader.DisplayAsync(db, fields, layered.Values.Select(v => (v.Key, v.Value.Value)), names, cancellation);
        var facts = layered.Values.ToDictionary(v => v.Key, v => v.Value.Value);
        facts["start_date"] = JsonSerializer.SerializeToElement(start.ToString("uuuu-MM-dd", null));
        var completeness = Completeness.Count(fields.Set, facts, start, reader.Everybody);
        return TypedResults.Ok(
            new TemplateExample(
                use.Code,
                start,
                [.. layered.Layers.Where(l => l != Layer.Typed).Select(l => Describe(l, book))],
                [
                    .. layered.Values.Select(v => new ExampleValue(
                        v.Key,
                        v.Value.Value,
                        display.GetValueOrDefault(v.Key),
                        v.Value.From,
                        FormulaAt(book, v.Value.From, v.Key),
                        [
                            .. v.Value.Displaced.Select(d => new ExampleDisplaced(
                                d.From,
                                d.Value,
                                fields.ListOf(v.Key) is { } list ? names.Joined(list, d.Value) : null
                            )),
                        ]
                    )),
                ],
                [
                    .. TemplateLists.All.SelectMany(list =>
                        layered
                            .Lists[list]
                            .Select(e => new ExampleEntry(
                                list,
                                e.Key,
                                TemplateReview.KeyedBy.TryGetValue(list, out var keys) ? names.Of(keys, e.Key) : null,
                                e.Properties.Where(p => reader.SeesProperty(p.Key, p.Value.Value))
                                    .ToDictionary(
                                        p => p.Key,
                                        p => new ExampleProperty(
                                            p.Value.Value,
                                            p.Value.From,
                                            [
                                                .. p
                                                    .Value.Displaced.Where(d => reader.SeesProperty(p.Key, d.Value))
                                                    .Select(d => new ExampleDisplaced(d.From, d.Value, null)),
                                            ]
                                        )
                                    )
                            ))
                    ),
                ],
                layered
                    .Dropped.Select(d => new ExampleDrop(
                        d.List,
                        d.Key,
                        TemplateReview.KeyedBy.TryGetValue(d.List, out var keys) ? names.Of(keys, d.Key) : null,
                        d.By
                    ))
                    .ToArray(),
                await PlanAsync(db, layered, edited.Spec.Occasion, start, returning, today, names, cancellation),
                completeness.Missing.Count(fields.Set.IsRequiredFirst),
                await OwnerNamesAsync(db, layered, names, cancellation),
                await FileNamesAsync(db, layered, cancellation),
                [.. findings]
            )
        );
    }

    private static LayerResponse Describe(string layer, TemplateSet book)
    {
        var (code, version) = RoleTemplate.ReadLayer(layer)!.Value;
        return new LayerResponse(layer, code, book.Find(code)?.Name ?? code, version, book.Find(code)?.IsAddOn ?? false);
    }

    private static string? FormulaAt(TemplateSet book, string layer, string field) =>
        RoleTemplate.ReadLayer(layer) is var (code, _) && book.Find(code) is { } template && template.Spec.Values.TryGetValue(field, out var value)
            ? TemplateSpec.FormulaOf(value)
            : null;

    // Null where the tasks are no checklist yet: what is wrong is among the findings.
    // From a day on, the first on which everybody works: nobody begins on a holiday.
    private static async Task<LocalDate> WorkingDayAsync(LocalDate from, FidDb db, CancellationToken cancellation)
    {
        var calendars = (await CalendarSet.LoadAsync(db, cancellation)).ByCode.Values.ToList();
        return Enumerable.Range(0, DaysAhead).Select(from.PlusDays).Where(d => calendars.TrueForAll(c => c.IsWorking(d))).DefaultIfEmpty(from).First();
    }

    private const int DaysAhead = 28;

    private static async Task<ExamplePlan?> PlanAsync(
        FidDb db,
        Layered layered,
        Occasion occasion,
        LocalDate start,
        bool returning,
        LocalDate today,
        ListNames names,
        CancellationToken cancellation
    )
    {
        IReadOnlyList<HireTask> tasks;
        try
        {
            tasks = LayeredTasks.Of(layered);
            ConditionalTasks.Follow(
                tasks,
                HireEntry.Of(layered),
                layered.Values.ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal),
                start,
                returning,
                today
            );
        }
        catch (JsonException)
        {
            return null;
        }
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        var own =
            layered.Values.TryGetValue("holiday_calendar", out var calendar) && calendar.Value.ValueKind == JsonValueKind.String
                ? calendar.Value.GetString()
                : null;
        var rows = tasks.Select(TaskRow.Of).ToList();
        var stages = (await StagePlans.LoadAsync(db, cancellation)).Of(occasion);
        var question =
            occasion == Occasion.PayRun
                ? RunPlan.Question(today, RunPlan.Example(start), calendars, stages, rows, own)
                : HirePlan.Question(today, start, LocalDate.Min(today, start), calendars, stages, rows, own);
        if (Planner.Plan(question, SoonestSearch.WhenNotFeasible).Answer is not { } plan)
            return null;
        return new ExamplePlan(
            plan.Feasible,
            plan.SoonestStart,
            [
                .. plan
                    .Tasks.Zip(rows)
                    // What does not apply to the one of the example is no part of their plan.
                    .Where(t => !t.Second.Skipped)
                    .Select(t => new ExampleTask(
                        t.First.Id,
                        t.Second.Called,
                        t.Second.Owner,
                        names.Owner(t.Second.Owner),
                        t.Second.DayOne,
                        t.First.EarliestStart!.Value,
                        t.First.EarliestFinish!.Value,
                        t.First.LatestFinish,
                        t.First.Slack
                    )),
            ]
        );
    }

    private static async Task<Dictionary<string, string>> OwnerNamesAsync(FidDb db, Layered layered, ListNames names, CancellationToken cancellation)
    {
        var owners = layered
            .Tasks.SelectMany(t => new[] { "owner", "contact" }.Where(t.Properties.ContainsKey).Select(p => t.Properties[p].Value))
            .Where(v => v.ValueKind == JsonValueKind.String)
            .Select(v => v.GetString()!)
            .Distinct()
            .ToArray();
        var ids = owners.Select(HireTask.PersonOf).OfType<Guid>().ToArray();
        var people = await PeopleNames.LoadAsync(db, ids, names.OfPeople, cancellation);
        return owners
            .Select(o => (o, Name: HireTask.PersonOf(o) is { } id ? people.GetValueOrDefault(id) : names.Owner(o)))
            .Where(o => o.Name is not null)
            .ToDictionary(o => o.o, o => o.Name!);
    }

    private static Task<Dictionary<Guid, string>> FileNamesAsync(FidDb db, Layered layered, CancellationToken cancellation)
    {
        var ids = layered
            .Tasks.Where(t => t.Properties.ContainsKey("attachments"))
            .Select(t => t.Properties["attachments"].Value)
            .Where(v => v.ValueKind == JsonValueKind.Array)
            .SelectMany(v => v.EnumerateArray())
            .Where(v => v.ValueKind == JsonValueKind.String)
            .Select(v => Guid.TryParse(v.GetString(), out var id) ? id : Guid.Empty);
        return Files.NamesAsync(db, ids, cancellation);
    }

    /// <summary>Everybody whom an add-on with this condition would apply to today.</summary>
    private static async Task<Ok<ApplyingPeople>> People(ApplyingRequest request, Actor actor, FidDb db, CancellationToken cancellation)
    {
        var today = actor.Today;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var (formula, mistake) = request.When is null ? (null, null) : RecordFormula.Read(request.When);
        if (mistake is not null)
            return TypedResults.Ok(new ApplyingPeople(0, [], mistake.Message));
        var active = await ActiveRecords.LoadAsync(
            db,
            today,
            cancellation,
            only: await reader.ReadableAsync(db, cancellation),
            fields: formula is null ? [] : [.. formula.Names]
        );
        var calendar = new Core.Calendars.WorkCalendar(Core.Calendars.RestMask.Weekend, []);
        var returning = await TemplateUpdates.ReturningAsync(db, cancellation);
        var applies = active
            .Records.Where(r =>
                formula is null
                || formula
                    .Compute(
                        new FormulaFacts(
                            name =>
                                name == TemplateSet.Returning ? (returning.Contains(r.Key) ? "yes" : "no")
                                : reader.Sees(name) && r.Value.Values.TryGetValue(name, out var v) ? FieldValues.FromJson(SealedText.Shown(v))
                                : null,
                            today,
                            calendar
                        )
                    )
                    .Value
                    is true
            )
            .Select(r => r.Key)
            .ToArray();
        var seen = new VisibleFacts(reader, await ListNames.LoadAsync(db, cancellation, reader.SeesNames));
        var rows = await db
            .CurrentRecords.AsNoTracking()
            .Where(r => applies.Contains(r.EmploymentId))
            .Join(db.Employments, r => r.EmploymentId, e => e.Id, (record, employment) => new { record, employment.Number })
            .OrderBy(r => reader.SeesNames ? r.record.FamilyName : "")
            .ThenBy(r => reader.SeesNames ? r.record.GivenName : "")
            .ThenBy(r => r.Number)
            .Take(MostPeople)
            .ToListAsync(cancellation);
        return TypedResults.Ok(
            new ApplyingPeople(
                applies.Length,
                [
                    .. rows.Select(r => new ApplyingPerson(
                        r.record.EmploymentId,
                        reader.NameOf(r.record, r.Number),
                        seen.Job(r.record.JobCode),
                        seen.Site(r.record.SiteCode)
                    )),
                ],
                null
            )
        );
    }

    private const int MostPeople = 200;
}

/// <param name="Spec">The template as it is being edited; null for what is live.</param>
/// <param name="Use">For an add-on: the template of the example.</param>
/// <param name="Facts">What is known of the example, by field: site, department, kind of employment.</param>
/// <param name="Start">The first day of the example; when left out a working day, four weeks from today or as soon as can be.</param>
public sealed record ExampleRequest(TemplateSpec? Spec, string? Use, Dictionary<string, JsonElement> Facts, LocalDate? Start);

/// <summary>What a hire would get.</summary>
/// <param name="Use">The template of the example.</param>
/// <param name="Layers">The layers, lowest first.</param>
/// <param name="Dropped">What layers took away.</param>
/// <param name="Plan">The plan of its checklist; null while there is something wrong with the tasks.</param>
/// <param name="Left">Fields needed to prepare that are left to type.</param>
/// <param name="FileNames">How the files that go with tasks are called.</param>
/// <param name="OwnerNames">How owners of tasks that are teams or people are called.</param>
public sealed record TemplateExample(
    string Use,
    LocalDate Start,
    LayerResponse[] Layers,
    ExampleValue[] Values,
    ExampleEntry[] Entries,
    ExampleDrop[] Dropped,
    ExamplePlan? Plan,
    int Left,
    Dictionary<string, string> OwnerNames,
    Dictionary<Guid, string> FileNames,
    TemplateFinding[] Findings
);

public sealed record LayerResponse(string Id, string Code, string Name, int Version, bool IsAddOn);

/// <param name="From">The id of the layer that set it.</param>
/// <param name="Formula">The formula it comes from, if one does.</param>
public sealed record ExampleValue(string Field, JsonElement Value, string? Display, string From, string? Formula, ExampleDisplaced[] Displaced);

public sealed record ExampleDisplaced(string From, JsonElement Value, string? Display);

/// <param name="Name">How the firm's list calls it; null where it has a name of its own.</param>
public sealed record ExampleEntry(string List, string Key, string? Name, Dictionary<string, ExampleProperty> Properties);

public sealed record ExampleProperty(JsonElement Value, string From, ExampleDisplaced[] Displaced);

public sealed record ExampleDrop(string List, string Key, string? Name, string By);

public sealed record ExamplePlan(bool Feasible, LocalDate? SoonestStart, ExampleTask[] Tasks);

public sealed record ExampleTask(
    string Key,
    string Name,
    string Owner,
    string? OwnerName,
    bool DayOne,
    LocalDate EarliestStart,
    LocalDate EarliestFinish,
    LocalDate? LatestFinish,
    int? Slack
);

/// <param name="When">The condition; null for everybody.</param>
public sealed record ApplyingRequest(string? When);

/// <param name="Count">How many there are, should there be more than are listed.</param>
/// <param name="Trouble">Why the condition cannot be read.</param>
public sealed record ApplyingPeople(int Count, ApplyingPerson[] People, string? Trouble);

public sealed record ApplyingPerson(Guid Id, string Name, string? Job, string? Site);
