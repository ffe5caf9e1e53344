using System.Diagnostics.CodeAnalysis;
using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.Pay;
using Fid.Data;
using NodaTime;

namespace Fid.Server.People;

/// <summary>When somebody is paid first, and what, down to what reaches the bank.</summary>
internal static class FirstPayReading
{
    /// <summary>Null where something is missing to work it out.</summary>
    /// <param name="values">What the reader sees of the record.</param>
    /// <param name="toNet">Whether the reader sees all that makes up pay.</param>
    /// <param name="question">Whose pay it is.</param>
    /// <param name="asIfToday">Whether the record is not complete yet, and taken to be approved today.</param>
    public static FirstPayslipResponse? Of(
        PayReading pay,
        IReadOnlyDictionary<string, JsonElement?> values,
        bool toNet,
        FirstPayQuestion question,
        bool asIfToday
    )
    {
        var wording = PayWording.In(ReaderLanguage.Code);
        if (FirstPay.Of(question, wording).Answer is not { } first)
            return null;
        var slip =
            toNet && pay.Components(values, question.Start, first.PaidWith.End) is { } components
                ? Payslip.Of(question, components, first.Runs, wording).Answer
                : null;
        return new FirstPayslipResponse(
            question.Start,
            question.ApprovedOn,
            asIfToday,
            question.Method,
            question.Method == PartMethod.RosteredHours ? first.Part / 60m : first.Part,
            question.Method == PartMethod.RosteredHours ? first.Whole / 60m : first.Whole,
            [.. first.Runs.Select(r => PaidPeriod.Of(r))],
            [.. first.Lines.Select(l => new BasePayLine(l.Period, l.Amount, l.IsArrears, l.Working))],
            first.Total,
            slip is null ? null : PayslipResponse.Of(slip, pay)
        );
    }
}

/// <summary>The first pay of somebody.</summary>
/// <param name="ApprovedOn">The day on which the record was complete enough to be paid.</param>
/// <param name="AsIfToday">Whether it is not yet, and the day is therefore today.</param>
/// <param name="Method">By what the first period is counted.</param>
/// <param name="Part">What is paid of it: days or hours.</param>
/// <param name="Whole">Of how many.</param>
/// <param name="Periods">From the one they start in to the one they are first paid with.</param>
/// <param name="BasePay">What each of them pays before anything else.</param>
/// <param name="Total">The sum of that.</param>
/// <param name="Slip">All lines down to net; null where the reader does not see all that makes up pay, or no component of the firm stands for base pay.</param>
public sealed record FirstPayslipResponse(
    LocalDate Start,
    LocalDate ApprovedOn,
    bool AsIfToday,
    PartMethod Method,
    decimal Part,
    decimal Whole,
    PaidPeriod[] Periods,
    BasePayLine[] BasePay,
    decimal Total,
    PayslipResponse? Slip
);

/// <summary>A pay period, when it is paid, and until when changes count for it.</summary>
public sealed record PaidPeriod(LocalDate Start, LocalDate End, LocalDate PayDate, LocalDate CutOff)
{
    /// <returns>Null for no run.</returns>
    [return: NotNullIfNotNull(nameof(run))]
    internal static PaidPeriod? Of(PayRun? run) => run is null ? null : new(run.Start, run.End, run.PayDate, run.CutOff);
}

/// <summary>What is paid of a period.</summary>
/// <param name="Period">Its first day.</param>
/// <param name="Arrears">Whether its own run was missed.</param>
/// <param name="Working">How it is worked out, in a sentence.</param>
public sealed record BasePayLine(LocalDate Period, decimal Amount, bool Arrears, string Working);

/// <summary>Lines down to net.</summary>
public sealed record PayslipResponse(DownToNetLine[] Lines, decimal Gross, decimal Deductions, decimal Net)
{
    internal static PayslipResponse Of(Payslip slip, PayReading pay) =>
        new([.. Shown(pay, slip.Lines.Select(l => (l.Code, l.Kind, l.Amount, l.Working)))], slip.Gross, slip.Deductions, slip.Net);

    internal static PayslipResponse Of(PayPreview period, PaidComponents components, PayReading pay) =>
        new(
            [.. Shown(pay, period.Lines.Zip(components.Components, (l, c) => (l.Code, c.Kind, l.Amount, (IReadOnlyList<string>)[l.Working])))],
            period.Gross,
            period.Deductions,
            period.Net
        );

    // What the firm pays beside it does not reach anybody.
    private static IEnumerable<DownToNetLine> Shown(
        PayReading pay,
        IEnumerable<(string Code, ComponentKind Kind, decimal Amount, IReadOnlyList<string> Working)> lines
    ) =>
        lines
            .Where(l => l.Amount != 0 && l.Kind != ComponentKind.EmployerCost)
            .Select(l => new DownToNetLine(l.Code, pay.NameOf(l.Code), l.Kind, l.Amount, [.. l.Working]));
}

/// <param name="Working">How it is worked out, a sentence for each period paid.</param>
public sealed record DownToNetLine(string Code, string Name, ComponentKind Kind, decimal Amount, string[] Working);
