using System.Text.Json;
using Fid.Data.Templates;

namespace Fid.Acts.Templates;

/// <summary>The templates that Fid itself brings along.</summary>
public static class TemplateFile
{
    /// <summary>The templates of a file, made anew at each call.</summary>
    public static IReadOnlyList<RoleTemplate> Read(Stream stream) =>
        [
            .. JsonSerializer
                .Deserialize<Entry[]>(stream, TemplateSpec.Json)!
                .Select(e => new RoleTemplate
                {
                    Code = e.Code,
                    Version = e.Version,
                    Spec = e.Spec,
                }),
        ];

    private sealed record Entry(string Code, int Version, TemplateSpec Spec);
}
