using NodaTime;

namespace Fid.Core.Pay;

/// <summary>What an hour of a second job pays, and when.</summary>
/// <param name="Kind">How the value is meant.</param>
/// <param name="Value">A rate an hour, a percentage or an amount an hour: see <see cref="SecondJobKind"/>.</param>
/// <param name="From">Its first day.</param>
/// <param name="To">Its last day, included; null for no end.</param>
public sealed record SecondJobRate(SecondJobKind Kind, decimal Value, LocalDate From, LocalDate? To = null)
{
    /// <summary>The rate of an hour on a day, four decimals and never below 0; null on a day on which the job is not held.</summary>
    /// <param name="day">The day.</param>
    /// <param name="mainRate">What an hour of the main job pays on it.</param>
    public decimal? On(LocalDate day, decimal mainRate) =>
        day < From || day > To
            ? null
            : Money.Decimals(
                Math.Max(
                    0,
                    Kind switch
                    {
                        SecondJobKind.Flat => Value,
                        SecondJobKind.PlusPercent => mainRate * (1 + Value / 100),
                        _ => mainRate + Value,
                    }
                ),
                4
            );
}

/// <summary>How the rate of a second job is stated.</summary>
public enum SecondJobKind
{
    /// <summary>A rate of its own, whatever the main job pays.</summary>
    Flat,

    /// <summary>The main rate and a percentage of it; 5 is 5 %, and negative is less.</summary>
    PlusPercent,

    /// <summary>The main rate and an amount an hour; negative is less.</summary>
    PlusAmount,
}
