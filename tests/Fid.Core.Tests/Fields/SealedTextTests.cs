using System.Text.Json;
using Fid.Core.Fields;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

/// <summary>How a sealed value is told from one that only looks like it, and what of it is shown.</summary>
public class SealedTextTests
{
    private static readonly string Hash = new('a', 64);

    [Fact]
    public void A_value_comes_back_out_of_its_seal_and_equal_ones_are_found_by_their_hash()
    {
        var value = SealedText.Write(Hash, "closed:as it is");
        SealedText.IsSealed(value).ShouldBeTrue();
        SealedText.Closed(value).ShouldBe("closed:as it is");
        SealedText.Comparable(value).ShouldBe(SealedText.Start(Hash));
        SealedText.Comparable(SealedText.Write(Hash, "sealed another time")).ShouldBe(SealedText.Comparable(value));
        SealedText.IsMask(SealedText.Shown(value)).ShouldBeTrue();
    }

    [Theory]
    [InlineData("sealed:", 64, ":x", true)]
    [InlineData("sealed:", 64, ":", false)] // nothing is in it
    [InlineData("sealed:", 63, ":xx", false)]
    [InlineData("sealed:", 65, ":x", false)]
    [InlineData("Sealed:", 64, ":x", false)]
    public void Only_what_is_written_as_a_seal_is_one(string prefix, int digits, string rest, bool isSealed)
    {
        var text = prefix + new string('a', digits) + rest;
        SealedText.IsSealed(text).ShouldBe(isSealed);
        var value = JsonSerializer.SerializeToElement(text);
        SealedText.IsMask(SealedText.Shown(value)).ShouldBe(isSealed);
        if (!isSealed)
            Should.Throw<ArgumentException>(() => SealedText.Closed(value));
    }

    [Fact]
    public void What_is_no_text_is_not_sealed() => SealedText.Shown(JsonSerializer.SerializeToElement(12)).GetInt32().ShouldBe(12);
}
