using Fid.Core.Lists;

namespace Fid.Data.Exchange;

/// <summary>A row of a sheet, and what it would do.</summary>
/// <param name="Number">Its place in the sheet, from 1; the header is not counted.</param>
/// <param name="Cells">Its cells as they stand in the sheet.</param>
/// <param name="Outcome">What it would do.</param>
/// <param name="EntryId">The entry it changes or makes.</param>
/// <param name="Content">The entry as it would be; null for a row that is wrong or ignored.</param>
/// <param name="Before">The entry's names and values as they were checked against, as the audit trail has them; null for a new one.</param>
/// <param name="Problems">What is wrong.</param>
public sealed record ImportRow(
    int Number, string[] Cells, RowOutcome Outcome, Guid? EntryId, EntryContent? Content, string? Before, IReadOnlyList<EntryProblem> Problems);

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
