using System.Text.Json;
using Fid.Core.Lists;
using Fid.Data.Changes;
using Fid.Data.People;
using Fid.Data.Templates;
using NodaTime;

namespace Fid.Acts.PayChecks;

/// <summary>What lines of a run are worked out from besides the records.</summary>
/// <param name="KnownSince">By employment of a newcomer, since when all that pay is worked out from is known; left out where something is missing.</param>
/// <param name="Layers">By employment of a newcomer under way, the layers the hire was made of.</param>
/// <param name="Specs">What versions of templates and add-ons say.</param>
/// <param name="Waiting">The employments of which a change of pay waits for somebody to agree.</param>
/// <param name="Checks">By employment, what was found right of it in the periods of the runs.</param>
/// <param name="RateChanges">The changes by which rates were typed.</param>
internal sealed record PayRunFacts(
    IReadOnlyDictionary<string, EntryContent> Jobs,
    IReadOnlyDictionary<string, EntryContent> Grades,
    IReadOnlyDictionary<string, EntryContent> Patterns,
    IReadOnlyDictionary<Guid, Instant> KnownSince,
    IReadOnlyDictionary<Guid, string[]> Layers,
    IReadOnlyDictionary<(string Code, int Version), TemplateSpec> Specs,
    IReadOnlySet<Guid> Waiting,
    ILookup<Guid, PayCheck> Checks,
    IReadOnlyDictionary<Guid, Change> RateChanges
)
{
    /// <summary>The rate that the templates say from which a newcomer's hire was made, paid for the same time; null for none, and of a formula.</summary>
    public decimal? TemplateRate(Guid employment, string? paidBy)
    {
        if (!Layers.TryGetValue(employment, out var layers))
            return null;
        var specs = layers.Select(RoleTemplate.ReadLayer).Select(l => l is { } layer ? Specs.GetValueOrDefault(layer) : null).OfType<TemplateSpec>().ToList();
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
