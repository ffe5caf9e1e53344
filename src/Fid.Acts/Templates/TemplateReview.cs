using System.Text.Json;
using System.Text.Json.Serialization;
using Fid.Acts.Fields;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using Fid.Core.Json;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Looks through a template before it is published: what would trip up the user who opens a hire from it.</summary>
public sealed class TemplateReview(
    LiveFields fields,
    TemplateSet book,
    ILookup<Occasion, string> stages,
    IReadOnlySet<(string List, string Code)> entries,
    IReadOnlySet<Guid> people
)
{
    /// <summary>The list of the firm whose codes are the keys of a template's entries.</summary>
    public static IReadOnlyDictionary<string, string> KeyedBy { get; } =
        new Dictionary<string, string>
        {
            [TemplateLists.Items] = "items",
            [TemplateLists.Documents] = "documentKinds",
            [TemplateLists.Certificates] = "certificates",
            [TemplateLists.SecondJobs] = "jobs",
        };

    /// <summary>Reads what a review compares with.</summary>
    public static async Task<TemplateReview> LoadAsync(FidDb db, LiveFields fields, TemplateSet book, CancellationToken cancellation) =>
        new(
            fields,
            book,
            (await db.Stages.Select(s => new { s.Occasion, s.Key }).ToListAsync(cancellation)).ToLookup(s => s.Occasion, s => s.Key),
            (await db.ListEntries.Where(e => !e.Retired).Select(e => new { e.List, e.Code }).ToListAsync(cancellation))
                .Select(e => (e.List, e.Code))
                .ToHashSet(),
            (await db.Employments.Select(e => e.Id).ToListAsync(cancellation)).ToHashSet()
        );

    /// <summary>What is wrong with a template as it would stand in the book.</summary>
    public IReadOnlyList<TemplateFinding> Of(RoleTemplate template)
    {
        var spec = template.Spec;
        var findings = new List<TemplateFinding>();
        Whole(template, findings);
        foreach (var (field, value) in spec.Values)
            findings.AddRange(Value(field, value));
        foreach (var (list, said) in spec.Lists)
        {
            foreach (var twice in said.GroupBy(e => e.Key).Where(g => g.Count() > 1))
                findings.Add(Wrong(list, twice.Key, null, "duplicate-key", "This stands twice. Keep one."));
            if (list == TemplateLists.Stages)
                findings.AddRange(said.SelectMany(e => OfStage(e, spec.Occasion)));
            else if (list != TemplateLists.Tasks)
                findings.AddRange(
                    said.Where(e => !e.Drop).SelectMany(e => e.Properties.Select(p => Property(list, e.Key, p.Key, p.Value)).OfType<TemplateFinding>())
                );
            if (KeyedBy.TryGetValue(list, out var keys))
                foreach (var entry in said.Where(e => !e.Drop && !entries.Contains((keys, e.Key))))
                    findings.Add(Wrong(list, entry.Key, null, "unknown-entry", "Choose an entry of the list."));
        }
        findings.AddRange(new TaskFindings(fields.Set, stages[spec.Occasion].ToHashSet(), entries, people).Of(spec));
        if (spec.AddOn)
            findings.AddRange(Clashes(template));
        return findings;
    }

    /// <summary>What is wrong with a task for itself, in a template for whatever occasion.</summary>
    public IEnumerable<TemplateFinding> OfTask(TemplateEntry task) =>
        new TaskFindings(fields.Set, stages.SelectMany(s => s).ToHashSet(), entries, people).Of(task);

    private IEnumerable<TemplateFinding> OfStage(TemplateEntry stage, Occasion occasion)
    {
        if (occasion == Occasion.PayRun)
        {
            yield return Wrong(
                TemplateLists.Stages,
                stage.Key,
                null,
                "not-of-pay-run",
                "The stages of a pay run always apply. Take this away, or use an add-on."
            );
            yield break;
        }
        if (!stages[occasion].Contains(stage.Key))
            yield return Wrong(TemplateLists.Stages, stage.Key, null, "unknown-stage", "There is no such stage. Take this away.");
        foreach (var (name, value) in stage.Properties)
            if (name != "when")
                yield return Wrong(TemplateLists.Stages, stage.Key, name, "unknown-property", "There is no such property here.");
            else if (value.ValueKind is not (JsonValueKind.String or JsonValueKind.Null))
                yield return Wrong(TemplateLists.Stages, stage.Key, name, "wrong-type", "Enter a formula.");
            else if (value.ValueKind == JsonValueKind.String)
                foreach (var finding in Formula(TemplateLists.Stages, stage.Key, value.GetString()!))
                    yield return finding with
                    {
                        Property = name,
                    };
    }

    private void Whole(RoleTemplate template, List<TemplateFinding> findings)
    {
        var spec = template.Spec;
        if (string.IsNullOrWhiteSpace(spec.Name))
            findings.Add(About("name", "missing", "Give it a name."));
        else if (spec.Name.Length > RoleTemplate.LongestName)
            findings.Add(About("name", "too-long", $"Enter at most {RoleTemplate.LongestName} characters."));
        else if (IsTaken(spec.Name))
            findings.Add(About("name", "not-unique", TakenName));
        if (spec.NameDe is { Length: > RoleTemplate.LongestName })
            findings.Add(About("nameDe", "too-long", $"Enter at most {RoleTemplate.LongestName} characters."));
        else if (!string.IsNullOrWhiteSpace(spec.NameDe) && IsTaken(spec.NameDe))
            findings.Add(About("nameDe", "not-unique", TakenName));
        if (spec.BuildsOn is { } on)
        {
            if (book.Find(on) is not { IsAddOn: false } lower)
                findings.Add(About("buildsOn", "unknown-template", "Choose a template to build on."));
            else if (on == template.Code || book.Chain(lower).Any(t => t.Code == template.Code))
                findings.Add(About("buildsOn", "builds-on-loop", $"{lower.Name} builds on this one already. Choose another, or none."));
            else if (lower.Spec.Occasion != spec.Occasion)
                findings.Add(About("buildsOn", "other-occasion", $"{lower.Name} is for another occasion. Choose one for the same."));
            else if (lower.Retired)
                findings.Add(new TemplateFinding("buildsOn", null, null, "retired", $"{lower.Name} is retired.", Blocks: false));
        }
        if (spec.Occasion != Occasion.Arrival)
            findings.AddRange(BesidesTasks(spec));
        if (spec is { AddOn: true, When: { } when })
            findings.AddRange(Formula("when", null, when));

        bool IsTaken(string name) => book.All.Any(t => t.Code != template.Code && !t.Retired && t.HasName(name));
    }

    // Who works here has a record and what goes with it: what changes in it is entered when the checklist is opened.
    private static IEnumerable<TemplateFinding> BesidesTasks(TemplateSpec spec) =>
        spec
            .Values.Keys.Select(field => ("values", field))
            .Concat(spec.Lists.Where(l => l.Key is not (TemplateLists.Tasks or TemplateLists.Stages)).SelectMany(l => l.Value.Select(e => (l.Key, e.Key))))
            .Select(at => Wrong(at.Item1, at.Item2, null, "tasks-only", "A template for this occasion has tasks alone. Take this away."));

    private const string TakenName = "Another template has this name. Choose one that tells them apart.";

    private static TemplateFinding? Property(string list, string key, string name, JsonElement value)
    {
        var (code, message) = (list, name) switch
        {
            (TemplateLists.Items, "quantity") => Whole(value, 1, 1000),
            (TemplateLists.Welcome, "days") => Whole(value, 0, 365),
            (TemplateLists.SecondJobs, "rate") => value.ValueKind == JsonValueKind.Number && value.TryGetDecimal(out var rate) && rate is >= 0 and <= 1_000_000
                ? default
                : ("out-of-range", "Enter a rate from 0 to 1000000."),
            (TemplateLists.Certificates, "need") => value.ValueKind == JsonValueKind.String && value.GetString() is "essential" or "desirable"
                ? default
                : ("bad-value", "Say essential or desirable."),
            (TemplateLists.Documents, "required") => value.ValueKind is JsonValueKind.True or JsonValueKind.False ? default : ("wrong-type", "Say yes or no."),
            (_, "note") or (TemplateLists.Welcome, "subject") => Text(value, 500),
            (TemplateLists.Welcome, "text") => Text(value, 8000),
            _ => ("unknown-property", "There is no such property here."),
        };
        return code is null ? null : Wrong(list, key, name, code, message);

        static (string?, string) Whole(JsonElement value, int least, int most) =>
            value.ValueKind == JsonValueKind.Number && value.TryGetInt32(out var number) && number >= least && number <= most
                ? default
                : ("out-of-range", $"Enter a whole number from {least} to {most}.");

        static (string?, string) Text(JsonElement value, int most) =>
            value.ValueKind != JsonValueKind.String ? ("wrong-type", "Enter a text.")
            : value.GetString()!.Length > most ? ("too-long", $"Enter at most {most} characters.")
            : default;
    }

    private IEnumerable<TemplateFinding> Value(string key, JsonElement value)
    {
        if (fields.Set.Find(key) is not { } field || (field.IsColumn && !FieldAddress.IsInRow(key)))
            return [Wrong("values", key, null, "unknown-field", "There is no such field any more. Take this value away.")];
        if (!TemplateFields.MaySet(field))
            return [Wrong("values", key, null, "not-by-template", "A template cannot set this field.")];
        if (FieldAddress.IsInRow(key) && Row(key) is { } wrong)
            return [wrong];
        if (TemplateSpec.FormulaOf(value) is { } formula)
            return Formula("values", key, formula);
        if (value.ValueKind == JsonValueKind.Null)
            return [];
        var (fitting, problem) = ValueCheck.Check(field, value);
        if (problem is not null)
            return [Wrong("values", key, null, problem.Code, problem.Message)];
        if (fitting is { } fits && field.List is { } list && FieldValues.Texts(fits).Any(code => !entries.Contains((list, code))))
            return [Wrong("values", key, null, "unknown-entry", "Choose an entry of the list.")];
        return fitting is { } one && field.Type == FieldType.Person && !people.Contains(Guid.Parse(one.GetString()!))
            ? [Wrong("values", key, null, "unknown-person", "Choose a person.")]
            : [];
    }

    // In a template a row is known by what it is about: that is to be a value of its own column.
    private TemplateFinding? Row(string key)
    {
        if (fields.Set.AboutOf(key) is not { } about || fields.Set.Find(about) is not { } column)
            return Wrong("values", key, null, "not-by-template", "These rows have no column that says what one is about, so no template can give one.");
        var row = FieldAddress.Read(key).Row!;
        return column.List is { } list && !entries.Contains((list, row)) ? Wrong("values", key, null, "unknown-entry", "Choose an entry of the list.")
            : column.Options is { } options && !options.Any(o => o.Value == row)
                ? Wrong("values", key, null, "bad-value", "Choose one of the options for what the row is about.")
            : null;
    }

    private IEnumerable<TemplateFinding> Formula(string part, string? key, string text)
    {
        var (formula, mistake) = RecordFormula.Read(text);
        if (mistake is not null)
            return [new TemplateFinding(part, key, null, "formula-error", mistake.Message, Character: mistake.Character)];
        return formula!
            .Names.Where(n => fields.Set.Find(n) is null && n != TemplateSet.Returning)
            .Select(n => new TemplateFinding(part, key, null, "unknown-field", $"There is no field {n}."));
    }

    // Two add-ons of one order can hold for one hire, and then neither wins.
    private IEnumerable<TemplateFinding> Clashes(RoleTemplate template) =>
        book
            .All.Where(o => o is { IsAddOn: true, Retired: false } && o.Code != template.Code && o.Spec.Order == template.Spec.Order)
            .SelectMany(o =>
                o.Spec.Values.Keys.Where(k => template.Spec.Values.TryGetValue(k, out var mine) && !JsonElement.DeepEquals(mine, o.Spec.Values[k]))
                    .Select(k => new TemplateFinding(
                        "values",
                        k,
                        null,
                        "order-clash",
                        $"{o.Name} has the same order and sets this differently: where both apply, no hire can be opened. Give one of them another order.",
                        Blocks: false
                    ))
            );

    private static TemplateFinding About(string part, string code, string message) => new(part, null, null, code, message);

    private static TemplateFinding Wrong(string part, string key, string? property, string code, string message) => new(part, key, property, code, message);
}

/// <summary>Something to see to in a template.</summary>
/// <param name="Part">"values", one of <see cref="TemplateLists.All"/>, or for the whole "name", "nameDe", "buildsOn", "when", "order".</param>
/// <param name="Key">The field or the entry; null for the whole.</param>
/// <param name="Property">The entry's property; null for the whole entry.</param>
/// <param name="Code">A stable word for it.</param>
/// <param name="Message">What to do, in English.</param>
/// <param name="Blocks">Whether it keeps the template from being published.</param>
/// <param name="Character">For a formula, the character, from 1, at which it is wrong.</param>
public sealed record TemplateFinding(string Part, string? Key, string? Property, string Code, string Message, bool Blocks = true, int? Character = null)
{
    /// <summary>Where it stands, as a JSON Pointer by keys.</summary>
    [JsonIgnore]
    public string Pointer => string.Concat(new[] { Part, Key, Property }.OfType<string>().Select(part => "/" + JsonPointer.Escape(part)));
}
