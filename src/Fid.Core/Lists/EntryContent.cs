namespace Fid.Core.Lists;

/// <summary>What an entry of a list is: a code, its names, and what it says about itself.</summary>
/// <param name="Code">Its code, unique in the list without regard to capitals.</param>
/// <param name="Name">What it is called.</param>
/// <param name="NameDe">What it is called in German, where that differs.</param>
/// <param name="Values">Values by column key, as <see cref="ColumnValue"/> makes them; a column without a value is left out.</param>
public sealed record EntryContent(string Code, string Name, string? NameDe, IReadOnlyDictionary<string, object> Values)
{
    /// <summary>The name in a language.</summary>
    public string NameIn(string language) => language == "de" && NameDe is { } german ? german : Name;

    /// <summary>The value of a column when it is a text; null for none.</summary>
    public string? Text(string column) => Values.GetValueOrDefault(column) as string;

    /// <summary>The value of a column when it is a number; null for none.</summary>
    public decimal? Number(string column) => Values.TryGetValue(column, out var value) && value is decimal number ? number : null;

    /// <summary>Whether a column says yes.</summary>
    public bool Is(string column) => Values.TryGetValue(column, out var value) && value is true;

    /// <summary>The parts of a column; empty for none.</summary>
    public IReadOnlyList<T> Parts<T>(string column) => Values.GetValueOrDefault(column) as T[] ?? [];
}
