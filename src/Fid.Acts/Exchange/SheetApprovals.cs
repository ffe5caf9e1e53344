using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Approvals;
using Fid.Core.Lists;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>What of a row of a sheet others have to agree to: such cells are not taken in, and asked for on the record.</summary>
internal static class SheetApprovals
{
    /// <summary>What is wrong.</summary>
    /// <param name="held">What the record holds.</param>
    /// <param name="entered">What the row says, with what follows from it, by address.</param>
    /// <param name="columnOf">The column of the sheet that an address stands in.</param>
    public static IEnumerable<EntryProblem> Problems(
        LiveFields fields,
        IReadOnlyDictionary<string, JsonElement> held,
        IEnumerable<KeyValuePair<string, JsonElement?>> entered,
        LocalDate today,
        Func<string, string> columnOf
    )
    {
        if (fields.Approvals.Rules.Count == 0)
            yield break;
        var nothing = JsonElement.Parse("null");
        foreach (var (address, value) in entered)
        {
            var change = new RequestedChange(address, held.TryGetValue(address, out var there) ? there : nothing, value ?? nothing);
            if (fields.Approvals.Asks(change, held, today))
                yield return new EntryProblem(
                    columnOf(address),
                    RecordApprovals.NeedsApproval,
                    "Others have to agree to this. Empty the cell, and ask for it on the record."
                );
        }
    }
}
