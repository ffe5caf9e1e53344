using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using Fid.Core.Texts;

namespace Fid.Core.Templates;

/// <summary>
/// Works out what a hire starts with. Layers, the later winning: the template that the chosen one builds on, to any depth; the
/// chosen one; the add-ons whose condition holds, by order and id; what was typed. A condition looks at the facts, then at what
/// was typed, then at what the templates set; it does not see what other add-ons set. A formula looks at the values as they end
/// up, then at the facts; a name that neither knows is empty.
/// </summary>
public static class TemplateResolution
{
    private static readonly WorkCalendar Weekdays = new(RestMask.Weekend, []);

    /// <summary>The layers' values, tasks, items and documents, with the trail of each.</summary>
    /// <returns>
    /// Problems, with paths into the question: "duplicate-id"; "unknown-template", for the one used or one built on;
    /// "builds-on-loop"; "unknown-field", where the fields are given; "formula-error", for a formula that cannot be computed with
    /// these facts; "formula-loop"; "order-clash", where two add-ons that apply, of equal order, set one thing differently.
    /// </returns>
    public static Result<Layered> Resolve(TemplateQuestion question)
    {
        if (TemplateCheck.Problems(question) is { Count: > 0 } wrong)
            return Result<Layered>.Failed(wrong);
        var layers = Chain(question).Select(t => new Layer($"template:{t.Id}@{t.Version}", t.Content)).ToList();
        var typed = new Layer(Layer.Typed, LayerContent.OfLiterals(question.Typed));
        var problems = new List<Problem>();

        var before = new Computation(question, Layering.Values([.. layers, typed]));
        before.ComputeAll([]);
        var applying = question
            .AddOns.Where(a => Applies(a, before, question, problems))
            .OrderBy(a => a.Order)
            .ThenBy(a => a.Id, CodePointOrder.Instance)
            .ToList();
        problems.AddRange(TemplateCheck.Clashes(question, applying));
        layers.AddRange(applying.Select(a => new Layer($"addOn:{a.Id}@{a.Version}", a.Content)));
        layers.Add(typed);

        var computed = new Computation(question, Layering.Values(layers));
        computed.ComputeAll(problems);
        if (problems.Count > 0)
            return Result<Layered>.Failed(problems);
        var lists = TemplateLists.All.Select(l => (Name: l, Laid: Layering.Entries(layers, l))).ToArray();
        return new Layered(
            [.. layers.Select(l => l.Id)],
            computed.Answer(),
            lists.ToDictionary(l => l.Name, l => l.Laid.Entries, StringComparer.Ordinal),
            [.. lists.SelectMany(l => l.Laid.Dropped)]
        );
    }

    // The deepest first; that there is no ring has been seen to.
    private static List<TemplateDefinition> Chain(TemplateQuestion question)
    {
        var byId = question.Templates.ToDictionary(t => t.Id, StringComparer.Ordinal);
        var chain = new List<TemplateDefinition>();
        for (var t = byId[question.Use]; t is not null; t = t.BuildsOn is { } on ? byId[on] : null)
            chain.Insert(0, t);
        return chain;
    }

    private static bool Applies(AddOnDefinition addOn, Computation before, TemplateQuestion question, List<Problem> problems)
    {
        if (addOn.When is null)
            return true;
        var (value, trouble) = addOn.When.Compute(
            new FormulaFacts(
                name => question.Facts.TryGetValue(name, out var fact) ? FieldValues.FromJson(fact) : before.ValueOf(name),
                question.Today ?? default,
                question.Calendar ?? Weekdays
            )
        );
        if (trouble is not null)
            problems.Add(
                new Problem(
                    $"/addOns/{TemplateCheck.Place(question.AddOns, addOn)}/when",
                    "formula-error",
                    $"The condition of {addOn.Id} cannot be worked out: {trouble}"
                )
            );
        return value is true;
    }

    /// <summary>The values of one set of layers, each formula after all that it reads.</summary>
    private sealed class Computation(TemplateQuestion question, Dictionary<string, List<(Layer From, LayerValue Value)>> trails)
    {
        private readonly Dictionary<string, object?> _known = new(StringComparer.Ordinal);

        private FormulaFacts Facts => new(ValueOf, question.Today ?? default, question.Calendar ?? Weekdays);

        public object? ValueOf(string name) =>
            trails.ContainsKey(name) ? _known.GetValueOrDefault(name)
            : question.Facts.TryGetValue(name, out var fact) ? FieldValues.FromJson(fact)
            : null;

        public void ComputeAll(List<Problem> problems)
        {
            var fields = trails.Keys.ToArray();
            var places = fields.Select((f, i) => (f, i)).ToDictionary(f => f.f, f => f.i, StringComparer.Ordinal);
            var reads = fields
                .Select(f => trails[f][0].Value.Formula is { } formula ? formula.Names.Where(places.ContainsKey).Select(n => places[n]).ToArray() : [])
                .ToArray();
            var (order, ring) = DependencySort.Sort(reads);
            if (ring is not null)
            {
                var names = ring.Select(r => fields[r]).ToList();
                problems.Add(
                    new Problem(
                        TemplateCheck.PathOf(question, trails[names[0]][0].From, names[0]),
                        "formula-loop",
                        $"These are worked out from each other in a ring: {string.Join(" → ", [.. names, names[0]])}. Set one of them outright."
                    )
                );
                return;
            }
            foreach (var field in order.Select(o => fields[o]))
            {
                var (from, value) = trails[field][0];
                if (value.Formula is null)
                {
                    _known[field] = FieldValues.FromJson(value.Value);
                    continue;
                }
                var (result, trouble) = value.Formula.Compute(Facts);
                _known[field] = result;
                if (trouble is not null)
                    problems.Add(new Problem(TemplateCheck.PathOf(question, from, field), "formula-error", $"{field} cannot be worked out: {trouble}"));
            }
        }

        public Dictionary<string, LayeredValue> Answer() =>
            trails.ToDictionary(
                t => t.Key,
                t => new LayeredValue(
                    Json(t.Value[0].Value, t.Key),
                    t.Value[0].From.Id,
                    [.. t.Value.Skip(1).Select(d => new Displaced(d.From.Id, Json(d.Value, null)))]
                ),
                StringComparer.Ordinal
            );

        private JsonElement Json(LayerValue value, string? winning) =>
            value.Formula is not { } formula ? value.Value : FieldValues.ToJson(winning is null ? formula.Compute(Facts).Value : _known[winning]);
    }
}
