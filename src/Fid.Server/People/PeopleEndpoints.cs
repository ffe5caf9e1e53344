using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.People;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.People;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Finding people: the list, the pickers, and Go to.</summary>
internal static class PeopleEndpoints
{
    private const int PageSize = 50;
    private const int MostFound = 8;
    private const int ShortestNumber = 5;

    public static void MapPeople(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/people", List).WhoMay(Actions.See, Things.People).ProducesProblem(400);
        app.MapGet("/api/goto", GoTo).WhoMay(Access.SignedIn).ProducesProblem(400);
    }

    private static async Task<Results<Ok<PeoplePage>, ProblemHttpResult>> List(
        string? q,
        Guid? after,
        LocalDateParameter? on,
        bool? all,
        Actor actor,
        FidDb db,
        SensitiveValues sensitive,
        CancellationToken cancellation
    )
    {
        if (!TextRules.TryClean(q ?? "", out var text))
            return BadQuery();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var seen = new VisibleFacts(reader, await ListNames.EntriesAsync(db, cancellation, reader.SeesNames));
        if (on is { } day)
            return TypedResults.Ok(await AsOfAsync(db, reader, seen, day.Date, text, after, cancellation));
        var today = actor.Today;
        var records = reader.Readable(db.CurrentRecords.AsNoTracking());
        // Who is here and who comes, unless somebody asks for those who were here as well.
        if (all != true)
            records = records.Where(r => db.Employments.Any(e => e.Id == r.EmploymentId && (e.End == null || e.End >= today)));
        var matching = await MatchingAsync(db, sensitive, seen, records, text, cancellation);
        // Who may not see names gets no order by names either.
        if (!seen.Name)
            return TypedResults.Ok(await ByNumberAsync(db, matching, seen, after, today, cancellation));
        if (after is { } id && await db.CurrentRecords.AsNoTracking().FirstOrDefaultAsync(r => r.EmploymentId == id, cancellation) is { } last)
            matching = matching.Where(r =>
                EF.Functions.GreaterThan(
                    ValueTuple.Create(r.FamilyName, r.GivenName, r.EmploymentId),
                    ValueTuple.Create(last.FamilyName, last.GivenName, last.EmploymentId)
                )
            );
        var page = await (
            from record in matching
            join employment in db.Employments on record.EmploymentId equals employment.Id
            orderby record.FamilyName, record.GivenName, record.EmploymentId
            select new
            {
                record,
                employment.Number,
                employment.Start,
                employment.End,
            }
        )
            .Take(PageSize + 1)
            .ToListAsync(cancellation);
        return TypedResults.Ok(
            new PeoplePage(
                [
                    .. page.Take(PageSize)
                        .Select(p => Row(seen.On(p.record), AsListed(p.record, p.Number, p.Start), new Stint(p.Start, p.End).StandingOn(today), p.End)),
                ],
                page.Count > PageSize ? page[PageSize - 1].record.EmploymentId : null
            )
        );
    }

    // As they were on a day: who, and as what.
    private static async Task<PeoplePage> AsOfAsync(
        FidDb db,
        Reader reader,
        VisibleFacts seen,
        LocalDate day,
        string text,
        Guid? after,
        CancellationToken cancellation
    )
    {
        var words =
            seen.Name ? TextRules.Fold(text).Split(' ', StringSplitOptions.RemoveEmptyEntries)
            : text.Length == 0 ? []
            : [text];
        var people = await PeopleAsOf.PageAsync(db, day, words, seen.Name, await reader.ReadableAsync(db, cancellation), after, PageSize + 1, cancellation);
        return new PeoplePage([.. people.Take(PageSize).Select(p => Row(seen, p))], people.Count > PageSize ? people[PageSize - 1].EmploymentId : null);
    }

    private static async Task<PeoplePage> ByNumberAsync(
        FidDb db,
        IQueryable<CurrentRecord> matching,
        VisibleFacts seen,
        Guid? after,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var beyond = after is { } id ? await db.Employments.Where(e => e.Id == id).Select(e => e.Number).FirstOrDefaultAsync(cancellation) : null;
        var page = await (
            from record in matching
            join employment in db.Employments on record.EmploymentId equals employment.Id
            where beyond == null || EF.Functions.GreaterThan(ValueTuple.Create(employment.Number), ValueTuple.Create(beyond))
            orderby employment.Number
            select new
            {
                record,
                employment.Number,
                employment.Start,
                employment.End,
            }
        )
            .Take(PageSize + 1)
            .ToListAsync(cancellation);
        return new PeoplePage(
            [
                .. page.Take(PageSize)
                    .Select(p => Row(seen.On(p.record), AsListed(p.record, p.Number, p.Start), new Stint(p.Start, p.End).StandingOn(today), p.End)),
            ],
            page.Count > PageSize ? page[PageSize - 1].record.EmploymentId : null
        );
    }

    private static async Task<Results<Ok<Found[]>, ProblemHttpResult>> GoTo(
        string? q,
        Actor actor,
        FidDb db,
        SensitiveValues sensitive,
        CancellationToken cancellation
    )
    {
        if (!TextRules.TryClean(q ?? "", out var text))
            return BadQuery();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var seen = new VisibleFacts(reader, await ListNames.EntriesAsync(db, cancellation, reader.SeesNames));
        var found = new List<Found>();
        if (actor.May(Actions.See, Things.Hire))
        {
            var visible = await HireAccess.VisibleAsync(actor, db, cancellation);
            var hires = await (
                from hire in visible(db.Hires.Where(h => h.Occasion == Occasion.Arrival && h.Closed == null))
                join record in Matching(db, seen, db.CurrentRecords, text) on hire.EmploymentId equals record.EmploymentId
                join employment in db.Employments on hire.EmploymentId equals employment.Id
                orderby hire.Start, employment.Number
                select new
                {
                    hire.Id,
                    record,
                    employment.Number,
                }
            )
                .AsNoTracking()
                .Take(MostFound)
                .ToListAsync(cancellation);
            found.AddRange(
                hires.Select(h => new Found(
                    FoundKind.Hire,
                    h.Id.ToString(),
                    seen.On(h.record).FullName(h.record, h.Number),
                    Detail(h.record, seen.On(h.record))
                ))
            );
        }
        if (actor.May(Actions.See, Things.People))
            found.AddRange(await PeopleAsync(db, sensitive, reader, seen, text, cancellation));
        var folded = TextRules.Fold(text);
        if (actor.May(Actions.See, Things.List))
            found.AddRange(
                Core.Lists.ShippedLists.All.Where(l => l.Label.All.Any(n => TextRules.Fold(n).Contains(folded, StringComparison.Ordinal)))
                    .Take(MostFound)
                    .Select(l => new Found(FoundKind.List, l.Key, l.Label.In(System.Globalization.CultureInfo.CurrentUICulture.TwoLetterISOLanguageName), null))
            );
        if (actor.May(Actions.See, Things.Template))
            found.AddRange(
                (await TemplateSet.LoadAsync(db, cancellation))
                    .All.Where(t => TextRules.Fold($"{t.Spec.Name} {t.Spec.NameDe} {t.Code}").Contains(folded, StringComparison.Ordinal))
                    .Take(MostFound)
                    .Select(t => new Found(FoundKind.Template, t.Code, t.Name, null))
            );
        return TypedResults.Ok(found.ToArray());
    }

    private static async Task<IEnumerable<Found>> PeopleAsync(
        FidDb db,
        SensitiveValues sensitive,
        Reader reader,
        VisibleFacts seen,
        string text,
        CancellationToken cancellation
    )
    {
        var people = await (await MatchingAsync(db, sensitive, seen, reader.Readable(db.CurrentRecords.AsNoTracking()), text, cancellation))
            .Where(r => !db.Hires.Any(h => h.EmploymentId == r.EmploymentId && h.Occasion == Occasion.Arrival && h.Closed == null))
            .Join(db.Employments, r => r.EmploymentId, e => e.Id, (record, employment) => new { record, employment.Number })
            .OrderBy(p => seen.Name ? p.record.FamilyName : p.Number)
            .ThenBy(p => seen.Name ? p.record.GivenName : p.Number)
            .Take(MostFound)
            .ToListAsync(cancellation);
        return people.Select(p => new Found(
            FoundKind.Person,
            p.record.EmploymentId.ToString(),
            seen.On(p.record).FullName(p.record, p.Number),
            Detail(p.record, seen.On(p.record))
        ));
    }

    private static PersonAsOf AsListed(CurrentRecord record, string number, LocalDate start) =>
        new(record.EmploymentId, number, start, record.GivenName, record.FamilyName, record.JobCode, record.DepartmentCode, record.SiteCode);

    private static PersonRow Row(VisibleFacts seen, PersonAsOf person, Standing? standing = null, LocalDate? end = null) =>
        new(
            person.EmploymentId,
            person.Number,
            seen.Name ? person.GivenName : "",
            seen.Name ? person.FamilyName : person.Number,
            seen.Job(person.Job),
            seen.Department(person.Department),
            seen.Site(person.Site),
            person.Start,
            standing,
            standing is Standing.Leaving or Standing.Left && seen.End ? end : null
        );

    // A number that somebody is known by finds them when it is typed whole, to those who may see it.
    private static async Task<IQueryable<CurrentRecord>> MatchingAsync(
        FidDb db,
        SensitiveValues sensitive,
        VisibleFacts seen,
        IQueryable<CurrentRecord> records,
        string text,
        CancellationToken cancellation
    )
    {
        if (text.Count(char.IsLetterOrDigit) < ShortestNumber)
            return Matching(db, seen, records, text);
        var starts = new List<string>();
        foreach (var field in seen.SealedFields)
            starts.Add(SealedText.Start(await sensitive.HashAsync(db, field, text, cancellation)));
        var owners =
            starts.Count == 0
                ? []
                : await db
                    .RecordValues.Where(v => starts.Contains(v.SealedStart!) && v.Known.UpperBoundInfinite)
                    .Select(v => v.OwnerId)
                    .Distinct()
                    .OrderBy(o => o)
                    .Take(MostFound)
                    .ToListAsync(cancellation);
        if (owners.Count > 0)
            return records.Where(r => owners.Contains(r.EmploymentId) || owners.Contains(r.PersonId));
        var matching = Matching(db, seen, records, text);
        if (!text.Any(char.IsDigit) || await InRowsAsync(db, seen, text, cancellation) is not { Count: > 0 } holders)
            return matching;
        return records.Where(r =>
            holders.Contains(r.EmploymentId) || holders.Contains(r.PersonId) || matching.Select(m => m.EmploymentId).Contains(r.EmploymentId)
        );
    }

    // Who holds what has a number of its own, such as a radio by its serial number.
    private static Task<List<Guid>> InRowsAsync(FidDb db, VisibleFacts seen, string text, CancellationToken cancellation) =>
        db
            .Database.SqlQuery<Guid>(
                $"""
                select distinct owner_id as "Value" from record_values
                where row_id is not null and lower(value #>> array[]::text[]) = {text.Trim().ToLowerInvariant()} and field = any({seen.NumbersInRows})
                  and upper_inf(known) order by 1 limit {MostFound}
                """
            )
            .ToListAsync(cancellation);

    // Each word typed begins a word of the name, stands in the number, is the badge, or begins the job's or the site's name.
    private static IQueryable<CurrentRecord> Matching(FidDb db, VisibleFacts seen, IQueryable<CurrentRecord> records, string text)
    {
        if (!seen.Name)
            return text.Length == 0 ? records : records.Where(r => db.Employments.Any(e => e.Id == r.EmploymentId && e.Number == text));
        foreach (var word in TextRules.SearchWords(text).Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(6))
        {
            var (jobs, sites, badge) = (seen.JobsLike(word), seen.SitesLike(word), seen.Badge);
            records = records.Where(r => r.Search.Contains(" " + word) || (badge && r.Badge == word) || jobs.Contains(r.JobCode) || sites.Contains(r.SiteCode));
        }
        return records;
    }

    private static string Detail(CurrentRecord record, VisibleFacts seen) =>
        string.Join(" · ", new[] { seen.Job(record.JobCode), seen.Site(record.SiteCode) }.Where(d => d is not null));

    private static ProblemHttpResult BadQuery() => Problems.Invalid(new Problem("/q", "bad-characters", TextRules.BadCharacters));
}

/// <summary>People by family name.</summary>
/// <param name="Next">Send as `after` for the next page; null on the last.</param>
public sealed record PeoplePage(PersonRow[] People, Guid? Next);

/// <param name="Standing">How they stand with the firm today; null in a list as of another day.</param>
/// <param name="End">The last day of somebody who leaves or has left.</param>
public sealed record PersonRow(
    Guid EmploymentId,
    string Number,
    string GivenName,
    string FamilyName,
    string? Job,
    string? Department,
    string? Site,
    LocalDate Start,
    Standing? Standing,
    LocalDate? End
);

/// <summary>Something to go to.</summary>
public sealed record Found(FoundKind Kind, string Id, string Title, string? Detail);

public enum FoundKind
{
    Hire,
    Person,
    Template,
    List,
}
