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
        // Only of what they may see themselves: the answer would tell the rest.
        if (!entered.Keys.Any(Decisive.Contains) || !Decisive.All(reader.On(record).Sees))
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
        return Outside(annual, band)
            ?? Apart(
                annual,
                band,
                band.FurthestFromColleagues is null
                    ? []
                    : await ColleagueRates.LoadAsync(db, reader, pay, employment.Id, band.Job, values.Text("site"), today, cancellation)
            );
    }

    /// <summary>The same of hires that are yet to be opened, for each what it would start with; null where nothing has to be said of one.</summary>
    /// <param name="starting">What each would start with, by field; null for one whose pay nobody typed, as what a template gives was agreed there.</param>
    public static async Task<Problem?[]> MissingAtStartAsync(
        FidDb db,
        Reader reader,
        IReadOnlyList<IReadOnlyDictionary<string, JsonElement?>?> starting,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var missing = new Problem?[starting.Count];
        if (starting.All(s => s is null) || !Decisive.All(reader.Sees))
            return missing;
        var pay = await PayReading.LoadAsync(db, cancellation);
        var bands = await JobBands.LoadAsync(db, pay.Firm.FullTimeHours, cancellation);
        // Those of one job at one site have the same colleagues.
        var colleagues = new Dictionary<(string, string?), decimal[]>();
        for (var i = 0; i < missing.Length; i++)
        {
            if (starting[i] is not { } values || pay.Rate(values)?.FullTimeAnnual is not { } annual)
                continue;
            if (bands.Of(values.Text("job"), today) is not { } band)
                continue;
            missing[i] = Outside(annual, band);
            if (missing[i] is not null || band.FurthestFromColleagues is null)
                continue;
            var site = values.Text("site");
            if (!colleagues.TryGetValue((band.Job, site), out var rates))
                colleagues[(band.Job, site)] = rates = await ColleagueRates.LoadAsync(db, reader, pay, Guid.Empty, band.Job, site, today, cancellation);
            missing[i] = Apart(annual, band, rates);
        }
        return missing;
    }

    /// <summary>The fields of which one has to be entered before anything has to be said.</summary>
    public static readonly string[] Decisive = [.. PayReading.Fields, "job"];

    private static Problem? Outside(decimal annual, JobBand band) =>
        band.Of(annual)?.Position is BandPosition.Below or BandPosition.Above
            ? Missing($"{annual:0.00} for a full-time year lies outside the band of {band.Grade}, {band.Min:0.00} to {band.Max:0.00}. Say why.")
            : null;

    private static Problem? Apart(decimal annual, JobBand band, IReadOnlyList<decimal> colleagues) =>
        band.FurthestFromColleagues is { } furthest && ColleaguePay.Distance(annual, colleagues) is { } distance && Math.Abs(distance) > furthest
            ? Missing(
                $"This lies {Math.Abs(distance):0.0} % {(distance > 0 ? "above" : "below")} the middle of colleagues, more than {furthest:0.#} %. Say why."
            )
            : null;

    private static Problem Missing(FormattableString message) => new("/why", "reason-needed", message.ToString(CultureInfo.InvariantCulture));
}
