using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Data;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Somebody, or somebody who might come, with what their pay is read from.</summary>
/// <param name="Values">What the reader sees of the record.</param>
/// <param name="Job">The job it names; null for none.</param>
/// <param name="Band">The band that holds today; null for none, or where the reader does not see what pay is worked out from.</param>
/// <param name="Colleagues">What others with the job are paid.</param>
/// <param name="Pattern">The shift pattern; null for none.</param>
/// <param name="SeesPay">Whether the reader sees all that makes up pay.</param>
internal sealed record PaidCase(
    PayReading Pay,
    IReadOnlyDictionary<string, JsonElement?> Values,
    EntryContent? Job,
    JobBand? Band,
    decimal[] Colleagues,
    EntryContent? Pattern,
    bool SeesPay
)
{
    private PayRate? Worked { get; } = Pay.Rate(Values);

    /// <summary>The rate; null where something is missing to work it out.</summary>
    public RateResponse? Rate() =>
        Worked is { } rate && PayReading.Stated(Values) is { } stated
            ? new RateResponse(stated, rate.FullTimeAnnual, rate.PerPeriod, PayGroupEntry.Every(Pay.Group(Values)!))
            : null;

    /// <summary>The rate against the band.</summary>
    public BandResponse? AgainstBand()
    {
        if (Band is not { } grade)
            return null;
        var band = Worked is null ? null : grade.Of(Worked.FullTimeAnnual);
        return new BandResponse(
            grade.Job,
            grade.Grade,
            grade.Min,
            grade.Mid,
            grade.Max,
            Worked?.FullTimeAnnual,
            band?.CompaRatio,
            band?.Position,
            Colleagues.Length < ColleaguePay.Fewest ? null : Colleagues,
            Worked is null ? null : ColleaguePay.Distance(Worked.FullTimeAnnual, Colleagues)
        );
    }

    /// <summary>The first pay of somebody who starts on a day; null where something is missing to work it out.</summary>
    /// <param name="approved">When the record could be paid.</param>
    /// <param name="asIfToday">Whether it cannot be yet, and that is therefore today.</param>
    public FirstPayslipResponse? FirstPay(LocalDate start, LocalDate approved, bool asIfToday) =>
        Worked is not null && Pay.First(Values, Pattern, start, approved) is { } question
            ? FirstPayReading.Of(Pay, Values, SeesPay, question, asIfToday)
            : null;

    /// <summary>A whole period down to net; null where something is missing to work it out, or not seen.</summary>
    /// <param name="day">The day that says which components hold.</param>
    public PayslipResponse? WholePeriod(LocalDate day)
    {
        if (!SeesPay || Worked is null || Pay.Group(Values) is not { } group || Pay.Components(Values, day, day) is not { } components)
            return null;
        var wording = PayWording.In(ReaderLanguage.Code);
        return components.Whole(PayGroupEntry.Every(group), Worked.PerPeriod, day, wording).Answer is { } whole
            ? PayslipResponse.Of(whole, components, Pay)
            : null;
    }

    /// <summary>What a year from a day on costs; null where something is missing to work it out, or not seen.</summary>
    public CostResponse? Cost(LocalDate start) => SeesPay ? CostReading.Cost(Pay, Values, start, Job?.Number("training_hours") ?? 0) : null;
}
