using System.Text;
using Fid.Core.Fields;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

/// <summary>Which roles would see more of a guarded field than before, and by which way.</summary>
public class AccessWideningTests
{
    private static readonly string[] Roles = ["coordinator", "payroll", "manager"];

    [Theory]
    [InlineData("\"payroll\":\"edit\"", "\"payroll\":\"edit\"", "")]
    [InlineData("\"payroll\":\"edit\"", "\"payroll\":\"view\"", "")] // less is not more
    [InlineData("\"payroll\":\"view\"", "\"payroll\":\"edit\"", "iban: payroll")]
    [InlineData("\"payroll\":\"edit\"", "\"payroll\":\"edit\",\"manager\":\"view\"", "iban: manager")]
    [InlineData("\"payroll\":\"edit\"", "\"coordinator\":\"view\",\"manager\":\"edit\"", "iban: coordinator manager")]
    public void Who_may_more_than_before_counts(string before, string after, string widened) => Widened(Fields(before), Fields(after)).ShouldBe(widened);

    [Fact]
    public void A_rule_that_writes_it_where_more_may_read_is_a_way_too()
    {
        const string Iban = "\"payroll\":\"edit\"";
        const string Note = """,{"key":"note","type":"text","section":"s","access":{"payroll":"edit","manager":"view"}}""";
        const string Rule = """,{"key":"flag","type":"text","section":"s","access":{"payroll":"edit"},"onChange":[{"set":"note","formula":"iban"}]}""";
        Widened(Fields(Iban, Note), Fields(Iban, Note + Rule)).ShouldBe("iban through note: manager");
        // One that only those read who see it anyway is none.
        var own = Note.Replace(",\"manager\":\"view\"", "", StringComparison.Ordinal);
        Widened(Fields(Iban, own), Fields(Iban, own + Rule)).ShouldBe("");
    }

    [Theory]
    [InlineData("\"sensitive\":true", "\"section\":\"s\"", true)] // no longer sealed, and seen by more
    [InlineData("\"section\":\"s\"", "\"sensitive\":true", true)] // sealed now, and seen by more in the same step
    [InlineData("\"section\":\"pay\"", "\"section\":\"s\"", true)]
    [InlineData("\"section\":\"s\"", "\"section\":\"s\"", false)] // nobody guards it
    public void A_field_is_guarded_by_what_it_was_and_by_what_it_becomes(string before, string after, bool guarded)
    {
        string One(string how, string access)
        {
            var whole = how.Contains("section", StringComparison.Ordinal) ? how : how + ",\"section\":\"s\"";
            return $$"""{"sections":[],"fields":[{"key":"x","type":"text",{{whole}},"access":{{{access}}} }]}""";
        }
        Widened(One(before, "\"payroll\":\"view\""), One(after, "\"payroll\":\"view\",\"manager\":\"view\"")).ShouldBe(guarded ? "x: manager" : "");
    }

    [Fact]
    public void What_copied_it_before_copies_it_no_wider_unless_more_see_the_copy()
    {
        const string Iban = "\"payroll\":\"edit\"";
        string Note(string more) => $$""",{"key":"note","type":"text","section":"s","access":{"payroll":"edit"{{more}}} }""";
        string Flag(string set, string formula) =>
            $$""",{"key":"flag","type":"text","section":"s","access":{"payroll":"edit"},"onChange":[{"set":"{{set}}","formula":"{{formula}}"}]}""";
        var there = Note(",\"manager\":\"view\"") + Flag("note", "iban");
        Widened(Fields(Iban, there), Fields(Iban, there)).ShouldBe("");
        // Another formula, or another target, is another way.
        var other = Note(",\"manager\":\"view\"") + Flag("note", "iban + 'x'");
        Widened(Fields(Iban, there), Fields(Iban, other)).ShouldBe("iban through note: manager");
        const string Second = """, {"key":"memo","type":"text","section":"s","access":{"payroll":"edit","manager":"view"}}""";
        Widened(Fields(Iban, there + Second), Fields(Iban, Note(",\"manager\":\"view\"") + Flag("memo", "iban") + Second))
            .ShouldBe("iban through memo: manager");
        // A default writes as a rule does; what is computed is worked out from what its reader sees.
        string Filled(string type) => $$""",{"key":"copy","type":"{{type}}","section":"s","access":{"manager":"view"},"default":{"formula":"iban"} }""";
        Widened(Fields(Iban), Fields(Iban, Filled("text"))).ShouldBe("iban through copy: manager");
        Widened(Fields(Iban), Fields(Iban, Filled("computed"))).ShouldBe("");
        // What nobody guards may be copied anywhere.
        const string Plain = """,{"key":"plain","type":"text","section":"s","access":{"payroll":"edit"}}""";
        Widened(Fields(Iban, Plain), Fields(Iban, Plain + Filled("text").Replace("iban", "plain", StringComparison.Ordinal))).ShouldBe("");
    }

    private static string Fields(string access, string more = "") =>
        "{\"sections\":[{\"key\":\"s\",\"label\":{\"en\":\"S\"}}],\"fields\":[{\"key\":\"iban\",\"type\":\"text\",\"section\":\"s\",\"sensitive\":true,"
        + "\"access\":{"
        + access
        + "}}"
        + more
        + "]}";

    private static string Widened(string live, string draft) =>
        string.Join(
            "; ",
            AccessWidening
                .Of(Read(live), Read(draft), Roles)
                .Select(w => $"{w.Field}{(w.Through == w.Field ? "" : $" through {w.Through}")}: {string.Join(' ', w.Roles)}")
        );

    private static FieldConfiguration Read(string json) => FieldConfiguration.Read(Encoding.UTF8.GetBytes(json)).Answer.ShouldNotBeNull();
}
