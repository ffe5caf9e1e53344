using Fid.Core;
using Fid.Core.Texts;

namespace Fid.Acts;

/// <summary>A line of text that has to be entered.</summary>
public static class RequiredText
{
    /// <summary>What is wrong with it; null for nothing.</summary>
    /// <param name="longest">The most characters it may have.</param>
    public static Problem? Check(string pointer, string? text, int longest) =>
        string.IsNullOrWhiteSpace(text) ? new Problem(pointer, "missing", "Fill this in.")
        : text.Length > longest ? new Problem(pointer, "too-long", $"Enter at most {longest} characters.")
        : !TextRules.TryClean(text, out _) ? new Problem(pointer, "bad-characters", TextRules.BadCharacters)
        : null;
}
