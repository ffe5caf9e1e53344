using System.Text.Json;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

/// <summary>Patterns are exported and run elsewhere: one that could run away there is refused, and no other.</summary>
public class PatternTests
{
    [Theory]
    [InlineData(@"(a+)+")]
    [InlineData(@"(a*)*b")]
    [InlineData(@"(a|a)*")]
    [InlineData(@"(a|b|ab)*")]
    [InlineData(@"(\w+\s?)*")]
    [InlineData(@"(\d+)*x")]
    [InlineData(@"([a-m]|[h-z])*")]
    [InlineData(@"(.a?)*")]
    [InlineData(@"(?:a{1,2}){3,}")]
    [InlineData(@"(a?b?)*")]
    [InlineData(@"(?<word>a+)*")]
    [InlineData(@"(?'word'a+)*")]
    [InlineData(@"(?i:a+)*")]
    [InlineData(@"([^x]+)*")]
    [InlineData(@"([]a]+)*")]
    [InlineData(@"([\]a]+)*")]
    [InlineData(@"((x|y)+z?)+")]
    [InlineData(@"(\p{L}+)*")]
    [InlineData(@"(\x41+)*")]
    [InlineData(@"(\u0041|A)*")]
    [InlineData(@"(a+b*)+")]
    [InlineData(@"(a*?)*")]
    [InlineData(@"(^a+)*")]
    [InlineData(@"(a{2}|aa)*")]
    [InlineData(@"(a{0,1}a)*")]
    public void What_can_run_away_is_refused(string pattern) => Codes(pattern).ShouldBe(["bad-pattern"]);

    [Theory]
    [InlineData(@"a+b+")]
    [InlineData(@"(ab)+")]
    [InlineData(@"(a|b)*")]
    [InlineData(@"(a+b)*")]
    [InlineData(@"(a?b)+")]
    [InlineData(@"a*a*")] // as slow as its square, no worse
    [InlineData(@"(\d{4}-)*\d{1,12}")]
    [InlineData(@"[A-Z]{2}\d{2}([ ]?[A-Z0-9]{4}){2,7}[ ]?[A-Z0-9]{1,3}")]
    [InlineData(@"(?:\d\d:\d\d;)*")]
    [InlineData(@"(?<year>\d{4})-(?<month>\d{2})")]
    [InlineData(@"(a{2}b)*")]
    [InlineData(@"(a{2,}b)*")]
    [InlineData(@"(a{0,2}b)*")]
    [InlineData(@"(\d{1,3}\.)*\d{1,3}")]
    [InlineData(@"((ab?){1,3};)*")]
    [InlineData(@"(a?){2,}")]
    [InlineData(@"a{2,}?b")]
    [InlineData(@"\bword\b")]
    [InlineData(@"(\Ba\b|b)*")]
    [InlineData(@"[]]+")]
    [InlineData(@"[^]]+x")]
    [InlineData(@"([^\]]x)*")]
    [InlineData(@"(\x41\x42)*")]
    [InlineData(@"(\cAx)*")]
    [InlineData(@"(\012x)*")]
    [InlineData(@"[a{2}]{2}")]
    [InlineData(@"x{,3}")] // no quantifier: the signs themselves
    [InlineData(@"(a||b)c")]
    [InlineData(@"(|a)b")]
    [InlineData(@"a{0}b")]
    [InlineData("")]
    public void What_cannot_is_taken(string pattern) => Codes(pattern).ShouldBeEmpty();

    [Theory]
    [InlineData(@"(?=a)b")]
    [InlineData(@"(?!a)b")]
    [InlineData(@"(?<=a)b")]
    [InlineData(@"(?<!a)b")]
    [InlineData(@"(?>a)b")]
    [InlineData(@"(a)(?(1)b|c)")]
    [InlineData(@"(a)\1")]
    [InlineData(@"(a)[x]\1")]
    [InlineData(@"(?<n>a)\k<n>")]
    [InlineData(@"\Ga")]
    [InlineData(@"(?<o>a)(?<n-o>b)")]
    [InlineData(@"(?'o'a)(?'n-o'b)")]
    [InlineData(@"[]](?=a)")]
    [InlineData(@"[^]](?=a)")]
    public void What_looks_elsewhere_is_refused(string pattern) => Findings(pattern).ShouldHaveSingleItem().Message.ShouldContain("looks ahead or behind");

    [Theory]
    [InlineData(@"[\1]")]
    [InlineData(@"[(?=]a")]
    [InlineData(@"[]\1(?=]a")]
    [InlineData(@"\(?=a")]
    [InlineData(@"(?:a-b)")]
    [InlineData(@"(?<year>a)-b")]
    [InlineData(@"\\1")]
    public void What_only_looks_like_it_is_taken(string pattern) => Codes(pattern).ShouldBeEmpty();

    [Theory]
    [InlineData("[a-z", "It cannot be read at character 4: unterminated bracket.")]
    [InlineData("a)", "It cannot be read at character 2: insufficient opening parentheses.")]
    public void What_cannot_be_read_is_said_with_its_place(string pattern, string said) => Findings(pattern).ShouldHaveSingleItem().Message.ShouldContain(said);

    [Fact]
    public void A_pattern_has_a_longest_length_and_is_looked_at_up_to_many_positions()
    {
        Codes(new string('a', 300)).ShouldBeEmpty();
        Findings(new string('a', 301)).ShouldHaveSingleItem().Message.ShouldContain("at most 300 characters");
        Codes("(a{50}){11}").ShouldBeEmpty();
        Codes("(a{50}){13}").ShouldBe(["bad-pattern"]);
    }

    private static string[] Codes(string pattern) => [.. Findings(pattern).Select(f => f.Code)];

    private static Found[] Findings(string pattern) =>
        JsonSerializer
            .Deserialize<Answer>(
                Asked.Answer(
                    "fields.check",
                    JsonSerializer.Serialize(
                        new
                        {
                            fields = new[]
                            {
                                new
                                {
                                    key = "x",
                                    type = "text",
                                    pattern,
                                    access = new { coordinator = "edit" },
                                },
                            },
                            stages = new[] { "prepare" },
                            lists = new { },
                            roles = new[] { "coordinator" },
                        }
                    )
                ),
                JsonSerializerOptions.Web
            )!
            .Findings;

    private sealed record Found(string Code, string Message);

    private sealed record Answer(Found[] Findings);
}
