using System.Text.Json;
using Fid.Core.Certificates;
using Fid.Core.Fields;
using NodaTime;

namespace Fid.Server.People;

/// <summary>How somebody stands with the certificates in their rows, as far as the reader sees them.</summary>
internal static class RowStandings
{
    /// <summary>By row; of each kind the one that stands for it.</summary>
    /// <param name="values">What the reader sees of the record, by address.</param>
    public static IReadOnlyDictionary<Guid, RowStanding> Of(FieldDefinition field, IReadOnlyDictionary<string, JsonElement> values, LocalDate today)
    {
        if (!CertificateRows.IsOf(field))
            return new Dictionary<Guid, RowStanding>();
        var rows = CertificateRows.Of(field, values);
        var held = CertificateRows.Held(rows, today);
        var needed = rows.Where(r => r.Need is not null).DistinctBy(r => r.Kind).Select(r => new NeededCertificate(r.Kind, r.Need == "essential")).ToList();
        var standings = CertificateStates.Of(today, CertificateStates.UsualWarnings, needed, held).Certificates.ToDictionary(s => s.Kind);
        return rows.GroupBy(r => r.Kind)
            .Where(g => standings.ContainsKey(g.Key))
            .ToDictionary(
                // What is held for longest by now stands for the kind; else what is to come, or is needed.
                g => g.OrderByDescending(r => (r.From ?? r.Until) <= today).ThenByDescending(r => r.Until ?? LocalDate.MaxIsoValue).First().Id,
                g => new RowStanding(standings[g.Key].State, standings[g.Key].Until, standings[g.Key].Warning)
            );
    }
}
