using System.Collections.Concurrent;
using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.Rights;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>
/// Somebody who reads: whose records they may open, and which fields they may see of each. Whatever speaks of people is asked for
/// through one of these; what a reader may not see counts as empty. What is found, sorted, filtered and counted goes by the fields
/// they see of <see cref="Everybody"/> they reach; what is shown of one person, by those they see <see cref="On(CurrentRecord)"/> that record.
/// </summary>
public sealed class Reader
{
    private readonly HeldRights _rights;
    private readonly ActorReach _reach;

    // A reader is asked by many threads at a time.
    private readonly ConcurrentDictionary<ReachSet, FieldRights> _on = new();

    private Reader(LiveFields fields, HeldRights rights, ActorReach reach)
    {
        (Fields, _rights, _reach) = (fields, rights, reach);
        Everybody = rights.OnAll(fields.Set, rights.Reached);
        SeesNames = Names(Everybody);
    }

    public LiveFields Fields { get; }

    /// <summary>What the reader may do with each field, whoever of those they reach it is of.</summary>
    public FieldRights Everybody { get; }

    /// <summary>Whether people's names may be seen; where not, their numbers stand in their place.</summary>
    public bool SeesNames { get; }

    /// <summary>Whether there is nobody whose record the reader may not open.</summary>
    public bool OpensAll => _rights.MayToAll(Actions.See, Things.Record);

    public static async Task<Reader> OfAsync(Actor actor, FidDb db, CancellationToken cancellation) =>
        await OfAsync(actor, db, await new LiveFieldsLoader(db).LiveAsync(cancellation), cancellation);

    public static async Task<Reader> OfAsync(Actor actor, FidDb db, LiveFields fields, CancellationToken cancellation) =>
        new(fields, actor.Rights, await ActorReach.OfAsync(actor, db, cancellation));

    /// <summary>What the reader may do with the fields of one record.</summary>
    public FieldRights On(CurrentRecord record) => On(_reach.On(record));

    /// <summary>Whether the reader may do something with a thing of somebody whose record is being made.</summary>
    /// <param name="values">What it holds so far, by field.</param>
    /// <param name="day">The day for which it is made.</param>
    public bool MayNew(string action, string thing, IReadOnlyDictionary<string, JsonElement> values, LocalDate day) =>
        _rights.MayToAll(action, thing) || _rights.May(action, thing, _reach.OnNew(values, day));

    /// <summary>Whether a field, or the column of a value in a row, may be seen of everybody the reader reaches.</summary>
    public bool Sees(string field) => Everybody.Sees(field);

    /// <summary>Whether they see all that makes up the pay of everybody.</summary>
    public bool SeesPay() => SeesPay(Everybody);

    /// <summary>Whether they see all that makes up the pay of those of whom they have some rights. What the firm does not record is nothing to be
    /// hidden.</summary>
    public bool SeesPay(FieldRights rights) => PayReading.Fields.All(rights.Sees) && SeesAllThereIs(rights, PayReading.AllFields);

    /// <summary>Whether they see those of some fields that the firm records.</summary>
    public bool SeesAllThereIs(FieldRights rights, IEnumerable<string> fields) => fields.All(f => Fields.Set.Find(f) is null || rights.Sees(f));

    /// <summary>Whether a field may be seen of anybody at all.</summary>
    public bool SeesOfAnybody(FieldDefinition field) => !_rights.Where(field, FieldAccess.View).IsEmpty;

    public bool MayEdit(string field) => Everybody.MayEdit(field);

    /// <summary>Whether all that a field's being shown or required hangs on may be seen too: otherwise that it is missing would tell of the rest.</summary>
    public bool SeesWhyMissing(string field) => Fields.Set.ConditionsRead(field).All(Sees);

    /// <summary>What may be seen of some values of everybody; sealed ones as their masks.</summary>
    public Dictionary<string, JsonElement> Seen(IReadOnlyDictionary<string, JsonElement> values) => Seen(values, Everybody);

    /// <summary>What may be seen of some values by certain rights; sealed ones as their masks.</summary>
    public static Dictionary<string, JsonElement> Seen(IReadOnlyDictionary<string, JsonElement> values, FieldRights rights) =>
        values.Where(v => rights.Sees(v.Key)).ToDictionary(v => v.Key, v => SealedText.Shown(v.Value), StringComparer.Ordinal);

    /// <summary>The records the reader may open.</summary>
    public IQueryable<CurrentRecord> Readable(IQueryable<CurrentRecord> records) => _reach.Within(records, _rights.Where(Actions.See, Things.Record));

    /// <summary>The employments whose records the reader may open; null for all.</summary>
    public async Task<Guid[]?> ReadableAsync(FidDb db, CancellationToken cancellation) =>
        OpensAll ? null : await Readable(db.CurrentRecords).Select(r => r.EmploymentId).ToArrayAsync(cancellation);

    /// <summary>Those of some people of whom the reader may open a record.</summary>
    public async Task<IReadOnlyCollection<Guid>> KnownAsync(FidDb db, IReadOnlyCollection<Guid> people, CancellationToken cancellation) =>
        OpensAll || people.Count == 0
            ? people
            : (await Readable(db.CurrentRecords.Where(r => people.Contains(r.PersonId))).Select(r => r.PersonId).ToListAsync(cancellation)).ToHashSet();

    /// <summary>Whether the reader may open a record.</summary>
    public bool MayOpen(CurrentRecord record) => _reach.May(Actions.See, Things.Record, record);

    /// <summary>Whether the reader may do something with a thing of somebody.</summary>
    public bool May(string action, string thing, CurrentRecord record) => _reach.May(action, thing, record);

    /// <summary>What somebody is called: by name, or by number to those who may not see names.</summary>
    public string NameOf(CurrentRecord record, string number) => SeesNames || Names(On(record)) ? record.FullName : number;

    /// <summary>Whether names may be seen by certain rights.</summary>
    public static bool Names(FieldRights rights) => rights.Sees("given_name") && rights.Sees("family_name");

    private FieldRights On(ReachSet target) => _on.GetOrAdd(target, static (t, reader) => reader._rights.On(reader.Fields.Set, t), this);
}
