using Fid.Core.Lists;

namespace Fid.Acts.Exchange;

/// <summary>A row of a sheet, and what it would do.</summary>
/// <param name="Number">Its place in the sheet, from 1; the header is not counted.</param>
/// <param name="Cells">Its cells as they stand in the sheet.</param>
/// <param name="Outcome">What it would do.</param>
/// <param name="EntryId">The entry, or the employment, it changes or makes.</param>
/// <param name="Content">What it says; null for a row that does nothing.</param>
/// <param name="Before">What it was checked against, as JSON; null for a new one.</param>
/// <param name="Problems">What is wrong.</param>
public sealed record ImportRow(
    int Number,
    string[] Cells,
    RowOutcome Outcome,
    Guid? EntryId,
    RowContent? Content,
    string? Before,
    IReadOnlyList<EntryProblem> Problems
);

/// <summary>What a row says.</summary>
/// <param name="Code">The code of the entry, or the employee number.</param>
/// <param name="Values">Values by column key, as a JSON object.</param>
public sealed record RowContent(string Code, string Name, string? NameDe, string Values);

/// <summary>What a row would do.</summary>
public enum RowOutcome
{
    /// <summary>Make an entry.</summary>
    New,

    /// <summary>Change an entry.</summary>
    Changed,

    /// <summary>Nothing: the entry is as the row says.</summary>
    Same,

    /// <summary>It cannot be taken as it is.</summary>
    Wrong,

    /// <summary>It is an example, or holds nothing that is taken.</summary>
    Ignored,
}
