using Fid.Core;
using Fid.Core.Texts;

namespace Fid.Acts;

/// <summary>Why somebody does something: a sentence that is kept with the change.</summary>
public static class Reason
{
    public const int Longest = 500;

    public static Problem? Check(string? why) =>
        why is null ? null
        : why.Length > Longest ? new Problem("/why", "too-long", $"Enter at most {Longest} characters.")
        : !TextRules.TryClean(why, out _) ? new Problem("/why", "bad-characters", TextRules.BadCharacters)
        : null;

    /// <summary>The reason to keep; null for none.</summary>
    public static string? Clean(string? why) => why is not null && TextRules.TryClean(why, out var clean) && clean.Length > 0 ? clean : null;
}
