using CsCheck;
using Fid.Core.People;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.People;

public class ServiceTests
{
    [Theory]
    [InlineData(
        """{"employments":[{"start":"2019-04-01","end":"2020-09-30"},{"start":"2024-05-01","end":"2026-10-31"},{"start":"2027-03-22"}],"bridgeDays":180}""",
        "2019-04-01 2027-03-22 2024-09-19"
    )]
    [InlineData("""{"employments":[{"start":"2027-03-22"}],"bridgeDays":0}""", "2027-03-22 2027-03-22 2027-03-22")]
    // A break of exactly the days that are bridged is bridged; one more is not; in whatever order they are given.
    [InlineData("""{"employments":[{"start":"2027-01-11"},{"start":"2026-12-01","end":"2026-12-31"}],"bridgeDays":10}""", "2026-12-01 2027-01-11 2026-12-11")]
    [InlineData("""{"employments":[{"start":"2027-01-12"},{"start":"2026-12-01","end":"2026-12-31"}],"bridgeDays":10}""", "2026-12-01 2027-01-12 2027-01-12")]
    // What overlaps counts once.
    [InlineData(
        """{"employments":[{"start":"2026-01-01","end":"2026-12-31"},{"start":"2026-03-01","end":"2026-03-31"},{"start":"2026-07-01"}],"bridgeDays":0}""",
        "2026-01-01 2026-07-01 2026-01-01"
    )]
    public void Service_is_counted_back_over_breaks_that_are_bridged(string question, string dates) =>
        Asked
            .Answer("service", question)
            .ShouldBe($$"""{"originalHire":"{{dates[..10]}}","lastHire":"{{dates[11..21]}}","adjustedService":"{{dates[22..]}}"}""");

    [Theory]
    [InlineData("25", "0.8", "2027-01-01", "2027-12-31", "")]
    [InlineData("0", "0", "2027-01-01", "2027-12-31", "")]
    [InlineData("366", "10", "2027-01-01", "2027-12-31", "")]
    [InlineData("367", "1", "2027-01-01", "2027-12-31", "/days out-of-range")]
    [InlineData("-1", "1", "2027-01-01", "2027-12-31", "/days out-of-range")]
    [InlineData("25", "10.1", "2027-01-01", "2027-12-31", "/fte out-of-range")]
    [InlineData("25", "-0.1", "2027-01-01", "2027-12-31", "/fte out-of-range")]
    [InlineData("25", "1", "2027-03-22", "2027-03-22", "")]
    [InlineData("25", "1", "2027-03-22", "2027-03-21", "/yearEnd not-in-order")]
    [InlineData("-1", "1", "2027-03-22", "2027-03-21", "/days out-of-range")]
    public void A_leave_year_and_its_days_have_bounds(string days, string fte, string yearStart, string yearEnd, string problem)
    {
        var question = $$"""{"days":{{days}},"fte":{{fte}},"start":"2027-03-22","yearStart":"{{yearStart}}","yearEnd":"{{yearEnd}}","rounding":"none"}""";
        Asked.ShouldTell("leave", question, problem);
    }

    [Theory]
    [InlineData("""{"employments":[],"bridgeDays":0}""", "/employments", "missing-employment")]
    [InlineData("""{"employments":[{"start":"2027-01-02","end":"2027-01-01"}],"bridgeDays":0}""", "/employments/0/end", "not-in-order")]
    [InlineData("""{"employments":[{"start":"2026-01-02"},{"start":"2027-01-02"}],"bridgeDays":0}""", "/employments/0/end", "missing-end")]
    [InlineData("""{"employments":[{"start":"2026-01-02"}],"bridgeDays":-1}""", "/bridgeDays", "out-of-range")]
    public void Stints_that_cannot_be_are_told(string question, string path, string code) =>
        Asked.Problems("service", question).Select(p => (p.Path, p.Code)).ShouldBe([(path, code)]);

    [Fact]
    public void Adjusted_service_is_as_many_days_before_the_last_hire_as_were_worked_day_by_day() =>
        Gen.Select(Gen.Int[0, 400].Array[2], Gen.Int[0, 400].Array[2], Gen.Int[0, 60])
            .Sample(
                (starts, lengths, bridge) =>
                {
                    var day = new LocalDate(2024, 1, 1);
                    var stints = starts
                        .Zip(lengths, (s, l) => (Start: day.PlusDays(s), End: (LocalDate?)day.PlusDays(s + l)))
                        .Append((day.PlusDays(900), null))
                        .ToList();
                    var service = ServiceDates.Of(stints, bridge).Answer!;
                    var (worked, idle) = (0, 0);
                    for (var d = day.PlusDays(899); d >= day && idle <= bridge; d = d.PlusDays(-1))
                    {
                        if (stints.Any(s => s.Start <= d && d <= s.End))
                            (worked, idle) = (worked + 1, 0);
                        else
                            idle++;
                    }
                    service.AdjustedService.ShouldBe(day.PlusDays(900 - worked));
                }
            );

    [Theory]
    [InlineData("2027-03-22", "0.8", "upHalf", "16")]
    [InlineData("2027-03-22", "0.8", "none", "15.62")]
    [InlineData("2027-03-22", "0.8", "nearestHalf", "15.5")]
    [InlineData("2027-03-22", "0.8", "upDay", "16")]
    [InlineData("2027-03-22", "0.8", "nearestDay", "16")]
    [InlineData("2026-05-01", "1", "none", "25.00")]
    [InlineData("2027-12-31", "1", "none", "0.07")] // the last day of the year is a day of it
    [InlineData("2027-01-02", "1", "none", "24.93")]
    [InlineData("2027-01-01", "0.5", "upHalf", "12.5")] // an exact half stays one
    [InlineData("2027-01-01", "0.51", "upHalf", "13")]
    [InlineData("2027-01-01", "0.49", "nearestHalf", "12.5")] // a quarter is a tie, and goes up
    [InlineData("2027-01-01", "0.4899", "nearestHalf", "12")]
    [InlineData("2027-01-01", "0.4999", "nearestDay", "12")]
    [InlineData("2027-01-01", "0.48", "upDay", "12")]
    [InlineData("2027-01-01", "0.5", "nearestDay", "13")]
    [InlineData("2028-01-01", "1", "upDay", "0")]
    public void Leave_is_for_what_is_left_of_the_year(string start, string fte, string rounding, string days) =>
        decimal.Parse(
                Asked.Answer(
                    "leave",
                    $$"""{"days":25,"fte":{{fte}},"start":"{{start}}","yearStart":"2027-01-01","yearEnd":"2027-12-31","rounding":"{{rounding}}"}"""
                )["{\"days\":".Length..^1],
                System.Globalization.CultureInfo.InvariantCulture
            )
            .ShouldBe(decimal.Parse(days, System.Globalization.CultureInfo.InvariantCulture));

    [Theory]
    [InlineData("0", "")]
    [InlineData("100000", "")]
    [InlineData("100000.0", "")]
    [InlineData("2.0", "")]
    [InlineData("0.0", "")]
    [InlineData("100001", "out-of-range")]
    [InlineData("100001.0", "out-of-range")]
    [InlineData("-1", "out-of-range")]
    [InlineData("-1.0", "out-of-range")]
    [InlineData("2.5", "wrong-type")]
    [InlineData("-2.5", "wrong-type")]
    [InlineData("1e30", "out-of-range")]
    [InlineData("1e300", "out-of-range")]
    [InlineData("\"2\"", "wrong-type")]
    public void A_whole_number_is_one_however_it_is_written_and_within_its_bounds(string days, string code)
    {
        var question = $$"""{"employments":[{"start":"2026-01-02"}],"bridgeDays":{{days}} }""";
        Asked.ShouldTell("service", question, code.Length == 0 ? "" : $"/bridgeDays {code}");
    }
}
