using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.People;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.People;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Server.Hires;

/// <summary>Whether a newcomer is somebody the firm knows already.</summary>
internal static class KnownPeople
{
    private const int Most = 5;

    private static readonly string[] Telling = ["given_name", "family_name", "former_name", "birth_date", "email", "phone", "mobile"];

    /// <summary>People who may be the same, the likeliest first, each with the reasons and what could be taken over.</summary>
    public static async Task<Ok<KnownPerson[]>> Find(KnownRequest request, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var asked = new PersonFacts(request.GivenName ?? "", request.FamilyName ?? "", request.BirthDate, request.Email, request.Phone);
        var matches = (await MatcherAsync(db, cancellation)).Find(asked).Take(Most).ToList();
        if (matches.Count == 0) return TypedResults.Ok(Array.Empty<KnownPerson>());
        var today = await clock.TodayAsync(db, cancellation);
        var ids = matches.Select(m => Guid.Parse(m.Id)).ToArray();
        var stints = (await db.Employments.AsNoTracking().Where(e => ids.Contains(e.PersonId)).OrderBy(e => e.Start).ToListAsync(cancellation)).ToLookup(e => e.PersonId);
        var names = await ListNames.LoadAsync(db, cancellation);
        var fields = await new FieldBook(db).LiveAsync(cancellation);
        var bridge = await db.Firms.Select(f => f.BridgeDays).SingleAsync(cancellation);
        var found = new List<KnownPerson>();
        foreach (var match in matches)
        {
            var own = stints[Guid.Parse(match.Id)].ToList();
            if (own.Count == 0) continue;
            var last = own[^1];
            var values = await HireOrigins.ValuesAsync(db, last, today, cancellation);
            var service = ServiceDates.Of([.. own.Select(s => (s.Start, s.End)), .. New(request, own)], bridge).Answer;
            var reusable = HireOrigins.Reusable.Where(values.ContainsKey).ToList();
            var display = await RecordReader.DisplayAsync(db, fields, reusable.Select(f => (f, values[f])), names, cancellation);
            found.Add(new KnownPerson(
                last.PersonId, last.Id, last.Number, Text(values, "given_name"), Text(values, "family_name"), names.Job(Text(values, "job")), names.Site(Text(values, "site")),
                own[0].Start, last.Start, last.End, service?.AdjustedService, last.End is null || last.End >= today, match.IsSame, [.. match.Reasons],
                [.. reusable.Select(f => new ReusableFact(f, display.GetValueOrDefault(f) ?? values[f].ToString()))]));
        }
        return TypedResults.Ok(found.ToArray());
    }

    // The stint that is being opened, where it follows the others.
    private static IEnumerable<(LocalDate, LocalDate?)> New(KnownRequest request, List<Employment> own) =>
        request.Start is { } start && own.TrueForAll(s => s.End < start) ? [(start, null)] : [];

    /// <summary>All the firm knows, ready for comparing.</summary>
    internal static async Task<PersonMatcher> MatcherAsync(FidDb db, CancellationToken cancellation)
    {
        var rows = await db.RecordValues.AsNoTracking()
            .Where(v => v.Known.UpperBoundInfinite && v.Effective.UpperBoundInfinite && Telling.Contains(v.Field) && db.People.Any(p => p.Id == v.OwnerId))
            .Select(v => new { v.OwnerId, v.Field, v.Value }).ToListAsync(cancellation);
        return new PersonMatcher(rows.GroupBy(r => r.OwnerId).Select(g =>
        {
            var values = g.Where(r => !SealedText.IsSealed(r.Value)).ToDictionary(r => r.Field, r => r.Value);
            string[] others = Text(values, "former_name") is { Length: > 0 } former ? [former] : [];
            var born = LocalDatePattern.Iso.Parse(Text(values, "birth_date"));
            return (g.Key.ToString(), new PersonFacts(
                Text(values, "given_name"), Text(values, "family_name"), born.Success ? born.Value : null,
                Text(values, "email"), Text(values, "mobile") is { Length: > 0 } mobile ? mobile : Text(values, "phone"), null, others));
        }));
    }

    private static string Text(Dictionary<string, JsonElement> values, string field) =>
        values.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString()! : "";
}

/// <summary>What is typed of somebody so far.</summary>
public sealed record KnownRequest(string? GivenName, string? FamilyName, LocalDate? BirthDate, string? Email, string? Phone, LocalDate? Start);

/// <summary>Somebody the firm knows.</summary>
/// <param name="EmploymentId">The last stint.</param>
/// <param name="FirstHired">The first day of the first stint.</param>
/// <param name="Started">The first day of the last one.</param>
/// <param name="Ended">The last day of the last one; null while it goes on.</param>
/// <param name="AdjustedService">The day from which service counts, the new stint with it.</param>
/// <param name="WorksHere">Whether they work here now.</param>
/// <param name="IsSame">Whether it is taken to be the same person.</param>
/// <param name="Reusable">What could be taken over from the last stint.</param>
public sealed record KnownPerson(
    Guid PersonId, Guid EmploymentId, string Number, string GivenName, string FamilyName, string? Job, string? Site, LocalDate FirstHired, LocalDate Started, LocalDate? Ended,
    LocalDate? AdjustedService, bool WorksHere, bool IsSame, MatchReason[] Reasons, ReusableFact[] Reusable);

public sealed record ReusableFact(string Field, string Shown);
