using NodaTime;

namespace Fid.Core.People;

/// <summary>A time for which somebody works at the firm.</summary>
/// <param name="Start">The first day.</param>
/// <param name="End">The last day, included; null while none is set; before the first day for a stint that never was.</param>
public readonly record struct Stint(LocalDate Start, LocalDate? End)
{
    /// <summary>Whether it came to nothing: somebody was to come, and did not.</summary>
    public bool NeverWas => End < Start;

    /// <summary>Whether it goes on on a day, or begins later; one that never was does neither.</summary>
    public bool GoesOn(LocalDate day) => !NeverWas && (End is null || End >= day);

    /// <summary>How somebody stands with the firm by it on a day.</summary>
    public Standing StandingOn(LocalDate day) =>
        NeverWas ? Standing.NeverCame
        : End < day ? Standing.Left
        : Start > day ? Standing.Coming
        : End is not null ? Standing.Leaving
        : Standing.Here;

    /// <summary>The same stint when it comes to nothing on a day: it ends the day before, and before its first day at the latest.</summary>
    public Stint CameToNothing(LocalDate on) => this with { End = LocalDate.Min(on, Start).PlusDays(-1) };
}

/// <summary>How somebody stands with the firm.</summary>
public enum Standing
{
    /// <summary>Their first day is to come.</summary>
    Coming,

    /// <summary>They work here.</summary>
    Here,

    /// <summary>They work here, and their last day is set.</summary>
    Leaving,

    /// <summary>They have left.</summary>
    Left,

    /// <summary>They were to come, and did not.</summary>
    NeverCame,
}
