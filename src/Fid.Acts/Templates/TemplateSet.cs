using System.Text.Json;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Acts.Templates;

/// <summary>The firm's role templates and add-ons, ready for laying over each other.</summary>
public sealed class TemplateSet
{
    /// <summary>The name under which conditions ask whether the person was here before: 'yes' or 'no'.</summary>
    public const string Returning = "returning";

    private readonly RoleTemplate[] _all;
    private readonly Dictionary<string, RoleTemplate> _byCode;

    // Made when a hire is worked out: most who load the book only look up names.
    private readonly Lazy<(TemplateDefinition[] Templates, ILookup<Occasion, AddOnDefinition> AddOns)> _definitions;

    private TemplateSet(IEnumerable<RoleTemplate> all)
    {
        _all = [.. all.OrderBy(t => t.IsAddOn).ThenBy(t => t.Spec.Order)];
        _byCode = _all.ToDictionary(t => t.Code, StringComparer.Ordinal);
        _definitions = new(() =>
            (
                [.. _all.Where(t => !t.IsAddOn).Select(t => new TemplateDefinition(t.Code, t.Version, t.Spec.BuildsOn, t.Spec.Layer))],
                _all.Where(t => t is { IsAddOn: true, Retired: false })
                    .ToLookup(a => a.Spec.Occasion, a => new AddOnDefinition(a.Code, a.Version, a.Spec.Condition, a.Spec.Order, a.Spec.Layer))
            )
        );
    }

    public IReadOnlyList<RoleTemplate> All => _all;

    /// <summary>The templates that newcomers can be hired from.</summary>
    public IEnumerable<RoleTemplate> Opening => OpeningFor(Occasion.Arrival);

    /// <summary>The templates that checklists of an occasion can be opened from.</summary>
    public IEnumerable<RoleTemplate> OpeningFor(Occasion occasion) => _all.Where(t => t.OpensFor(occasion));

    public static async Task<TemplateSet> LoadAsync(FidDb db, CancellationToken cancellation) =>
        new(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation));

    /// <summary>A book of these.</summary>
    public static TemplateSet Of(IEnumerable<RoleTemplate> templates) => new(templates);

    /// <summary>The book as it would be with one template in another state, or with one more.</summary>
    public TemplateSet With(RoleTemplate template) => new(_all.Where(t => t.Code != template.Code).Append(template));

    public RoleTemplate? Find(string code) => _byCode.GetValueOrDefault(code);

    /// <summary>The name of the template or add-on a layer comes from, with its version; null for other sources.</summary>
    public (string Name, int Version)? Describe(string layer) =>
        RoleTemplate.ReadLayer(layer) is var (code, version) && Find(code) is { } template ? (template.Name, version) : null;

    /// <summary>A template and those it builds on, the deepest first; it ends where a ring would begin.</summary>
    public IReadOnlyList<RoleTemplate> Chain(RoleTemplate template)
    {
        var chain = new List<RoleTemplate>();
        for (var t = template; t is not null && !chain.Contains(t); t = t.Spec.BuildsOn is { } on ? Find(on) : null)
            chain.Insert(0, t);
        return chain;
    }

    /// <summary>What a hire from a template starts with, as <see cref="TemplateResolution"/> says. Where a template cannot be worked
    /// out with what is known so far, what is wrong is told.</summary>
    /// <param name="typed">What was typed, by field key.</param>
    /// <param name="start">The first day; null while it is not known.</param>
    /// <param name="today">Today.</param>
    /// <param name="returning">Whether the person was here before.</param>
    public Result<Layered> Resolve(
        RoleTemplate template,
        IReadOnlyDictionary<string, JsonElement> typed,
        LocalDate? start,
        LocalDate today,
        bool returning = false
    ) =>
        TemplateResolution.Resolve(
            new TemplateQuestion(
                Facts(start, returning),
                _definitions.Value.Templates,
                template.Code,
                [.. _definitions.Value.AddOns[template.Spec.Occasion]],
                typed,
                null,
                today
            )
        );

    /// <summary>The field that was entered wrongly and that another's fault follows from; null where it is wrong by itself.</summary>
    /// <param name="field">The field that is missing or cannot be worked out; null for the conditions of add-ons.</param>
    /// <param name="template">The template that the hire is opened from.</param>
    /// <param name="set">The live fields.</param>
    /// <param name="wrong">The fields that were entered wrongly.</param>
    public string? CauseOf(string? field, RoleTemplate template, FieldSet set, IReadOnlySet<string> wrong)
    {
        if (wrong.Count == 0)
            return null;
        var chain = Chain(template).Select(t => t.Code).ToHashSet(StringComparer.Ordinal);
        var layers = _definitions
            .Value.Templates.Where(t => chain.Contains(t.Id))
            .Select(t => (t.Content, When: (RecordFormula?)null))
            .Concat(_definitions.Value.AddOns[template.Spec.Occasion].Select(a => (a.Content, a.When)))
            .ToArray();
        return Causes.Of(field ?? Conditions, wrong, key =>
            key == Conditions
                ? layers.SelectMany(l => l.When?.Names ?? [])
                : set.Reads(key)
                    .Concat(
                        layers
                            .Where(l => l.Content.Values.ContainsKey(key))
                            .SelectMany(l => (l.Content.Values[key].Formula?.Names ?? []).Concat(l.When?.Names ?? []))
                    )
        );
    }

    /// <summary>The field that a path of <see cref="Resolve"/>'s problems leads to; null for another part.</summary>
    public static string? FieldAt(string path) => path.LastIndexOf(Values, StringComparison.Ordinal) is var at and >= 0 ? path[(at + Values.Length)..] : null;

    private const string Conditions = "",
        Values = "/values/";

    /// <summary>What a template and those it builds on come to, whatever the hire and without any add-on.</summary>
    public Result<Layered> Alone(RoleTemplate template, LocalDate today) => Laid(template, [], today);

    /// <summary>What an add-on makes of a template, as if it applied.</summary>
    public Result<Layered> OnTop(RoleTemplate template, RoleTemplate addOn, LocalDate today) =>
        Laid(template, [new AddOnDefinition(addOn.Code, addOn.Version, null, addOn.Spec.Order, addOn.Spec.Layer)], today);

    private Result<Layered> Laid(RoleTemplate template, AddOnDefinition[] addOns, LocalDate today)
    {
        var none = new Dictionary<string, JsonElement>();
        return TemplateResolution.Resolve(new TemplateQuestion(Facts(today), _definitions.Value.Templates, template.Code, addOns, none, null, today));
    }

    private static Dictionary<string, JsonElement> Facts(LocalDate? start, bool returning = false)
    {
        var facts = new Dictionary<string, JsonElement>(StringComparer.Ordinal) { [Returning] = JsonSerializer.SerializeToElement(returning ? "yes" : "no") };
        if (start is { } first)
            facts["start_date"] = JsonSerializer.SerializeToElement(LocalDatePattern.Iso.Format(first));
        return facts;
    }
}
