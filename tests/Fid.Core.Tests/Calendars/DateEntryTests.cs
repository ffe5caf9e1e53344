using Fid.Core.Calendars;
using NodaTime;
using NodaTime.Text;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Calendars;

public class DateEntryTests
{
    private static readonly LocalDate Today = new(2027, 3, 1); // a Monday
    private static readonly WorkCalendar Office = new(RestMask.Weekend, [new LocalDate(2027, 3, 17)]);

    [Theory]
    [InlineData("2027-03-08", "2027-03-08")]
    [InlineData(" 8/3 ", "2027-03-08")]
    [InlineData("8.3.", "2027-03-08")]
    [InlineData("8.3.28", "2028-03-08")]
    [InlineData("3.4.75", "1975-04-03")]
    [InlineData("3/4/49", "2049-04-03")]
    [InlineData("3 apr 50", "1950-04-03")]
    [InlineData("8 Mar", "2027-03-08")]
    [InlineData("Mon 8 Mar", "2027-03-08")] // as it is echoed
    [InlineData("Mo 8. März", "2027-03-08")]
    [InlineData("March 8, 2028", "2028-03-08")]
    [InlineData("today", "2027-03-01")]
    [InlineData("Morgen", "2027-03-02")]
    [InlineData("mon", "2027-03-08")] // never today
    [InlineData("next tuesday", "2027-03-02")]
    [InlineData("nächsten do", "2027-03-04")]
    [InlineData("+10", "2027-03-11")]
    [InlineData("-3d", "2027-02-26")]
    [InlineData("+13wd", "2027-03-19")] // the holiday does not count
    [InlineData("+2w", "2027-03-15")]
    [InlineData("+1m", "2027-04-01")]
    [InlineData("1/12", "2027-12-01")]
    [InlineData("2/1", "2027-01-02")] // two months back still counts
    [InlineData("1/1", "2027-01-01")] // and two months to the day
    [InlineData("31/12", "2027-12-31")]
    [InlineData("29/2", "2028-02-29")]
    public void Reads_dates_as_people_type_them(string typed, string meant) =>
        DateEntry.Read(typed, Today, Office).ShouldBe(LocalDatePattern.Iso.Parse(meant).Value);

    [Theory]
    [InlineData("")]
    [InlineData("soon")]
    [InlineData("31/2/2027")]
    [InlineData("0/0")]
    [InlineData("8/13")]
    [InlineData("0/3/2027")]
    [InlineData("31/0/2027")]
    [InlineData("1/1/0000")]
    [InlineData("0000-01-01")]
    [InlineData("2027-13-01")]
    [InlineData("2027-03-00")]
    [InlineData("+999999m")]
    [InlineData("2027-02-30")]
    public void Says_when_no_date_is_meant(string typed) => DateEntry.Read(typed, Today, Office).ShouldBeNull();
}
