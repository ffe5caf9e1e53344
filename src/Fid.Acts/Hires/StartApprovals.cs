using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Approvals;
using Fid.Core.Json;
using Fid.Data.Templates;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>What a new hire would start with in place of what its template gives, and others have to agree to: a hire is opened with what
/// nobody needs to be asked about, and the rest is asked for on its record.</summary>
public static class StartApprovals
{
    /// <summary>What is told of such a value.</summary>
    public const string Message = "Others have to agree to this. Open the hire without it, and ask for it on the record.";

    /// <summary>The fields in question.</summary>
    /// <param name="starts">What the hire would start with.</param>
    /// <param name="typed">What was typed of it.</param>
    /// <param name="distances">How far pay lies from what it is held against; null where no condition reads it.</param>
    /// <param name="start">The first day; null while it is not known.</param>
    public static IReadOnlyList<string> Asked(
        LiveFields fields,
        TemplateSet templates,
        RoleTemplate template,
        IReadOnlyDictionary<string, JsonElement> starts,
        IReadOnlyDictionary<string, JsonElement> typed,
        PayDistances? distances,
        LocalDate? start,
        LocalDate today
    )
    {
        var about = starts.Keys.Where(k => fields.Approvals.All.Any(a => a.IsAbout(k))).ToHashSet(StringComparer.Ordinal);
        if (about.Count == 0)
            return [];
        var usual = templates.Resolve(template, typed.Where(t => !about.Contains(t.Key)).ToDictionary(), start, today).Answer?.Values;
        // What no hire is opened without, and no template gives, is the first word and no change.
        var needed = usual is null ? [] : HireOpening.Lacking(usual).ToHashSet(StringComparer.Ordinal);
        JsonElement? Usual(string field) => usual is not null && usual.TryGetValue(field, out var there) ? there.Value : null;
        decimal? rate = Usual("pay_rate") is { ValueKind: JsonValueKind.Number } given && Same("paid_by") ? given.GetDecimal() : null;
        var read = PayDistances.Read(distances, null, starts, [], rate);
        return [.. about.Where(k => !needed.Contains(k) && fields.Approvals.Asks(RequestedChange.Of(k, Usual(k), starts[k]), read, today))];

        bool Same(string field) => JsonValues.Same(Usual(field), starts.TryGetValue(field, out var will) ? will : null);
    }
}
