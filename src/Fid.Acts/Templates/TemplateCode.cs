using System.Text.RegularExpressions;

namespace Fid.Acts.Templates;

/// <summary>How codes of templates and keys of shared tasks are written.</summary>
public static partial class TemplateCode
{
    public static bool IsOne(string? code) => code is not null && Pattern().IsMatch(code);

    [GeneratedRegex("^[a-z0-9]([a-z0-9-]{0,38}[a-z0-9])?$")]
    private static partial Regex Pattern();
}
