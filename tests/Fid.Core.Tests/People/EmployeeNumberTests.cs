using CsCheck;
using Fid.Core.People;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.People;

public class EmployeeNumberTests
{
    [Theory]
    [InlineData("{number}", 1043, "1043")]
    [InlineData("H{yy}-{number:4}", 43, "H27-0043")]
    [InlineData("HSF.{year}.{number:3}", 12345, "HSF.2027.12345")]
    [InlineData("{number:10}{check}", 7992739871, "79927398713")] // the example everybody checks against
    [InlineData("H{yy}-{number:4}{check}", 43, "H27-00433")]
    [InlineData("A{number}B", 7, "A7B")]
    [InlineData("{year}-{number}", 7, "2027-7")]
    [InlineData("{number}-{year}", 7, "7-2027")]
    [InlineData("{yy}{number:2}", 7, "2707")]
    [InlineData("{number:2}7", 7, "077")]
    [InlineData("{number:10}", 7, "0000000007")]
    [InlineData("A-VERY-LONG-PRE-{number:4}", 7, "A-VERY-LONG-PRE-0007")]
    public void Writes_numbers_as_the_firm_does(string pattern, long number, string written) =>
        EmployeeNumberPattern.Read(pattern).Answer!.Format(number, 2027).ShouldBe(written);

    [Theory]
    [InlineData("")]
    [InlineData("H27")]
    [InlineData("{number}-{number}")]
    [InlineData("{check}{number:4}")]
    [InlineData("{number:0}")]
    [InlineData("{number:11}")]
    [InlineData("H/{number}")]
    [InlineData("{Number}")]
    [InlineData("1{number}")]
    [InlineData("{yy}{number}")]
    [InlineData("{number}{yy}")]
    [InlineData("{number}{check}")]
    [InlineData("{number}7")]
    [InlineData("{number:3}{check}{check}")]
    [InlineData("A-VERY-LONG-PREF-{number:4}")]
    [InlineData("A-VERY-LONG-PREFIX-{number:5}")]
    public void Says_what_is_no_pattern(string pattern) => EmployeeNumberPattern.Read(pattern).Problems.ShouldHaveSingleItem().Code.ShouldBe("bad-pattern");

    [Fact]
    public void No_two_are_written_the_same_and_one_wrong_digit_is_noticed() =>
        Gen.Select(Gen.Int[1, 99_999], Gen.Int[1, 99_999], Gen.Int[0, 4], Gen.Int[1, 9])
            .Sample(
                (a, b, at, shift) =>
                {
                    var pattern = EmployeeNumberPattern.Read("H-{number:5}{check}").Answer!;
                    (pattern.Format(a, 2027) == pattern.Format(b, 2027)).ShouldBe(a == b);
                    var digits = a.ToString("00000", System.Globalization.CultureInfo.InvariantCulture).ToCharArray();
                    var check = EmployeeNumberPattern.CheckDigit(new string(digits));
                    digits[at] = (char)('0' + (digits[at] - '0' + shift) % 10);
                    EmployeeNumberPattern.CheckDigit(new string(digits)).ShouldNotBe(check);
                }
            );
}
