namespace Fid.Core.Pay;

/// <summary>A line of pay: by what rule it is worked out. It has exactly one of an amount, a percentage, brackets or a formula.</summary>
/// <param name="Code">Names it, also in formulas.</param>
/// <param name="Kind">Whether it is earned, taken off, or a cost of the employer only.</param>
/// <param name="Amount">A fixed amount a period.</param>
/// <param name="Percent">A percentage of the base; 5 is 5 %.</param>
/// <param name="Of">The codes whose lines make up the base of a percentage or of brackets: earnings and employer costs are added,
/// deductions taken off.</param>
/// <param name="Floor">The part of the base up to this amount a period does not count.</param>
/// <param name="Cap">The part of the base above this amount a period does not count.</param>
/// <param name="Brackets">Slices of the base, each with its percentage, ascending; only the last may have no end.</param>
/// <param name="Basis">Whether brackets are stated for a year or for a period.</param>
/// <param name="Formula">A formula over the lines of other codes.</param>
public sealed record PayComponent(
    string Code,
    ComponentKind Kind,
    decimal? Amount = null,
    decimal? Percent = null,
    IReadOnlyList<string>? Of = null,
    decimal? Floor = null,
    decimal? Cap = null,
    IReadOnlyList<PayBracket>? Brackets = null,
    BracketBasis Basis = BracketBasis.Annual,
    string? Formula = null
)
{
    /// <summary>The same with a fixed amount instead of whatever rule it has.</summary>
    public static PayComponent Fixed(PayComponent component, decimal amount) => new(component.Code, component.Kind, Amount: amount);
}

/// <summary>A slice of a base.</summary>
/// <param name="Percent">The percentage of what lies in it.</param>
/// <param name="UpTo">Its upper end, included; null for no end.</param>
public sealed record PayBracket(decimal Percent, decimal? UpTo = null);

/// <summary>What a line of pay is.</summary>
public enum ComponentKind
{
    /// <summary>Earned: part of gross and net.</summary>
    Earning,

    /// <summary>Taken off the gross.</summary>
    Deduction,

    /// <summary>Paid by the employer beside the gross.</summary>
    EmployerCost,
}

/// <summary>For what brackets are stated.</summary>
public enum BracketBasis
{
    /// <summary>A year: the base is annualised, sliced, and the result divided back.</summary>
    Annual,

    /// <summary>A pay period.</summary>
    Period,
}
