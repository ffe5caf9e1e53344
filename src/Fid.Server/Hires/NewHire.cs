using System.Security.Claims;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Planning;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Exchange;
using Fid.Data.Hires;
using Fid.Data.Intake;
using Fid.Data.People;
using Fid.Data.Templates;
using Fid.Server.Intake;
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
        NewHireRequest request, ClaimsPrincipal user, FidDb db, HireOrigins origins, SensitiveValues sensitive, HireOpening opening, FirmClock clock, CancellationToken cancellation)
    {
        var ground = await OpeningGround.LoadAsync(user, db, clock, cancellation);
        var prepared = await PrepareAsync(request, ground, db, origins, sensitive, opening, cancellation);
        if (prepared.Draft is not { } draft) return Problems.Invalid(prepared.Problems);
        return TypedResults.Ok(await DescribeAsync(request, prepared, draft, ground, await PreviewBooks.LoadAsync(ground.Reader, db, cancellation), db, cancellation));
    }

    /// <summary>The same for several at once: each answered for itself, a null where nothing can be worked out.</summary>
    public static async Task<Results<Ok<ManyPreview>, ProblemHttpResult>> PreviewMany(
        ManyHiresRequest request, ClaimsPrincipal user, FidDb db, HireOrigins origins, SensitiveValues sensitive, HireOpening opening, PeopleIndex people, FirmClock clock,
        CancellationToken cancellation)
    {
        if (request.Hires.Length > MostAtOnce) return Problems.Invalid(new Problem("/hires", "out-of-range", $"At most {MostAtOnce} at once; from a sheet there can be more."));
        var ground = await OpeningGround.LoadAsync(user, db, clock, cancellation);
        var books = await PreviewBooks.LoadAsync(ground.Reader, db, cancellation);
        // What the rows refer to, and whom they may be, is asked for all of them together.
        var references = await EnteredReferences.LoadAsync(db, ground.Reader.Fields, request.Hires.Select(h => h.Typed), cancellation);
        var prepared = new List<Prepared>();
        foreach (var one in request.Hires)
        {
            prepared.Add(await PrepareAsync(one, ground, db, origins, sensitive, opening, cancellation, references));
            if (prepared[^1].Draft is { } draft) opening.Pass(draft);
        }
        books = books with { Called = await PeopleNames.LoadAsync(db, PeopleIn(prepared.Select(p => p.Draft), ground.Reader), ground.Reader.SeesNames, cancellation) };
        var known = await new KnownPeople(db, people, ground.Today, ground.Reader, books.Names)
            .FindManyAsync([.. request.Hires.Select(h => h.Person is null ? KnownRequest.Of(h) : null)], 1, cancellation, [.. request.Hires.Select(h => h.NotThese ?? [])]);
        var twins = UndecidedPeople.Twins(request.Hires);
        var rows = new List<ManyRow>();
        for (var i = 0; i < prepared.Count; i++)
        {
            var preview = prepared[i].Draft is { } draft ? await DescribeAsync(request.Hires[i], prepared[i], draft, ground, books, db, cancellation) : null;
            rows.Add(new ManyRow([.. prepared[i].Problems.Select(ProblemEntry.Of)], preview, known[i] is [var likeliest] ? likeliest : null, twins[i]));
        }
        return TypedResults.Ok(new ManyPreview([.. rows]));
    }

    /// <summary>Opens several hires, all or none.</summary>
    public static async Task<Results<Ok<OpenedHire[]>, ProblemHttpResult>> OpenMany(
        ManyHiresRequest request, ClaimsPrincipal user, FidDb db, HireOrigins origins, SensitiveValues sensitive, HireOpening opening, RecordWriter records, PeopleIndex people, FirmClock clock, CancellationToken cancellation)
    {
        if (request.Hires.Length is 0 or > MostAtOnce) return Problems.Invalid(new Problem("/hires", "out-of-range", $"From 1 to {MostAtOnce} at once; from a sheet there can be more."));
        var ids = request.Hires.Select(h => h.Id).ToArray();
        var there = await Opened(db, ids).ToArrayAsync(cancellation);
        if (there.Length == ids.Distinct().Count()) return TypedResults.Ok(there);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var (opened, problems) = await OpenAsync(request.Hires, user, db, origins, sensitive, opening, records, people, clock, cancellation);
        if (opened is null) return Problems.Invalid([.. problems]);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(opened);
    }

    private const int MostAtOnce = 200;

    // Whom values of drafts name.
    private static Guid[] PeopleIn(IEnumerable<HireDraft?> drafts, Reader reader) =>
        [.. drafts.OfType<HireDraft>().SelectMany(d => d.Values).Where(v => reader.Fields.Set.Find(v.Key)?.Type == FieldType.Person && v.Value.Value.ValueKind == JsonValueKind.String)
            .Select(v => Guid.TryParse(v.Value.Value.GetString(), out var id) ? id : Guid.Empty).Distinct()];

    private static async Task<HirePreview> DescribeAsync(
        NewHireRequest request, Prepared prepared, HireDraft draft, OpeningGround ground, PreviewBooks books, FidDb db, CancellationToken cancellation)
    {
        var (today, reader, templates) = ground;
        var fields = reader.Fields;
        var (names, calendars, stages, _) = books;
        var shown = await RecordReader.DisplayAsync(db, fields, draft.Values.Select(v => (v.Key, v.Value.Value)), names, cancellation, books.Called);
        var sources = await SourceNames.LoadAsync(db, templates, draft.Values.Select(v => v.Value.From), reader.SeesNames, cancellation);
        var values = draft.Values.Where(v => reader.Sees(v.Key)).Select(v => new PreviewValue(v.Key, v.Value.Value, shown.GetValueOrDefault(v.Key), sources.Of(v.Value.From))).ToArray();
        var calendar = draft.Values.TryGetValue("holiday_calendar", out var own) && own.Value.ValueKind == JsonValueKind.String ? own.Value.GetString() : null;
        var plan = request.Start is { } start && ValueCheck.IsSensible(start)
            ? HirePlan.Of(HirePlan.Question(today, start, LocalDate.Min(today, start), calendars, stages, [.. Rows(draft).Select(t => t.ToPlan(calendar))]), SoonestSearch.WhenNotFeasible)
            : null;
        var completeness = Completeness.Count(fields.Set, Facts(draft, request.Start), LocalDate.Max(today, request.Start ?? today), reader.Roles);
        return new HirePreview(
            values,
            [.. prepared.Problems.Select(ProblemEntry.Of)],
            completeness.Filled, completeness.Of,
            [.. completeness.Missing.Where(fields.Set.IsRequiredFirst)],
            plan?.Feasible, plan?.SoonestStart,
            plan is null ? null : HoldUpResponse.Of(plan, [.. Rows(draft)], calendar, calendars, names, today),
            [.. draft.Tasks.GroupBy(t => t.Owner).Select(g => new OwnerShare(g.Key, names.Owner(g.Key), g.Count())).OrderByDescending(s => s.Count)],
            draft.Template.Name, draft.Template.Version, BackDated.Of(request.Start, today, plan));
    }

    public static async Task<Results<Created<OpenedHire>, ProblemHttpResult>> Open(
        NewHireRequest request, ClaimsPrincipal user, FidDb db, HireOrigins origins, SensitiveValues sensitive, HireOpening opening, RecordWriter records, PeopleIndex people, FirmClock clock, CancellationToken cancellation)
    {
        // Sent twice, opened once: the browser names the hire it wants to open.
        if (await Opened(db, [request.Id]).SingleOrDefaultAsync(cancellation) is { } there) return TypedResults.Created($"/api/hires/{there.Id}", there);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var (opened, problems) = await OpenAsync([request], user, db, origins, sensitive, opening, records, people, clock, cancellation);
        if (opened is null) return Problems.Invalid([.. problems.Select(p => p with { Path = p.Path["/hires/0".Length..], Follows = p.Follows?["/hires/0".Length..] })]);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Created($"/api/hires/{opened[0].Id}", opened[0]);
    }

    /// <summary>Opens hires in the caller's transaction, or says for each what is wrong with it; then none is opened.</summary>
    internal static async Task<(OpenedHire[]? Opened, IReadOnlyList<Problem> Problems)> OpenAsync(
        IReadOnlyList<NewHireRequest> requests, ClaimsPrincipal user, FidDb db, HireOrigins origins, SensitiveValues sensitive, HireOpening opening, RecordWriter records, PeopleIndex people, FirmClock clock,
        CancellationToken cancellation)
    {
        await opening.LockBadgesAsync(cancellation);
        // Sent twice at the same moment, the second has waited for the first here.
        var ids = requests.Select(r => r.Id).Distinct().ToArray();
        if (await Opened(db, ids).ToArrayAsync(cancellation) is { Length: > 0 } there)
            return there.Length == ids.Length ? ([.. ids.Select(i => there.Single(t => t.Id == i))], []) : (null, [new Problem("/hires", "opened-already", "Some of these are open already. Look at Arrivals, and open the others.")]);
        var ground = await OpeningGround.LoadAsync(user, db, clock, cancellation);
        var today = ground.Today;
        await records.HoldUniqueAsync(requests.SelectMany(r => r.Typed.Keys).Distinct(), cancellation);
        var undecided = await UndecidedPeople.OfAsync(requests, ground.Reader, people, db, cancellation);
        var problems = new List<Problem>();
        var opened = new List<OpenedHire>();
        var author = user.Author(clock, "newHire");
        for (var i = 0; i < requests.Count; i++)
        {
            var request = requests[i];
            var prepared = await PrepareAsync(request, ground, db, origins, sensitive, opening, cancellation);
            List<Problem> wrong = [.. prepared.Problems, .. Lacking(request, prepared, ground).Where(l => prepared.Problems.All(p => p.Path != l.Path))];
            if (await WorksHereAsync(request, db, today, cancellation) is { } beside) wrong.Add(beside);
            if (undecided[i] is { } who) wrong.Add(who);
            problems.AddRange(wrong.Select(p => p.Under($"/hires/{i}")));
            if (problems.Count > 0 || prepared.Draft is not { } draft) continue;
            var start = request.Start!.Value;
            await records.HoldEntriesAsync(request.Typed.Select(t => (t.Key, (JsonElement?)t.Value)), cancellation);
            var number = await opening.NextNumberAsync(start, cancellation);
            var hire = await opening.AddAsync(draft, request.Id, number, start, LocalDate.Min(today, start), user.Id(), author, today, cancellation);
            if (request.Candidate is { } candidate && await TakeCandidateAsync(candidate, hire.Id, number, start, author, db, cancellation) is { } taken)
            {
                problems.Add(taken with { Path = $"/hires/{i}{taken.Path}" });
                continue;
            }
            // Saved one by one, so that each sees which badges and unique values the ones before it took.
            await db.SaveChangesAsync(cancellation);
            opened.Add(new OpenedHire(hire.Id, hire.EmploymentId, number));
        }
        return problems.Count > 0 ? (null, problems) : ([.. opened], []);
    }

    // The candidate leaves the tray with the hire that is opened, and recruiting is told.
    private static async Task<Problem?> TakeCandidateAsync(Guid id, Guid hire, string number, LocalDate start, Author author, FidDb db, CancellationToken cancellation)
    {
        if (await db.IntakeCandidates.SingleOrDefaultAsync(c => c.Id == id, cancellation) is not { State: IntakeState.Waiting } candidate)
            return new Problem("/candidate", "not-waiting", "This candidate does not wait any more. Look at the tray again.");
        (candidate.State, candidate.HireId, candidate.Settled) = (IntakeState.Taken, hire, candidate.Now);
        new Notices(db).TellRecruiting(candidate, NoticeKind.Opened, hire, number, start, author.At);
        db.Changes.Add(author.Change("candidate.taken", candidate.Id, candidate.SourceId));
        return null;
    }

    // Mostly the same person opened twice; two jobs at once have to be meant. Badges are locked by now, so nobody opens one meanwhile.
    private static async Task<Problem?> WorksHereAsync(NewHireRequest request, FidDb db, LocalDate today, CancellationToken cancellation) =>
        request is { Person: { } person, Beside: false } && await Employment.AnyGoesOnAsync(db, person, request.Start ?? today, null, cancellation)
            ? new Problem("/person", "works-here", "They work here then already. Open that record, or say that two stints at once are meant.") : null;

    // What must be there before a hire can be opened, and is looked at only then.
    private static IEnumerable<Problem> Lacking(NewHireRequest request, Prepared prepared, OpeningGround ground)
    {
        if (request.Start is null) yield return new Problem("/start", "missing", "Say when the person starts.");
        else if (request.Start < ground.Today && !request.BackDated) yield return new Problem("/start", "back-dated", "The start lies in the past. Say that it is meant so.");
        if (prepared.Draft is not { } draft) yield break;
        var cause = CauseIn(request, draft.Template, ground, prepared.Problems);
        foreach (var field in HireOpening.Needed.Where(f => !Has(draft, f))) yield return new Problem($"/typed/{field}", "missing", "Fill this in.", cause(field));
    }

    private static IQueryable<OpenedHire> Opened(FidDb db, Guid[] ids) =>
        db.Hires.Where(h => ids.Contains(h.Id)).Join(db.Employments, h => h.EmploymentId, e => e.Id, (h, e) => new OpenedHire(h.Id, e.Id, e.Number));

    private static async Task<Prepared> PrepareAsync(
        NewHireRequest request, OpeningGround ground, FidDb db, HireOrigins origins, SensitiveValues sensitive, HireOpening opening, CancellationToken cancellation,
        EnteredReferences? references = null)
    {
        var (today, reader, templates) = ground;
        var code = request is { Template: "", Like: { } like } ? await origins.TemplateOfAsync(like.Employment, templates, reader, today, cancellation) : request.Template;
        if (code is null || templates.Find(code) is not { Opens: true } template)
            return new Prepared(null, [new Problem("/template", "unknown-template", "Choose a role template.")]);
        var problems = new List<Problem>();
        if (request.Start is { } start && !ValueCheck.IsSensible(start))
            problems.Add(new Problem("/start", "bad-date", "Enter a date from 1900 to 2199."));
        var from = await origins.OfAsync(request, reader, today, cancellation);
        problems.AddRange(from.Problems);
        var entries = await EnteredValues.CheckAsync(db, sensitive, reader.Fields, request.Typed, reader.Roles, null, cancellation, request.Person, references);
        problems.AddRange(entries.Problems.Select(p => p.Under("/typed")));
        var typed = entries.Values.Where(v => v.Value is not null).ToDictionary(v => v.Key, v => v.Value!.Value);
        var drafted = await opening.DraftAsync(templates, template, typed, request.Start is { } on && ValueCheck.IsSensible(on) ? on : null, today, cancellation, from.Answer);
        var cause = CauseIn(request, template, ground, problems);
        problems.AddRange(drafted.Problems.Select(p => p with { Path = "/template", Follows = cause(TemplateBook.FieldAt(p.Path)) }));
        return new Prepared(drafted.Answer is { } draft && request.Candidate is { } candidate ? await FromRecruitingAsync(draft, candidate, db, cancellation) : drafted.Answer, problems);
    }

    // The part of the request at fault that a field's fault follows from.
    private static Func<string?, string?> CauseIn(NewHireRequest request, RoleTemplate template, OpeningGround ground, IReadOnlyList<Problem> problems)
    {
        var typed = "/typed/";
        // Of a field that the reader may not see nothing follows, as little as of one that is not there.
        var wrong = problems.Where(p => p.Path.StartsWith(typed, StringComparison.Ordinal)).Select(p => p.Path[typed.Length..]).Where(ground.Reader.Sees).ToHashSet(StringComparer.Ordinal);
        if (request.Start is null || problems.Any(p => p.Path == "/start")) wrong.Add("start_date");
        return field => ground.Templates.CauseOf(field, template, ground.Reader.Fields.Set, wrong) switch
        {
            null => null,
            "start_date" => "/start",
            var cause => typed + cause,
        };
    }

    // What came from recruiting and was left as it came says so; what was typed over it does not.
    private static async Task<HireDraft> FromRecruitingAsync(HireDraft draft, Guid id, FidDb db, CancellationToken cancellation)
    {
        if (await db.IntakeCandidates.AsNoTracking().SingleOrDefaultAsync(c => c.Id == id, cancellation) is not { } candidate) return draft;
        var said = candidate.Now.Fields;
        var site = await SiteNames.FindAsync(db, candidate.Now.Site, cancellation);
        return draft with
        {
            Values = draft.Values.ToDictionary(
                v => v.Key, v => v.Value.From == Core.Templates.Layer.Typed && Said(v.Key) is { } words && TextRules.AreAlike(words, v.Value.Value.ToString())
                    ? v.Value with { From = HireOrigin.FromRecruiting } : v.Value, StringComparer.Ordinal),
        };

        string? Said(string field) => field == "site" ? site : said.GetValueOrDefault(field);
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

    private sealed record Prepared(HireDraft? Draft, IReadOnlyList<Problem> Problems);
}

/// <summary>A hire to open.</summary>
/// <param name="Id">Chosen by the browser, so that the same request sent twice opens one hire.</param>
/// <param name="Template">The code of the role template; empty, with a colleague to be like, for the one that they were hired from.</param>
/// <param name="Start">The first day; may lie in the past.</param>
/// <param name="Typed">What the coordinator typed, by field key.</param>
/// <param name="Person">The person it is a new stint of; null for a new person.</param>
/// <param name="Reuse">What to take over from the person's last stint: field keys.</param>
/// <param name="Like">The colleague it is to be like; null for nobody.</param>
/// <param name="BackDated">Whether a start in the past is meant so.</param>
/// <param name="Candidate">The candidate from recruiting it is; null for none.</param>
/// <param name="Beside">Whether a stint beside another of the same person is meant so.</param>
/// <param name="NotThese">People it is not, though it looked so, and hires opened with it that are not the same person.</param>
public sealed record NewHireRequest(
    Guid Id, string Template, LocalDate? Start, Dictionary<string, JsonElement> Typed, Guid? Person = null, string[]? Reuse = null, LikeColleague? Like = null, bool BackDated = false, Guid? Candidate = null,
    bool Beside = false, Guid[]? NotThese = null);

/// <summary>A colleague to be like.</summary>
/// <param name="Employment">The colleague.</param>
/// <param name="Parts">What to copy: "job", "pay", "clock", "checklist", "items".</param>
public sealed record LikeColleague(Guid Employment, string[] Parts);

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
    internal static BackDated? Of(LocalDate? start, LocalDate today, Plan? plan) => start is { } first && first < today && plan is not null
        ? new BackDated(Period.DaysBetween(first, today), plan.Tasks.Count(t => t.State == TaskState.Late)) : null;
}

public sealed record OpenedHire(Guid Id, Guid EmploymentId, string Number);

/// <summary>What a hire would start with.</summary>
/// <param name="Problems">What is wrong with what was typed so far.</param>
/// <param name="Missing">Keys of fields needed to prepare and still empty.</param>
/// <param name="Feasible">Whether everything can be ready by the start; null while there is no start.</param>
/// <param name="BackDated">What a start in the past means; null for one that is not.</param>
public sealed record HirePreview(
    PreviewValue[] Values, ProblemEntry[] Problems, int Filled, int Of, string[] Missing, bool? Feasible, LocalDate? SoonestStart,
    HoldUpResponse? HoldUp, OwnerShare[] Owners, string TemplateName, int TemplateVersion, BackDated? BackDated);

public sealed record PreviewValue(string Field, JsonElement Value, string? Display, ValueSource Source);

public sealed record OwnerShare(string Owner, string? OwnerName, int Count);
