using System.Globalization;

namespace Fid.Core.Pay;

/// <summary>The words in which the working of pay is shown. Numbers have two decimals, percentages as many as they need up to four.</summary>
public sealed record PayWording
{
    private PayWording() { }

    /// <summary>"4 % of BASE".</summary>
    public static PayWording English { get; } = new();

    /// <summary>"4 % von BASE".</summary>
    public static PayWording German { get; } =
        new()
        {
            Of = "von",
            With = "mit",
            UpTo = "bis",
            Above = "über",
            On = "Auf",
            AYear = "im Jahr",
            Nothing = "nichts",
            Fixed = "Fester Betrag von",
            Whole = "Ein ganzer Zeitraum",
            Days = "Kalendertage",
            WorkingDays = "Arbeitstage",
            WorkingDaysOfYear = "Arbeitstage des Jahres",
            RosteredHours = "Stunden nach Dienstplan",
            None = "Im Zeitraum ist nichts zu arbeiten",
            HoursAt = "Stunden die Woche zu",
            APeriod = "je Zeitraum",
            Single = "Einmal gezahlt",
            Decimals = new NumberFormatInfo { NumberDecimalSeparator = "," },
        };

    /// <summary>Those of a language; English for languages that have none.</summary>
    /// <param name="language">Its two letters (ISO 639-1).</param>
    public static PayWording In(string language) => language == "de" ? German : English;

    internal string Of { get; private init; } = "of";

    internal string With { get; private init; } = "with";

    internal string UpTo { get; private init; } = "up to";

    internal string Above { get; private init; } = "above";

    internal string On { get; private init; } = "On";

    internal string AYear { get; private init; } = "a year";

    internal string Nothing { get; private init; } = "nothing";

    internal string Fixed { get; private init; } = "A fixed amount of";

    private string Whole { get; init; } = "A whole period";

    private string Days { get; init; } = "calendar days";

    private string WorkingDays { get; init; } = "working days";

    private string WorkingDaysOfYear { get; init; } = "working days of the year";

    private string RosteredHours { get; init; } = "rostered hours";

    private string None { get; init; } = "Nobody works in the period";

    private string HoursAt { get; init; } = "hours a week at";

    private string APeriod { get; init; } = "a period";

    private string Single { get; init; } = "Paid once";

    /// <summary>"Paid once: 250.00."</summary>
    internal string Once(decimal amount) => $"{Single}: {Amount(amount)}.";

    /// <summary>"6 hours a week at 15.20: 6 × 15.20 × 52 ÷ 26 = 182.40 a period."</summary>
    /// <param name="hours">Hours a week.</param>
    /// <param name="rate">What each of them pays; up to four decimals.</param>
    /// <param name="periods">How many periods a year has.</param>
    /// <param name="amount">What a period comes to.</param>
    internal string SecondJob(decimal hours, decimal rate, decimal periods, decimal amount) =>
        $"{Plain(hours)} {HoursAt} {Rate(rate)}: {Plain(hours)} × {Rate(rate)} × {Plain(PayRate.WeeksPerYear)} ÷ {Plain(periods)} = "
        + $"{Amount(amount)} {APeriod}.";

    /// <summary>"A whole period: 1250.00."</summary>
    internal string WholePeriod(decimal amount) => $"{Whole}: {Amount(amount)}.";

    /// <summary>"5 of 10 working days: 5 × 1250.00 ÷ 10 = 625.00."</summary>
    /// <param name="method">By what it is counted.</param>
    /// <param name="paid">What is paid, of how much: days, or minutes of a roster.</param>
    /// <param name="ofWhole">What all of it pays.</param>
    internal string PartOfPeriod(PartMethod method, PartPay paid, decimal ofWhole)
    {
        var unit = method switch
        {
            PartMethod.CalendarDays => Days,
            PartMethod.WorkingDays => WorkingDays,
            PartMethod.Annual260 => WorkingDaysOfYear,
            _ => RosteredHours,
        };
        if (paid.Whole == 0)
            return $"{None}: {Amount(0)}.";
        var per = method == PartMethod.RosteredHours ? 60m : 1;
        var (part, whole) = (Plain(paid.Part / per), Plain(paid.Whole / per));
        return $"{part} {Of} {whole} {unit}: {part} × {Amount(ofWhole)} ÷ {whole} = {Amount(paid.Amount)}.";
    }

    // Its own, so that no result hangs on the culture data of a machine.
    private NumberFormatInfo Decimals { get; init; } = CultureInfo.InvariantCulture.NumberFormat;

    internal string Amount(decimal amount) => Money.Round(amount).ToString(Decimals);

    private string Rate(decimal rate) => rate.ToString("0.00##", Decimals);

    internal string Plain(decimal number) => number.ToString("0.####", Decimals);
}
