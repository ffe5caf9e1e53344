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
