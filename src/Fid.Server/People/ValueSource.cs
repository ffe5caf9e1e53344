using Fid.Acts.Hires;
using Fid.Acts.Templates;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>Where a value came from.</summary>
/// <param name="Kind">"template", "addOn", "typed", "site", "departmentHead", "nextFree", "hire", "job", "rule", "like", "person", "reused" or
/// "default".</param>
/// <param name="Name">The template's or add-on's name, the job's code, the colleague, or the field whose change set it.</param>
/// <param name="Version">The template's or add-on's version.</param>
public sealed record ValueSource(string Kind, string? Name = null, int? Version = null);

/// <summary>How the sources that values are stored with are called.</summary>
internal sealed class SourceNames
{
    private readonly TemplateSet _templates;
    private readonly Dictionary<string, string> _colleagues;

    private SourceNames(TemplateSet templates, Dictionary<string, string> colleagues) => (_templates, _colleagues) = (templates, colleagues);

    /// <summary>Reads what it takes to name these sources.</summary>
    /// <param name="seesNames">Whether people's names may be seen; where not, colleagues are called by their numbers.</param>
    public static async Task<SourceNames> LoadAsync(
        FidDb db,
        TemplateSet templates,
        IEnumerable<string> sources,
        bool seesNames,
        CancellationToken cancellation
    )
    {
        var numbers = sources
            .Where(s => s.StartsWith(HireOrigin.LikePrefix, StringComparison.Ordinal))
            .Select(s => s[HireOrigin.LikePrefix.Length..])
            .Distinct()
            .ToArray();
        return new SourceNames(
            templates,
            numbers.Length == 0 || !seesNames
                ? []
                : await db
                    .Employments.Where(e => numbers.Contains(e.Number))
                    .Join(
                        db.CurrentRecords,
                        e => e.Id,
                        r => r.EmploymentId,
                        (e, r) =>
                            new
                            {
                                e.Number,
                                r.GivenName,
                                r.FamilyName,
                            }
                    )
                    .ToDictionaryAsync(c => c.Number, c => $"{c.GivenName} {c.FamilyName} ({c.Number})", cancellation)
        );
    }

    /// <summary>What a stored source says.</summary>
    public ValueSource Of(string source) =>
        _templates.Describe(source) is var (name, version) ? new ValueSource(source[..source.IndexOf(':', StringComparison.Ordinal)], name, version)
        : source.StartsWith("rule:", StringComparison.Ordinal) ? new ValueSource("rule", source["rule:".Length..])
        : source.StartsWith(HireOrigin.LikePrefix, StringComparison.Ordinal) ? new ValueSource("like", Colleague(source[HireOrigin.LikePrefix.Length..]))
        : new ValueSource(source);

    private string Colleague(string number) => _colleagues.GetValueOrDefault(number, number);
}
