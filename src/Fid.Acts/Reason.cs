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

    /// <summary>What is wrong with a reason that has to be given; null for nothing, with the reason to keep.</summary>
    /// <param name="missing">What to say where there is none.</param>
    public static Problem? Require(string? why, string missing, out string kept)
    {
        kept = Clean(why) ?? "";
        return Check(why) ?? (kept.Length == 0 ? new Problem("/why", "missing", missing) : null);
    }

    /// <summary>The reason to keep; null for none.</summary>
    public static string? Clean(string? why) => why is not null && TextRules.TryClean(why, out var clean) && clean.Length > 0 ? clean : null;
}
