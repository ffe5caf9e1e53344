namespace Fid.Core;

/// <summary>What is wrong with a question, and where.</summary>
/// <param name="Path">A JSON Pointer (RFC 6901) to the part of the question that is wrong; empty for the whole.</param>
/// <param name="Code">A stable word for the kind of mistake, such as "unknown-anchor".</param>
/// <param name="Message">A sentence for people, saying what to do.</param>
public sealed record Problem(string Path, string Code, string Message);
