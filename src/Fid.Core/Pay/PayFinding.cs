namespace Fid.Core.Pay;

/// <summary>Something that stands against what a run would pay somebody.</summary>
/// <param name="Run">The run that pays them instead, where the cut-off of this one was missed.</param>
/// <param name="Number">Days by which a cut-off was missed; percent by which pay lies outside its band, negative below it; the rate that the template
/// says; what reaches the bank. Null where there is none.</param>
public sealed record PayFinding(PayFindingKind Kind, PayRun? Run = null, decimal? Number = null)
{
    /// <summary>Whether they cannot be paid with the run until it is put right; otherwise it is to be looked at.</summary>
    public bool Stops => Kind <= PayFindingKind.NegativeNet;
}

/// <summary>What can stand against pay; the worst first.</summary>
public enum PayFindingKind
{
    /// <summary>A rate, hours or a component is missing to work it out.</summary>
    NotWorkedOut,

    /// <summary>It goes by bank transfer, and there is no account.</summary>
    NoBankAccount,

    /// <summary>The record could be paid only after the cut-off: it comes with a later run, as arrears.</summary>
    CutOffMissed,

    /// <summary>More is taken off than is earned.</summary>
    NegativeNet,

    /// <summary>A change of it waits for somebody to agree.</summary>
    ChangeWaits,

    /// <summary>It lies outside the band of the job.</summary>
    OutsideBand,

    /// <summary>The rate is not that of the role template.</summary>
    UnlikeTemplate,

    /// <summary>They start after the period, and before it is paid.</summary>
    StartsAfterPeriod,
}
