using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Approvals;
using Fid.Core.Fields;
using Fid.Core.Lists;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>What of a row of a sheet others have to agree to: such cells are not taken in, and asked for on the record.</summary>
internal static class SheetApprovals
{
    /// <summary>What is wrong.</summary>
    /// <param name="held">What the record holds.</param>
    /// <param name="entered">What the row says, by address.</param>
    /// <param name="ruled">What follows from it.</param>
    /// <param name="columnOf">The column of the sheet that an address stands in.</param>
    public static IEnumerable<EntryProblem> Problems(
        LiveFields fields,
        IReadOnlyDictionary<string, JsonElement> held,
        IEnumerable<KeyValuePair<string, JsonElement?>> entered,
        RuledEdits ruled,
        LocalDate today,
        Func<string, string> columnOf
    )
    {
        if (fields.Approvals.Rules.Count == 0)
            yield break;
        foreach (var (address, value) in entered.Concat(ruled.Ruled.Select(r => KeyValuePair.Create(r.Field, r.Value))))
        {
            JsonElement? there = held.TryGetValue(address, out var stored) ? stored : null;
            // Whether a cell says what is sealed already is only seen when it is sealed too: the save itself refuses what it changes.
            if (there is { } kept && SealedText.IsSealed(kept))
                continue;
            var change = RequestedChange.Of(address, there, value);
            if (fields.Approvals.Asks(change, held, today))
                yield return new EntryProblem(
                    columnOf(address),
                    RecordApprovals.NeedsApproval,
                    "Others have to agree to this. Empty the cell, and ask for it on the record."
                );
        }
    }
}
