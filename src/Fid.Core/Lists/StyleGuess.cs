using System.Text.RegularExpressions;

namespace Fid.Core.Lists;

/// <summary>Finds out how a sheet writes dates and numbers, from its own cells.</summary>
public sealed partial class StyleGuess
{
    private bool _dayFirst = true,
        _monthFirst = true,
        _anyDigits;
    private int _commaDecimals,
        _pointDecimals;

    /// <summary>Whether dates were seen that could be read both ways, and none that says which.</summary>
    public bool DatesAreAmbiguous => _anyDigits && _dayFirst && _monthFirst;

    /// <summary>Whether dates were seen that contradict each other: some only with the day first, some only with the month first.</summary>
    public bool DatesContradict => _anyDigits && !_dayFirst && !_monthFirst;

    /// <summary>The order of dates; the day first where nothing tells.</summary>
    public DateOrder Dates =>
        !_anyDigits ? DateOrder.YearMonthDay
        : _dayFirst || !_monthFirst ? DateOrder.DayMonthYear
        : DateOrder.MonthDayYear;

    /// <summary>The decimal mark; the usual one of such files where nothing tells.</summary>
    /// <param name="usual">The mark to take then.</param>
    public char Decimal(char usual) =>
        _commaDecimals == _pointDecimals ? usual
        : _commaDecimals > _pointDecimals ? ','
        : '.';

    /// <summary>Takes a cell of a date column into account.</summary>
    public void SeeDate(string cell)
    {
        var (day, month) = CellText.Orders(cell);
        if (!day && !month)
            return;
        _anyDigits = true;
        _dayFirst &= day;
        _monthFirst &= month;
    }

    /// <summary>Takes a cell of a number column, or of one that holds numbers among other things, into account.</summary>
    public void SeeNumber(string cell)
    {
        var (comma, point) = (cell.LastIndexOf(','), cell.LastIndexOf('.'));
        if (comma >= 0 && point >= 0)
        {
            if (comma > point)
                _commaDecimals++;
            else
                _pointDecimals++;
        }
        else if (TellingMark().Match(cell) is { Success: true } mark)
        {
            if (mark.ValueSpan[0] == ',')
                _commaDecimals++;
            else
                _pointDecimals++;
        }
    }

    // Three digits behind a mark may be thousands; any other count is decimals.
    [GeneratedRegex(@"[.,](?=\d{1,2}\b|\d{4,}\b)")]
    private static partial Regex TellingMark();
}
