using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;

namespace Fid.Acts.Exchange;

/// <summary>Everything a sheet can go into.</summary>
public sealed class ImportTargets(FidDb db, RecordWriter writer, UniqueValues unique, OpenHire open, HireClosing closing, PeopleIndex people, FirmClock clock)
{
    /// <summary>What a key names, for somebody: of the people it takes what they may see, and changes what they may edit.</summary>
    public async Task<ImportTarget?> FindAsync(string key, Actor actor, CancellationToken cancellation) =>
        key == PeopleTarget.Key ? await PeopleAsync(actor, cancellation)
        : key.StartsWith(RowsTarget.Prefix, StringComparison.Ordinal) ? (await RowsAsync(actor, cancellation)).FirstOrDefault(r => r.Definition.Key == key)
        : ShippedLists.Find(key) is { } list ? new ListTarget(db, list)
        : null;

    /// <summary>What a run goes into, for the user who began it.</summary>
    public async Task<ImportTarget> OfAsync(ImportRun run, CancellationToken cancellation) =>
        await FindAsync(run.List, await Actor.OfAccountAsync(run.ById, "exchange", clock, db, cancellation), cancellation)
        ?? throw new InvalidOperationException($"There is nothing called {run.List} to import into.");

    /// <summary>The rows in people's records, field by field, for somebody: those they see.</summary>
    public async Task<IReadOnlyList<RowsTarget>> RowsAsync(Actor actor, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        return [.. reader.Fields.Set.Fields.Where(f => f.Type == FieldType.Rows && reader.Sees(f.Key)).Select(f => new RowsTarget(db, writer, reader, f))];
    }

    /// <summary>The people, for somebody.</summary>
    public async Task<PeopleTarget> PeopleAsync(Actor actor, CancellationToken cancellation) =>
        new(db, writer, unique, open, closing, people, await Reader.OfAsync(actor, db, cancellation));
}
