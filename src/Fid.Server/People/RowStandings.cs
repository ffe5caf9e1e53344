using System.Text.Json;
using Fid.Core.Certificates;
using Fid.Core.Fields;
using NodaTime;
using NodaTime.Text;

namespace Fid.Server.People;

/// <summary>How somebody stands with the certificates in their rows, as far as the reader sees them.</summary>
internal static class RowStandings
{
    private const string Certificates = "certificates";

    /// <summary>By row; of each kind the one that stands for it.</summary>
    /// <param name="values">What the reader sees of the record, by address.</param>
    public static IReadOnlyDictionary<Guid, RowStanding> Of(FieldDefinition field, IReadOnlyDictionary<string, JsonElement> values, LocalDate today)
    {
        if (field is not { Key: Certificates, RowKey: { } key, Dates: { } dates })
            return new Dictionary<Guid, RowStanding>();
        var rows = values
            .Keys.Select(FieldAddress.Read)
            .Where(a => a.Whole == field.Key && a.RowId is not null)
            .Select(a => a.RowId!.Value)
            .Distinct()
            .Select(id => (Id: id, Kind: Text(id, key), From: Day(id, dates.From), Until: Day(id, dates.Until), Need: Text(id, "need")))
            .Where(r => r.Kind is not null && !(r.Until < r.From))
            .ToList();
        // One that says only when it ends has begun.
        var held = rows.Where(r => r.From is not null || r.Until is not null)
            .Select(r => new HeldCertificate(r.Kind!, r.From ?? LocalDate.Min(today, r.Until!.Value), r.Until))
            .ToList();
        var needed = rows.Where(r => r.Need is not null).DistinctBy(r => r.Kind).Select(r => new NeededCertificate(r.Kind!, r.Need == "essential")).ToList();
        var standings = CertificateStates.Of(today, CertificateStates.UsualWarnings, needed, held).Certificates.ToDictionary(s => s.Kind);
        return rows.GroupBy(r => r.Kind!)
            .Where(g => standings.ContainsKey(g.Key))
            .ToDictionary(
                // What is held for longest by now stands for the kind; else what is to come, or is needed.
                g => g.OrderByDescending(r => (r.From ?? r.Until) <= today).ThenByDescending(r => r.Until ?? LocalDate.MaxIsoValue).First().Id,
                g => new RowStanding(standings[g.Key].State, standings[g.Key].Until, standings[g.Key].Warning)
            );

        string? Text(Guid row, string column) =>
            values.TryGetValue(FieldAddress.Cell(field.Key, column, row.ToString("D")).ToString(), out var value) && value.ValueKind == JsonValueKind.String
                ? value.GetString()
                : null;

        LocalDate? Day(Guid row, string column) =>
            Text(row, column) is { } text && LocalDatePattern.Iso.Parse(text) is { Success: true } day ? day.Value : null;
    }
}
