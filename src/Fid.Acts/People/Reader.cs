using System.Collections.Frozen;
using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.People;

namespace Fid.Acts.People;

/// <summary>Somebody who reads: which fields they may see, and whose records they may open. Whatever speaks of people is asked
/// for through one of these; what a reader may not see counts as empty.</summary>
public sealed class Reader
{
    /// <summary>Of fewer people nothing is told in common: what is said of all would be said of each.</summary>
    public const int FewestTogether = 3;

    private readonly Guid[]? _own;

    // Worked out once: a reader is asked by many threads at a time.
    private readonly FrozenSet<string> _sees;

    private Reader(LiveFields fields, IReadOnlyCollection<string> roles, Guid[]? own)
    {
        (Fields, Roles, _own) = (fields, roles, own);
        _sees = fields.Set.FieldsAndColumns.Where(f => f.AccessOf(roles) != FieldAccess.None).Select(f => f.Key).ToFrozenSet(StringComparer.Ordinal);
        SeesNames = Sees("given_name") && Sees("family_name");
    }

    public LiveFields Fields { get; }

    public IReadOnlyCollection<string> Roles { get; }

    /// <summary>Whether people's names may be seen; where not, their numbers stand in their place.</summary>
    public bool SeesNames { get; }

    public static async Task<Reader> OfAsync(Actor actor, FidDb db, CancellationToken cancellation) =>
        await OfAsync(actor, db, await new LiveFieldsLoader(db).LiveAsync(cancellation), cancellation);

    public static async Task<Reader> OfAsync(Actor actor, FidDb db, LiveFields fields, CancellationToken cancellation) =>
        new(fields, actor.RoleNames, actor.MayReadEverybody ? null : await OwnEmployments.OfAsync(actor, db, cancellation));

    /// <summary>Whether a field, or the column of a value in a row, may be seen.</summary>
    public bool Sees(string field) => _sees.Contains(FieldAddress.FieldOf(field));

    public bool MayEdit(string field) => Fields.Set.Find(field) is { } known && known.AccessOf(Roles) == FieldAccess.Edit;

    /// <summary>Whether all that a field's being shown or required hangs on may be seen too: otherwise that it is missing would tell of the rest.</summary>
    public bool SeesWhyMissing(string field) => Fields.Set.ConditionsRead(field).All(Sees);

    /// <summary>What may be seen of some values; sealed ones as their masks.</summary>
    public Dictionary<string, JsonElement> Seen(IReadOnlyDictionary<string, JsonElement> values) =>
        values.Where(v => Sees(v.Key)).ToDictionary(v => v.Key, v => SealedText.Shown(v.Value), StringComparer.Ordinal);

    /// <summary>The records the reader may open.</summary>
    public IQueryable<CurrentRecord> Readable(IQueryable<CurrentRecord> records) =>
        _own is { } own ? records.Where(r => r.ManagerId != null && own.Contains(r.ManagerId.Value)) : records;

    /// <summary>Whether the reader may open a record.</summary>
    public bool MayOpen(CurrentRecord record) => _own is null || (record.ManagerId is { } manager && _own.Contains(manager));

    /// <summary>What somebody is called: by name, or by number to those who may not see names.</summary>
    public string NameOf(CurrentRecord record, string number) => SeesNames ? record.FullName : number;
}
