using Fid.Core.Calendars;
using Fid.Core.Lists;
using Fid.Core.Texts;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Lists;

public class CellTextTests
{
    [Theory]
    [InlineData("17.40", '.', "17.40")]
    [InlineData("17,40", ',', "17.40")]
    [InlineData("1,234.5", '.', "1234.5")]
    [InlineData("1.234,5", ',', "1234.5")]
    [InlineData("1 234 567", '.', "1234567")]
    [InlineData("1'234.50", '.', "1234.50")]
    [InlineData("€ 12,50", ',', "12.50")]
    [InlineData("-3", '.', "-3")]
    [InlineData("5 %", '.', "5")]
    [InlineData("1,5", '.', null)]
    [InlineData("1.5", ',', null)]
    [InlineData("1,2345", '.', null)]
    [InlineData("1.2.3", '.', null)]
    [InlineData("twelve", '.', null)]
    [InlineData("1e5", '.', null)]
    [InlineData("=1+1", '.', null)]
    [InlineData("+3", '.', "3")]
    [InlineData("3.", '.', "3")]
    [InlineData("--3", '.', null)]
    [InlineData("1.5.5", '.', null)]
    [InlineData("1.5,5", '.', null)]
    [InlineData("1,5.5", ',', null)]
    [InlineData("1,5,5", ',', null)]
    [InlineData("12x", '.', null)]
    [InlineData("..", '.', null)]
    [InlineData("1,234,567.8", '.', "1234567.8")]
    [InlineData("1234,567", '.', null)]
    [InlineData(",567", '.', null)]
    [InlineData("", '.', null)]
    public void Numbers(string cell, char mark, string? number) =>
        (CellText.Number(cell, new CellStyle(DateOrder.YearMonthDay, mark))?.ToString(System.Globalization.CultureInfo.InvariantCulture)).ShouldBe(number);

    [Theory]
    [InlineData("2027-03-04", DateOrder.MonthDayYear, "2027-03-04")]
    [InlineData("2027-03-04 00:00:00", DateOrder.MonthDayYear, "2027-03-04")]
    [InlineData("3/4/2027", DateOrder.DayMonthYear, "2027-04-03")]
    [InlineData("3/4/2027", DateOrder.MonthDayYear, "2027-03-04")]
    [InlineData("03.04.27", DateOrder.DayMonthYear, "2027-04-03")]
    [InlineData("25/12/2027", DateOrder.MonthDayYear, null)]
    [InlineData("25/12/2027", DateOrder.YearMonthDay, "2027-12-25")]
    [InlineData("3/4/2027", DateOrder.YearMonthDay, null)]
    [InlineData("46450", DateOrder.DayMonthYear, "2027-03-04")]
    [InlineData("61", DateOrder.DayMonthYear, "1900-03-01")]
    [InlineData("60", DateOrder.DayMonthYear, null)]
    [InlineData("109574", DateOrder.DayMonthYear, "2199-12-31")]
    [InlineData("109575", DateOrder.DayMonthYear, null)]
    [InlineData("1900-01-01", DateOrder.DayMonthYear, "1900-01-01")]
    [InlineData("1899-12-31", DateOrder.DayMonthYear, null)]
    [InlineData("2199-12-31", DateOrder.DayMonthYear, "2199-12-31")]
    [InlineData("2200-01-01", DateOrder.DayMonthYear, null)]
    [InlineData("1.1.1900", DateOrder.DayMonthYear, "1900-01-01")]
    [InlineData("31.12.1899", DateOrder.DayMonthYear, null)]
    [InlineData("31.12.2199", DateOrder.DayMonthYear, "2199-12-31")]
    [InlineData("1.1.2200", DateOrder.DayMonthYear, null)]
    [InlineData("29.2.2028", DateOrder.DayMonthYear, "2028-02-29")]
    [InlineData("29.2.2027", DateOrder.DayMonthYear, null)]
    [InlineData("11/12/2027", DateOrder.YearMonthDay, null)]
    [InlineData("12/11/2027", DateOrder.YearMonthDay, null)]
    [InlineData("12/12/2027", DateOrder.YearMonthDay, "2027-12-12")] // the same in either order
    [InlineData("13/12/2027", DateOrder.YearMonthDay, "2027-12-13")]
    [InlineData("12/13/2027", DateOrder.YearMonthDay, "2027-12-13")]
    [InlineData("31/02/2027", DateOrder.DayMonthYear, null)]
    [InlineData("soon", DateOrder.DayMonthYear, null)]
    [InlineData("2027-03-04T08:30:00Z", DateOrder.DayMonthYear, "2027-03-04")]
    [InlineData("2027-03-04x", DateOrder.DayMonthYear, null)]
    [InlineData("2027-03-041", DateOrder.DayMonthYear, null)]
    [InlineData("2027.12.31", DateOrder.MonthDayYear, "2027-12-31")]
    [InlineData("12/12/2027", DateOrder.MonthDayYear, "2027-12-12")]
    [InlineData("0/12/2027", DateOrder.DayMonthYear, null)]
    [InlineData("1/0/2027", DateOrder.DayMonthYear, null)]
    [InlineData("1/13/2027", DateOrder.DayMonthYear, null)]
    public void Dates(string cell, DateOrder order, string? date) =>
        (CellText.Date(cell, new CellStyle(order, '.'))?.ToString("uuuu-MM-dd", null)).ShouldBe(date);

    [Fact]
    public void A_year_of_two_digits_is_the_same_year_typed_and_imported()
    {
        for (var year = 0; year <= 99; year++)
        {
            var text = $"3.4.{year:00}";
            DateEntry.Read(text, new(2027, 3, 1), WorkCalendar.EveryDay).ShouldBe(CellText.Date(text, new CellStyle(DateOrder.DayMonthYear, '.')), text);
        }
    }

    [Theory]
    [InlineData("3/4/2027 5/6/2027", true, false, DateOrder.DayMonthYear)]
    [InlineData("3/4/2027 25/6/2027", false, false, DateOrder.DayMonthYear)]
    [InlineData("3/4/2027 6/25/2027", false, false, DateOrder.MonthDayYear)]
    [InlineData("13/4/2027 6/25/2027", false, true, DateOrder.DayMonthYear)]
    [InlineData("2027-04-03 46450", false, false, DateOrder.YearMonthDay)]
    [InlineData("", false, false, DateOrder.YearMonthDay)]
    [InlineData("2027/4/13 46450", false, false, DateOrder.YearMonthDay)]
    [InlineData("32/1/2027", false, false, DateOrder.YearMonthDay)] // no date at all
    [InlineData("31/12/2027", false, false, DateOrder.DayMonthYear)]
    [InlineData("12/31/2027", false, false, DateOrder.MonthDayYear)]
    [InlineData("12/32/2027", false, false, DateOrder.YearMonthDay)]
    [InlineData("5/0/2027", false, false, DateOrder.YearMonthDay)]
    [InlineData("2027.4.13 2027-04-13", false, false, DateOrder.YearMonthDay)]
    [InlineData("0/5/2027", false, false, DateOrder.YearMonthDay)]
    public void The_order_of_day_and_month_is_asked_only_where_no_cell_tells(string cells, bool ambiguous, bool contradict, DateOrder order)
    {
        var guess = new StyleGuess();
        foreach (var cell in cells.Split(' '))
            guess.SeeDate(cell);
        (guess.DatesAreAmbiguous, guess.DatesContradict, guess.Dates).ShouldBe((ambiguous, contradict, order));
    }

    [Theory]
    [InlineData("1,5|2,25", ',')]
    [InlineData("1.5|2,250", '.')]
    [InlineData("1.234,50", ',')]
    [InlineData("1,234|5,678", '.')]
    [InlineData("1,234.5|1.5,5", '.')]
    [InlineData("1.234,5|2,5|3.5", ',')]
    [InlineData(",5|,25", ',')]
    [InlineData("1,5|2.5", '.')]
    [InlineData("1,5|2,5|3.5", ',')]
    [InlineData(".5,5|1,5", ',')]
    public void The_decimal_mark_is_what_the_cells_show(string cells, char mark)
    {
        var guess = new StyleGuess();
        foreach (var cell in cells.Split('|'))
            guess.SeeNumber(cell);
        guess.Decimal('.').ShouldBe(mark);
    }

    [Theory]
    [InlineData("kantine", "canteen|kantine-nord|Kantine", "Kantine")]
    [InlineData("skery pier", "Skerry Pier|Corran Quay", "Skerry Pier")]
    [InlineData("C-2", "C1|C2|C3", "C2")]
    [InlineData("deckh", "Deckhand|Deck", "Deck")]
    [InlineData("xyz", "Skerry Pier|Corran Quay", null)]
    public void The_nearest_spelling_is_what_was_probably_meant(string text, string candidates, string? meant) =>
        Nearest.Find(text, candidates.Split('|').Select(c => (c, c))).ShouldBe(meant);
}
