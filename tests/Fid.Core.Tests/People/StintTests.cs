using Fid.Core.People;
using NodaTime;
using NodaTime.Text;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.People;

/// <summary>The first day, the last, and the day before and after each.</summary>
public class StintTests
{
    private static LocalDate Day(string text) => LocalDatePattern.Iso.Parse("2027-" + text).Value;

    private static Stint Of(string start, string? end) => new(Day(start), end is null ? null : Day(end));

    [Theory]
    [InlineData("03-02", null, Standing.Coming, true)]
    [InlineData("03-01", null, Standing.Here, true)]
    [InlineData("02-01", null, Standing.Here, true)]
    [InlineData("02-01", "03-02", Standing.Leaving, true)]
    [InlineData("02-01", "03-01", Standing.Leaving, true)]
    [InlineData("02-01", "02-28", Standing.Left, false)]
    [InlineData("02-28", "02-28", Standing.Left, false)]
    [InlineData("03-01", "03-01", Standing.Leaving, true)]
    [InlineData("03-02", "03-02", Standing.Coming, true)]
    [InlineData("03-02", "03-01", Standing.NeverCame, false)]
    [InlineData("03-01", "02-28", Standing.NeverCame, false)]
    [InlineData("02-02", "02-01", Standing.NeverCame, false)]
    public void On_the_first_of_March(string start, string? end, Standing standing, bool goesOn)
    {
        var (stint, today) = (Of(start, end), Day("03-01"));
        (stint.StandingOn(today), stint.GoesOn(today), stint.NeverWas).ShouldBe((standing, goesOn, standing == Standing.NeverCame));
    }

    [Theory]
    [InlineData("03-08", "02-28")] // they step back a week before
    [InlineData("03-02", "02-28")]
    [InlineData("03-01", "02-28")] // they do not come on the first day
    [InlineData("02-24", "02-23")] // it is noticed days after
    public void What_comes_to_nothing_ends_before_it_began(string start, string end)
    {
        var stint = Of(start, null).CameToNothing(Day("03-01"));
        (stint.End, stint.NeverWas, stint.GoesOn(Day("01-01"))).ShouldBe((Day(end), true, false));
    }
}
