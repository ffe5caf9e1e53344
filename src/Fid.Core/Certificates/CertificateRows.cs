using System.Text.Json;
using Fid.Core.Fields;
using NodaTime;

namespace Fid.Core.Certificates;

/// <summary>The certificates in the rows of a record.</summary>
public static class CertificateRows
{
    private const string Certificates = "certificates";

    /// <summary>Whether a field holds certificates.</summary>
    public static bool IsOf(FieldDefinition field) => field is { Key: Certificates, RowKey: not null, Dates: not null };

    /// <summary>Reads them; one that would end before it begins is passed over, as is one of no kind.</summary>
    /// <param name="fields">The configuration that is live.</param>
    /// <param name="values">What the record holds, by address.</param>
    public static IReadOnlyList<CertificateRow> Of(FieldSet fields, IReadOnlyDictionary<string, JsonElement> values) =>
        fields.Find(Certificates) is { } field && IsOf(field) ? Of(field, values) : [];

    /// <summary>The same of a field that holds certificates.</summary>
    public static IReadOnlyList<CertificateRow> Of(FieldDefinition field, IReadOnlyDictionary<string, JsonElement> values)
    {
        var (key, dates) = (field.RowKey!, field.Dates!);
        return
        [
            .. HeldRows
                .Of(field.Key, values)
                .Where(r => r.Text(key) is not null)
                .Select(r => new CertificateRow(r.Id, r.Text(key)!, r.Day(dates.From), r.Day(dates.Until), r.Text("need")))
                .Where(r => !(r.Until < r.From)),
        ];
    }

    /// <summary>Those that say when they hold. One that says only when it ends has begun.</summary>
    public static IReadOnlyList<HeldCertificate> Held(IEnumerable<CertificateRow> rows, LocalDate today) =>
        [
            .. rows.Where(r => r.From is not null || r.Until is not null)
                .Select(r => new HeldCertificate(r.Kind, r.From ?? LocalDate.Min(today, r.Until!.Value), r.Until)),
        ];
}

/// <summary>A certificate as a row of a record says it.</summary>
/// <param name="Kind">Its code in the firm's list.</param>
/// <param name="From">The first day; null where the row does not say.</param>
/// <param name="Until">The last day; null where the row does not say, or for ever.</param>
/// <param name="Need">"essential" or "desirable"; null where it is not needed.</param>
public sealed record CertificateRow(Guid Id, string Kind, LocalDate? From, LocalDate? Until, string? Need);
