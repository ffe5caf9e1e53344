using System.Text.Json;
using Fid.Core.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Data.Templates;

/// <summary>The firm's role templates and add-ons, ready for laying over each other.</summary>
public sealed class TemplateBook
{
    private readonly Dictionary<string, RoleTemplate> _templates;
    private readonly RoleTemplate[] _addOns;

    private TemplateBook(IEnumerable<RoleTemplate> all)
    {
        var known = all.ToArray();
        _templates = known.Where(t => !t.IsAddOn).ToDictionary(t => t.Code);
        _addOns = [.. known.Where(t => t is { IsAddOn: true, Retired: false }).OrderBy(t => t.Order).ThenBy(t => t.Code, StringComparer.Ordinal)];
    }

    public IEnumerable<RoleTemplate> All => _templates.Values.Concat(_addOns);

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

    /// <summary>
    /// What a hire from a template starts with: the templates it builds on, the template, the add-ons whose condition holds, and
    /// what was typed. Conditions look at typed values first, then at what the templates set.
    /// </summary>
    public Layered Resolve(RoleTemplate template, IReadOnlyDictionary<string, JsonElement> typed)
    {
        var layers = Layers(template).ToList();
        var own = Layering.Merge([.. layers, new Layer(Layer.Typed, typed, [])]).Values;
        layers.AddRange(_addOns.Where(a => Applies(a, own)).Select(ToLayer));
        return Layering.Merge([.. layers, new Layer(Layer.Typed, typed, [])]);
    }

    /// <summary>The layers of a template and of those it builds on, the deepest first.</summary>
    public IEnumerable<Layer> Layers(RoleTemplate template) => Chain(template).Select(ToLayer);

    private List<RoleTemplate> Chain(RoleTemplate template)
    {
        var chain = new List<RoleTemplate>();
        for (var t = template; t is not null && !chain.Contains(t); t = t.BuildsOnCode is null ? null : Find(t.BuildsOnCode))
            chain.Insert(0, t);
        return chain;
    }

    private static bool Applies(RoleTemplate addOn, IReadOnlyDictionary<string, LayeredValue> values) =>
        values.TryGetValue(addOn.WhenField!, out var value)
        && value.Value.ValueKind == JsonValueKind.String
        && string.Equals(value.Value.GetString(), addOn.WhenValue, StringComparison.Ordinal);

    private static Layer ToLayer(RoleTemplate template) => new(
        template.LayerId,
        template.Content.Values,
        [.. template.Content.Tasks.Select(t => new LayerTask(t.Key, t.Properties, t.Drop))]);
}
