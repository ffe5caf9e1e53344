namespace Fid.Core.Lists;

/// <summary>How a sheet writes dates and numbers.</summary>
/// <param name="Dates">In which order a date in digits stands; ISO 8601 dates are always understood.</param>
/// <param name="Decimal">The decimal mark, '.' or ','; the other one groups thousands.</param>
public sealed record CellStyle(DateOrder Dates, char Decimal)
{
    /// <summary>As Fid itself writes: ISO 8601 dates and decimal points.</summary>
    public static CellStyle Own { get; } = new(DateOrder.YearMonthDay, '.');
}

/// <summary>The order of day, month and year in a date of digits.</summary>
public enum DateOrder
{
    /// <summary>2027-03-22.</summary>
    YearMonthDay,

    /// <summary>22/3/2027.</summary>
    DayMonthYear,

    /// <summary>3/22/2027.</summary>
    MonthDayYear,
}
