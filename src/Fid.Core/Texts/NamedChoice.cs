namespace Fid.Core.Texts;

/// <summary>Something that can be chosen, by its value or by what it is called.</summary>
/// <param name="Value">What is stored.</param>
/// <param name="Names">What it is called, in every language.</param>
public readonly record struct NamedChoice(string Value, IEnumerable<string> Names)
{
    /// <summary>
    /// The value of the choice that words mean: of the one with that value, in any capitals, or else of the first with a value or name that is
    /// the same to searches; null where there is none.
    /// </summary>
    public static string? Find(IReadOnlyCollection<NamedChoice> choices, string said)
    {
        foreach (var choice in choices)
            if (string.Equals(choice.Value, said, StringComparison.OrdinalIgnoreCase))
                return choice.Value;
        var wanted = TextRules.Fold(said);
        foreach (var choice in choices)
            if (choice.Names.Prepend(choice.Value).Any(name => TextRules.Fold(name) == wanted))
                return choice.Value;
        return null;
    }
}
