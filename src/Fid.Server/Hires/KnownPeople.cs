using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Core.People;
using Fid.Data;
using Fid.Data.People;
using Fid.Server.Lists;
using Fid.Server.People;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Finds out whether newcomers are people whom the firm knows already.</summary>
internal sealed class KnownPeople(FidDb db, PeopleIndex people, LocalDate today, Reader reader, ListNames names)
{
    private const int Most = 5;

    /// <summary>People who may be the same as somebody being typed, the likeliest first, each with the reasons and what could be taken over.</summary>
    public static async Task<Ok<KnownPerson[]>> Find(KnownRequest request, Actor actor, FidDb db, PeopleIndex people, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var known = new KnownPeople(db, people, actor.Today, reader, await ListNames.LoadAsync(db, cancellation, reader.SeesNames));
        return TypedResults.Ok((await known.FindAsync(request, Most, cancellation)).ToArray());
    }

    /// <summary>The likeliest of those who may be the same.</summary>
    public async Task<IReadOnlyList<KnownPerson>> FindAsync(KnownRequest request, int most, CancellationToken cancellation) =>
        (await FindManyAsync([request], most, cancellation))[0];

    /// <summary>The same for several at once, in their order; nobody for a null.</summary>
    /// <param name="except">For each, the people it is known not to be; null for nobody.</param>
    public async Task<IReadOnlyList<IReadOnlyList<KnownPerson>>> FindManyAsync(
        IReadOnlyList<KnownRequest?> requests,
        int most,
        CancellationToken cancellation,
        IReadOnlyList<Guid[]>? except = null
    )
    {
        // Nobody is found by what the reader may not see of them: that they are would confirm it.
        if (!reader.SeesNames || !requests.Any(r => r is not null && PeopleIndex.SaysEnough(r.ToFacts())))
            return [.. requests.Select(_ => Array.Empty<KnownPerson>())];
        var worthAsking = new Queue<IReadOnlyList<PersonMatch>>(
            await people.WorthAskingAsync(db, reader.Sees, [.. requests.OfType<KnownRequest>().Select(r => r.ToFacts())], cancellation)
        );
        var told = await reader.KnownAsync(db, [.. worthAsking.SelectMany(m => m).Select(m => Guid.Parse(m.Id)).Distinct()], cancellation);
        var matches = requests
            .Select(
                (r, i) =>
                    r is null
                        ? []
                        : worthAsking
                            .Dequeue()
                            .Where(m => Guid.Parse(m.Id) is var id && told.Contains(id) && except?[i].Contains(id) != true)
                            .Take(most)
                            .ToList()
            )
            .ToList();
        var ids = matches.SelectMany(m => m).Select(m => Guid.Parse(m.Id)).Distinct().ToArray();
        if (ids.Length == 0)
            return [.. requests.Select(_ => Array.Empty<KnownPerson>())];
        var bridgeDays = await db.Firms.Select(f => f.BridgeDays).SingleAsync(cancellation);
        var stints = (await db.Employments.AsNoTracking().Where(e => ids.Contains(e.PersonId)).OrderBy(e => e.Start).ToListAsync(cancellation)).ToLookup(e =>
            e.PersonId
        );
        var held = await HireOrigins.ValuesAsync(db, [.. stints.Select(s => s.Last())], today, cancellation);
        var seen = held.ToDictionary(h => h.Key, h => reader.Seen(h.Value));
        var called = await PeopleNames.LoadAsync(
            db,
            [
                .. seen
                    .Values.SelectMany(v => HireOrigins.Reusable.Where(v.ContainsKey).Select(f => Guid.TryParse(v[f].ToString(), out var id) ? id : Guid.Empty))
                    .Distinct(),
            ],
            reader.SeesNames,
            cancellation
        );
        var found = new List<IReadOnlyList<KnownPerson>>();
        for (var i = 0; i < requests.Count; i++)
        {
            var one = new List<KnownPerson>();
            foreach (var match in matches[i])
                if (stints[Guid.Parse(match.Id)].ToList() is { Count: > 0 } own)
                    one.Add(await DescribeAsync(match, own, seen[own[^1].Id], requests[i]!, bridgeDays, called, cancellation));
            found.Add(one);
        }
        return found;
    }

    private async Task<KnownPerson> DescribeAsync(
        PersonMatch match,
        List<Employment> stints,
        Dictionary<string, JsonElement> values,
        KnownRequest request,
        int bridgeDays,
        IReadOnlyDictionary<Guid, string> called,
        CancellationToken cancellation
    )
    {
        var last = stints[^1];
        // What never was, counts for nothing.
        var real = stints.Where(s => !s.Stint.NeverWas).ToList();
        var told = real.LastOrDefault() ?? last;
        var service = real.Count == 0 ? null : ServiceDates.Of([.. real.Select(s => (s.Start, s.End)), .. New(request, real)], bridgeDays).Answer;
        var reusable = HireOrigins.Reusable.Where(values.ContainsKey).ToList();
        var display = await RecordReader.DisplayAsync(db, reader.Fields, reusable.Select(f => (f, values[f])), names, cancellation, called);
        return new KnownPerson(
            last.PersonId,
            told.Id,
            told.Number,
            Text(values, "given_name"),
            Text(values, "family_name"),
            names.Job(Text(values, "job")),
            names.Site(Text(values, "site")),
            (real.Count > 0 ? real : stints)[0].Start,
            told.Start,
            told.End,
            service?.AdjustedService,
            told.Stint.GoesOn(today),
            stints.Exists(s => s.Stint.GoesOn(request.Start ?? today)),
            match.IsSame,
            [.. match.Reasons],
            [.. reusable.Select(f => new ReusableFact(f, display.GetValueOrDefault(f) ?? values[f].ToString()))]
        );
    }

    // The stint that is being opened, where it follows the others.
    private static IEnumerable<(LocalDate, LocalDate?)> New(KnownRequest request, List<Employment> own) =>
        request.Start is { } start && own.TrueForAll(s => s.End < start) ? [(start, null)] : [];

    internal static string Text(Dictionary<string, JsonElement> values, string field) =>
        values.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString()! : "";
}

/// <summary>Somebody the firm knows.</summary>
/// <param name="EmploymentId">The last stint.</param>
/// <param name="FirstHired">The first day of the first stint.</param>
/// <param name="Started">The first day of the last one, which may be to come.</param>
/// <param name="Ended">The last day of the last one; null while it goes on.</param>
/// <param name="AdjustedService">The day from which service counts, the new stint with it.</param>
/// <param name="WorksHere">Whether they work here now, or are about to.</param>
/// <param name="SecondStint">Whether the new stint would run beside another.</param>
/// <param name="IsSame">Whether it is taken to be the same person.</param>
/// <param name="Reusable">What could be taken over from the last stint.</param>
public sealed record KnownPerson(
    Guid PersonId,
    Guid EmploymentId,
    string Number,
    string GivenName,
    string FamilyName,
    string? Job,
    string? Site,
    LocalDate FirstHired,
    LocalDate Started,
    LocalDate? Ended,
    LocalDate? AdjustedService,
    bool WorksHere,
    bool SecondStint,
    bool IsSame,
    MatchReason[] Reasons,
    ReusableFact[] Reusable
);

public sealed record ReusableFact(string Field, string Shown);
