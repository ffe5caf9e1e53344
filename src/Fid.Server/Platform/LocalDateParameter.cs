using NodaTime;
using NodaTime.Text;

namespace Fid.Server.Platform;

/// <summary>A date in a query, as ISO 8601 year-month-day.</summary>
public readonly record struct LocalDateParameter(LocalDate Date)
{
    public static bool TryParse(string? text, IFormatProvider? provider, out LocalDateParameter parameter)
    {
        var result = LocalDatePattern.Iso.Parse(text ?? "");
        parameter = result.Success ? new(result.Value) : default;
        return result.Success;
    }
}
