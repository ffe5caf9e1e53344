using System.Text;
using Fid.Core.Approvals;
using Fid.Core.Fields;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Approvals;

/// <summary>Approvals as part of a configuration of fields: read, written, looked through, compared.</summary>
public class ApprovalCheckTests
{
    private const string Fields = """
        {"key":"job","type":"text"},{"key":"pay_rate","type":"money","section":"pay"},{"key":"account","type":"identifier","sensitive":true},
        {"key":"age","type":"computed","default":{"formula":"1"}},
        {"key":"things","type":"rows","columns":[{"key":"what","type":"text"}]}
        """;

    [Fact]
    public void A_configuration_says_again_what_it_was_read_from()
    {
        var configuration = Read(
            """{"id":"raise","label":{"de":"Lohn","en":"Raises"},"fields":["pay_rate"],"when":"new > old","by":["manager","role:payroll"]}"""
        );
        var raise = Read(Approvals(configuration)).Approvals.ShouldHaveSingleItem();
        (raise.Id, raise.Label("de"), raise.Label("fr"), raise.When, string.Join(' ', raise.Fields), string.Join(' ', raise.By)).ShouldBe(
            ("raise", "Lohn", "Raises", "new > old", "pay_rate", "manager role:payroll")
        );
        Encoding.UTF8.GetString(Read("").Write()).ShouldNotContain("approvals", customMessage: "what was written before stays what it was");
    }

    [Theory]
    [InlineData("""{"id":"a","fields":["pay_rate"],"when":"new > old * 1.1","by":["manager","manager2","role:payroll"]}""", "")]
    [InlineData("""{"id":"a","fields":["pay_rate"],"when":"outside_band > 5 or from_template < -2.5","by":["role:payroll"]}""", "")]
    [InlineData("""{"id":"a","fields":["things","things.what","account"],"by":["person:0190a1b2-0000-7000-8000-000000000000"]}""", "")]
    [InlineData("""{"id":"a","fields":["job"],"by":["manager"]},{"id":"a","fields":["job"],"by":["manager"]}""", "duplicate-id approvals/1/id")]
    [InlineData("""{"id":"a","fields":[],"by":["manager"]}""", "approval-without-fields approvals/0/fields")]
    [InlineData("""{"id":"a","fields":["jobs"],"by":["manager"]}""", "unknown-field approvals/0/fields")]
    [InlineData("""{"id":"a","fields":["age"],"by":["manager"]}""", "approval-of-computed approvals/0/fields")]
    [InlineData("""{"id":"a","fields":["job"],"by":[]}""", "approval-without-steps approvals/0/by")]
    [InlineData("""{"id":"a","fields":["job"],"by":["boss"]}""", "unknown-approver approvals/0/by")]
    [InlineData("""{"id":"a","fields":["job"],"by":["role:"]}""", "unknown-approver approvals/0/by")]
    [InlineData("""{"id":"a","fields":["job"],"by":["somebody:0190a1b2-0000-7000-8000-000000000000"]}""", "unknown-approver approvals/0/by")]
    [InlineData("""{"id":"a","fields":["job"],"when":"[things.what] == 'x'","by":["manager"]}""", "unknown-field approvals/0/when")]
    [InlineData("""{"id":"a","fields":["job"],"by":["role:pilots"]}""", "unknown-role approvals/0/by")]
    [InlineData("""{"id":"a","fields":["job"],"by":["person:nils"]}""", "unknown-approver approvals/0/by")]
    [InlineData("""{"id":"a","fields":["job"],"when":"new >","by":["manager"]}""", "formula-error approvals/0/when")]
    [InlineData("""{"id":"a","fields":["job"],"when":"salary > 1","by":["manager"]}""", "unknown-field approvals/0/when")]
    [InlineData("""{"id":"a","fields":["job"],"when":"account == 'x'","by":["manager"]}""", "sealed-field approvals/0/when")]
    [InlineData("""{"id":"a","fields":["account"],"when":"new != old","by":["manager"]}""", "sealed-field approvals/0/when")]
    public void What_would_not_work_is_found_where_it_stands(string approvals, string found) =>
        string.Join(", ", ApprovalCheck.Of(Read(approvals), ["payroll", "manager"]).Select(f => $"{f.Code} {f.Part}")).ShouldBe(found);

    [Fact]
    public void There_is_an_end_to_them()
    {
        string Many(int n) => string.Join(',', Enumerable.Range(0, n).Select(i => $$"""{"id":"a{{i}}","fields":["job"],"by":["manager"]}"""));
        ApprovalCheck.Of(Read(Many(ApprovalCheck.Most)), []).ShouldBeEmpty();
        ApprovalCheck.Of(Read(Many(ApprovalCheck.Most + 1)), []).ShouldHaveSingleItem().Code.ShouldBe("approvals-too-many");
        var steps = string.Join(',', Enumerable.Repeat("\"manager\"", ApprovalCheck.MostSteps + 1));
        ApprovalCheck.Of(Read($$"""{"id":"a","fields":["job"],"by":[{{steps}}]}"""), []).ShouldHaveSingleItem().Code.ShouldBe("approval-without-steps");
    }

    [Theory]
    [InlineData("", true)] // nobody asked any more
    [InlineData("""{"id":"b","fields":["job","pay_rate"],"when":"new > old","by":["manager","role:payroll"]}""", false)] // called and widened otherwise
    [InlineData("""{"id":"a","fields":["pay_rate"],"when":"new > old * 2","by":["manager","role:payroll"]}""", true)]
    [InlineData("""{"id":"a","fields":["pay_rate"],"when":"new > old","by":["manager"]}""", true)]
    public void Where_fewer_are_asked_about_what_is_guarded_a_second_person_agrees(string draft, bool widens)
    {
        var live = Read("""{"id":"a","fields":["pay_rate"],"when":"new > old","by":["manager","role:payroll"]}""");
        AccessWidening.Of(live, Read(draft), ["payroll"]).Select(w => w.Field).ShouldBe(widens ? ["pay_rate"] : []);
        ConfigurationDifference.Of(live, Read(draft)).Select(d => d.Kind).ShouldBe([DifferenceKind.Approvals]);
        ConfigurationDifference.Of(live, live).ShouldBeEmpty();
        ConfigurationDifference.Of(live, Read(draft)).ShouldAllBe(d => !d.CanChangeCompleteness);
    }

    [Theory]
    [InlineData("manager")]
    [InlineData("manager2")]
    [InlineData("role:payroll")]
    [InlineData("person:0190a1b2-0000-7000-8000-000000000000")]
    public void Who_is_asked_is_written_as_it_is_read(string by) => ApproverChoice.Read(by)!.Value.ToString().ShouldBe(by);

    [Fact]
    public void An_approval_of_rows_is_one_of_every_column_in_every_row()
    {
        var rule = ApprovalRule.Of(Read("""{"id":"a","fields":["things"],"by":["manager"]}""").Approvals[0]);
        var (old, now) = (System.Text.Json.JsonElement.Parse("null"), System.Text.Json.JsonElement.Parse("\"x\""));
        bool Asks(string address) =>
            rule.Asks(new RequestedChange(address, old, now), new Dictionary<string, System.Text.Json.JsonElement>(), new NodaTime.LocalDate(2027, 3, 1));
        (Asks("things.what@0190a1b2-0000-7000-8000-000000000000"), Asks("things"), Asks("thing"), Asks("job")).ShouldBe((true, true, false, false));
        // To empty a value is a change, and to leave it empty is none.
        bool Changes(System.Text.Json.JsonElement from, System.Text.Json.JsonElement to) => !new RequestedChange("job", from, to).IsNone;
        (Changes(old, now), Changes(now, old), Changes(old, old), Changes(now, now)).ShouldBe((true, true, false, false));
        rule.Asks(new RequestedChange("things", now, now), new Dictionary<string, System.Text.Json.JsonElement>(), default).ShouldBeFalse();
    }

    private static string Approvals(FieldConfiguration configuration)
    {
        using var document = System.Text.Json.JsonDocument.Parse(configuration.Write());
        return string.Join(',', document.RootElement.GetProperty("approvals").EnumerateArray().Select(a => a.GetRawText()));
    }

    private static FieldConfiguration Read(string approvals)
    {
        var json = $$"""{"sections":[{"key":"pay","label":"Pay"}],"fields":[{{Fields}}],"approvals":[{{approvals}}]}""";
        var read = FieldConfiguration.Read(Encoding.UTF8.GetBytes(json));
        return read.Answer.ShouldNotBeNull(string.Join(' ', read.Problems.Select(p => $"{p.Path} {p.Message}")));
    }
}
