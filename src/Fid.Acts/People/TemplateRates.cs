using System.Text.Json;
using Fid.Core.Checklists;
using Fid.Data;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>The rates of pay that templates give to newcomers under way.</summary>
public sealed class TemplateRates
{
    private readonly Dictionary<Guid, string[]> _layers;
    private readonly Dictionary<(string Code, int Version), TemplateSpec> _specs;

    private TemplateRates(Dictionary<Guid, string[]> layers, Dictionary<(string Code, int Version), TemplateSpec> specs) => (_layers, _specs) = (layers, specs);

    /// <summary>Those of some employments.</summary>
    public static async Task<TemplateRates> LoadAsync(FidDb db, IReadOnlyCollection<Guid> employments, CancellationToken cancellation)
    {
        var layers = await db
            .Hires.AsNoTracking()
            .Where(h => employments.Contains(h.EmploymentId) && h.Occasion == Occasion.Arrival && h.Closed == null)
            .ToDictionaryAsync(h => h.EmploymentId, h => h.Layers, cancellation);
        var codes = layers.Values.SelectMany(l => l).Select(l => RoleTemplate.ReadLayer(l)?.Code).OfType<string>().Distinct().ToArray();
        var versions = codes.Length == 0 ? [] : await db.TemplateVersions.AsNoTracking().Where(v => codes.Contains(v.Code)).ToListAsync(cancellation);
        return new TemplateRates(layers, versions.ToDictionary(v => (v.Code, v.Version), v => v.Spec));
    }

    /// <summary>The employments of those who are under way.</summary>
    public IReadOnlyCollection<Guid> Newcomers => _layers.Keys;

    /// <summary>The rate that the templates say from which a newcomer's hire was made, paid for the same time; null for none, and of a formula.</summary>
    public decimal? Of(Guid employment, string? paidBy)
    {
        if (!_layers.TryGetValue(employment, out var layers))
            return null;
        var specs = layers.Select(RoleTemplate.ReadLayer).Select(l => l is { } layer ? _specs.GetValueOrDefault(layer) : null).OfType<TemplateSpec>().ToList();
        return
            Topmost("pay_rate") is { ValueKind: JsonValueKind.Number } rate
            && Topmost("paid_by") is { ValueKind: JsonValueKind.String } per
            && per.GetString() == paidBy
            ? rate.GetDecimal()
            : null;

        JsonElement? Topmost(string field) =>
            specs.LastOrDefault(s => s.Layer.Values.ContainsKey(field))?.Layer.Values[field] is { Formula: null, Value: var value } ? value : null;
    }
}
