using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Templates;

/// <summary>Finds the hires under way on older versions of their templates, and what the newer ones would mean for each.</summary>
public sealed class TemplateUpdates(FidDb db)
{
    /// <summary>The hires that a state of the book would change, or that were made of other versions than it has.</summary>
    /// <param name="book">The templates as they are, or would be.</param>
    /// <param name="code">Only hires that have this template or add-on among their layers, or would have.</param>
    /// <param name="only">Only these hires; null for all.</param>
    public async Task<IReadOnlyList<HireUpdate>> FindAsync(
        TemplateSet book,
        string? code,
        IReadOnlyCollection<Guid>? only,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var hires = await db
            .Hires.Include(h => h.Tasks)
            .Include(h => h.Entries)
            .AsSplitQuery()
            .Where(h => h.Closed == null && (only == null || only.Contains(h.Id)))
            .OrderBy(h => h.Start)
            .ThenBy(h => h.Id)
            .ToListAsync(cancellation);
        var versions = await VersionsAsync(hires.SelectMany(h => h.Layers), cancellation);
        var records = await ValuesAsync(hires, today, cancellation);
        var returning = await ReturningAsync(db, cancellation);
        var set = (await new LiveFieldsLoader(db).LiveAsync(cancellation)).Set;
        var ids = hires.ConvertAll(h => h.EmploymentId);
        var employments = await db.Employments.AsNoTracking().Where(e => ids.Contains(e.Id)).ToDictionaryAsync(e => e.Id, cancellation);
        var updates = new List<HireUpdate>();
        foreach (var hire in hires)
        {
            if (book.Find(hire.TemplateCode) is not { } template)
                continue;
            var held = records[hire.EmploymentId];
            var own = employments[hire.EmploymentId];
            var values = held.ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal);
            // Of who works here nothing comes from the layers but tasks: the record is theirs, whoever gave it.
            var typed = held.Where(v => (hire.Occasion != Occasion.Arrival || RoleTemplate.ReadLayer(v.Value.Source) is null) && !FieldAddress.IsInRow(v.Key))
                .ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal);
            var now = book.Resolve(template, typed, own.Start, today, returning.Contains(hire.EmploymentId));
            if (now.Answer is not { } theirs)
            {
                if (code is null || hire.Layers.Any(l => RoleTemplate.ReadLayer(l)?.Code == code))
                    updates.Add(new HireUpdate(hire, [], [], [], null, now.Problems[0].Message));
                continue;
            }
            string[] layers = [.. theirs.Layers.Where(l => l != Layer.Typed)];
            if (layers.SequenceEqual(hire.Layers))
                continue;
            if (code is not null && !layers.Except(hire.Layers).Concat(hire.Layers.Except(layers)).Any(l => RoleTemplate.ReadLayer(l)?.Code == code))
                continue;
            if (Before(hire, versions, typed, own.Start, today) is not { } origin)
                continue;
            updates.Add(Merge(hire, values, origin, theirs, layers, address => TemplateRows.OwnAddress(set, address, own)));
        }
        return updates;
    }

    /// <summary>What formulas of the versions a hire was made of come to anew when its first day moves. A value that was typed, or
    /// changed since the hire was opened, is not among them.</summary>
    public async Task<IReadOnlyList<MovedValue>> OnMoveAsync(Guid id, LocalDate to, LocalDate today, CancellationToken cancellation)
    {
        var hire = await db.Hires.AsNoTracking().SingleAsync(h => h.Id == id, cancellation);
        if (hire.Occasion != Occasion.Arrival)
            return [];
        var held = (await ValuesAsync([hire], today, cancellation))[hire.EmploymentId];
        // The first day itself stands among the values; here it is asked with.
        var typed = held.Where(v => RoleTemplate.ReadLayer(v.Value.Source) is null && v.Key != "start_date" && !FieldAddress.IsInRow(v.Key))
            .ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal);
        var versions = await VersionsAsync(hire.Layers, cancellation);
        if (Before(hire, versions, typed, hire.Start, today) is not { } was || Before(hire, versions, typed, to, today) is not { } will)
            return [];
        var set = (await new LiveFieldsLoader(db).LiveAsync(cancellation)).Set;
        var employment = await db.Employments.AsNoTracking().SingleAsync(e => e.Id == hire.EmploymentId, cancellation);
        return
        [
            .. will
                .Values.Where(v =>
                    held.TryGetValue(TemplateRows.OwnAddress(set, v.Key, employment), out var mine)
                    && mine.Source == v.Value.From
                    && was.Values.TryGetValue(v.Key, out var old)
                    && JsonElement.DeepEquals(old.Value, mine.Value)
                    && !JsonElement.DeepEquals(old.Value, v.Value.Value)
                )
                .Select(v => new MovedValue(TemplateRows.OwnAddress(set, v.Key, employment), v.Value.From, was.Values[v.Key].Value, v.Value.Value)),
        ];
    }

    // The versions kept of the templates and add-ons that layers name.
    private async Task<Dictionary<(string, int), TemplateSpec>> VersionsAsync(IEnumerable<string> layers, CancellationToken cancellation)
    {
        var codes = layers.Distinct().Select(l => RoleTemplate.ReadLayer(l)?.Code).OfType<string>().Distinct().ToArray();
        return (await db.TemplateVersions.AsNoTracking().Where(v => codes.Contains(v.Code)).ToListAsync(cancellation)).ToDictionary(
            v => (v.Code, v.Version),
            v => v.Spec
        );
    }

    /// <summary>The stints of people who were here before: of whom conditions say that they are <see cref="TemplateSet.Returning"/>.</summary>
    /// <param name="only">Only these stints; null for all.</param>
    public static async Task<IReadOnlySet<Guid>> ReturningAsync(FidDb db, CancellationToken cancellation, IReadOnlyCollection<Guid>? only = null) =>
        (
            await db
                .Employments.Where(e => (only == null || only.Contains(e.Id)) && db.Employments.Any(o => o.PersonId == e.PersonId && o.Start < e.Start))
                .Select(e => e.Id)
                .ToListAsync(cancellation)
        ).ToHashSet();

    private static HireUpdate Merge(
        Hire hire,
        Dictionary<string, JsonElement> values,
        Layered origin,
        Layered theirs,
        string[] layers,
        Func<string, string> ownAddress
    )
    {
        var tasks = LayeredTasks.Of(theirs);
        var (was, will) = (HireFacts.Of(origin, LayeredTasks.Of(origin)), HireFacts.Of(theirs, tasks));
        // A template knows a row by what it is about, the record by its id.
        foreach (var address in origin.Values.Keys.Union(theirs.Values.Keys).Where(FieldAddress.IsInRow))
            if (values.TryGetValue(ownAddress(address), out var there))
                values[address] = there;
        var mine = HireFacts.Of(
            hire,
            values,
            was.Keys.Union(will.Keys).Where(k => k.StartsWith(HireFacts.Values, StringComparison.Ordinal)).Select(k => k[HireFacts.Values.Length..])
        );
        var merged = TemplateMerge.Merge(was, mine, will).Where(f => f.Value != MergeFate.Same).ToList();
        var done = hire.Tasks.Where(t => t.IsDecided).Select(t => $"tasks/{t.Key}").ToHashSet();
        return new HireUpdate(
            hire,
            layers,
            [
                .. merged
                    .Where(f => !IsDone(f.Key) && !OfNewOrGone(f.Key))
                    .Select(f => new MergedFact(f.Key, f.Value, Of(was, f.Key), Of(mine, f.Key), Of(will, f.Key))),
            ],
            tasks,
            theirs,
            null
        );

        // What is done stays as it was done.
        bool IsDone(string fact) =>
            done.Contains(fact) || (fact.StartsWith("tasks/", StringComparison.Ordinal) && done.Contains(fact[..fact.LastIndexOf('/')]));

        // Of a task that comes or goes as a whole the single properties need no telling.
        bool OfNewOrGone(string fact) =>
            fact.Count(c => c == '/') == 2 && fact[..fact.LastIndexOf('/')] is var task && (!mine.ContainsKey(task) || !will.ContainsKey(task));

        static JsonElement? Of(Dictionary<string, JsonElement> facts, string key) => facts.TryGetValue(key, out var value) ? value : null;
    }

    // What the versions that the hire was made of come to with a first day; null where one of them was not kept.
    private static Layered? Before(
        Hire hire,
        Dictionary<(string, int), TemplateSpec> versions,
        Dictionary<string, JsonElement> typed,
        LocalDate start,
        LocalDate today
    )
    {
        var (templates, addOns) = (new List<TemplateDefinition>(), new List<AddOnDefinition>());
        foreach (var layer in hire.Layers)
        {
            if (RoleTemplate.ReadLayer(layer) is not var (code, version) || !versions.TryGetValue((code, version), out var spec))
                return null;
            // That each applied is known; in which order too.
            if (spec.AddOn)
                addOns.Add(new AddOnDefinition(code, version, null, addOns.Count, spec.Layer));
            else
                templates.Add(new TemplateDefinition(code, version, templates.Count == 0 ? null : templates[^1].Id, spec.Layer));
        }
        if (templates.Count == 0)
            return null;
        var facts = new Dictionary<string, JsonElement> { ["start_date"] = JsonSerializer.SerializeToElement(start.ToString("uuuu-MM-dd", null)) };
        return TemplateResolution.Resolve(new TemplateQuestion(facts, templates, templates[^1].Id, addOns, typed, null, today)).Answer;
    }

    private async Task<Dictionary<Guid, Dictionary<string, (JsonElement Value, string Source)>>> ValuesAsync(
        List<Hire> hires,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var ids = hires.Select(h => h.EmploymentId).ToArray();
        var rows = await db
            .Database.SqlQuery<Held>(
                $"""
                select e.id as employment, v.field || coalesce('@' || v.row_id, '') as field, v.value, v.source
                from employments e join record_values v on v.owner_id in (e.id, e.person_id)
                where e.id = any({ids}) and upper_inf(v.known) and v.effective @> greatest({today}, e.start)
                """
            )
            .ToListAsync(cancellation);
        var values = ids.ToDictionary(i => i, _ => new Dictionary<string, (JsonElement, string)>(StringComparer.Ordinal));
        foreach (var row in rows)
            values[row.Employment][row.Field] = (row.Value, row.Source);
        return values;
    }

    private sealed record Held(Guid Employment, string Field, JsonElement Value, string Source);
}

/// <summary>What newer versions of its layers mean for a hire.</summary>
/// <param name="Hire">The hire, as the context tracks it, with its tasks and entries.</param>
/// <param name="Layers">The layers it would then be made of.</param>
/// <param name="Facts">What differs, as <see cref="TemplateMerge"/> says; what is the same, and tasks that are done, left out.</param>
/// <param name="Tasks">The checklist the newer versions come to.</param>
/// <param name="Theirs">What they come to; null where that cannot be worked out.</param>
/// <param name="Trouble">Why it cannot be.</param>
public sealed record HireUpdate(Hire Hire, string[] Layers, IReadOnlyList<MergedFact> Facts, IReadOnlyList<HireTask> Tasks, Layered? Theirs, string? Trouble);

/// <summary>A fact of a hire that has three states.</summary>
/// <param name="Key">As <see cref="HireFacts"/> writes it.</param>
/// <param name="Before">What the hire was opened with; null for nothing.</param>
/// <param name="Mine">What it has.</param>
/// <param name="Theirs">What the newer version comes to.</param>
public sealed record MergedFact(string Key, MergeFate Fate, JsonElement? Before, JsonElement? Mine, JsonElement? Theirs);

/// <summary>A value that a formula gave from the first day, and gives anew when that moves.</summary>
/// <param name="Source">The layer with the formula.</param>
public sealed record MovedValue(string Field, string Source, JsonElement Before, JsonElement After);
