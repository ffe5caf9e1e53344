using CsCheck;
using Fid.Core.Texts;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Texts;

public class IbanTests
{
    [Theory]
    [InlineData("IE29AIBK93115212345678", "IE29AIBK93115212345678")]
    [InlineData(" ie29 aibk 9311 5212 3456 78 ", "IE29AIBK93115212345678")]
    [InlineData("DE89 3704 0044 0532 0130 00", "DE89370400440532013000")]
    [InlineData("NO93 8601 1117 947", "NO9386011117947")]
    [InlineData("MT84 MALT 0110 0001 2345 MTLC AST0 01S", "MT84MALT011000012345MTLCAST001S")]
    public void A_number_is_read_however_it_is_spaced_and_kept_as_machines_send_it(string written, string electronic)
    {
        Iban.Read(written, out var number).ShouldBeNull();
        number.ShouldBe(electronic);
    }

    [Theory]
    [InlineData("", "two letters")]
    [InlineData("IE", "two letters")]
    [InlineData("twelve", "two letters")]
    [InlineData("29IEAIBK93115212345678", "two letters")]
    [InlineData("IEX9AIBK93115212345678", "two letters")]
    [InlineData("IE29AIBK9311-5212-345678", "two letters")]
    [InlineData("IE29ÄIBK93115212345678", "two letters")]
    [InlineData("IE29AIBK9311521234567", "has 22 characters, and this has 21")]
    [InlineData("IE29AIBK931152123456789", "has 22 characters, and this has 23")]
    [InlineData("IE29AIBK93115212345679", "check digits")]
    [InlineData("IE29AIBK93115212345687", "check digits")]
    [InlineData("IE92AIBK93115212345678", "check digits")]
    public void What_is_none_says_what_to_do(string written, string message)
    {
        Iban.Read(written, out var number).ShouldNotBeNull().ShouldContain(message);
        number.ShouldBe(written);
    }

    [Fact]
    public void A_wrong_character_and_two_neighbours_exchanged_are_always_found()
    {
        var account = Gen.Char["ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789"].Array[18];
        Gen.Select(account, Gen.Int[4, 21], Gen.Char["0123456789"])
            .Sample(
                (characters, at, other) =>
                {
                    var number = Iban.Of("IE", new string(characters));
                    Iban.Read(number, out _).ShouldBeNull();
                    if (char.IsAsciiDigit(number[at]) && number[at] != other)
                        Iban.Read(number[..at] + other + number[(at + 1)..], out _).ShouldNotBeNull();
                    if (at < 21 && char.IsAsciiDigit(number[at]) && char.IsAsciiDigit(number[at + 1]) && number[at] != number[at + 1])
                        Iban.Read(number[..at] + number[at + 1] + number[at] + number[(at + 2)..], out _).ShouldNotBeNull();
                }
            );
    }
}
