namespace Fid.Core.Lists;

/// <summary>A column of a list: what every entry says about itself.</summary>
/// <param name="Key">Its name in files and the database.</param>
/// <param name="Type">What it holds.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Note">What to enter, in a sentence.</param>
/// <param name="Required">Whether an entry must have it.</param>
/// <param name="List">For <see cref="ColumnType.Entry"/> and the like, the list its entries come from.</param>
/// <param name="Options">For <see cref="ColumnType.Choice"/>, the values to choose from.</param>
/// <param name="Min">The least number allowed.</param>
/// <param name="Max">The greatest number allowed.</param>
/// <param name="Default">What a new entry starts with, as text.</param>
public sealed record ListColumn(
    string Key,
    ColumnType Type,
    Label Label,
    Label Note,
    bool Required = false,
    string? List = null,
    IReadOnlyList<ColumnOption>? Options = null,
    decimal Min = 0,
    decimal Max = 1_000_000_000,
    string? Default = null
);

/// <summary>A value to choose from.</summary>
/// <param name="Value">What is stored.</param>
/// <param name="Label">What it is called.</param>
public sealed record ColumnOption(string Value, Label Label);

/// <summary>A wording in the languages that ship.</summary>
public sealed record Label(string En, string De)
{
    /// <summary>The wording in a language; English where there is none in it.</summary>
    public string In(string language) => language == "de" ? De : En;

    /// <summary>All wordings.</summary>
    public IEnumerable<string> All => [En, De];
}
