using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>What is believed of some employments and their people, as it will be once the context is saved.</summary>
internal sealed class BelievedValues
{
    private readonly FidDb _db;
    private readonly Dictionary<Guid, List<RecordValue>> _byOwner;

    private BelievedValues(FidDb db, Dictionary<Guid, List<RecordValue>> byOwner) => (_db, _byOwner) = (db, byOwner);

    public static async Task<BelievedValues> LoadAsync(FidDb db, IReadOnlyCollection<Employment> employments, CancellationToken cancellation)
    {
        var owners = employments.SelectMany(e => new[] { e.Id, e.PersonId }).ToHashSet();
        // Not tracked, for a record has scores of values and a save changes a few: those are tracked when they end.
        var rows = await db.RecordValues.AsNoTracking().Where(v => owners.Contains(v.OwnerId) && v.Known.UpperBoundInfinite).ToListAsync(cancellation);
        // Values that this context is adding or ending count as they will be.
        var added = db
            .ChangeTracker.Entries<RecordValue>()
            .Where(e => e.State == EntityState.Added)
            .Select(e => e.Entity)
            .Concat(db.FirstValues)
            .Where(v => owners.Contains(v.OwnerId));
        return new BelievedValues(
            db,
            AsInContext(db, rows).Concat(added).Where(v => v.Known.UpperBoundInfinite).GroupBy(v => v.OwnerId).ToDictionary(g => g.Key, g => g.ToList())
        );
    }

    /// <summary>Values that were read without being tracked: in place of those that the context has, what it has.</summary>
    public static List<RecordValue> AsInContext(FidDb db, List<RecordValue> rows)
    {
        var tracked = db.ChangeTracker.Entries<RecordValue>().ToDictionary(e => e.Entity.Id, e => e.Entity);
        return rows.ConvertAll(r => tracked.GetValueOrDefault(r.Id) ?? r);
    }

    /// <summary>Those of an employment and of its person.</summary>
    public List<RecordValue> Of(Employment employment) => [.. OfOwner(employment.Id), .. OfOwner(employment.PersonId)];

    /// <summary>Those of a person or an employment alone.</summary>
    public List<RecordValue> OfOwner(Guid owner) => _byOwner.TryGetValue(owner, out var rows) ? rows : _byOwner[owner] = [];

    /// <summary>Takes in what is believed of others as well.</summary>
    public void Include(BelievedValues others)
    {
        foreach (var (owner, rows) in others._byOwner)
            _byOwner.TryAdd(owner, rows);
    }

    /// <summary>Has a value believed no more from a change on.</summary>
    public void End(RecordValue value, Change change)
    {
        if (_db.Entry(value).State == EntityState.Detached && !_db.FirstValues.Contains(value))
            _db.Attach(value);
        value.End(change);
        OfOwner(value.OwnerId).Remove(value);
    }

    /// <summary>Has a value believed.</summary>
    public void Add(RecordValue value)
    {
        _db.RecordValues.Add(value);
        OfOwner(value.OwnerId).Add(value);
    }
}
