using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Core;
using Fid.Core.Calendars;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using NodaTime.Text;

namespace Fid.Server.Hires;

/// <summary>Opening hires, and showing beforehand what they would start with.</summary>
internal static class NewHireEndpoints
{
    private const int MostAtOnce = 200;

    /// <summary>What the hire would start with, as typed so far. What is wrong with it is part of the answer.</summary>
    public static async Task<Results<Ok<HirePreview>, ProblemHttpResult>> Preview(
        NewHireRequest request,
        Actor actor,
        FidDb db,
        HirePreparation preparation,
        CancellationToken cancellation
    )
    {
        var context = await OpeningContext.LoadAsync(actor, db, cancellation);
        var prepared = (await preparation.PrepareAsync([request], context, cancellation))[0];
        return prepared.Draft is null
            ? Problems.Invalid(prepared.Problems)
            : TypedResults.Ok(
                await DescribeAsync(request, prepared, context, await PreviewNames.LoadAsync(context.Reader, db, cancellation), db, cancellation)
            );
    }

    /// <summary>The same for several at once: each answered for itself, a null where nothing can be worked out.</summary>
    public static async Task<Results<Ok<ManyPreview>, ProblemHttpResult>> PreviewMany(
        ManyHiresRequest request,
        Actor actor,
        FidDb db,
        HirePreparation preparation,
        PeopleIndex people,
        CancellationToken cancellation
    )
    {
        if (request.Hires.Length > MostAtOnce)
            return Problems.Invalid(new Problem("/hires", "out-of-range", $"At most {MostAtOnce} at once; from a sheet there can be more."));
        var context = await OpeningContext.LoadAsync(actor, db, cancellation);
        var prepared = await preparation.PrepareAsync(request.Hires, context, cancellation);
        var names = await PreviewNames.LoadAsync(context.Reader, db, cancellation);
        names = names with { Called = await PeopleNames.LoadAsync(db, PeopleIn(prepared, context.Reader), context.Reader.SeesNames, cancellation) };
        var known = await new KnownPeople(db, people, context.Today, context.Reader, names.Names).FindManyAsync(
            [.. request.Hires.Select(h => h.Person is null ? KnownRequest.Of(h) : null)],
            1,
            cancellation,
            [.. request.Hires.Select(h => h.NotThese ?? [])]
        );
        var twins = UndecidedPeople.Twins(request.Hires);
        var rows = new List<ManyRow>();
        for (var i = 0; i < prepared.Count; i++)
        {
            var preview = prepared[i].Draft is null ? null : await DescribeAsync(request.Hires[i], prepared[i], context, names, db, cancellation);
            rows.Add(new ManyRow([.. prepared[i].Problems.Select(ProblemEntry.Of)], preview, known[i] is [var likeliest] ? likeliest : null, twins[i]));
        }
        return TypedResults.Ok(new ManyPreview([.. rows]));
    }

    public static async Task<Results<Created<OpenedHire>, ProblemHttpResult>> Open(
        NewHireRequest request,
        Actor actor,
        OpenHire open,
        CancellationToken cancellation
    )
    {
        if (!(await open.DoAsync(new OpenHireRequest([request]), actor, cancellation)).IsDone(out var opened, out var refusal))
            return Problems.Of(refusal with { Problems = [.. refusal.Problems.Select(Alone)] });
        return TypedResults.Created($"/api/hires/{opened[0].Id}", opened[0]);
    }

    /// <summary>Opens several hires, all or none.</summary>
    public static async Task<Results<Ok<OpenedHire[]>, ProblemHttpResult>> OpenMany(
        ManyHiresRequest request,
        Actor actor,
        OpenHire open,
        CancellationToken cancellation
    )
    {
        if (request.Hires.Length is 0 or > MostAtOnce)
            return Problems.Invalid(new Problem("/hires", "out-of-range", $"From 1 to {MostAtOnce} at once; from a sheet there can be more."));
        return (await open.DoAsync(new OpenHireRequest(request.Hires), actor, cancellation)).IsDone(out var opened, out var refusal)
            ? TypedResults.Ok(opened)
            : Problems.Of(refusal);
    }

    // Of one that is opened alone, the request is the hire.
    private static Problem Alone(Problem problem)
    {
        const string First = "/hires/0";
        return problem.Path.StartsWith(First, StringComparison.Ordinal)
            ? problem with
            {
                Path = problem.Path[First.Length..],
                Follows = problem.Follows?[First.Length..],
            }
            : problem;
    }

    // Whom values of drafts name.
    private static Guid[] PeopleIn(IEnumerable<PreparedHire> hires, Reader reader) =>
        [
            .. hires
                .Select(h => h.Draft)
                .OfType<HireDraft>()
                .SelectMany(d => d.Values)
                .Where(v => reader.Fields.Set.Find(v.Key)?.Type == FieldType.Person && v.Value.Value.ValueKind == JsonValueKind.String)
                .Select(v => Guid.TryParse(v.Value.Value.GetString(), out var id) ? id : Guid.Empty)
                .Distinct(),
        ];

    private static async Task<HirePreview> DescribeAsync(
        NewHireRequest request,
        PreparedHire prepared,
        OpeningContext context,
        PreviewNames known,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var draft = prepared.Draft!;
        var (today, reader, templates, _) = context;
        var fields = reader.Fields;
        var (names, calendars, stages, _) = known;
        var shown = await RecordReader.DisplayAsync(db, fields, draft.Values.Select(v => (v.Key, v.Value.Value)), names, cancellation, known.Called);
        var sources = await SourceNames.LoadAsync(db, templates, draft.Values.Select(v => v.Value.From), reader.SeesNames, cancellation);
        var values = draft
            .Values.Where(v => reader.Sees(v.Key))
            .Select(v => new PreviewValue(v.Key, v.Value.Value, shown.GetValueOrDefault(v.Key), sources.Of(v.Value.From)))
            .ToArray();
        var calendar = draft.Values.TryGetValue("holiday_calendar", out var own) && own.Value.ValueKind == JsonValueKind.String ? own.Value.GetString() : null;
        var plan =
            request.Start is { } start && ValueCheck.IsSensible(start)
                ? HirePlan.Of(
                    HirePlan.Question(today, start, LocalDate.Min(today, start), calendars, stages.Of(Occasion.Arrival), Rows(draft), calendar),
                    SoonestSearch.WhenNotFeasible
                )
                : null;
        var completeness = Completeness.Count(fields.Set, Facts(draft, request.Start), LocalDate.Max(today, request.Start ?? today), reader.Everybody);
        return new HirePreview(
            values,
            [.. prepared.Problems.Select(ProblemEntry.Of)],
            completeness.Filled,
            completeness.Of,
            [.. completeness.Missing.Where(fields.Set.IsRequiredFirst)],
            plan?.Feasible,
            plan?.SoonestStart,
            plan is null ? null : HoldUpResponse.Of(plan, Rows(draft), calendar, calendars, names.Owner, today),
            [
                .. draft
                    .Tasks.Where(t => t.SkippedWhy is null)
                    .GroupBy(t => t.Owner)
                    .Select(g => new OwnerShare(g.Key, names.Owner(g.Key), g.Count()))
                    .OrderByDescending(s => s.Count),
            ],
            draft.Template.Name,
            draft.Template.Version,
            reader.Sees("birth_date") && DateOf(draft, "birth_date") is { } born && born <= today ? Age.On(born, today) : null,
            BackDated.Of(request.Start, today, plan)
        );
    }

    private static Dictionary<string, JsonElement> Facts(HireDraft draft, LocalDate? start)
    {
        var facts = draft.Values.ToDictionary(v => v.Key, v => v.Value.Value);
        if (start is { } first)
            facts["start_date"] = JsonSerializer.SerializeToElement(first.ToString("uuuu-MM-dd", null));
        return facts;
    }

    private static LocalDate? DateOf(HireDraft draft, string field) =>
        draft.Values.TryGetValue(field, out var held)
        && held.Value.ValueKind == JsonValueKind.String
        && LocalDatePattern.Iso.Parse(held.Value.GetString()!).TryGetValue(default, out var date)
            ? date
            : null;

    private static TaskRow[] Rows(HireDraft draft) => [.. draft.Tasks.Select(TaskRow.Of)];
}

/// <summary>What it takes to show hires before they are opened.</summary>
/// <param name="Called">What people that values name are called; null to look each up.</param>
internal sealed record PreviewNames(ListNames Names, CalendarSet Calendars, StagePlans Stages, IReadOnlyDictionary<Guid, string>? Called = null)
{
    public static async Task<PreviewNames> LoadAsync(Reader reader, FidDb db, CancellationToken cancellation) =>
        new(
            await ListNames.LoadAsync(db, cancellation, reader.SeesNames),
            await CalendarSet.LoadAsync(db, cancellation),
            await StagePlans.LoadAsync(db, cancellation)
        );
}

/// <param name="Hires">The hires, in the order of the grid.</param>
public sealed record ManyHiresRequest(NewHireRequest[] Hires);

public sealed record ManyPreview(ManyRow[] Rows);

/// <param name="Preview">What the hire would start with; null where that cannot be worked out.</param>
/// <param name="Known">The likeliest of those the firm knows who may be the same person; null for nobody.</param>
/// <param name="Twin">The place, from 0, of an earlier row that says much the same person; null for none.</param>
public sealed record ManyRow(ProblemEntry[] Problems, HirePreview? Preview, KnownPerson? Known, int? Twin);

/// <summary>What a start in the past means.</summary>
/// <param name="Days">How many days ago it was.</param>
/// <param name="Overdue">Tasks due before today: they lay before anybody here knew.</param>
public sealed record BackDated(int Days, int Overdue)
{
    internal static BackDated? Of(LocalDate? start, LocalDate today, Plan? plan) =>
        start is { } first && first < today && plan is not null
            ? new BackDated(Period.DaysBetween(first, today), plan.Tasks.Count(t => t.State == TaskState.Late))
            : null;
}

/// <summary>What a hire would start with.</summary>
/// <param name="Problems">What is wrong with what was typed so far.</param>
/// <param name="Missing">Keys of fields needed to prepare and still empty.</param>
/// <param name="Feasible">Whether everything can be ready by the start; null while there is no start.</param>
/// <param name="Age">In whole years, today; null without a date of birth, or for those who may not see it.</param>
/// <param name="BackDated">What a start in the past means; null for one that is not.</param>
public sealed record HirePreview(
    PreviewValue[] Values,
    ProblemEntry[] Problems,
    int Filled,
    int Of,
    string[] Missing,
    bool? Feasible,
    LocalDate? SoonestStart,
    HoldUpResponse? HoldUp,
    OwnerShare[] Owners,
    string TemplateName,
    int TemplateVersion,
    int? Age,
    BackDated? BackDated
);

public sealed record PreviewValue(string Field, JsonElement Value, string? Display, ValueSource Source);

public sealed record OwnerShare(string Owner, string? OwnerName, int Count);
