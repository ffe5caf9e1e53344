using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Offers;
using Fid.Acts.People;
using Fid.Acts.Rosters;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Works out forms of an offer to somebody, side by side.</summary>
internal sealed class OfferReading(FidDb db, EnteredValues enteredValues)
{
    /// <summary>The most forms that are compared.</summary>
    public const int Most = 3;

    /// <summary>What each comes to.</summary>
    /// <returns>Null where there is no such record, or its pay is not the reader's to see.</returns>
    public async Task<Result<OfferResponse>?> ReadAsync(Guid id, OfferRequest request, Actor actor, CancellationToken cancellation)
    {
        if (await RecordAccess.FindAsync(actor, db, id, tracked: false, cancellation) is not var (employment, record))
            return null;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var rights = reader.On(record);
        if (!reader.SeesPay(rights))
            return null;
        var (values, problems) = await ValuesAsync(reader, employment, record, request, actor.Today, cancellation);
        if (problems.Count > 0)
            return Result<OfferResponse>.Failed(problems);

        var pay = await PayReading.LoadAsync(db, cancellation);
        var held = values[0];
        var job = await JobBand.JobAsync(db, held.Text("job"), cancellation);
        var band = await JobBand.OfAsync(db, job, actor.Today, pay.Firm.FullTimeHours, cancellation);
        var colleagues = band is null
            ? []
            : await ColleagueRates.LoadAsync(db, reader, pay, employment.Id, band.Job, held.Text("site"), actor.Today, cancellation);
        var pattern = await Rostered.PatternAsync(db, held.Text("shift_pattern"), cancellation);
        var forms = values.Zip(request.Forms, (of, form) =>
        {
            var paid = new PaidCase(pay, of, job, band, colleagues, pattern, SeesPay: true);
            var start = form.Start ?? employment.Start;
            return new OfferedPay(
                start,
                paid.Rate(),
                paid.AgainstBand(),
                // An offer is complete once it is accepted, which is today at the earliest.
                paid.FirstPay(start, actor.Today, asIfToday: true),
                paid.WholePeriod(start),
                paid.Cost(start)
            );
        });
        return new OfferResponse(reader.NameOf(record, employment.Number), [.. forms]);
    }

    // What the record would hold with each form, and what is wrong with what is entered.
    private async Task<(List<Dictionary<string, JsonElement?>> Values, List<Problem> Problems)> ValuesAsync(
        Reader reader,
        Employment employment,
        CurrentRecord record,
        OfferRequest request,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var (forms, problems) = (new List<Dictionary<string, JsonElement?>>(), new List<Problem>());
        if (request.Forms.Length is 0 or > Most)
            problems.Add(new Problem("/forms", "out-of-range", $"Compare from 1 to {Most} forms."));
        var seen = Reader.Seen(
            (await ShownValues.OfAsync(db, employment, today, cancellation)).ToDictionary(v => v.Key, v => v.Value.Value),
            reader.On(record)
        );
        foreach (var (form, i) in request.Forms.Take(Most).Select((f, i) => (f, i)))
        {
            problems.AddRange(TakeOffer.Foreign(form.Changes, $"/forms/{i}/changes"));
            if (form.Start is { } start && !ValueCheck.IsSensible(start))
                problems.Add(new Problem($"/forms/{i}/start", "bad-date", "Enter a date from 1900 to 2199."));
            var offered = form.Changes.Where(c => TakeOffer.IsOffered(c.Key)).ToDictionary(c => c.Key, c => c.Value);
            var entered = await enteredValues.CheckAsync(
                reader.Fields,
                new EnteredRecord(offered, employment.PersonId, employment.Id, reader.On(record).ForAsking()),
                cancellation
            );
            problems.AddRange(entered.Problems.Select(p => p.Under($"/forms/{i}/changes")));
            var values = seen.ToDictionary(v => v.Key, v => (JsonElement?)v.Value, StringComparer.Ordinal);
            foreach (var (field, value) in entered.Values)
                values[field] = value;
            forms.Add(values);
        }
        return (forms, problems);
    }
}

/// <param name="Forms">One to three.</param>
public sealed record OfferRequest(OfferForm[] Forms);

/// <param name="Changes">What it differs from the record in, by field: its pay; null for nothing.</param>
/// <param name="Start">The first day; null for that of the record.</param>
public sealed record OfferForm(Dictionary<string, JsonElement> Changes, LocalDate? Start);

/// <param name="Name">To whom it is offered.</param>
/// <param name="Forms">What each comes to, in the order asked.</param>
public sealed record OfferResponse(string Name, OfferedPay[] Forms);

/// <summary>What a form of an offer comes to; null where something is missing to work it out.</summary>
/// <param name="FirstPay">The first pay, if it were accepted today.</param>
/// <param name="WholePeriod">Each pay after that, down to net.</param>
public sealed record OfferedPay(
    LocalDate Start,
    RateResponse? Rate,
    BandResponse? Band,
    FirstPayslipResponse? FirstPay,
    PayslipResponse? WholePeriod,
    CostResponse? Cost
);

/// <param name="Changes">New values by field key, of what forms differ in.</param>
/// <param name="Start">The first day; null for the one there is.</param>
public sealed record OfferTaken(Dictionary<string, JsonElement> Changes, LocalDate? Start, string? Why);
