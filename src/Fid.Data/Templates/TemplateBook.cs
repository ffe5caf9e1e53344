using System.Text.Json;
using Fid.Core;
using Fid.Core.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Data.Templates;

/// <summary>The firm's role templates and add-ons, ready for laying over each other.</summary>
public sealed class TemplateBook
{
    private readonly Dictionary<string, RoleTemplate> _templates;
    private readonly RoleTemplate[] _addOns;

    // Made when a hire is worked out: most who load the book only look up names.
    private readonly Lazy<(TemplateDefinition[] Templates, AddOnDefinition[] AddOns)> _definitions;

    private TemplateBook(IEnumerable<RoleTemplate> all)
    {
        var known = all.ToArray();
        _templates = known.Where(t => !t.IsAddOn).ToDictionary(t => t.Code);
        _addOns = [.. known.Where(t => t is { IsAddOn: true, Retired: false }).OrderBy(t => t.Order).ThenBy(t => t.Code, StringComparer.Ordinal)];
        _definitions = new(() => (
            [.. _templates.Values.Select(t => new TemplateDefinition(t.Code, t.Version, t.BuildsOnCode, t.Content.Layer))],
            [.. _addOns.Select(a => new AddOnDefinition(a.Code, a.Version, a.Condition, a.Order, a.Content.Layer))]));
    }

    public IEnumerable<RoleTemplate> All => _templates.Values.Concat(_addOns);

    /// <summary>The templates that hires can be opened from.</summary>
    public IEnumerable<RoleTemplate> Opening => _templates.Values.Where(t => t is { Opens: true, Retired: false });

    public static async Task<TemplateBook> LoadAsync(FidDb db, CancellationToken cancellation) =>
        new(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation));

    /// <summary>A book of these.</summary>
    public static TemplateBook Of(IEnumerable<RoleTemplate> templates) => new(templates);

    public RoleTemplate? Find(string code) => _templates.GetValueOrDefault(code);

    /// <summary>The name of the template or add-on a layer comes from, with its version; null for other sources.</summary>
    public (string Name, int Version)? Describe(string layer)
    {
        var colon = layer.IndexOf(':', StringComparison.Ordinal);
        var at = layer.LastIndexOf('@');
        if (colon < 0 || at < colon || !int.TryParse(layer.AsSpan(at + 1), out var version)) return null;
        var code = layer[(colon + 1)..at];
        var template = _templates.GetValueOrDefault(code) ?? _addOns.FirstOrDefault(a => a.Code == code);
        return template is null ? null : (template.Name, version);
    }

    /// <summary>What a hire from a template starts with, as <see cref="TemplateResolution"/> says. Where a template cannot be worked
    /// out with what is known so far, what is wrong is told.</summary>
    /// <param name="typed">What was typed, by field key.</param>
    /// <param name="start">The first day; null while it is not known.</param>
    /// <param name="today">Today.</param>
    public Outcome<Layered> Resolve(RoleTemplate template, IReadOnlyDictionary<string, JsonElement> typed, LocalDate? start, LocalDate today)
    {
        var facts = start is { } first ? new Dictionary<string, JsonElement> { ["start_date"] = JsonSerializer.SerializeToElement(LocalDatePattern.Iso.Format(first)) } : [];
        return TemplateResolution.Resolve(new TemplateQuestion(facts, _definitions.Value.Templates, template.Code, _definitions.Value.AddOns, typed, null, today));
    }

    /// <summary>What a template or an add-on and those it builds on come to, whatever the hire.</summary>
    public Outcome<Layered> Resolve(RoleTemplate template, LocalDate today)
    {
        var none = new Dictionary<string, JsonElement>();
        TemplateDefinition[] all = template.IsAddOn ? [new TemplateDefinition(template.Code, template.Version, null, template.Content.Layer)] : _definitions.Value.Templates;
        return TemplateResolution.Resolve(new TemplateQuestion(none, all, template.Code, [], none, null, today));
    }
}
