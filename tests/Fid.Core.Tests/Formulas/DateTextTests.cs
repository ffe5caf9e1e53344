using Fid.Core.Formulas;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Formulas;

public class DateTextTests
{
    [Theory]
    [InlineData("2027-03-01", true)]
    [InlineData("2028-02-29", true)]
    [InlineData("2027-02-29", false)]
    [InlineData("2027-3-01", false)]
    [InlineData("2027-03-011", false)]
    [InlineData("02027-03-1", false)]
    [InlineData("2027/03/01", false)]
    [InlineData("-202-03-01", false)]
    [InlineData("", false)]
    public void Only_a_whole_date_as_ISO_8601_writes_it_is_one(string text, bool isDate)
    {
        RecordFormula.IsDate(text, out var date).ShouldBe(isDate);
        if (text == "2028-02-29")
            date.ShouldBe(new LocalDate(2028, 2, 29));
    }
}
