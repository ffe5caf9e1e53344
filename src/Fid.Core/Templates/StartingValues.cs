using System.Text.Json;

namespace Fid.Core.Templates;

/// <summary>Fills what no layer set from what the firm's lists know about the hire's place in it.</summary>
public static class StartingValues
{
    /// <summary>The source of a value that the hire itself sets, such as the start date.</summary>
    public const string FromHire = "hire";

    /// <summary>The source of a value that the site gives.</summary>
    public const string FromSite = "site";

    /// <summary>The source of a value that the department gives.</summary>
    public const string FromDepartmentItself = "department";

    /// <summary>The source of a manager who leads the department.</summary>
    public const string FromDepartment = "departmentHead";

    /// <summary>The source of a manager who holds the seat that the hire's seat reports to.</summary>
    public const string FromSeat = "seat";

    /// <summary>The source of a badge that was the next one free.</summary>
    public const string NextFree = "nextFree";

    /// <summary>The layers' values, with the fields that are still empty filled where the lists know a value.</summary>
    /// <param name="layered">What the layers came to.</param>
    /// <param name="known">What the lists know.</param>
    public static IReadOnlyDictionary<string, LayeredValue> Fill(Layered layered, KnownFacts known)
    {
        var values = new Dictionary<string, LayeredValue>(layered.Values, StringComparer.Ordinal);
        Add("holiday_calendar", known.SiteCalendar, FromSite);
        Add("cost_centre", known.SiteCostCentre, FromSite);
        Add("cost_centre", known.DepartmentCostCentre, FromDepartmentItself);
        Add("manager", known.SeatManager, FromSeat);
        Add("manager", known.DepartmentHead, FromDepartment);
        Add("badge", known.NextBadge, NextFree);
        return values;

        void Add(string field, string? value, string source)
        {
            if (value is not null && (!values.TryGetValue(field, out var there) || there.Value.ValueKind == JsonValueKind.Null))
                values[field] = new LayeredValue(JsonSerializer.SerializeToElement(value), source, []);
        }
    }
}

/// <summary>What the firm's lists know about a hire's place; null where they know nothing.</summary>
/// <param name="SiteCalendar">The code of the site's holiday calendar.</param>
/// <param name="SiteCostCentre">The code of the site's cost centre.</param>
/// <param name="DepartmentCostCentre">The code of the department's cost centre.</param>
/// <param name="SeatManager">The employment of whoever holds the seat that the hire's seat reports to.</param>
/// <param name="DepartmentHead">The employment of the department's head.</param>
/// <param name="NextBadge">The next free badge number.</param>
public sealed record KnownFacts(
    string? SiteCalendar,
    string? SiteCostCentre,
    string? DepartmentCostCentre,
    string? SeatManager,
    string? DepartmentHead,
    string? NextBadge
);
