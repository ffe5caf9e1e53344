using Fid.Acts.Lists;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Lists;

/// <summary>The pay components of the firm with one of them as it is being edited.</summary>
/// <param name="After">All that are in use, the edited one among them.</param>
/// <param name="Problems">What is wrong with the edited one, alone or among the others; then nothing can be worked out.</param>
internal sealed record EditedComponents(IReadOnlyList<EntryContent> After, IReadOnlyList<EntryProblem> Problems)
{
    public static async Task<EditedComponents> ReadAsync(FidDb db, EntryRequest entry, CancellationToken cancellation)
    {
        var list = ShippedLists.Get("payComponents");
        var read = await entry.ReadAsync(db, list, entry.Code, cancellation);
        if (read.Problems.Where(p => p.Column is not EntryReader.Name).ToArray() is { Length: > 0 } wrong)
            return new EditedComponents([], wrong);
        var others = (await db.ListEntries.AsNoTracking().Where(e => e.List == list.Key && !e.Retired).OrderBy(e => e.Id).ToListAsync(cancellation)).ConvertAll(
            e => e.Content()
        );
        var at = others.FindIndex(o => string.Equals(o.Code, read.Content.Code, StringComparison.OrdinalIgnoreCase));
        if (at >= 0)
            others[at] = read.Content;
        else
            others.Add(read.Content);
        var preview = PayPreview.Of(PayPeriod.Month, others.ConvertAll(PayComponentEntry.Component));
        return new EditedComponents(
            others,
            preview.Succeeded
                ? []
                :
                [
                    .. ListConsistency
                        .Between(list, others)
                        .Select(w => new EntryProblem(w.Column, w.Code, w.Message))
                        .DefaultIfEmpty(new EntryProblem("formula", preview.Problems[0].Code, preview.Problems[0].Message)),
                ]
        );
    }
}
