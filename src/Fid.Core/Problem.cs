namespace Fid.Core;

/// <summary>What is wrong with a question, and where.</summary>
/// <param name="Path">A JSON Pointer (RFC 6901) to the part of the question that is wrong; empty for the whole.</param>
/// <param name="Code">A stable word for the kind of mistake, such as "unknown-anchor".</param>
/// <param name="Message">A sentence for people, saying what to do.</param>
/// <param name="Follows">The path to what is wrong elsewhere that this only follows from; null where it is wrong by itself.</param>
public sealed record Problem(string Path, string Code, string Message, string? Follows = null)
{
    /// <summary>The same of a part of a larger question.</summary>
    /// <param name="path">The path to that part.</param>
    public Problem Under(string path) => this with { Path = path + Path, Follows = Follows is null ? null : path + Follows };
}
