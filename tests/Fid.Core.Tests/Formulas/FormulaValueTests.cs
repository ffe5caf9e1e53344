using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Core.Fields;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Formulas;

/// <summary>What formulas come to, at the edges: nothing, lists, dates, and what cannot be computed.</summary>
public class FormulaValueTests
{
    private const string Values = """
        {"text":"Skerry","number":7,"start":"2027-03-01","born":"2004-02-29","yes":true,"skills":["knots","radio"],"one":["knots"]}
        """;

    [Theory]
    [InlineData("firstOf(none, '', text)", "\"Skerry\"")]
    [InlineData("FIRSTOF(none, number)", "7")]
    [InlineData("firstOf(none, null)", null)]
    [InlineData("firstOf(number, text)", "7")]
    [InlineData("none == ''", "true")]
    [InlineData("'' == none", "true")]
    [InlineData("none == null", "true")]
    [InlineData("text == null", "false")]
    [InlineData("null == text", "false")]
    [InlineData("text != null", "true")]
    [InlineData("null != text", "true")]
    [InlineData("none != ''", "false")]
    [InlineData("text == 'Skerry'", "true")]
    [InlineData("text == 'skerry'", "false")]
    [InlineData("text != 'skerry'", "true")]
    [InlineData("number == 7.0", "true")]
    [InlineData("number != 7", "false")]
    [InlineData("skills == skills", "true")]
    [InlineData("skills == one", "false")]
    [InlineData("skills != one", "true")]
    [InlineData("skills == 'knots'", "false")]
    [InlineData("'knots' == skills", "false")]
    [InlineData("skills != 'knots'", "true")]
    [InlineData("'radio' in skills", "true")]
    [InlineData("'sails' in skills", "false")]
    [InlineData("not ('sails' in skills)", "true")]
    [InlineData("text in ('Skerry')", "true")]
    [InlineData("text in ('Skerry Pier')", "false")] // one in brackets is a list of one, not a text to look through
    [InlineData("text in ('Pier', 'Skerry')", "true")]
    [InlineData("none in ('Skerry')", "false")]
    [InlineData("text like 'Sk%'", "true")]
    [InlineData("text not like 'Sk%'", "false")]
    [InlineData("none like '%'", "false")]
    [InlineData("addDays(start, 30)", "\"2027-03-31\"")]
    [InlineData("addDays(start, -1)", "\"2027-02-28\"")]
    [InlineData("ADDMONTHS(start, 1)", "\"2027-04-01\"")]
    [InlineData("addMonths('2027-01-31', 1)", "\"2027-02-28\"")]
    [InlineData("addWorkingDays('2027-03-05', 1)", "\"2027-03-08\"")]
    [InlineData("addDays(none, 3)", null)]
    [InlineData("addDays(start, none)", null)]
    [InlineData("addDays(start, 1.5)", null)]
    [InlineData("addDays(start, 1000001)", null)]
    [InlineData("addDays(text, 3)", null)]
    [InlineData("ageOn(born, '2027-02-28')", "22")]
    [InlineData("ageOn(born, '2027-03-01')", "23")]
    [InlineData("ageOn(born, '2028-02-28')", "23")]
    [InlineData("ageOn(born, '2028-02-29')", "24")]
    [InlineData("ageOn(start, born)", "0")]
    [InlineData("ageOn(start, start)", "0")]
    [InlineData("today()", "\"2027-03-10\"")]
    [InlineData("if(yes, number, text)", "7")]
    [InlineData("ifs(none == 1, 1, yes, 2, 3)", "2")]
    [InlineData("number / 0", null)]
    [InlineData("number + none", null)]
    [InlineData("text > 3", null)]
    [InlineData("round(2.5, 0)", "3")]
    [InlineData("0.1 + 0.2", "0.3")]
    [InlineData("start < '2027-03-02'", "true")]
    [InlineData("start >= '2027-03-02'", "false")]
    public void Comes_to(string formula, string? value) => Computed(formula).ShouldBe(value);

    [Theory]
    [InlineData("(pay > 3", "cannot be read", null)]
    [InlineData("abs(1) + abz(2)", "There is no function abz.", 10)]
    [InlineData("'abz(' + abz(2)", "There is no function abz.", 10)]
    [InlineData("2 ** 3", "Powers cannot be used. Multiply instead.", null)]
    public void What_cannot_be_read_is_said_with_its_place(string formula, string said, int? character)
    {
        var finding = Findings(formula).First(f => f.Code == "formula-error");
        finding.Message.ShouldContain(said);
        finding.Character.ShouldBe(character ?? finding.Character);
    }

    [Fact]
    public void A_formula_may_be_so_long_and_so_deep_and_no_more()
    {
        Computed("1" + new string(' ', 996) + "+ 1").ShouldBe("2");
        Findings("1" + new string(' ', 997) + "+ 1")[0].Message.ShouldContain("at most 1000 characters");
        Computed(new string('(', 60) + "7" + new string(')', 60)).ShouldBe("7");
        Findings(new string('(', 61) + "7" + new string(')', 61))[0].Message.ShouldContain("nested 60 deep");
        // One after another is not one in another.
        Computed(string.Join(" + ", Enumerable.Repeat("((1))", 40))).ShouldBe("40");
    }

    private static string? Computed(string formula)
    {
        var answer = JsonNode.Parse(
            Asked.Answer("fields.evaluate", $$"""{"fields":[{{Fields(formula)}}],"values":{{Values}},"role":"c","today":"2027-03-10"}""")
        )!;
        return answer["values"]!["x"]?.ToJsonString();
    }

    private static IReadOnlyList<Finding> Findings(string formula) =>
        ConfigurationCheck.Of(
            new ConfigurationQuestion(
                [
                    new FieldDefinition
                    {
                        Key = "x",
                        Type = FieldType.Computed,
                        Default = new FieldDefault(null, formula),
                    },
                ],
                ["s"],
                new Dictionary<string, IReadOnlyList<string>>(),
                ["c"]
            )
        );

    private static string Fields(string formula) =>
        string.Join(
            ',',
            new[] { ("text", "text"), ("none", "text"), ("number", "number"), ("start", "date"), ("born", "date"), ("yes", "yesNo") }
                .Select(f => $$"""{"key":"{{f.Item1}}","type":"{{f.Item2}}","access":{"c":"edit"} }""")
                .Concat(
                    new[] { "skills", "one" }.Select(k =>
                        $$"""{"key":"{{k}}","type":"choices","options":[{"value":"knots"},{"value":"radio"}],"access":{"c":"edit"} }"""
                    )
                )
                .Append($$"""{"key":"x","type":"computed","default":{"formula":{{JsonSerializer.Serialize(formula)}} },"access":{"c":"view"} }""")
        );
}
