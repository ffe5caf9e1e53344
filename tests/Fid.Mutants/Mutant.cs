namespace Fid.Mutants;

/// <summary>One mistake planted into the code: what an expression is turned into.</summary>
/// <param name="Number">By which it is switched on, from 1.</param>
/// <param name="File">The file, from the root of the repository.</param>
/// <param name="Line">Its line, from 1.</param>
/// <param name="Was">The expression as it is.</param>
/// <param name="Is">What stands there instead.</param>
internal sealed record Mutant(int Number, string File, int Line, string Was, string Is)
{
    /// <summary>What names it when lines have moved: the file, and what is turned into what.</summary>
    public string Name => $"{File}: {Was} → {Is}";
}
