using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.People;
using Fid.Data;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;

namespace Fid.Acts.People;

/// <summary>What tells the people of the firm apart, kept in memory and brought up to date by what changed since: reading it for
/// each key somebody presses would take longer than the search.</summary>
public sealed class PeopleIndex : IDisposable
{
    private const string Given = "given_name",
        Family = "family_name",
        Former = "former_name",
        Born = "birth_date",
        Email = "email",
        Phone = "phone",
        Mobile = "mobile";

    private const int MostFound = 2_000;

    private static readonly string[] Telling = [Given, Family, Former, Born, Email, Phone, Mobile];

    private readonly SemaphoreSlim _oneAtATime = new(1);
    private readonly ConditionalWeakTable<PersonMatcher, ConcurrentDictionary<PersonFacts, IReadOnlyList<PersonMatch>>> _found = [];
    private readonly Dictionary<string, Kept> _kept = new(StringComparer.Ordinal);

    // Below it, names that are only alike are mostly two people, where nothing else speaks for one.
    private const decimal AlikeByNameAlone = 0.8m;

    /// <summary>Whether it is worth looking for somebody: names alone are shared by too many.</summary>
    public static bool SaysEnough(PersonFacts person) =>
        !string.IsNullOrWhiteSpace(person.Given)
        && !string.IsNullOrWhiteSpace(person.Family)
        && (person.Born is not null || !string.IsNullOrWhiteSpace(person.Email));

    /// <summary>Whom somebody may be, as far as it is worth asking; the likeliest first.</summary>
    public static IEnumerable<PersonMatch> WorthAsking(PersonMatcher matcher, PersonFacts person) =>
        SaysEnough(person) ? matcher.Find(person).Where(m => m.Score >= AlikeByNameAlone || m.Reasons is not [MatchReason.SimilarName]) : [];

    /// <summary>Whom somebody is taken to be, the likeliest first.</summary>
    public static IEnumerable<PersonMatch> Same(PersonMatcher matcher, PersonFacts person) => SaysEnough(person) ? matcher.FindSame(person) : [];

    /// <summary>Whether a field tells people apart.</summary>
    public static bool Tells(string field) => Telling.Contains(field);

    /// <summary>The people as they are recorded now, as far as somebody may see what tells them apart.</summary>
    /// <param name="sees">Whether a field may be seen.</param>
    public async Task<PersonMatcher> MatcherAsync(FidDb db, Func<string, bool> sees, CancellationToken cancellation)
    {
        var fields = Telling.Where(sees).ToArray();
        var key = string.Join(' ', fields);
        await _oneAtATime.WaitAsync(cancellation);
        try
        {
            var last = await ChangedOwners.LastPlaceAsync(db, cancellation);
            if (!_kept.TryGetValue(key, out var kept))
                _kept[key] = kept = new Kept(last, new PersonMatcher((await ReadAsync(db, fields, null, cancellation)).Select(p => (p.Key, p.Value))));
            if (kept.Position == last)
                return kept.Matcher;
            var changed = await ChangedOwners.SinceAsync(db, fields, kept.Position, cancellation);
            var matcher =
                changed.Length > ChangedOwners.MostToFollow ? new PersonMatcher((await ReadAsync(db, fields, null, cancellation)).Select(p => (p.Key, p.Value)))
                : changed.Length > 0 ? kept.Matcher.With(await ReadAsync(db, fields, changed, cancellation))
                : kept.Matcher;
            _kept[key] = new Kept(last, matcher);
            return matcher;
        }
        finally
        {
            _oneAtATime.Release();
        }
    }

    /// <summary>Whom each of several may be, as far as it is worth asking. What was found is kept until somebody's facts change: a tray of
    /// those who wait is looked at many times.</summary>
    public async Task<IReadOnlyList<IReadOnlyList<PersonMatch>>> WorthAskingAsync(
        FidDb db,
        Func<string, bool> sees,
        IReadOnlyList<PersonFacts> people,
        CancellationToken cancellation
    )
    {
        var matcher = await MatcherAsync(db, sees, cancellation);
        var found = _found.GetValue(matcher, _ => []);
        if (found.Count > MostFound)
            found.Clear();
        return [.. people.AsParallel().AsOrdered().WithCancellation(cancellation).Select(p => found.GetOrAdd(p, facts => [.. WorthAsking(matcher, facts)]))];
    }

    public void Dispose() => _oneAtATime.Dispose();

    // The facts of everybody, or of some: who of these has none any more is told as somebody without a name.
    private static async Task<Dictionary<string, PersonFacts>> ReadAsync(FidDb db, string[] fields, Guid[]? only, CancellationToken cancellation)
    {
        var believed = db.RecordValues.AsNoTracking().Where(v => v.Known.UpperBoundInfinite && v.Effective.UpperBoundInfinite && fields.Contains(v.Field));
        var rows = await (
            only is null
                ? believed.Where(v => db.People.Any(p => p.Id == v.OwnerId))
                : believed.Where(v => only.Contains(v.OwnerId) && db.People.Any(p => p.Id == v.OwnerId))
        )
            .Select(v => new
            {
                v.OwnerId,
                v.Field,
                v.Value,
            })
            .ToListAsync(cancellation);
        var people = rows.GroupBy(r => r.OwnerId)
            .ToDictionary(g => g.Key.ToString(), g => Facts(g.Where(r => !SealedText.IsSealed(r.Value)).ToDictionary(r => r.Field, r => r.Value)));
        foreach (var id in only ?? [])
            people.TryAdd(id.ToString(), new PersonFacts("", ""));
        return people;
    }

    /// <summary>What values of a record tell of who somebody is.</summary>
    public static PersonFacts Facts(IReadOnlyDictionary<string, JsonElement> values)
    {
        string[] others = Text(Former) is { Length: > 0 } former ? [former] : [];
        var born = LocalDatePattern.Iso.Parse(Text(Born));
        return new PersonFacts(
            Text(Given),
            Text(Family),
            born.Success ? born.Value : null,
            Text(Email),
            Text(Mobile) is { Length: > 0 } mobile ? mobile : Text(Phone),
            null,
            others
        );

        string Text(string field) => values.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString()! : "";
    }

    private sealed record Kept(long Position, PersonMatcher Matcher);
}
