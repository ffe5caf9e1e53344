using System.Text.Json;
using Fid.Core.Checklists;

namespace Fid.Server.Hires;

/// <summary>An occasion in a query, written as in answers: "jobChange".</summary>
public readonly record struct OccasionParameter(Occasion Occasion)
{
    public static bool TryParse(string? text, IFormatProvider? provider, out OccasionParameter parameter)
    {
        var at = Array.FindIndex(Enum.GetNames<Occasion>(), name => JsonNamingPolicy.CamelCase.ConvertName(name) == text);
        parameter = at < 0 ? default : new(Enum.GetValues<Occasion>()[at]);
        return at >= 0;
    }
}
