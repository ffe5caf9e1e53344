using Fid.Core.Calendars;
using NodaTime;
using NodaTime.Text;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Calendars;

public class AgeTests
{
    private static LocalDate Day(string text) => LocalDatePattern.Iso.Parse(text).Value;

    [Theory]
    [InlineData("1999-03-02", "2027-03-01", 27)]
    [InlineData("1999-03-01", "2027-03-01", 28)]
    [InlineData("1999-02-28", "2027-03-01", 28)]
    [InlineData("1999-12-01", "2027-03-31", 27)]
    [InlineData("2027-03-01", "2027-03-01", 0)]
    [InlineData("2027-03-02", "2027-03-01", 0)]
    [InlineData("2004-02-29", "2027-02-28", 22)]
    [InlineData("2004-02-29", "2027-03-01", 23)]
    [InlineData("2004-02-29", "2028-02-28", 23)]
    [InlineData("2004-02-29", "2028-02-29", 24)]
    public void Years_are_counted_whole(string born, string on, int years) => Age.On(Day(born), Day(on)).ShouldBe(years);
}
