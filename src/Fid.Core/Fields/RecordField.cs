namespace Fid.Core.Fields;

/// <summary>A field of the record.</summary>
/// <param name="Key">Its name in formulas, files and the database.</param>
/// <param name="Section">The section it stands in.</param>
/// <param name="Type">What it holds.</param>
/// <param name="Of">Whether it is a fact of the person or of one stint of employment.</param>
/// <param name="English">Its label in English.</param>
/// <param name="German">Its label in German.</param>
/// <param name="List">For <see cref="FieldType.ListEntry"/>, the list its entries come from.</param>
/// <param name="Options">For <see cref="FieldType.Choice"/>, the values to choose from.</param>
/// <param name="RequiredFrom">The stage from which it must be filled; null when it may stay empty.</param>
/// <param name="ReadOnly">Whether it follows from something else, such as the start date from the hire.</param>
/// <param name="Min">For numbers and money, the least that is allowed.</param>
/// <param name="Max">For numbers and money, the most that is allowed.</param>
public sealed record RecordField(
    string Key,
    FieldSection Section,
    FieldType Type,
    FieldOwner Of,
    string English,
    string German,
    string? List = null,
    IReadOnlyList<FieldOption>? Options = null,
    string? RequiredFrom = null,
    bool ReadOnly = false,
    decimal Min = 0,
    decimal Max = 1_000_000_000)
{
    /// <summary>The longest text a field takes, in characters.</summary>
    public const int LongestText = 200;

    /// <summary>The label in a language; English where there is none in it.</summary>
    public string Label(string language) => language == "de" ? German : English;
}

/// <summary>A value to choose from.</summary>
/// <param name="Value">What is stored.</param>
/// <param name="English">Its label in English.</param>
/// <param name="German">Its label in German.</param>
public sealed record FieldOption(string Value, string English, string German)
{
    /// <summary>The label in a language; English where there is none in it.</summary>
    public string Label(string language) => language == "de" ? German : English;
}

/// <summary>The sections of a record, in order.</summary>
public enum FieldSection
{
    /// <summary>Who the person is.</summary>
    Person,

    /// <summary>How to reach them.</summary>
    Contact,

    /// <summary>Job, place and people.</summary>
    Work,

    /// <summary>What they are paid.</summary>
    Pay,

    /// <summary>Badge, pattern and calendar.</summary>
    TimeClock,
}

/// <summary>What a field holds.</summary>
public enum FieldType
{
    /// <summary>A line of text.</summary>
    Text,

    /// <summary>A number.</summary>
    Number,

    /// <summary>An amount in the firm's currency.</summary>
    Money,

    /// <summary>A date.</summary>
    Date,

    /// <summary>One of the field's own options.</summary>
    Choice,

    /// <summary>Another person's employment.</summary>
    Person,

    /// <summary>An entry of one of the firm's lists, by its code.</summary>
    ListEntry,

    /// <summary>An e-mail address.</summary>
    Email,

    /// <summary>A telephone number.</summary>
    Phone,

    /// <summary>A badge number: digits only.</summary>
    Badge,
}

/// <summary>Whose fact a field is.</summary>
public enum FieldOwner
{
    /// <summary>The person's, in all stints.</summary>
    Person,

    /// <summary>One stint's.</summary>
    Employment,
}
