using Fid.Core.Formulas;

namespace Fid.Core.Rights;

/// <summary>Whom a right reaches.</summary>
public abstract record RightReach
{
    private RightReach() { }

    /// <summary>Everybody.</summary>
    public sealed record All : RightReach;

    /// <summary>Oneself.</summary>
    public sealed record Self : RightReach;

    /// <summary>Those whose manager one is.</summary>
    public sealed record Direct : RightReach;

    /// <summary>Those below one, however deep; never oneself.</summary>
    public sealed record Reports : RightReach;

    /// <summary>Those of a site.</summary>
    /// <param name="Code">The code of the site.</param>
    public sealed record Site(string Code) : RightReach;

    /// <summary>Those of a department, or of one below it.</summary>
    /// <param name="Code">The code of the department.</param>
    public sealed record Department(string Code) : RightReach;

    /// <summary>Those who are being hired, and for whom one has a task to do or did one.</summary>
    public sealed record Tasks : RightReach;

    /// <summary>Those of a group that the firm defines.</summary>
    /// <param name="Id">The id of the group.</param>
    public sealed record Group(string Id) : RightReach;

    /// <summary>Those for whose values a formula comes to true. One that cannot be computed, or reads a value that is not there, reaches nobody.</summary>
    /// <param name="Formula">The formula.</param>
    public sealed record When(RecordFormula Formula) : RightReach;
}
