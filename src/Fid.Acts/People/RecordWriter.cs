using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.Fields;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.History;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>The one way by which values of records are written: the rows, and the projection that follows from them.</summary>
public sealed class RecordWriter(FidDb db, SensitiveValues sensitive)
{
    private readonly LiveFieldsLoader _fields = new(db);
    private readonly UniqueValues _unique = new(db, sensitive);
    private readonly RecordApprovals _approvals = new(db, sensitive);

    // Read once for all that is saved together.
    private CalendarSet? _calendars;

    /// <summary>The record of a new employment. Its own facts are true from its first day; the person's from the day they became
    /// known, or the first day if that is earlier.</summary>
    public async Task<CurrentRecord> AddNewAsync(
        Employment employment,
        IEnumerable<FieldValue> values,
        Change change,
        LocalDate today,
        CancellationToken cancellation = default
    )
    {
        var fields = await _fields.LiveAsync(cancellation);
        var held = new Dictionary<string, JsonElement>();
        var personFrom = LocalDate.Min(today, employment.Start);
        foreach (var value in values)
        {
            if (value.Value.ValueKind is JsonValueKind.Null or JsonValueKind.Undefined)
                continue;
            var field = fields.Set.Find(value.Field) ?? throw new ArgumentException($"There is no field {value.Field}.", nameof(values));
            var (of, at) = (field.Of, PlaceOf(field, value.Field));
            var owner = of == FieldOwner.Person ? employment.PersonId : employment.Id;
            var stored = field.Sensitive ? await sensitive.SealAsync(db, owner, field.Key, value.Value, cancellation) : value.Value;
            held[value.Field] = stored;
            var effective = EffectiveRange.ToDatabase(of == FieldOwner.Person ? personFrom : employment.Start, null);
            db.FirstValues.Add(RecordValue.Begun(new ValuePlace(owner, of, at), stored, value.Source, effective, change));
        }
        var record = new CurrentRecord { EmploymentId = employment.Id, PersonId = employment.PersonId };
        RecordProjection.Project(fields, record, held, employment, change.At, today);
        RecordProjection.FollowEnd(employment, held);
        db.CurrentRecords.Add(record);
        return record;
    }

    /// <summary>Employments and their projections, tracked, by employment.</summary>
    public async Task<(Dictionary<Guid, Employment> Employments, Dictionary<Guid, CurrentRecord> Records)> ReadAsync(
        IEnumerable<Guid> employments,
        CancellationToken cancellation
    )
    {
        var wanted = employments.ToArray();
        return (
            await db.Employments.Where(e => wanted.Contains(e.Id)).ToDictionaryAsync(e => e.Id, cancellation),
            await db.CurrentRecords.Where(r => wanted.Contains(r.EmploymentId)).ToDictionaryAsync(r => r.EmploymentId, cancellation)
        );
    }

    /// <summary>Lets those who enter values into the same unique fields come one after the other, to the end of the transaction.</summary>
    public async Task LockUniqueAsync(IEnumerable<string> fields, CancellationToken cancellation)
    {
        var set = (await _fields.LiveAsync(cancellation)).Set;
        await Locks.UniqueValuesAsync(db, fields.Where(f => set.Find(f)?.Unique == true).Select(FieldAddress.FieldOf).Distinct(), cancellation);
    }

    /// <summary>Keeps the list entries that values refer to from being deleted until the transaction ends. False where one is gone.</summary>
    public async Task<bool> LockEntriesAsync(IEnumerable<(string Field, JsonElement? Value)> values, CancellationToken cancellation)
    {
        var fields = await _fields.LiveAsync(cancellation);
        var wanted = values
            .Where(v => fields.ListOf(v.Field) is not null && v.Value is not null)
            .SelectMany(v => FieldValues.Texts(v.Value!.Value).Select(code => (fields.ListOf(v.Field)!, code.ToLowerInvariant())))
            .Distinct()
            .ToArray();
        return await Locks.EntriesAsync(db, wanted, cancellation) == wanted.Length;
    }

    /// <summary>
    /// Changes fields of records as every save does: what the rules of the changed fields set in others follows, what does not go with
    /// the rest or is somebody else's is refused, and the list entries that values refer to stay. The employments and projections are
    /// tracked by the caller's context and locked; nothing is sent to the database but reads.
    /// </summary>
    /// <returns>What is wrong, by the place of the record among those given; empty where all is taken into the context.</returns>
    public async Task<IReadOnlyList<RecordProblem>> SaveAsync(IReadOnlyList<RecordEdit> records, LocalDate today, CancellationToken cancellation)
    {
        var fields = await _fields.LiveAsync(cancellation);
        await LockUniqueAsync(records.SelectMany(r => r.Edits).Where(e => e.Value is not null).Select(e => e.Field), cancellation);
        var believed = await BelievedValues.LoadAsync(db, [.. records.Select(r => r.Employment)], cancellation);
        var (followed, problems) = await FollowAsync(fields, records, believed, today, cancellation);
        var distances = await PayDistances.LoadAsync(db, fields.Approvals, [.. records.Select(r => r.Employment.Id)], today, cancellation);
        for (var i = 0; i < followed.Count; i++)
            if (!followed[i].Edit.IsAgreed)
                problems.AddRange((await _approvals.UnagreedAsync(fields, followed[i], distances, today, cancellation)).Select(p => new RecordProblem(i, p)));
        var whole = followed.ConvertAll(f => f.Edit);
        problems.AddRange(await TakenAsync(fields.Set, whole, cancellation));
        if (problems.Count == 0 && !await LockEntriesAsync(whole.SelectMany(r => r.Edits).Select(e => (e.Field, e.Value)), cancellation))
            throw new DbUpdateConcurrencyException("A list entry that was chosen has been deleted.");
        if (problems.Count == 0)
            await ApplyAsync(fields, whole, believed, today, cancellation);
        return problems;
    }

    /// <summary>What an edit of a record would come to with what follows from it, and what of that does not go together. Nothing is written.</summary>
    public async Task<(FollowedEdit Followed, IReadOnlyList<Problem> Problems)> FollowAsync(RecordEdit record, LocalDate today, CancellationToken cancellation)
    {
        var fields = await _fields.LiveAsync(cancellation);
        var (followed, problems) = await FollowAsync(
            fields,
            [record],
            await BelievedValues.LoadAsync(db, [record.Employment], cancellation),
            today,
            cancellation
        );
        return (followed[0], problems.ConvertAll(p => p.Problem));
    }

    private async Task<(List<FollowedEdit> Followed, List<RecordProblem> Problems)> FollowAsync(
        LiveFields fields,
        IReadOnlyList<RecordEdit> records,
        BelievedValues believed,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var set = fields.Set;
        var calendars = set.CountsWorkingDays ? _calendars ??= await CalendarSet.LoadAsync(db, cancellation) : null;
        var (followed, problems) = (new List<FollowedEdit>(), new List<RecordProblem>());
        for (var i = 0; i < records.Count; i++)
        {
            var (employment, edits) = (records[i].Employment, records[i].Edits);
            var rows = believed.Of(employment);
            // What rules say is worked out for the day from which the values hold.
            var since = edits.Max(e => e.From);
            var day = since is { } from ? LocalDate.Max(from, employment.Start) : RecordProjection.AsOf(employment, today);
            var held = rows.Where(r => ToDated(r).Holds(day)).ToDictionary(r => r.Address, r => r.Value, StringComparer.Ordinal);
            var (ruled, clash) = RecordRules.Follow(set, held, edits.ToDictionary(e => e.Field, e => e.Value, StringComparer.Ordinal), today, values =>
                calendars?.OfRecord(values)
            );
            problems.AddRange(clash.Select(p => new RecordProblem(i, p)));
            // Nothing of a stint is true before its first day: what it begins with is put right instead.
            var whole = records[i] with
            {
                Edits =
                [
                    .. edits,
                    .. ruled.Select(r => r with { From = set.Find(r.Field)!.Of == FieldOwner.Employment && since < employment.Start ? null : since }),
                ],
            };
            followed.Add(new FollowedEdit(whole, held));
        }
        return (followed, problems);
    }

    // The last look, whatever was entered or followed: no two records have what only one may.
    private async Task<IEnumerable<RecordProblem>> TakenAsync(FieldSet set, List<RecordEdit> records, CancellationToken cancellation)
    {
        var claims = records
            .SelectMany(
                (r, i) =>
                    r
                        .Edits.Where(e => e.Value is not null && set.Find(e.Field)!.Unique)
                        .Select(e => (Record: i, e.Field, Claim: new UniqueClaim(set.Find(e.Field)!, e.Value!.Value, r.Employment.PersonId)))
            )
            .ToList();
        var taken = await _unique.FindTakenAsync(claims.ConvertAll(c => c.Claim), cancellation);
        return taken.Select(t => new RecordProblem(claims[t].Record, UniqueValues.Taken(claims[t].Field)));
    }

    private async Task ApplyAsync(LiveFields fields, List<RecordEdit> records, BelievedValues believed, LocalDate today, CancellationToken cancellation)
    {
        foreach (var (employment, _, edits, change) in records)
        foreach (var edit in edits)
        {
            var field = fields.Set.Find(edit.Field)!;
            var owner = field.Of == FieldOwner.Person ? employment.PersonId : employment.Id;
            var mine = believed.OfOwner(owner).Where(r => r.Address == edit.Field).ToDictionary(ToDated);
            var entered = edit.Value is { } v
                ? new Valued(field.Sensitive ? await sensitive.SealAsync(db, owner, field.Key, v, cancellation) : v, edit.Source)
                : null;
            var timeline = edit.From is { } from
                ? Timeline.Change([.. mine.Keys], from, entered)
                : Timeline.Fix([.. mine.Keys], RecordProjection.AsOf(employment, today), entered, LocalDate.Min(employment.Start, today));
            Apply(timeline, mine, new ValuePlace(owner, field.Of, PlaceOf(field, edit.Field)), change, believed);
        }
        // When all is entered: two of them may be stints of one person.
        foreach (var (employment, record, _, change) in records)
            RecordProjection.Show(fields, record, believed.Of(employment), employment, change.At, today);
        // What is a fact of the person shows in every stint of theirs.
        var ofPeople = records.Where(r => r.Edits.Any(e => fields.Set.Find(e.Field)!.Of == FieldOwner.Person)).ToList();
        if (ofPeople.Count > 0)
            await ShowOthersAsync(fields, ofPeople, believed, today, cancellation);
    }

    private async Task ShowOthersAsync(LiveFields fields, List<RecordEdit> records, BelievedValues believed, LocalDate today, CancellationToken cancellation)
    {
        var (people, own) = (records.Select(r => r.Employment.PersonId).ToArray(), records.Select(r => r.Employment.Id).ToArray());
        var others = await db.Employments.Where(e => people.Contains(e.PersonId) && !own.Contains(e.Id)).OrderBy(e => e.Id).ToListAsync(cancellation);
        if (others.Count == 0)
            return;
        var ids = others.Select(o => o.Id).ToArray();
        var shown = await db.CurrentRecords.Where(r => ids.Contains(r.EmploymentId)).ToDictionaryAsync(r => r.EmploymentId, cancellation);
        believed.Include(await BelievedValues.LoadAsync(db, others, cancellation));
        foreach (var other in others)
            if (shown.TryGetValue(other.Id, out var record))
                RecordProjection.Show(fields, record, believed.Of(other), other, records.First(r => r.Employment.PersonId == other.PersonId).Change.At, today);
    }

    /// <summary>Moves the day from which an employment's first values hold, when its first day moves.</summary>
    /// <param name="firstValues">First values that become others with it, by field.</param>
    public async Task MoveStartAsync(
        Employment employment,
        CurrentRecord record,
        LocalDate to,
        IReadOnlyDictionary<string, JsonElement> firstValues,
        Change change,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var from = employment.Start;
        employment.Start = to;
        var believed = await BelievedValues.LoadAsync(db, [employment], cancellation);
        foreach (var field in believed.OfOwner(employment.Id).GroupBy(r => r.Address).ToList())
        {
            var mine = field.ToDictionary(ToDated);
            var timeline = Timeline.MoveFirst([.. mine.Keys], from, to);
            if (firstValues.TryGetValue(field.Key, out var value) && timeline.Added is [var first])
                timeline = timeline with { Added = [first with { Value = first.Value with { Json = value } }] };
            Apply(timeline, mine, new ValuePlace(employment.Id, FieldOwner.Employment, FieldAddress.Read(field.Key)), change, believed);
        }
        RecordProjection.Show(await _fields.LiveAsync(cancellation), record, believed.Of(employment), employment, change.At, today);
    }

    /// <summary>Brings a record's projection to a day: what was entered for it beforehand shows from then on.</summary>
    public async Task RefreshAsync(Employment employment, CurrentRecord record, Instant at, LocalDate today, CancellationToken cancellation) =>
        RecordProjection.Show(
            await _fields.LiveAsync(cancellation),
            record,
            (await BelievedValues.LoadAsync(db, [employment], cancellation)).Of(employment),
            employment,
            at,
            today
        );

    /// <summary>Takes a change back: what it made believed is no longer, and what it retired is believed again. Returns why it cannot
    /// be, where a later change has touched the same values or somebody else has them by now; nothing is to be kept then.</summary>
    public async Task<Problem?> TakeBackAsync(
        Employment employment,
        CurrentRecord record,
        Change taken,
        Change change,
        LocalDate today,
        CancellationToken cancellation
    ) => (await TakeBackAsync([new TakenBack(employment, record, taken, change)], today, cancellation)) is [var problem, ..] ? problem.Problem : null;

    /// <summary>The same of changes of several records, each of another.</summary>
    public async Task<IReadOnlyList<RecordProblem>> TakeBackAsync(IReadOnlyList<TakenBack> changes, LocalDate today, CancellationToken cancellation)
    {
        var employments = changes.Select(c => c.Employment).ToList();
        var (owners, made) = (employments.SelectMany(e => new[] { e.Id, e.PersonId }).Distinct().ToArray(), changes.Select(c => c.Taken.Id).ToArray());
        var touched = await db
            .RecordValues.AsNoTracking()
            .Where(v => owners.Contains(v.OwnerId) && (made.Contains(v.ChangeId) || made.Contains(v.EndedBy!.Value)))
            .ToListAsync(cancellation);
        touched = BelievedValues.AsInContext(db, touched);
        var believed = await BelievedValues.LoadAsync(db, employments, cancellation);
        var fields = await _fields.LiveAsync(cancellation);
        var problems = new List<RecordProblem>();
        for (var i = 0; i < changes.Count; i++)
        {
            var (employment, taken) = (changes[i].Employment, changes[i].Taken);
            var mine = touched.FindAll(v =>
                (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId) && (v.ChangeId == taken.Id || v.EndedBy == taken.Id)
            );
            if (await TakeBackAsync(changes[i], mine, believed, cancellation) is { } problem)
            {
                problems.Add(new RecordProblem(i, problem));
                continue;
            }
            RecordProjection.Show(fields, changes[i].Record, believed.Of(employment), employment, changes[i].Change.At, today);
            if (mine.Exists(v => v.OwnerId == employment.PersonId))
                await ShowOthersAsync(fields, [new RecordEdit(employment, changes[i].Record, [], changes[i].Change)], believed, today, cancellation);
        }
        return problems;
    }

    // The values, without what is read of them.
    private async Task<Problem?> TakeBackAsync(TakenBack what, List<RecordValue> touched, BelievedValues believed, CancellationToken cancellation)
    {
        var (employment, _, taken, change) = what;
        var (added, again) = (touched.FindAll(v => v.ChangeId == taken.Id), touched.FindAll(v => v.ChangeId != taken.Id));
        if (touched.Count == 0 || added.Exists(v => !v.Known.UpperBoundInfinite))
            return ChangedSince;
        var now = believed.Of(employment);
        if (again.Exists(a => now.Exists(l => l.ChangeId != taken.Id && l.OwnerId == a.OwnerId && l.Address == a.Address && Overlap(ToDated(l), ToDated(a)))))
            return ChangedSince;
        if (await TakenByOthersAsync(again, employment, cancellation) is { } field)
            return new Problem("", "taken-since", $"Somebody else has the earlier value of {field} by now. Change that first, or fix the record.");
        var ended = added.Select(v => v.Id).ToHashSet();
        foreach (var value in now.Where(v => ended.Contains(v.Id)))
            believed.End(value, change);
        foreach (var retired in again)
            believed.Add(RecordValue.Begun(retired.Place, retired.Value, retired.Source, retired.Effective, change));
        return null;
    }

    private static bool Overlap(DatedValue<Valued> one, DatedValue<Valued> other) =>
        one.From <= (other.To ?? LocalDate.MaxIsoValue) && (one.To ?? LocalDate.MaxIsoValue) >= other.From;

    private static Problem ChangedSince { get; } = new("", "changed-since", "A later change touched the same values. Take that back first, or fix the record.");

    private async Task<string?> TakenByOthersAsync(List<RecordValue> again, Employment employment, CancellationToken cancellation)
    {
        var set = (await _fields.LiveAsync(cancellation)).Set;
        var claims = again
            .Where(v => set.Find(v.Field)?.Unique == true)
            .Select(v => new UniqueClaim(set.Find(v.Field)!, v.Value, employment.PersonId))
            .ToList();
        if (claims.Count == 0)
            return null;
        await LockUniqueAsync(claims.Select(c => c.Field.Key), cancellation);
        return (await _unique.FindTakenAsync(claims, cancellation)) is [var first, ..] ? claims[first].Field.Label(ReaderLanguage.Code) : null;
    }

    /// <summary>The values a change of a record added or retired.</summary>
    public IQueryable<RecordValue> TouchedBy(Employment employment, Change change) => TouchedBy(db, employment, change);

    /// <inheritdoc cref="TouchedBy(Employment, Change)"/>
    public static IQueryable<RecordValue> TouchedBy(FidDb db, Employment employment, Change change) =>
        db.RecordValues.Where(v => (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId) && (v.ChangeId == change.Id || v.EndedBy == change.Id));

    private static void Apply(
        TimelineEdit<Valued> edit,
        Dictionary<DatedValue<Valued>, RecordValue> rows,
        ValuePlace place,
        Change change,
        BelievedValues believed
    )
    {
        foreach (var retired in edit.Retired)
            believed.End(rows[retired], change);
        foreach (var spell in edit.Added)
            believed.Add(RecordValue.Begun(place, spell.Value.Json, spell.Value.Source, EffectiveRange.ToDatabase(spell.From, spell.To), change));
    }

    private static FieldAddress PlaceOf(FieldDefinition field, string address) =>
        FieldAddress.Read(address) is var at && field.StandsAt(at) ? at : throw new ArgumentException($"{address} is no place in a record.", nameof(address));

    private static DatedValue<Valued> ToDated(RecordValue row)
    {
        var (from, to) = EffectiveRange.FromDatabase(row.Effective);
        return new DatedValue<Valued>(new Valued(row.Value, row.Source), from, to);
    }

    // Compared by identity of the row's content, so that a spell leads back to its row.
    private sealed record Valued(JsonElement Json, string Source);
}
