using Fid.Core.Texts;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Lists;

public class NamedChoiceTests
{
    private static readonly NamedChoice[] Sizes = [new("s", ["Small", "Klein"]), new("m", ["Middle", "L"]), new("l", ["Large", "Groß"])];

    [Theory]
    [InlineData("s", "s")]
    [InlineData("S", "s")]
    [InlineData("small", "s")]
    [InlineData(" KLEIN ", "s")]
    [InlineData("GROß", "l")]
    [InlineData("L", "l")] // by value before another's name
    [InlineData("Ĺ", "m")] // folded, the first that is called so
    [InlineData("", null)]
    [InlineData("larg", null)]
    public void A_choice_is_found_by_its_value_or_else_by_what_it_is_called(string said, string? value) => NamedChoice.Find(Sizes, said).ShouldBe(value);

    [Fact]
    public void Among_none_there_is_none() => NamedChoice.Find([], "s").ShouldBeNull();
}
