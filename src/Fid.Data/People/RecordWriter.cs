using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.History;
using Fid.Core.Texts;
using Fid.Data.Changes;
using Fid.Data.Fields;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Data.People;

/// <summary>The one way by which values of records are written: the rows, and the projection that follows from them.</summary>
public sealed class RecordWriter(FidDb db, SensitiveValues sensitive)
{
    private readonly FieldBook _fields = new(db);

    /// <summary>The record of a new employment. Its own facts are true from its first day; the person's from the day they became
    /// known, or the first day if that is earlier.</summary>
    public async Task<RecordNow> AddNewAsync(
        Employment employment, IEnumerable<FieldValue> values, Change change, LocalDate today, CancellationToken cancellation = default)
    {
        var set = (await _fields.LiveAsync(cancellation)).Set;
        var held = new Dictionary<string, JsonElement>();
        var personFrom = LocalDate.Min(today, employment.Start);
        foreach (var value in values)
        {
            if (value.Value.ValueKind is JsonValueKind.Null or JsonValueKind.Undefined) continue;
            var field = set.Find(value.Field) ?? throw new ArgumentException($"There is no field {value.Field}.", nameof(values));
            var of = field.Of;
            var owner = of == FieldOwner.Person ? employment.PersonId : employment.Id;
            var stored = field.Sensitive ? await sensitive.SealAsync(db, owner, field.Key, value.Value, cancellation) : value.Value;
            held[value.Field] = stored;
            db.RecordValues.Add(new RecordValue
            {
                OwnerId = owner,
                Field = value.Field,
                Value = stored,
                Source = value.Source,
                Effective = EffectiveRange.ToDatabase(of == FieldOwner.Person ? personFrom : employment.Start, null),
                Known = EffectiveRange.KnownSince(change.At),
                ChangeId = change.Id,
            });
        }
        var record = new RecordNow { EmploymentId = employment.Id, PersonId = employment.PersonId };
        Project(set, record, held, employment, change.At, today);
        FollowEnd(employment, held);
        db.RecordsNow.Add(record);
        return record;
    }

    /// <summary>Lets one save of a record at a time through, from here to the end of the transaction: what is read of it then stays.</summary>
    public Task LockAsync(Guid employment, CancellationToken cancellation) =>
        db.Database.ExecuteSqlAsync($"select 1 from records_now where employment_id = {employment} for update", cancellation);

    /// <summary>Lets those who enter values into the same unique fields come one after the other, to the end of the transaction.</summary>
    public async Task HoldUniqueAsync(IEnumerable<string> keys, CancellationToken cancellation)
    {
        var set = (await _fields.LiveAsync(cancellation)).Set;
        foreach (var key in keys.Where(k => set.Find(k)?.Unique == true).Order(StringComparer.Ordinal))
            await db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtextextended({"unique " + key}, 0))", cancellation);
    }

    /// <summary>Keeps the list entries that values refer to from being deleted until the transaction ends. Throws where one is gone.</summary>
    public async Task HoldEntriesAsync(IEnumerable<(string Field, JsonElement? Value)> values, CancellationToken cancellation)
    {
        var fields = await _fields.LiveAsync(cancellation);
        var wanted = values.Where(v => fields.ListOf(v.Field) is not null && v.Value is not null)
            .SelectMany(v => FieldValues.Texts(v.Value!.Value).Select(code => (fields.ListOf(v.Field)!, code.ToLowerInvariant()))).Distinct().ToArray();
        if (wanted.Length == 0) return;
        var (lists, codes) = (wanted.Select(w => w.Item1).ToArray(), wanted.Select(w => w.Item2).ToArray());
        var held = await db.Database.SqlQuery<int>($"""
            select 1 as "Value" from list_entries e join unnest({lists}, {codes}) w(list, code) on e.list = w.list and lower(e.code) = w.code for key share of e
            """).ToListAsync(cancellation);
        if (held.Count < wanted.Length) throw new DbUpdateConcurrencyException("A list entry that was chosen has been deleted.");
    }

    /// <summary>Changes fields of a record, and its projection. The employment and the projection are tracked by the caller's
    /// context; nothing is sent to the database but reads.</summary>
    public async Task EditAsync(
        Employment employment, RecordNow record, IReadOnlyList<FieldEdit> edits, Change change, LocalDate today, CancellationToken cancellation)
    {
        var set = (await _fields.LiveAsync(cancellation)).Set;
        var fields = edits.Select(e => e.Field).ToArray();
        var rows = await Believed(employment).Where(v => fields.Contains(v.Field)).ToListAsync(cancellation);
        foreach (var edit in edits)
        {
            var field = set.Find(edit.Field)!;
            var owner = field.Of == FieldOwner.Person ? employment.PersonId : employment.Id;
            var mine = rows.Where(r => r.OwnerId == owner && r.Field == edit.Field).ToDictionary(ToSpell);
            var entered = edit.Value is { } v ? new Valued(field.Sensitive ? await sensitive.SealAsync(db, owner, field.Key, v, cancellation) : v, edit.Source) : null;
            var timeline = edit.From is { } from
                ? Timeline.Change([.. mine.Keys], from, entered)
                : Timeline.Fix([.. mine.Keys], AsOf(employment, today), entered, LocalDate.Min(employment.Start, today));
            Apply(timeline, mine, owner, edit.Field, change);
        }
        await ReprojectAsync(employment, record, change.At, today, cancellation);
        if (edits.Any(e => set.Find(e.Field)!.Of == FieldOwner.Person)) await ReprojectOthersAsync(employment, change.At, today, cancellation);
    }

    /// <summary>Moves the day from which an employment's first values hold, when its first day moves.</summary>
    /// <param name="anew">First values that become others with it, by field.</param>
    public async Task MoveStartAsync(
        Employment employment, RecordNow record, LocalDate to, IReadOnlyDictionary<string, JsonElement> anew, Change change, LocalDate today, CancellationToken cancellation)
    {
        var from = employment.Start;
        employment.Start = to;
        var rows = await Believed(employment).Where(v => v.OwnerId == employment.Id).ToListAsync(cancellation);
        foreach (var field in rows.GroupBy(r => r.Field))
        {
            var mine = field.ToDictionary(ToSpell);
            var timeline = Timeline.MoveFirst([.. mine.Keys], from, to);
            if (anew.TryGetValue(field.Key, out var value) && timeline.Added is [var first])
                timeline = timeline with { Added = [first with { Value = first.Value with { Json = value } }] };
            Apply(timeline, mine, employment.Id, field.Key, change);
        }
        await ReprojectAsync(employment, record, change.At, today, cancellation);
    }

    /// <summary>Brings a record's projection to a day: what was entered for it beforehand shows from then on.</summary>
    public Task RefreshAsync(Employment employment, RecordNow record, Instant at, LocalDate today, CancellationToken cancellation) =>
        ReprojectAsync(employment, record, at, today, cancellation);

    /// <summary>Takes a change back: what it made believed is no longer, and what it retired is believed again. False, with nothing
    /// done, where a later change has touched the same values.</summary>
    public async Task<bool> TakeBackAsync(Employment employment, RecordNow record, Change taken, Change change, LocalDate today, CancellationToken cancellation)
    {
        var touched = await TouchedBy(employment, taken).ToListAsync(cancellation);
        var added = touched.Where(v => v.ChangeId == taken.Id).ToList();
        if (added.Exists(v => !v.Known.UpperBoundInfinite)) return false;
        var fields = touched.Select(v => v.Field).Distinct().ToArray();
        var later = await Believed(employment).Where(v => fields.Contains(v.Field) && v.ChangeId != taken.Id).ToListAsync(cancellation);
        foreach (var value in added) value.End(change);
        foreach (var retired in touched.Where(v => v.ChangeId != taken.Id))
        {
            var (from, to) = EffectiveRange.FromDatabase(retired.Effective);
            if (later.Exists(l => l.OwnerId == retired.OwnerId && l.Field == retired.Field && ToSpell(l) is var spell && spell.From <= (to ?? LocalDate.MaxIsoValue) && (spell.To ?? LocalDate.MaxIsoValue) >= from)) return false;
            db.RecordValues.Add(new RecordValue
            {
                OwnerId = retired.OwnerId,
                Field = retired.Field,
                Value = retired.Value,
                Source = retired.Source,
                Effective = retired.Effective,
                Known = EffectiveRange.KnownSince(change.At),
                ChangeId = change.Id,
            });
        }
        await ReprojectAsync(employment, record, change.At, today, cancellation);
        if (touched.Exists(v => v.OwnerId == employment.PersonId)) await ReprojectOthersAsync(employment, change.At, today, cancellation);
        return touched.Count > 0;
    }

    /// <summary>The values a change of a record added or retired.</summary>
    public IQueryable<RecordValue> TouchedBy(Employment employment, Change change) => db.RecordValues.Where(v =>
        (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId) && (v.ChangeId == change.Id || v.EndedBy == change.Id));

    private IQueryable<RecordValue> Believed(Employment employment) => db.RecordValues
        .Where(v => (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId) && v.Known.UpperBoundInfinite);

    /// <summary>The day for which a record is shown: today, or the first day of somebody who has not started.</summary>
    public static LocalDate AsOf(Employment employment, LocalDate today) => LocalDate.Max(today, employment.Start);

    // What is a fact of the person shows in every stint of theirs.
    private async Task ReprojectOthersAsync(Employment employment, Instant at, LocalDate today, CancellationToken cancellation)
    {
        var (person, own) = (employment.PersonId, employment.Id);
        foreach (var other in await db.Employments.Where(e => e.PersonId == person && e.Id != own).OrderBy(e => e.Id).ToListAsync(cancellation))
            if (await db.RecordsNow.SingleOrDefaultAsync(r => r.EmploymentId == other.Id, cancellation) is { } record) await ReprojectAsync(other, record, at, today, cancellation);
    }

    private async Task ReprojectAsync(Employment employment, RecordNow record, Instant at, LocalDate today, CancellationToken cancellation)
    {
        var asOf = AsOf(employment, today);
        var stored = await Believed(employment).Where(v => v.Effective.Contains(asOf)).ToListAsync(cancellation);
        var tracked = db.ChangeTracker.Entries<RecordValue>()
            .Where(e => e.State is EntityState.Added or EntityState.Modified).Select(e => e.Entity).ToList();
        var held = stored.Concat(tracked)
            .Where(v => v.Known.UpperBoundInfinite && (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId))
            .Where(v => ToSpell(v).Holds(asOf))
            .DistinctBy(v => v.Id)
            .ToDictionary(v => v.Field, v => v.Value);
        Project((await _fields.LiveAsync(cancellation)).Set, record, held, employment, at, today);
        FollowEnd(employment, held);
    }

    // The last day is what the record says, but for a stint that never was.
    private static void FollowEnd(Employment employment, Dictionary<string, JsonElement> held)
    {
        if (employment.NeverWas) return;
        employment.End = held.TryGetValue("end_date", out var end) && end.ValueKind == JsonValueKind.String && LocalDatePattern.Iso.Parse(end.GetString()!) is { Success: true } day
            ? LocalDate.Max(day.Value, employment.Start) : null;
    }

    private void Apply(
        TimelineEdit<Valued> edit, Dictionary<Spell<Valued>, RecordValue> rows, Guid owner, string field, Change change)
    {
        foreach (var retired in edit.Retired)
            rows[retired].End(change);
        foreach (var spell in edit.Added)
        {
            db.RecordValues.Add(new RecordValue
            {
                OwnerId = owner,
                Field = field,
                Value = spell.Value.Json,
                Source = spell.Value.Source,
                Effective = EffectiveRange.ToDatabase(spell.From, spell.To),
                Known = EffectiveRange.KnownSince(change.At),
                ChangeId = change.Id,
            });
        }
    }

    private static Spell<Valued> ToSpell(RecordValue row)
    {
        var (from, to) = EffectiveRange.FromDatabase(row.Effective);
        return new Spell<Valued>(new Valued(row.Value, row.Source), from, to);
    }

    /// <summary>What is read of a record without looking at its values, from the values it holds on the day that counts for it.</summary>
    /// <param name="at">When it was saved.</param>
    public static void Project(FieldSet set, RecordNow record, Dictionary<string, JsonElement> held, Employment employment, Instant at, LocalDate today)
    {
        record.GivenName = Text("given_name") ?? "";
        record.FamilyName = Text("family_name") ?? "";
        record.Email = Text("email");
        record.SiteCode = Text("site");
        record.DepartmentCode = Text("department");
        record.JobCode = Text("job");
        record.Kind = Text("kind");
        record.Badge = Text("badge");
        record.CalendarCode = Text("holiday_calendar");
        record.ManagerId = Guid.TryParse(Text("manager"), out var manager) ? manager : null;
        record.BuddyId = Guid.TryParse(Text("buddy"), out var buddy) ? buddy : null;
        record.AsOf = AsOf(employment, today);
        record.Saved = at;
        var completeness = Completeness.Count(set, held, record.AsOf);
        record.Missing = [.. completeness.Missing];
        record.Filled = completeness.Filled;
        record.Of = completeness.Of;
        record.Search = TextRules.SearchWords($"{record.GivenName} {record.FamilyName} {record.GivenName} {employment.Number}");

        string? Text(string field) => held.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString() : null;
    }

    // Compared by identity of the row's content, so that a spell leads back to its row.
    private sealed record Valued(JsonElement Json, string Source);
}

/// <summary>A value of a field, and where it came from.</summary>
public sealed record FieldValue(string Field, JsonElement Value, string Source);

/// <summary>A field to change.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Value">The new value; null for none.</param>
/// <param name="Source">Where it comes from.</param>
/// <param name="From">The day from which the new value holds; null to correct the present one.</param>
public sealed record FieldEdit(string Field, JsonElement? Value, string Source, LocalDate? From);
