using System.Globalization;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Pay;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>Pay outside the band of its job, or further from that of colleagues than its grade allows, is entered with a reason.</summary>
internal static class PayReason
{
    /// <summary>What is to be said; null where nothing has to be: no such pay is entered, or it stands as it stood.</summary>
    /// <param name="entered">New values by field; null empties one.</param>
    public static async Task<Problem?> MissingAsync(
        FidDb db,
        Reader reader,
        Employment employment,
        CurrentRecord record,
        IReadOnlyDictionary<string, JsonElement?> entered,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        string[] decisive = [.. PayReading.Fields, "job"];
        // Only of what they may see themselves: the answer would tell the rest.
        if (!entered.Keys.Any(decisive.Contains) || !decisive.All(reader.On(record).Sees))
            return null;
        var held = (await ShownValues.OfAsync(db, employment, today, cancellation)).ToDictionary(v => v.Key, v => (JsonElement?)v.Value.Value);
        var values = new Dictionary<string, JsonElement?>(held, StringComparer.Ordinal);
        foreach (var (field, value) in entered)
            values[field] = value;
        var pay = await PayReading.LoadAsync(db, cancellation);
        var job = values.Text("job");
        if (
            pay.Rate(values)?.FullTimeAnnual is not { } annual
            || (pay.Rate(held)?.FullTimeAnnual == annual && held.Text("job") == job)
            || await JobBand.OfAsync(db, await JobBand.JobAsync(db, job, cancellation), today, pay.Firm.FullTimeHours, cancellation) is not { } band
        )
            return null;
        if (band.Of(annual)?.Position is BandPosition.Below or BandPosition.Above)
            return Missing($"{annual:0.00} for a full-time year lies outside the band of {band.Grade}, {band.Min:0.00} to {band.Max:0.00}. Say why.");
        if (band.FurthestFromColleagues is not { } furthest)
            return null;
        var colleagues = await ColleagueRates.LoadAsync(db, reader, pay, employment.Id, band.Job, values.Text("site"), today, cancellation);
        return ColleaguePay.Distance(annual, colleagues) is { } distance && Math.Abs(distance) > furthest
            ? Missing(
                $"This lies {Math.Abs(distance):0.0} % {(distance > 0 ? "above" : "below")} the middle of colleagues, more than {furthest:0.#} %. Say why."
            )
            : null;
    }

    private static Problem Missing(FormattableString message) => new("/why", "reason-needed", message.ToString(CultureInfo.InvariantCulture));
}
