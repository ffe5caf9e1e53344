using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.People;
using Fid.Data.Changes;
using Fid.Data.Fields;
using Fid.Data.Hires;
using Fid.Data.Lists;
using Fid.Data.People;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Data.Exchange;

/// <summary>
/// The firm's people, as what a sheet goes into: a row for each employment, known by its employee number, with a column for every
/// field that somebody with certain roles may see. What they may not edit can stand in the sheet, and may not differ there. A row
/// with a role template opens a hire: of a newcomer without a number, or of somebody known as a new stint under theirs.
/// </summary>
public sealed class PeopleTarget(FidDb db, RecordWriter writer, HireOpening opening, HireClosing closing, PeopleIndex people, LiveFields fields, IReadOnlyCollection<string> roles) : ImportTarget
{
    /// <summary>The people's name among what sheets go into.</summary>
    public const string Key = EntryCheck.People;

    /// <summary>The column that says from which role template a row opens a hire.</summary>
    public const string Template = "role_template";

    private const int SavedAtOnce = 50;

    private ListDefinition? _definition;

    private static readonly ListColumn TemplateColumn = new(
        Template, ColumnType.Text, new Label("Role template", "Rollenvorlage"), new Label(
            "To open a hire: the template it starts from. Leave the employee number empty; give it for a new stint of somebody known, or “new” where somebody only looks known.",
            "Um eine Einstellung zu öffnen: die Vorlage, mit der sie beginnt. Die Personalnummer leer lassen; sie angeben, wenn jemand Bekanntes wiederkommt, oder „neu“, wenn jemand nur bekannt aussieht."));

    /// <summary>The fields that have a column, in the order in which they are configured.</summary>
    public IReadOnlyList<FieldDefinition> Fields { get; } = [.. fields.Sections.SelectMany(s => fields.Set.Fields.Where(f => f.Section == s.Key))
        .Where(f => FieldCell.Has(f) && f.AccessOf(roles) != FieldAccess.None)];

    public override ListDefinition Definition => _definition ??= new(
        Key, ListGroup.Work, new Label("People", "Personen"),
        new Label("Everybody’s record, a row each, known by the employee number.", "Die Akte aller, je eine Zeile, erkannt an der Personalnummer."),
        [TemplateColumn, .. Fields.Select(FieldCell.Column)], HasNames: false);

    public override async Task<IRowChecker> CheckerAsync(ImportRun run, CellStyle style, LocalDate today, CancellationToken cancellation) =>
        await PeopleRowChecker.LoadAsync(db, this, run, style, today, cancellation);

    public override async Task<CellSuggestions> SuggestionsAsync(CancellationToken cancellation) => new(Definition, await EntryIndex.LoadAsync(db, Definition, cancellation));

    public override IEnumerable<CellDifference> Differences(string before, RowContent after)
    {
        var cells = JsonNode.Parse(before)!;
        // What could be seen when the sheet came may be hidden by now.
        foreach (var (field, was) in cells["was"]!.AsObject().Where(c => Definition.Find(c.Key) is not null)) yield return new CellDifference(field, (string)was!, (string)cells["becomes"]![field]!);
    }

    /// <summary>The column of the first day, which only a row that opens a hire sets.</summary>
    public const string StartDate = "start_date";

    /// <summary>Among the values of a row that opens a hire, the id of the person it is a new stint of; no column has it.</summary>
    internal const string StintOf = "stint_of";

    internal FieldSet Set => fields.Set;

    /// <summary>Finds who of the firm somebody is, by what whoever began the import may see; nobody where names may not be seen.</summary>
    internal async Task<PersonMatcher> KnownAsync(CancellationToken cancellation) =>
        Sees("given_name") && Sees("family_name") ? await people.MatcherAsync(db, Sees, cancellation) : new PersonMatcher([]);

    private bool Sees(string field) => fields.Set.Find(field) is { } known && known.AccessOf(roles) != FieldAccess.None;

    internal bool MayEdit(FieldDefinition field) => field.AccessOf(roles) == FieldAccess.Edit;

    internal override async Task<bool> ApplyAsync(ImportRun run, Author author, LocalDate today, Func<int, Task> tell, CancellationToken cancellation)
    {
        var changed = (short)RowOutcome.Changed;
        await db.Database.ExecuteSqlAsync($"""
            select 1 from records_now where employment_id in (select entry_id from import_rows where run_id = {run.Id} and generation = {run.Generation} and outcome = {changed})
            order by employment_id for update
            """, cancellation);
        var rows = await RowsAsync(run, cancellation);
        var hires = (await StoredAsync(run, RowOutcome.New, cancellation)).ConvertAll(r => new Row(r.EntryId, ByField(r.Values), []));
        await writer.HoldUniqueAsync(rows.Concat(hires).SelectMany(r => r.Entered.Keys).Distinct(), cancellation);
        if (rows.Count < run.Changed || !await StandsAsync(run, [.. rows, .. hires], cancellation) || !await OpenAsync(run, hires, author, today, tell, cancellation)) return false;
        if (rows.Count == 0) return true;
        var calendars = fields.Set.CountsWorkingDays ? await CalendarBook.LoadAsync(db, cancellation) : null;
        var held = (await ActiveRecords.LoadAsync(db, today, cancellation, run.HoldsFrom, former: true, only: [.. rows.Select(r => r.EntryId)])).Records;
        var done = run.New;
        foreach (var some in rows.Chunk(SavedAtOnce))
        {
            var (employments, records) = await ReadAsync(some.Select(r => r.EntryId), cancellation);
            foreach (var row in some)
            {
                var (employment, record, values) = (employments[row.EntryId], records[row.EntryId], held[row.EntryId].Values);
                // Somebody may have saved the record since the rows were checked.
                if (row.Was.Any(w => (values.TryGetValue(w.Key, out var now) ? now.GetRawText() : null) != w.Value?.GetRawText())) return false;
                var (ruled, problems) = RecordRules.Follow(fields.Set, values, row.Entered, today, v => calendars?.OfRecord(v));
                if (problems.Count > 0) return false;
                var change = author.Change(run.HoldsFrom is null ? "record.fixed" : "record.changed", employment.Id, run.Id.ToString(), run.FileName);
                db.Changes.Add(change);
                var edits = row.Entered.Select(e => new FieldEdit(e.Key, e.Value, Core.Templates.Layer.Typed, run.HoldsFrom)).Concat(ruled.Select(r => r with { From = run.HoldsFrom })).ToList();
                await writer.EditAsync(employment, record, edits, change, today, cancellation);
            }
            await db.SaveChangesAsync(cancellation);
            db.ChangeTracker.Clear();
            await tell(done += some.Length);
        }
        return true;
    }

    internal override async Task<string?> UndoAsync(ImportRun run, Author author, LocalDate today, CancellationToken cancellation)
    {
        var (part, touched) = (run.Id.ToString(), new List<string>());
        foreach (var some in (await StoredAsync(run, RowOutcome.New, cancellation)).Select(r => r.EntryId).Chunk(SavedAtOnce))
        {
            await WithdrawAsync(run, some, touched, author, today, cancellation);
            if (touched.Count == 0) await db.SaveChangesAsync(cancellation);
            db.ChangeTracker.Clear();
        }
        foreach (var some in (await RowsAsync(run, cancellation)).Chunk(SavedAtOnce))
        {
            var ids = some.Select(r => r.EntryId).ToArray();
            foreach (var id in ids.Order()) await writer.LockAsync(id, cancellation);
            var (employments, records) = await ReadAsync(ids, cancellation);
            var changes = await db.Changes.AsNoTracking().Where(c => ids.Contains(c.SubjectId) && c.Part == part && (c.Action == "record.fixed" || c.Action == "record.changed")).ToListAsync(cancellation);
            foreach (var taken in changes)
            {
                var employment = employments[taken.SubjectId];
                var change = author.Change("record.takenBack", employment.Id, taken.Id.ToString(), run.FileName);
                db.Changes.Add(change);
                if (!await writer.TakeBackAsync(employment, records[employment.Id], taken, change, today, cancellation)) touched.Add(employment.Number);
            }
            if (touched.Count == 0) await db.SaveChangesAsync(cancellation);
            db.ChangeTracker.Clear();
        }
        return touched.Count == 0 ? null : "changed:" + Name(touched);
    }

    // What a run opened comes to nothing again, unless somebody has begun to work on it.
    private async Task WithdrawAsync(ImportRun run, Guid[] ids, List<string> touched, Author author, LocalDate today, CancellationToken cancellation)
    {
        var hires = await db.Hires.Include(h => h.Tasks).Where(h => ids.Contains(h.Id)).OrderBy(h => h.EmploymentId).ToListAsync(cancellation);
        foreach (var hire in hires) await writer.LockAsync(hire.EmploymentId, cancellation);
        var (employments, records) = await ReadAsync(hires.Select(h => h.EmploymentId), cancellation);
        var subjects = hires.SelectMany(h => new[] { h.Id, h.EmploymentId }).ToArray();
        var since = run.CommittedAt!.Value;
        var worked = (await db.Changes.Where(c => subjects.Contains(c.SubjectId) && c.At > since).Select(c => c.SubjectId).Distinct().ToListAsync(cancellation)).ToHashSet();
        foreach (var hire in hires)
        {
            var employment = employments[hire.EmploymentId];
            if (hire.Closed is not null || worked.Contains(hire.Id) || worked.Contains(employment.Id))
            {
                touched.Add(employment.Number);
                continue;
            }
            var change = author.Change("hire.withdrawn", hire.Id, run.Id.ToString(), run.FileName);
            db.Changes.Add(change);
            await closing.CloseAsync((hire, employment, records[employment.Id]), HireOutcome.Withdrawn, run.FileName, change, today, cancellation);
        }
    }

    // Opens the hires of a run, each from its template as one typed by hand is.
    private async Task<bool> OpenAsync(ImportRun run, List<Row> rows, Author author, LocalDate today, Func<int, Task> tell, CancellationToken cancellation)
    {
        if (rows.Count == 0) return true;
        await opening.LockBadgesAsync(cancellation);
        var templates = await TemplateBook.LoadAsync(db, cancellation);
        var done = 0;
        foreach (var some in rows.Chunk(SavedAtOnce))
        {
            foreach (var row in some)
            {
                var typed = row.Entered.ToDictionary(v => v.Key, v => v.Value!.Value, StringComparer.Ordinal);
                if (!typed.Remove(Template, out var code) || templates.Find(code.GetString()!) is not { Opens: true } template || !typed.Remove(StartDate, out var first)) return false;
                var start = LocalDatePattern.Iso.Parse(first.GetString()!).Value;
                var origin = typed.Remove(StintOf, out var whose) ? HireOrigin.New with { Person = whose.GetGuid() } : null;
                if (origin is { Person: { } known } && await Employment.AnyGoesOnAsync(db, known, start, null, cancellation)) return false;
                if ((await opening.DraftAsync(templates, template, typed, start, today, cancellation, origin)).Answer is not { } draft) return false;
                await opening.AddAsync(
                    draft, row.EntryId, await opening.NextNumberAsync(start, cancellation), start, LocalDate.Min(today, start), run.ById, author, today, cancellation);
            }
            await db.SaveChangesAsync(cancellation);
            db.ChangeTracker.Clear();
            await tell(done += some.Length);
        }
        return true;
    }

    // Whether every value may still be entered: the fields, who may edit them and what others hold can have changed since.
    private async Task<bool> StandsAsync(ImportRun run, List<Row> rows, CancellationToken cancellation)
    {
        foreach (var row in rows)
            foreach (var (key, value) in row.Entered.Where(e => e.Key is not (Template or StartDate or StintOf)))
                if (fields.Set.Find(key) is not { } field || !MayEdit(field) || (value is { } v && ValueCheck.Check(field, v) is not (not null, null))) return false;
        foreach (var key in rows.SelectMany(r => r.Entered.Keys).Distinct().Where(k => fields.Set.Find(k)?.Unique == true))
        {
            var (changed, own) = ((short)RowOutcome.Changed, fields.Set.Find(key)!.Of == FieldOwner.Person);
            var taken = await db.Database.SqlQuery<int>($"""
                select 1 as "Value" from import_rows r left join employments e on e.id = r.entry_id join record_values v on v.field = {key} and md5(v.value #>> array[]::text[]) = md5(r.values -> {key} #>> array[]::text[]) and v.value = r.values -> {key}
                where r.run_id = {run.Id} and r.generation = {run.Generation} and r.outcome <= {changed} and upper_inf(v.known) and v.owner_id is distinct from case when {own} then e.person_id else e.id end limit 1
                """).AnyAsync(cancellation);
            if (taken) return false;
        }
        try
        {
            await writer.HoldEntriesAsync(rows.SelectMany(r => r.Entered.Select(e => (e.Key, e.Value))), cancellation);
            return true;
        }
        catch (DbUpdateConcurrencyException)
        {
            return false;
        }
    }

    private async Task<(Dictionary<Guid, Employment> Employments, Dictionary<Guid, RecordNow> Records)> ReadAsync(IEnumerable<Guid> ids, CancellationToken cancellation)
    {
        var wanted = ids.ToArray();
        return (await db.Employments.Where(e => wanted.Contains(e.Id)).ToDictionaryAsync(e => e.Id, cancellation),
            await db.RecordsNow.Where(r => wanted.Contains(r.EmploymentId)).ToDictionaryAsync(r => r.EmploymentId, cancellation));
    }

    private async Task<List<Row>> RowsAsync(ImportRun run, CancellationToken cancellation)
    {
        var rows = await StoredAsync(run, RowOutcome.Changed, cancellation);
        return rows.ConvertAll(r => new Row(r.EntryId, ByField(r.Values), ByField(r.Was!.Value)));
    }

    private Task<List<StoredRow>> StoredAsync(ImportRun run, RowOutcome outcome, CancellationToken cancellation)
    {
        var wanted = (short)outcome;
        return db.Database.SqlQuery<StoredRow>($"""
            select entry_id, values, before -> 'values' as was from import_rows
            where run_id = {run.Id} and generation = {run.Generation} and outcome = {wanted} order by no
            """).ToListAsync(cancellation);
    }

    private static Dictionary<string, JsonElement?> ByField(JsonElement values) =>
        values.EnumerateObject().ToDictionary(v => v.Name, v => v.Value.ValueKind == JsonValueKind.Null ? (JsonElement?)null : v.Value, StringComparer.Ordinal);

    private sealed record StoredRow(Guid EntryId, JsonElement Values, JsonElement? Was);

    private sealed record Row(Guid EntryId, Dictionary<string, JsonElement?> Entered, Dictionary<string, JsonElement?> Was);
}
