using System.Text.Json;

namespace Fid.Core.Fields;

/// <summary>A field of the record, as a configuration defines it.</summary>
public sealed record FieldDefinition
{
    /// <summary>Its name in formulas, files and the database: letters, digits and underscores.</summary>
    public required string Key { get; init; }

    /// <summary>What it holds.</summary>
    public required FieldType Type { get; init; }

    /// <summary>Its label by language, such as "en".</summary>
    public IReadOnlyDictionary<string, string> Labels { get; init; } = NoLabels;

    /// <summary>The key of the section it stands in; empty where there are none.</summary>
    public string Section { get; init; } = "";

    /// <summary>Whether it is a fact of the person or of one stint of employment.</summary>
    public FieldOwner Of { get; init; } = FieldOwner.Employment;

    /// <summary>For a choice, what there is to choose from.</summary>
    public IReadOnlyList<FieldOption>? Options { get; init; }

    /// <summary>For an entry of a list, that list; for a choice, a list whose codes are its options.</summary>
    public string? List { get; init; }

    /// <summary>The field whose value narrows what can be chosen.</summary>
    public string? Parent { get; init; }

    /// <summary>When it must be filled.</summary>
    public Requirement Required { get; init; }

    /// <summary>A formula: where it holds, the field must be filled now.</summary>
    public string? RequiredWhen { get; init; }

    /// <summary>What each role may do; a role that is not named has no access.</summary>
    public IReadOnlyDictionary<string, FieldAccess> Access { get; init; } = NoAccess;

    /// <summary>What it starts with where nothing is entered; for a computed field, what it is computed by.</summary>
    public FieldDefault? Default { get; init; }

    /// <summary>A regular expression which the whole of a text must match.</summary>
    public string? Pattern { get; init; }

    /// <summary>For a file, the groups it may belong to; null where it may be anything.</summary>
    public IReadOnlyList<FileGroup>? Accepts { get; init; }

    /// <summary>The least there may be, included: a number; a date; for a text the characters, for choices their number.</summary>
    public FieldLimit? Min { get; init; }

    /// <summary>The most there may be, included; as <see cref="Min"/>; for a file the megabytes.</summary>
    public FieldLimit? Max { get; init; }

    /// <summary>Whether no two records may have the same value.</summary>
    public bool Unique { get; init; }

    /// <summary>What a change of this field sets in others, in order.</summary>
    public IReadOnlyList<ChangeRule> OnChange { get; init; } = [];

    /// <summary>A formula: only where it holds is the field shown. What a hidden field holds is kept.</summary>
    public string? ShowWhen { get; init; }

    /// <summary>Whether it is masked, and encrypted at rest.</summary>
    public bool Sensitive { get; init; }

    /// <summary>For rows, the columns: fields of their own, known by their keys within the rows.</summary>
    public IReadOnlyList<FieldDefinition>? Columns { get; init; }

    /// <summary>For rows, the column that says what a row is about, such as the kind of a certificate: by it rows are named, and those of
    /// templates merged. Every row has it. Null where rows are told by their order alone.</summary>
    public string? RowKey { get; init; }

    /// <summary>For rows that hold for a time, the columns with its first and last day.</summary>
    public RowDates? Dates { get; init; }

    private static IReadOnlyDictionary<string, string> NoLabels { get; } = new Dictionary<string, string>();

    private static IReadOnlyDictionary<string, FieldAccess> NoAccess { get; } = new Dictionary<string, FieldAccess>();

    /// <summary>The label in a language; English, or else the key, where there is none in it.</summary>
    public string Label(string language) => Labels.GetValueOrDefault(language) ?? Labels.GetValueOrDefault("en") ?? Key;

    /// <summary>What a role may do with it. Nobody edits a computed field.</summary>
    public FieldAccess AccessOf(string role) =>
        Access.GetValueOrDefault(role) is var access && Type == FieldType.Computed && access > FieldAccess.View ? FieldAccess.View : access;

    /// <summary>What somebody with several roles may do with it: the most that one of them may.</summary>
    public FieldAccess AccessOf(IEnumerable<string> roles) => roles.Select(AccessOf).DefaultIfEmpty().Max();

    /// <summary>Whether it must be filled at some time.</summary>
    public bool IsEverRequired => Required.Kind != RequirementKind.Never || RequiredWhen is not null;

    /// <summary>The formula by which it is filled where nothing is entered, or null.</summary>
    public string? DefaultFormula => Default?.Formula;

    /// <summary>Whether another value is more likely one that holds from a day on, such as a raise, than a mistake put right: the
    /// case for facts of an employment that are no days themselves.</summary>
    public bool ChangesOverTime =>
        Of == FieldOwner.Employment
        && !IsColumn
        && Type is not (FieldType.Date or FieldType.File or FieldType.LongText or FieldType.Computed or FieldType.Rows);

    /// <summary>For rows, the columns as fields of the record: known by the key of the rows and their own, such as "certificates.number", of the
    /// same owner, and seen and changed at most by those who may see and change the rows. A column that names nobody follows the rows.</summary>
    public IEnumerable<FieldDefinition> ColumnsAsFields() =>
        (Columns ?? []).Select(c =>
            c with
            {
                Key = FieldAddress.ColumnKey(Key, c.Key),
                Section = Section,
                Of = Of,
                Labels = Labels.Keys.Union(c.Labels.Keys).ToDictionary(l => l, l => $"{Label(l)}: {c.Label(l)}"),
                Access = AccessWithin(c),
            }
        );

    /// <summary>It, and its columns as fields.</summary>
    public IEnumerable<FieldDefinition> WithColumns() => ColumnsAsFields().Prepend(this);

    internal IReadOnlyDictionary<string, FieldAccess> AccessWithin(FieldDefinition column) =>
        column.Access.Count == 0
            ? Access
            : Access.ToDictionary(a => a.Key, a => (FieldAccess)Math.Min((int)a.Value, (int)column.Access.GetValueOrDefault(a.Key)));

    /// <summary>Whether it is a column of rows, as <see cref="FieldSet"/> has it.</summary>
    public bool IsColumn => FieldAddress.IsColumn(Key);

    /// <summary>Whether a value of it stands at an address in somebody's record: a column's in a row of theirs, any other's alone.</summary>
    public bool StandsAt(FieldAddress address) => IsColumn ? address.RowId is not null : address.Row is null;

    /// <summary>Whether it holds one or more of a number of values that are known beforehand.</summary>
    public bool IsChosen => Type is FieldType.Choice or FieldType.Choices or FieldType.ListEntry;
}

/// <summary>What a field starts with: a value, or what a formula comes to.</summary>
/// <param name="Value">The value as JSON; null where a formula says it.</param>
/// <param name="Formula">The formula; null where a value is given.</param>
public sealed record FieldDefault(JsonElement? Value, string? Formula);

/// <summary>The columns of rows that say for which time a row holds.</summary>
/// <param name="From">The key of the column with the first day, included.</param>
/// <param name="Until">The key of the column with the last day, included.</param>
public sealed record RowDates(string From, string Until);

/// <summary>A rule that acts when a field is changed by hand or by another rule.</summary>
/// <param name="Set">The field it sets.</param>
/// <param name="Formula">What it sets it to; nothing empties it.</param>
public sealed record ChangeRule(string Set, string Formula);

/// <summary>A value to choose from.</summary>
/// <param name="Value">What is stored.</param>
/// <param name="Labels">Its label by language.</param>
/// <param name="Retired">Whether it can no longer be chosen; records that have it keep it.</param>
/// <param name="Within">The values of the parent field under which it can be chosen; null for all.</param>
public sealed record FieldOption(string Value, IReadOnlyDictionary<string, string> Labels, bool Retired = false, IReadOnlyList<string>? Within = null)
{
    /// <summary>The label in a language; English, or else the value, where there is none in it.</summary>
    public string Label(string language) => Labels.GetValueOrDefault(language) ?? Labels.GetValueOrDefault("en") ?? Value;
}

/// <summary>A limit of a field: a number, or a date.</summary>
/// <param name="Number">The number; null for a date.</param>
/// <param name="Date">The date as ISO 8601 text; null for a number.</param>
public sealed record FieldLimit(decimal? Number, string? Date);

/// <summary>When a field must be filled.</summary>
/// <param name="Kind">Never, always, or from a stage on.</param>
/// <param name="Stage">For <see cref="RequirementKind.From"/>, the stage.</param>
public readonly record struct Requirement(RequirementKind Kind, string? Stage = null)
{
    /// <summary>Required from a stage on.</summary>
    public static Requirement From(string stage) => new(RequirementKind.From, stage);
}

/// <summary>The ways in which a field can be required.</summary>
public enum RequirementKind
{
    /// <summary>It may stay empty.</summary>
    Never,

    /// <summary>At all times.</summary>
    Always,

    /// <summary>From a stage on.</summary>
    From,
}

/// <summary>What a role may do with a field.</summary>
public enum FieldAccess
{
    /// <summary>Not even see it.</summary>
    None,

    /// <summary>Read it.</summary>
    View,

    /// <summary>Read it, and ask for it to be changed: others have to agree.</summary>
    Ask,

    /// <summary>Read and change it.</summary>
    Edit,
}

/// <summary>Whose fact a field is.</summary>
public enum FieldOwner
{
    /// <summary>One stint's.</summary>
    Employment,

    /// <summary>The person's, in all stints.</summary>
    Person,
}
