using System.Text.Json;
using Fid.Acts.Accounts;
using Fid.Acts.Calendars;
using Fid.Acts.Fields;
using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Clock;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.People;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Fid.Data.People;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>Opens hires: from a template and what was typed to a record and a checklist.</summary>
public sealed class HireOpening(FidDb db, RecordWriter records)
{
    // Without these there is nobody to bring in, or nothing to plan.
    private static readonly string[] Needed = ["given_name", "family_name", "email", "site"];

    /// <summary>Fields that a hire cannot be opened without, and does not have.</summary>
    public static IEnumerable<string> Lacking(IReadOnlyDictionary<string, LayeredValue> values) =>
        Needed.Where(f => FieldValues.IsEmpty(values.GetValueOrDefault(f)?.Value));

    // Read once for all that are opened together.
    private readonly LiveFieldsLoader _fields = new(db);
    private readonly Dictionary<string, Dictionary<string, EntryContent>> _entries = new(StringComparer.Ordinal);
    private readonly ManagerFinder _managers = new(db);
    private readonly NewcomerAccounts _accounts = new(db);
    private CalendarSet? _calendars;
    private EmployeeNumberPattern? _numbers;

    // The next free badge: one that others may take meanwhile, until they are kept from it.
    private string? _nextBadge;
    private bool _badgesAreRead;

    /// <summary>What a hire would start with. Nothing is saved. Where the template cannot be worked out for it, the problems say why.</summary>
    /// <param name="origin">What is known before anybody types; null for nothing.</param>
    public async Task<Result<HireDraft>> DraftAsync(
        TemplateSet templates,
        RoleTemplate template,
        IReadOnlyDictionary<string, JsonElement> typed,
        LocalDate? start,
        LocalDate today,
        CancellationToken cancellation,
        HireOrigin? origin = null
    )
    {
        var (before, all) = (origin ?? HireOrigin.New, new Dictionary<string, JsonElement>(typed, StringComparer.Ordinal));
        foreach (var (field, given) in before.Given)
            all.TryAdd(field, given.Value);
        var resolved = templates.Resolve(template, all, start, today, before.Person is not null);
        if (resolved.Answer is not { } worked)
            return Result<HireDraft>.Failed(resolved.Problems);
        // What nobody typed says where it comes from instead.
        var layered = worked with
        {
            Values = worked.Values.ToDictionary(
                v => v.Key,
                v =>
                    v.Value.From == Layer.Typed && !typed.ContainsKey(v.Key) && before.Given.TryGetValue(v.Key, out var given)
                        ? v.Value with
                        {
                            From = given.Source,
                        }
                        : v.Value,
                StringComparer.Ordinal
            ),
        };
        var site = await Entry("sites", "site");
        var department = await Entry("departments", "department");
        var known = new KnownFacts(
            site?.Text("calendar"),
            site?.Text("cost_centre"),
            department?.Text("cost_centre"),
            (await _managers.BySeatAsync(TextOf(layered.Values, "job"), department?.Code, start ?? today, cancellation))?.ToString(),
            (await _managers.HeadAsync(department, start ?? today, cancellation))?.ToString(),
            await NextBadgeAsync(cancellation)
        );
        var values = await FollowFieldsAsync(StartingValues.Fill(layered, known), start, today, cancellation);
        var entries = before.Entries ?? [.. HireEntry.Of(layered)];
        var set = (await _fields.LiveAsync(cancellation)).Set;
        var rows = TemplateRows
            .Of(set, entries, (entry, property) => SourceOf(template, layered, before, entry, property))
            .Concat(TemplateRows.Abouts(set, values.Keys).Select(a => new FieldValue(a.Address, a.About, values[a.By].From)));
        var tasks = before.Tasks ?? LayeredTasks.Of(layered);
        ConditionalTasks.Follow(
            tasks,
            entries,
            values.ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal),
            start,
            before.Person is not null,
            today
        );
        return new HireDraft(template, layered, WithRows(values, rows), tasks, entries, before.Person);

        async Task<EntryContent?> Entry(string list, string field)
        {
            if (TextOf(layered.Values, field) is not { } code)
                return null;
            // The whole list, once: many hires that are opened together are at many sites.
            if (!_entries.TryGetValue(list, out var entries))
                _entries[list] = entries = (await db.ListEntries.AsNoTracking().Where(e => e.List == list).ToListAsync(cancellation))
                    .Select(e => e.Content())
                    .ToDictionary(e => e.Code, StringComparer.OrdinalIgnoreCase);
            return entries.GetValueOrDefault(code);
        }
    }

    // The rules of what is set so far, and the defaults of what is still empty. What was set stays as it is.
    private async Task<IReadOnlyDictionary<string, LayeredValue>> FollowFieldsAsync(
        IReadOnlyDictionary<string, LayeredValue> set,
        LocalDate? start,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var fields = await _fields.LiveAsync(cancellation);
        var facts = set.ToDictionary(v => v.Key, v => v.Value.Value);
        if (start is { } first)
            facts["start_date"] = DateOf(first);
        var calendar = fields.Set.CountsWorkingDays ? (_calendars ??= await CalendarSet.LoadAsync(db, cancellation)).OfRecord(facts) : null;
        var keys = fields.Set.Fields.Select(f => f.Key).Where(facts.ContainsKey).ToList();
        var record = RecordEvaluation.Of(
            fields.Set,
            new RecordQuestion(facts, keys, keys, null, fields.Set.Stages.Count > 0 ? fields.Set.Stages[0] : null, today, RecordQuestion.NoLists, calendar)
        );
        var filled = new Dictionary<string, LayeredValue>(set, StringComparer.Ordinal);
        foreach (var (key, by) in record.SetBy)
            if (by == "default" || by.StartsWith("rule:", StringComparison.Ordinal))
                filled[key] = new LayeredValue(record.Values[key], by, []);
        return filled;
    }

    private static JsonElement DateOf(LocalDate date) => JsonSerializer.SerializeToElement(date.ToString("uuuu-MM-dd", null));

    /// <summary>Puts a hire, its record and its checklist into the context: of a new person, or as a new stint of one the firm knows.</summary>
    public async Task<Hire> AddAsync(HireDraft draft, HireStart first, Author author, LocalDate today, CancellationToken cancellation = default)
    {
        var (id, number, start, accepted, coordinator, why) = first;
        var person = draft.Person is null ? new Person() : null;
        var employment = new Employment
        {
            PersonId = person?.Id ?? draft.Person!.Value,
            Number = number,
            Start = start,
        };
        var hire = new Hire
        {
            Id = id,
            EmploymentId = employment.Id,
            TemplateCode = draft.Template.Code,
            TemplateVersion = draft.Template.Version,
            Layers = [.. draft.Layered.Layers.Where(l => l != Layer.Typed)],
            Start = start,
            Accepted = accepted,
            Entered = today,
            CoordinatorId = coordinator,
            Tasks = [.. draft.Tasks],
            Entries = [.. draft.Entries],
        };
        var change = author.Change("hire.opened", hire.Id, draft.Template.LayerId, why);
        if (person is not null)
            db.Add(person);
        db.AddRange(employment, change, hire);
        PassBadgeOf(draft);
        var startDate = new FieldValue("start_date", DateOf(start), StartingValues.FromHire);
        var set = (await _fields.LiveAsync(cancellation)).Set;
        // A template knows its rows by what they are about; from here on they are this record's own.
        var values = draft
            .FieldValues.Where(v => v.Field != "start_date")
            .Select(v => v with { Field = TemplateRows.OwnAddress(set, v.Field, employment) })
            .DistinctBy(v => v.Field)
            .Append(startDate)
            .ToList();
        var name = $"{TextOf(draft.Values, "given_name")} {TextOf(draft.Values, "family_name")}".Trim();
        if (person is not null)
        {
            await records.AddNewAsync(employment, values, change, today, cancellation);
            _accounts.Add(person.Id, name, author);
            return hire;
        }
        await _accounts.AddOrWakeAsync(employment.PersonId, name, author, cancellation);
        // What the firm knows of the person stays as it is; what was typed anew holds from today.
        var record = await records.AddNewAsync(employment, values.Where(v => set.Find(v.Field)!.Of == FieldOwner.Employment), change, today, cancellation);
        var edits = values
            .Where(v => set.Find(v.Field)!.Of == FieldOwner.Person && v.Source is Layer.Typed or HireOrigin.FromRecruiting)
            .Select(v => new FieldEdit(v.Field, v.Value, v.Source, today))
            .Concat(await NewRowsAsync(set, employment.PersonId, values, today, cancellation))
            .DistinctBy(e => e.Field)
            .ToList();
        // What others have to agree to was refused before, when the hire was prepared.
        var problems = await records.SaveAsync([new RecordEdit(employment, record, edits, change) { IsAgreed = true }], today, cancellation);
        if (problems.Count > 0)
            throw new DbUpdateConcurrencyException(problems[0].Problem.Message);
        return hire;
    }

    // The rows that a template gives somebody the firm knows: those about something they have no row for.
    private async Task<IEnumerable<FieldEdit>> NewRowsAsync(FieldSet set, Guid person, List<FieldValue> values, LocalDate today, CancellationToken cancellation)
    {
        var given = values
            .Where(v => FieldAddress.IsInRow(v.Field) && set.Find(v.Field)!.Of == FieldOwner.Person)
            .GroupBy(v => FieldAddress.Read(v.Field) is var at ? (at.Whole, at.Row) : default)
            .ToList();
        if (given.Count == 0)
            return [];
        var keys = given.Select(g => set.AboutOf(g.First().Field)).OfType<string>().Select(FieldAddress.FieldOf).Distinct().ToArray();
        var held = (
            await db
                .RecordValues.AsNoTracking()
                .Where(v => v.OwnerId == person && keys.Contains(v.Field) && v.Known.UpperBoundInfinite && v.Effective.Contains(today))
                .Select(v => new { v.Field, v.Value })
                .ToListAsync(cancellation)
        )
            .Select(v => (v.Field, v.Value.ToString()))
            .ToHashSet();
        return given
            .Where(row =>
                set.AboutOf(row.First().Field) is not { } about
                || row.FirstOrDefault(v => v.Field == about) is not { } said
                || !held.Contains((FieldAddress.FieldOf(about), said.Value.ToString()))
            )
            .SelectMany(row => row)
            .Select(v => new FieldEdit(v.Field, v.Value, v.Source, today));
    }

    // What the template says of a row's values comes before what an entry of its lists says.
    private static Dictionary<string, LayeredValue> WithRows(IReadOnlyDictionary<string, LayeredValue> values, IEnumerable<FieldValue> rows)
    {
        var all = new Dictionary<string, LayeredValue>(values, StringComparer.Ordinal);
        foreach (var row in rows)
            all.TryAdd(row.Field, new LayeredValue(row.Value, row.Source, []));
        return all;
    }

    private static string SourceOf(RoleTemplate template, Layered layered, HireOrigin before, HireEntry entry, string property)
    {
        if (before.Entries is not null)
            return before.EntriesFrom ?? template.LayerId;
        var said = layered.Lists[entry.List].First(e => e.Key == entry.Key).Properties;
        return said.GetValueOrDefault(property)?.From ?? said.Values.FirstOrDefault()?.From ?? template.LayerId;
    }

    /// <summary>Keeps others from taking a badge until this transaction ends.</summary>
    public async Task LockBadgesAsync(CancellationToken cancellation)
    {
        await Locks.BadgesAsync(db, cancellation);
        _badgesAreRead = false;
        await NextBadgeAsync(cancellation);
    }

    /// <summary>The next employee numbers, as the firm writes them. Whoever else opens a hire waits until this transaction ends; where
    /// it is rolled back the numbers are free again. One that somebody has, by whatever pattern, is passed over.</summary>
    /// <param name="starts">The first days, to whose years the numbers belong.</param>
    public async Task<IReadOnlyList<string>> NextNumbersAsync(IReadOnlyList<LocalDate> starts, CancellationToken cancellation)
    {
        Locks.Numbers(db);
        _numbers ??= EmployeeNumberPattern.Read(await db.Firms.Select(f => f.NumberPattern).SingleAsync(cancellation)).Answer!;
        var numbers = new string[starts.Count];
        foreach (var ofYear in Enumerable.Range(0, starts.Count).GroupBy(i => NumberCounter.Of(_numbers, starts[i])).OrderBy(g => g.Key.Year))
        {
            var waiting = new Queue<int>(ofYear);
            while (waiting.Count > 0)
            {
                var count = waiting.Count;
                var last = (
                    await db
                        .Database.SqlQuery<long>(
                            $"""
                            insert into number_counters (year, last) values ({ofYear.Key.Year}, {ofYear.Key.Before + count})
                            on conflict (year) do update set last = number_counters.last + {count} returning last as "Value"
                            """
                        )
                        .ToListAsync(cancellation)
                ).Single();
                var candidates = Enumerable.Range(0, count).Select(i => Format(last - count + 1 + i, starts[waiting.Peek()].Year)).ToList();
                var taken = await db.Employments.Where(e => candidates.Contains(e.Number)).Select(e => e.Number).ToListAsync(cancellation);
                foreach (var number in candidates.Except(taken))
                    numbers[waiting.Dequeue()] = number;
            }
        }
        return numbers;
    }

    private string Format(long running, int year) =>
        _numbers!.Format(running, year) ?? throw new InvalidOperationException("Employee numbers of this pattern have run out.");

    /// <summary>Goes on as if the hire had been opened: the next one gets another badge.</summary>
    public void PassBadgeOf(HireDraft draft)
    {
        if (TextOf(draft.Values, "badge") is { } badge)
            _nextBadge = Badges.NextAfter(_nextBadge, badge);
    }

    private async Task<string?> NextBadgeAsync(CancellationToken cancellation)
    {
        if (_badgesAreRead)
            return _nextBadge;
        // The highest there ever was, and one of the longest, say what comes next; both stand at the end of an index.
        var telling = await db
            .Database.SqlQuery<string>(
                $"""
                (select value #>> array[]::text[] as "Value" from record_values where field = 'badge'
                  order by lpad(value #>> array[]::text[], 20, '0') desc limit 1)
                union all (select value #>> array[]::text[] from record_values where field = 'badge' order by length(value #>> array[]::text[]) desc limit 1)
                """
            )
            .ToListAsync(cancellation);
        (_nextBadge, _badgesAreRead) = (Badges.NextFree(telling), true);
        return _nextBadge;
    }

    private static string? TextOf(IReadOnlyDictionary<string, LayeredValue> values, string field) =>
        values.TryGetValue(field, out var v) && v.Value.ValueKind == JsonValueKind.String ? v.Value.GetString() : null;
}

/// <summary>What a hire would start with.</summary>
public sealed record HireDraft(
    RoleTemplate Template,
    Layered Layered,
    IReadOnlyDictionary<string, LayeredValue> Values,
    IReadOnlyList<HireTask> Tasks,
    IReadOnlyList<HireEntry> Entries,
    Guid? Person = null
)
{
    public IEnumerable<FieldValue> FieldValues =>
        Values
            .Where(v => v.Value.Value.ValueKind is not (JsonValueKind.Null or JsonValueKind.Undefined))
            .Select(v => new FieldValue(v.Key, v.Value.Value, v.Value.From));
}

/// <summary>What a hire is opened with, besides what its draft says.</summary>
/// <param name="Number">The employee number.</param>
/// <param name="Accepted">The day of acceptance, not after the first day.</param>
/// <param name="Coordinator">The account of whoever coordinates it.</param>
/// <param name="Why">The reason that is kept with it; null for none.</param>
public sealed record HireStart(Guid Id, string Number, LocalDate Start, LocalDate Accepted, Guid Coordinator, string? Why = null);
