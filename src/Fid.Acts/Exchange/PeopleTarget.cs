using Fid.Acts.Hires;
using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.People;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Exchange;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Acts.Exchange;

/// <summary>
/// The firm's people, as what a sheet goes into: a row for each employment, known by its employee number, with a column for every
/// field that its reader may see. What they may not edit can stand in the sheet, and may not differ there. A row
/// with a role template opens a hire: of a newcomer without a number, or of somebody known as a new stint under theirs.
/// </summary>
public sealed class PeopleTarget(FidDb db, RecordWriter writer, UniqueValues unique, OpenHire open, HireClosing closing, PeopleIndex people, Reader reader)
    : RecordTarget(db, writer, reader)
{
    /// <summary>The people's name among what sheets go into.</summary>
    public const string Key = EntryCheck.People;

    /// <summary>The column that says from which role template a row opens a hire.</summary>
    public const string Template = "role_template";

    private const int OpenedAtOnce = 100;

    private ListDefinition? _definition;

    private static readonly ListColumn TemplateColumn = new(
        Template,
        ColumnType.Text,
        new Label("Role template", "Rollenvorlage"),
        new Label(
            "To open a hire: the template it starts from. Leave the employee number empty; give it for a new stint of somebody known, or “new” "
                + "where somebody only looks known.",
            "Um eine Einstellung zu öffnen: die Vorlage, mit der sie beginnt. Die Personalnummer leer lassen; sie angeben, wenn jemand "
                + "Bekanntes wiederkommt, oder „neu“, wenn jemand nur bekannt aussieht."
        )
    );

    /// <summary>The fields that have a column, in the order in which they are configured.</summary>
    public IReadOnlyList<FieldDefinition> Fields { get; } =
    [.. reader.Fields.Sections.SelectMany(s => reader.Fields.Set.Fields.Where(f => f.Section == s.Key)).Where(f => FieldCell.Has(f) && reader.Sees(f.Key))];

    public override ListDefinition Definition =>
        _definition ??= new(
            Key,
            ListGroup.Work,
            new Label("People", "Personen"),
            new Label("Everybody’s record, a row each, known by the employee number.", "Die Akte aller, je eine Zeile, erkannt an der Personalnummer."),
            [TemplateColumn, .. Fields.Select(FieldCell.Column)],
            HasNames: false
        );

    public override async Task<IRowChecker> CheckerAsync(ImportRun run, CellStyle style, LocalDate today, CancellationToken cancellation) =>
        await PeopleRowChecker.LoadAsync(Db, this, run, style, today, cancellation);

    public override async Task<CellSuggestions> SuggestionsAsync(CancellationToken cancellation) =>
        new(Definition, await EntryIndex.LoadAsync(Db, Definition, cancellation));

    // The column of the first day, which only a row that opens a hire sets.
    private const string StartDate = StartCorrection.Field;

    /// <summary>Among the values of a row that opens a hire, the id of the person it is a new stint of; no column has it.</summary>
    internal const string StintOf = "stint_of";

    /// <summary>Finds who of the firm somebody is, by what the user who began the import may see; nobody where names may not be seen.</summary>
    internal async Task<PersonMatcher> KnownAsync(CancellationToken cancellation) =>
        Reader.SeesNames ? await people.MatcherAsync(Db, Reader.Sees, cancellation) : new PersonMatcher([]);

    /// <summary>For each of some values that only one may have, who has it now.</summary>
    internal Task<IReadOnlyList<IReadOnlyCollection<Guid>>> HoldersAsync(IReadOnlyList<UniqueClaim> claims, CancellationToken cancellation) =>
        unique.HoldersAsync(claims, cancellation);

    internal override async Task<bool> ApplyAsync(ImportRun run, Actor actor, Func<int, Task> tell, CancellationToken cancellation)
    {
        var rows = await RowsAsync(run, RowOutcome.Changed, cancellation);
        var hires = (await StoredAsync(run, RowOutcome.New, cancellation)).ConvertAll(r => new Row(r.EntryId, ByField(r.Values), []));
        await Locks.RecordsAsync(Db, rows.Select(r => r.EntryId), cancellation);
        return rows.Count == run.Changed
            && StillFit(rows)
            && await OpenAsync(hires, actor, tell, cancellation)
            && await EditAsync(run, rows, run.New, actor, tell, cancellation);
    }

    internal override async Task<string?> UndoAsync(ImportRun run, Actor actor, CancellationToken cancellation)
    {
        var (touched, author) = (new List<string>(), actor.Author(Place));
        var (opened, rows) = (
            (await StoredAsync(run, RowOutcome.New, cancellation)).ConvertAll(r => r.EntryId),
            await RowsAsync(run, RowOutcome.Changed, cancellation)
        );
        var hired = await Db.Hires.Where(h => opened.Contains(h.Id)).Select(h => h.EmploymentId).ToListAsync(cancellation);
        await Locks.RecordsAsync(Db, [.. hired, .. rows.Select(r => r.EntryId)], cancellation);
        foreach (var some in opened.Chunk(RecordRun.SavedAtOnce))
        {
            await WithdrawAsync(run, some, touched, author, actor.Today, cancellation);
            if (touched.Count == 0)
                await Db.SaveChangesAsync(cancellation);
            Db.ChangeTracker.Clear();
        }
        touched.AddRange(await TakeBackAsync(run, rows, touched.Count == 0, author, actor.Today, cancellation));
        return touched.Count == 0 ? null : "changed:" + Name(touched);
    }

    // What a run opened comes to nothing again, unless somebody has begun to work on it.
    private async Task WithdrawAsync(ImportRun run, Guid[] ids, List<string> touched, Author author, LocalDate today, CancellationToken cancellation)
    {
        var hires = await Db.Hires.Include(h => h.Tasks).Where(h => ids.Contains(h.Id)).OrderBy(h => h.EmploymentId).ToListAsync(cancellation);
        var (employments, records) = await Writer.ReadAsync(hires.Select(h => h.EmploymentId), cancellation);
        var subjects = hires.SelectMany(h => new[] { h.Id, h.EmploymentId }).ToArray();
        var since = run.CommittedAt!.Value;
        var worked = (
            await Db.Changes.Where(c => subjects.Contains(c.SubjectId) && c.At > since).Select(c => c.SubjectId).Distinct().ToListAsync(cancellation)
        ).ToHashSet();
        foreach (var hire in hires)
        {
            var employment = employments[hire.EmploymentId];
            if (hire.Closed is not null || worked.Contains(hire.Id) || worked.Contains(employment.Id))
            {
                touched.Add(employment.Number);
                continue;
            }
            var change = author.Change("hire.withdrawn", hire.Id, run.Id.ToString(), run.FileName);
            Db.Changes.Add(change);
            await closing.CloseAsync(
                new HireInHand(hire, employment, records[employment.Id]),
                HireOutcome.Withdrawn,
                run.FileName,
                change,
                today,
                cancellation
            );
        }
    }

    // Opens the hires of a run as those typed by hand are opened; whether somebody is known was said in the sheet.
    private async Task<bool> OpenAsync(List<Row> rows, Actor actor, Func<int, Task> tell, CancellationToken cancellation)
    {
        var done = 0;
        foreach (var some in rows.Chunk(OpenedAtOnce))
        {
            var hires = some.Select(Request).ToList();
            if (hires.Contains(null) || (await open.DoAsync(new OpenHireRequest(hires!, PeopleAreDecided: true), actor, cancellation)).Refusal is not null)
                return false;
            Db.ChangeTracker.Clear();
            await tell(done += some.Length);
        }
        return true;

        static NewHireRequest? Request(Row row)
        {
            var typed = row.Entered.ToDictionary(v => v.Key, v => v.Value!.Value, StringComparer.Ordinal);
            if (!typed.Remove(Template, out var template) || !typed.Remove(StartDate, out var start))
                return null;
            Guid? person = typed.Remove(StintOf, out var whose) ? whose.GetGuid() : null;
            return new NewHireRequest(row.EntryId, template.GetString()!, LocalDatePattern.Iso.Parse(start.GetString()!).Value, typed, person, BackDated: true);
        }
    }
}
