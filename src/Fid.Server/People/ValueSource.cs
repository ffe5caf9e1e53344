using Fid.Data.Hires;
using Fid.Data.Templates;

namespace Fid.Server.People;

/// <summary>Where a value came from.</summary>
/// <param name="Kind">"template", "addOn", "typed", "site", "departmentHead", "nextFree", "hire", "job", "rule", "like", "person", "reused" or "default".</param>
/// <param name="Name">The template's or add-on's name, the job's code, the colleague's number, or the field whose change set it.</param>
/// <param name="Version">The template's or add-on's version.</param>
public sealed record ValueSource(string Kind, string? Name = null, int? Version = null)
{
    public static ValueSource Of(string source, TemplateBook templates) =>
        templates.Describe(source) is var (name, version)
            ? new ValueSource(source[..source.IndexOf(':', StringComparison.Ordinal)], name, version)
            : source.StartsWith("rule:", StringComparison.Ordinal) ? new ValueSource("rule", source["rule:".Length..])
            : source.StartsWith(HireOrigin.LikePrefix, StringComparison.Ordinal) ? new ValueSource("like", source[HireOrigin.LikePrefix.Length..]) : new ValueSource(source);
}
