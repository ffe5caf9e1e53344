using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Server.Platform;

namespace Fid.Server.Hires;

/// <summary>What a task sets in the record by itself.</summary>
/// <param name="Sets">The fields, as far as the reader may see them.</param>
/// <param name="Trouble">Why it could not be done when it was tried.</param>
public sealed record AutomaticResponse(FieldSettingResponse[] Sets, ProblemEntry? Trouble)
{
    /// <summary>Null for what sets nothing. Of a field the reader may not see neither formula nor trouble tells.</summary>
    internal static AutomaticResponse? Of(string[] fields, string[] formulas, string? trouble, string? code, Reader reader)
    {
        if (fields.Length == 0)
            return null;
        var (what, about) = code?.Split('/', 2) is [var first, var field] ? (first, field) : (code ?? "", "");
        return new AutomaticResponse(
            [.. fields.Zip(formulas, (f, formula) => new FieldSettingResponse(f, formula)).Where(s => reader.Sees(s.Field) && !reader.Reads(s.Formula))],
            trouble is null ? null
                : about.Length == 0 || reader.Sees(about) ? new ProblemEntry($"/{about}", what, trouble)
                : new ProblemEntry("/", "hidden-trouble", "It could not be done by itself. Ask your coordinator.")
        );
    }
}

/// <summary>A field that a task sets.</summary>
/// <param name="Formula">To what.</param>
public sealed record FieldSettingResponse(string Field, string Formula);
