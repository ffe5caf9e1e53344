namespace Fid.Acts;

/// <summary>
/// The versions of a draft that several people share: the user who saves it, throws it away or publishes it says which they saw. What somebody
/// else did meanwhile is neither written over nor brought to life again behind their back.
/// </summary>
public static class DraftVersion
{
    /// <summary>There is no draft to be published any more, or to go on with.</summary>
    public static Refusal Gone { get; } = Refusal.Conflict("draft-gone", "The draft was published or thrown away meanwhile. Look at what is there now.");

    /// <summary>Why nothing can be done to a draft; null where it can.</summary>
    /// <param name="there">The version there is; null where there is no draft.</param>
    /// <param name="seen">The version that was seen; null where there was no draft.</param>
    public static Refusal? Check(uint? there, uint? seen) =>
        there == seen ? null
        : there is null ? Gone
        : Refusal.ChangedMeanwhile;
}
