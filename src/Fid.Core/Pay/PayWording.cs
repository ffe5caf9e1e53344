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

    // Its own, so that no result hangs on the culture data of a machine.
    private NumberFormatInfo Decimals { get; init; } = CultureInfo.InvariantCulture.NumberFormat;

    internal string Amount(decimal amount) => Money.Round(amount).ToString(Decimals);

    internal string Plain(decimal number) => number.ToString("0.####", Decimals);
}
