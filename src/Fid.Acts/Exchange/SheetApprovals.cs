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
    /// <param name="distances">How far pay lies from what it is held against; null where no condition reads it.</param>
    /// <param name="employment">Whose record it is.</param>
    /// <param name="held">What the record holds.</param>
    /// <param name="entered">What the row says, by address.</param>
    /// <param name="ruled">What follows from it.</param>
    /// <param name="columnOf">The column of the sheet that an address stands in.</param>
    public static IEnumerable<EntryProblem> Problems(
        LiveFields fields,
        PayDistances? distances,
        Guid employment,
        IReadOnlyDictionary<string, JsonElement> held,
        IEnumerable<KeyValuePair<string, JsonElement?>> entered,
        RuledEdits ruled,
        LocalDate today,
        Func<string, string> columnOf
    )
    {
        if (fields.Approvals.Rules.Count == 0)
            yield break;
        var changes = entered
            .Concat(ruled.Ruled.Select(r => KeyValuePair.Create(r.Field, r.Value)))
            .Select(e => RequestedChange.Of(e.Key, held.TryGetValue(e.Key, out var stored) ? stored : null, e.Value))
            // Whether a cell says what is sealed already is only seen when it is sealed too: the save itself refuses what it changes.
            .Where(c => !SealedText.IsSealed(c.Old))
            .ToList();
        var read = PayDistances.Read(distances, employment, held, changes);
        foreach (var change in changes)
            if (fields.Approvals.Asks(change, read, today))
                yield return new EntryProblem(
                    columnOf(change.Field),
                    RecordApprovals.NeedsApproval,
                    "Others have to agree to this. Empty the cell, and ask for it on the record."
                );
    }
}
