using System.Globalization;
using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Fields;
using Fid.Core.Json;
using Fid.Core.Lists;
using Fid.Core.People;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.People;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Acts.Exchange;

/// <summary>Says of each row of a sheet what it would change in whose record.</summary>
internal sealed class PeopleRowChecker : IRowChecker
{
    private readonly PeopleTarget _target;
    private readonly CellStyle _style;
    private readonly bool _emptyClears;
    private readonly LocalDate _today;
    private readonly int _number,
        _template;
    private readonly (FieldDefinition Field, int At)[] _columns;
    private readonly SheetRecords _records;
    private readonly Dictionary<(string Field, string Value), IReadOnlyCollection<Guid>> _holders = [];
    private readonly Dictionary<(string Field, string Value), Guid> _claimed = [];
    private readonly bool _isGerman;
    private readonly PersonMatcher _known;
    private readonly ILookup<Guid, Employment> _stints;
    private PersonMatcher _new = new([]);
    private Dictionary<string[], PersonMatch?> _likeliest = [];
    private readonly TemplateSet _templates;
    private readonly CalendarSet? _calendars;
    private readonly Dictionary<string, int> _seen = new(StringComparer.Ordinal);

    private PeopleRowChecker(
        PeopleTarget target,
        ImportRun run,
        CellStyle style,
        LocalDate today,
        SheetRecords records,
        TemplateSet templates,
        PersonMatcher known,
        CalendarSet? calendars,
        bool isGerman
    )
    {
        (_templates, _known, _isGerman) = (templates, known, isGerman);
        (_target, _style, _emptyClears, _today, _records, _calendars) = (target, style, run.EmptyClears, today, records, calendars);
        (_number, _template) = (Array.IndexOf(run.Columns, EntryReader.Code), Array.IndexOf(run.Columns, PeopleTarget.Template));
        _columns = [.. target.Fields.Select(f => (f, Array.IndexOf(run.Columns, f.Key))).Where(c => c.Item2 >= 0)];
        _stints = records.Employments.ToLookup(e => e.PersonId);
    }

    public static async Task<PeopleRowChecker> LoadAsync(
        FidDb db,
        PeopleTarget target,
        ImportRun run,
        CellStyle style,
        LocalDate today,
        CancellationToken cancellation
    ) =>
        new PeopleRowChecker(
            target,
            run,
            style,
            today,
            await SheetRecords.LoadAsync(db, target.Reader, target.Definition, run, today, cancellation),
            await TemplateSet.LoadAsync(db, cancellation),
            await target.KnownAsync(cancellation),
            target.Set.CountsWorkingDays ? await CalendarSet.LoadAsync(db, cancellation) : null,
            await db.Users.AnyAsync(u => u.Id == run.ById && u.Language == "de", cancellation)
        );

    // A sheet of nothing but new hires changes nobody.
    public bool AnnouncesFirst => _number >= 0;

    public void Announce(string[] cells) => _records.Announce(RowChecker.Cell(cells, _number));

    public Task LoadAnnouncedAsync(CancellationToken cancellation) => _records.LoadAnnouncedAsync(cancellation);

    public ImportRow Check(int number, string[] cells)
    {
        var who = RowChecker.Cell(cells, _number);
        if (cells.All(string.IsNullOrWhiteSpace) || who.StartsWith(RowChecker.Example, StringComparison.OrdinalIgnoreCase))
            return new ImportRow(number, cells, RowOutcome.Ignored, null, null, null, []);
        if (RowChecker.Cell(cells, _template) is { Length: > 0 } template)
            return CheckNew(number, cells, template, who);
        if (who.Length == 0)
            return Wrong(
                new EntryProblem(EntryReader.Code, "missing", "Say by the employee number whose row this is, or name a role template to open a hire.")
            );
        if (_records.Find(who) is not { } employment)
            return Wrong(new EntryProblem(EntryReader.Code, "unknown-person", $"Nobody has the employee number {who}."));
        if (!_seen.TryAdd(employment.Number, number))
            return Wrong(
                new EntryProblem(
                    EntryReader.Code,
                    "duplicate-code",
                    $"The number {employment.Number} stands in row {_seen[employment.Number]} already. Keep one of them."
                )
            );

        var held = _records.Held(employment);
        var problems = new List<EntryProblem>();
        var entered = new Dictionary<string, JsonElement?>(StringComparer.Ordinal);
        foreach (var (field, at) in _columns)
        {
            var cell = RowChecker.Cell(cells, at);
            if (cell.Length == 0 && !_emptyClears)
                continue;
            var (value, problem) = FieldCell.Read(field, cell, _style, _records.Refer);
            JsonElement? there = held.TryGetValue(field.Key, out var present) ? present : null;
            if (problem is not null)
                problems.Add(new EntryProblem(field.Key, problem.Code, problem.Message));
            else if (JsonValues.Same(value, there))
                continue;
            else if (!_target.MayEdit(field))
                problems.Add(new EntryProblem(field.Key, "read-only", "You may read this and not change it."));
            else if (value is { } id && field.Type == FieldType.Person && id.GetString() == employment.Id.ToString())
                problems.Add(new EntryProblem(field.Key, "self", "Choose somebody other than the person themselves."));
            else if (value is { } one && field.Unique && IsTaken(field, one, employment.PersonId))
                problems.Add(new EntryProblem(field.Key, "not-unique", UniqueValues.Taken(field.Key).Message));
            else
                entered[field.Key] = value;
        }
        if (problems.Count == 0 && entered.Count > 0)
        {
            var ruled = RecordRules.Follow(_target.Set, held, entered, _today, values => _calendars?.OfRecord(values));
            problems.AddRange(
                RecordRules.Misfits(entered, employment.Start).Concat(ruled.Problems).Select(p => new EntryProblem(p.Path[1..], p.Code, p.Message))
            );
            problems.AddRange(SheetApprovals.Problems(_target.Reader.Fields, _records.Distances, employment.Id, held, entered, ruled, _today, f => f));
        }
        if (problems.Count > 0)
            return Wrong([.. problems]);
        return entered.Count == 0
            ? new ImportRow(number, cells, RowOutcome.Same, employment.Id, null, null, [])
            : new ImportRow(
                number,
                cells,
                RowOutcome.Changed,
                employment.Id,
                new RowContent(employment.Number, "", null, JsonSerializer.Serialize(entered)),
                _records.Before(employment, entered),
                []
            );

        ImportRow Wrong(params EntryProblem[] problems) => new(number, cells, RowOutcome.Wrong, null, null, null, problems);
    }

    private ImportRow CheckNew(int number, string[] cells, string said, string who)
    {
        var hire = Guid.CreateVersion7();
        var problems = new List<EntryProblem>();
        var values = new Dictionary<string, JsonElement>(StringComparer.Ordinal);
        foreach (var (field, at) in _columns)
        {
            if (RowChecker.Cell(cells, at) is not { Length: > 0 } cell)
                continue;
            var (value, problem) = FieldCell.Read(field, cell, _style, _records.Refer);
            if (problem is not null)
                problems.Add(new EntryProblem(field.Key, problem.Code, problem.Message));
            else if (field.Key != StartCorrection.Field && !_target.MayEdit(field))
                problems.Add(new EntryProblem(field.Key, "read-only", "You may read this and not change it."));
            else if (value is { } there)
                values[field.Key] = there;
        }
        var start = values.Remove(StartCorrection.Field, out var first) ? LocalDatePattern.Iso.Parse(first.GetString()!).Value : (LocalDate?)null;
        if (start is null && problems.All(p => p.Column != StartCorrection.Field))
            problems.Add(new EntryProblem(StartCorrection.Field, "missing", "Say when the person starts."));
        var template = Opening(said);
        if (template is not null)
            problems.AddRange(Unworkable(template, values, start, problems));
        else
            problems.Add(new EntryProblem(PeopleTarget.Template, "unknown-template", $"There is no role template “{said}” to open a hire from."));
        if (Whose(number, cells, who, values, start, out var person) is { } undecided)
            problems.Add(undecided);
        // What a person had in an earlier stint is theirs to have again.
        problems.AddRange(
            _columns
                .Where(c => c.Field.Unique && values.ContainsKey(c.Field.Key) && IsTaken(c.Field, values[c.Field.Key], person ?? hire))
                .Select(c => new EntryProblem(c.Field.Key, "not-unique", UniqueValues.Taken(c.Field.Key).Message))
        );
        if (problems.Count > 0)
            return new ImportRow(number, cells, RowOutcome.Wrong, null, null, null, problems);
        (values[PeopleTarget.Template], values[StartCorrection.Field]) = (JsonSerializer.SerializeToElement(template!.Code), first);
        if (person is { } known)
            values[PeopleTarget.StintOf] = JsonSerializer.SerializeToElement(known);
        return new ImportRow(number, cells, RowOutcome.New, hire, new RowContent("", "", null, JsonSerializer.Serialize(values)), null, []);
    }

    // Why a hire cannot be opened from a template with what the row says so far, and which of the row's own mistakes that follows from.
    private List<EntryProblem> Unworkable(RoleTemplate template, Dictionary<string, JsonElement> values, LocalDate? start, List<EntryProblem> found)
    {
        var wrong = found.Select(p => p.Column).ToHashSet(StringComparer.Ordinal);
        var resolved = _templates.Resolve(template, values, start, _today);
        return resolved.Answer is { } layered
            ?
            [
                .. HireOpening.Lacking(layered.Values).Where(f => !wrong.Contains(f)).Select(f => new EntryProblem(f, "missing", "Fill this in.", Cause(f))),
                .. StartApprovals
                    .Asked(
                        _target.Reader.Fields,
                        _templates,
                        template,
                        layered.Values.ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal),
                        values,
                        _records.Distances,
                        start,
                        _today
                    )
                    .Select(f => new EntryProblem(f, RecordApprovals.NeedsApproval, StartApprovals.Message)),
            ]
            :
            [
                new EntryProblem(
                    PeopleTarget.Template,
                    "unworkable-template",
                    $"{template.Name} cannot be used: its values cannot be worked out.",
                    Cause(TemplateSet.FieldAt(resolved.Problems[0].Path))
                ),
            ];

        EntryCause? Cause(string? field) => EntryCause.InRow(_templates.CauseOf(field, template, _target.Set, wrong));
    }

    // Somebody the firm may know, or who stands in the sheet already, is asked about: nothing is opened while that is not said.
    private EntryProblem? Whose(int number, string[] cells, string who, Dictionary<string, JsonElement> values, LocalDate? start, out Guid? person)
    {
        person = null;
        var facts = PeopleIndex.Facts(values);
        if (who.Length > 0 && !IsNew(who))
        {
            if (_records.Find(who) is not { } stint)
                return new EntryProblem(
                    EntryReader.Code,
                    "unknown-person",
                    $"Nobody has the employee number {who}. Put “new” for somebody the firm does not know."
                );
            if (IsHere(stint.PersonId, start))
                return new EntryProblem(EntryReader.Code, "works-here", $"{who} works here then already. Take the row out, or open a second stint by hand.");
            if (!_seen.TryAdd(stint.Number, number))
                return new EntryProblem(
                    EntryReader.Code,
                    "duplicate-code",
                    $"The number {stint.Number} stands in row {_seen[stint.Number]} already. Keep one of them."
                );
            person = stint.PersonId;
            return null;
        }
        var twins = PeopleIndex.Same(_new, facts).Select(m => int.Parse(m.Id, CultureInfo.InvariantCulture)).ToList();
        _new = _new.And(number.ToString(CultureInfo.InvariantCulture), facts);
        if (IsNew(who))
            return null;
        if (twins is [_, ..] && twins.Min() is var twin)
            return Ask(
                "twice",
                $"Row {twin} says much the same person. Keep one of them, or put “new” as the employee number where they are two.",
                $"Zeile {twin} nennt fast dieselbe Person. Eine behalten, oder „neu“ als Personalnummer, wenn es zwei sind."
            );
        if (_likeliest.GetValueOrDefault(cells) is not { } match || _stints[Guid.Parse(match.Id)].MaxBy(e => e.Start) is not { } last)
            return null;
        return IsHere(last.PersonId, start)
            ? Ask(
                "already-known",
                $"This may be {last.Number}, who works here or is about to. Take the row out, or put “new” where it is somebody else.",
                $"Das könnte {last.Number} sein, schon da oder bald. Die Zeile weglassen, oder „neu“, wenn es jemand anderes ist."
            )
            : Ask(
                "already-known",
                $"This may be {last.Number}, who was here before. Put {last.Number} for a new stint of theirs, or “new” for somebody else.",
                $"Das könnte {last.Number} sein, früher schon hier. {last.Number} eintragen, wenn es so ist, oder „neu“ für jemand anderen."
            );
    }

    public async Task LookAheadAsync(IReadOnlyList<string[]> rows, CancellationToken cancellation)
    {
        var claims = new Dictionary<(string, string), UniqueClaim>();
        foreach (var (field, at) in _columns.Where(c => c.Field.Unique))
        foreach (var value in rows.Select(r => FieldCell.Read(field, RowChecker.Cell(r, at), _style, _records.Refer).Value).OfType<JsonElement>())
            claims.TryAdd((field.Key, value.GetRawText()), new UniqueClaim(field, value, default));
        foreach (var (key, people) in claims.Keys.Zip(await _target.HoldersAsync([.. claims.Values], cancellation)))
            _holders[key] = people;
        if (_template < 0)
            return;
        var telling = _columns.Where(c => PeopleIndex.Tells(c.Field.Key)).ToArray();
        _likeliest = new Dictionary<string[], PersonMatch?>(
            rows.AsParallel()
                .Where(r => RowChecker.Cell(r, _template).Length > 0)
                .Select(cells => KeyValuePair.Create(cells, PeopleIndex.WorthAsking(_known, PeopleIndex.Facts(Read(cells, telling))).FirstOrDefault())),
            ReferenceEqualityComparer.Instance
        );
    }

    private Dictionary<string, JsonElement> Read(string[] cells, (FieldDefinition Field, int At)[] columns) =>
        columns
            .Select(c => (c.Field.Key, FieldCell.Read(c.Field, RowChecker.Cell(cells, c.At), _style, _records.Refer).Value))
            .Where(v => v.Value is not null)
            .ToDictionary(v => v.Key, v => v.Value!.Value);

    // With numbers in it, so that no sentence of the interface can stand for it.
    private EntryProblem Ask(string code, string english, string german) => new(EntryReader.Code, code, _isGerman ? german : english);

    private bool IsHere(Guid person, LocalDate? start) => _stints[person].Any(e => e.Stint.GoesOn(start ?? _today));

    private static bool IsNew(string who) => TextRules.Fold(who) is "new" or "neu";

    private RoleTemplate? Opening(string said) => _templates.Opening.FirstOrDefault(t => t.IsMeantBy(said));

    // Two rows of one sheet that give the same value to two people are as wrong as one that takes another's.
    private bool IsTaken(FieldDefinition field, JsonElement value, Guid person)
    {
        var key = (field.Key, value.GetRawText());
        return _holders[key].Any(p => p != person) || (!_claimed.TryAdd(key, person) && _claimed[key] != person);
    }
}
