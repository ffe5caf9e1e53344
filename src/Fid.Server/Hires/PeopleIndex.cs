using Fid.Core.Fields;
using Fid.Core.People;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;

namespace Fid.Server.Hires;

/// <summary>What tells the people of the firm apart, kept in memory for as long as no record changes: reading it for each key somebody
/// presses would take longer than the search.</summary>
internal sealed class PeopleIndex
{
    private static readonly string[] Telling = ["given_name", "family_name", "former_name", "birth_date", "email", "phone", "mobile"];

    private Kept? _kept;

    /// <summary>The people as they are recorded now.</summary>
    public async Task<PersonMatcher> MatcherAsync(FidDb db, CancellationToken cancellation)
    {
        // Each save of a record gives its row a later transaction, and a row is added for each new one. Asked before the values are
        // read: what is saved in between is read again the next time.
        var state = (await db.Database.SqlQuery<string>($"""select count(*) || ' ' || coalesce(sum(xmin::text::bigint), 0) as "Value" from records_now""").ToListAsync(cancellation)).Single();
        if (_kept is { } kept && kept.State == state) return kept.Matcher;
        var matcher = await ReadAsync(db, cancellation);
        _kept = new Kept(state, matcher);
        return matcher;
    }

    private static async Task<PersonMatcher> ReadAsync(FidDb db, CancellationToken cancellation)
    {
        var rows = await db.RecordValues.AsNoTracking()
            .Where(v => v.Known.UpperBoundInfinite && v.Effective.UpperBoundInfinite && Telling.Contains(v.Field) && db.People.Any(p => p.Id == v.OwnerId))
            .Select(v => new { v.OwnerId, v.Field, v.Value }).ToListAsync(cancellation);
        return new PersonMatcher(rows.GroupBy(r => r.OwnerId).Select(g =>
        {
            var values = g.Where(r => !SealedText.IsSealed(r.Value)).ToDictionary(r => r.Field, r => r.Value);
            string[] others = KnownPeople.Text(values, "former_name") is { Length: > 0 } former ? [former] : [];
            var born = LocalDatePattern.Iso.Parse(KnownPeople.Text(values, "birth_date"));
            return (g.Key.ToString(), new PersonFacts(
                KnownPeople.Text(values, "given_name"), KnownPeople.Text(values, "family_name"), born.Success ? born.Value : null,
                KnownPeople.Text(values, "email"), KnownPeople.Text(values, "mobile") is { Length: > 0 } mobile ? mobile : KnownPeople.Text(values, "phone"), null, others));
        }));
    }

    private sealed record Kept(string State, PersonMatcher Matcher);
}
