using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Core.Approvals;
using Fid.Core.Pay;
using Fid.Data;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>How far pay would lie from its band and from what the template gives: what conditions of approvals read beside the record's own values.</summary>
public sealed class PayDistances
{
    private readonly PayReading _pay;
    private readonly JobBands _bands;
    private readonly TemplateRates _templates;
    private readonly LocalDate _today;

    private PayDistances(PayReading pay, JobBands bands, TemplateRates templates, LocalDate today) =>
        (_pay, _bands, _templates, _today) = (pay, bands, templates, today);

    /// <summary>What is needed to work them out; null where no condition reads them.</summary>
    /// <param name="employments">Whose pay it is.</param>
    public static async Task<PayDistances?> LoadAsync(
        FidDb db,
        LiveApprovals approvals,
        IReadOnlyCollection<Guid> employments,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        if (!approvals.Rules.Any(r => r.When is { } when && when.Names.Any(ApprovalCheck.Distances.Contains)))
            return null;
        var pay = await PayReading.LoadAsync(db, cancellation);
        var bands = await JobBands.LoadAsync(db, pay.Firm.FullTimeHours, cancellation);
        return new PayDistances(pay, bands, await TemplateRates.LoadAsync(db, employments, cancellation), today);
    }

    /// <summary>What conditions read of a change: the record as it is, and the distances of the pay that it would hold.</summary>
    /// <param name="distances">Null where no condition reads them.</param>
    /// <param name="employment">Whose record it is; null for somebody new.</param>
    /// <param name="held">What the record holds, by address.</param>
    /// <param name="changes">What is changed.</param>
    /// <param name="template">The rate that the template gives to somebody new.</param>
    public static IReadOnlyDictionary<string, JsonElement> Read(
        PayDistances? distances,
        Guid? employment,
        IReadOnlyDictionary<string, JsonElement> held,
        IEnumerable<RequestedChange> changes,
        decimal? template = null
    )
    {
        if (distances is null)
            return held;
        var after = held.ToDictionary(h => h.Key, h => (JsonElement?)h.Value, StringComparer.Ordinal);
        foreach (var change in changes)
            after[change.Field] = change.New;
        var read = new Dictionary<string, JsonElement>(held, StringComparer.Ordinal);
        foreach (var (name, distance) in distances.Of(employment, after, template))
            read[name] = JsonSerializer.SerializeToElement(distance);
        return read;
    }

    private IEnumerable<(string Name, decimal Distance)> Of(Guid? employment, Dictionary<string, JsonElement?> after, decimal? template)
    {
        if (_pay.Rate(after)?.FullTimeAnnual is { } annual && _bands.Of(after.Text("job"), _today) is { } band)
            yield return (ApprovalCheck.OutsideBand, PayBand.Outside(annual, band.Min, band.Max) ?? 0);
        var says = employment is { } one ? _templates.Of(one, after.Text("paid_by")) : template;
        if (says is { } given and > 0 && after.Number("pay_rate") is { } rate)
            yield return (ApprovalCheck.FromTemplate, Money.Decimals((rate - given) / given * 100, 1));
    }
}
