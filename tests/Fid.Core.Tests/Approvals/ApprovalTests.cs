using System.Text.Json.Nodes;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Approvals;

public class ApprovalTests
{
    [Fact]
    public void The_worked_example_comes_to_what_was_worked_out_by_hand() =>
        JsonNode.DeepEquals(JsonNode.Parse(Asked.Answer("approvals.needed", Example)), JsonNode.Parse(Worked)).ShouldBeTrue();

    private const string Example = """
        {"today":"2027-03-22","people":[{"id":"nils","manager":"orla","roles":[]},{"id":"orla","manager":"ruth","roles":[]},
        {"id":"ruth","manager":"tova","roles":[],"away":[{"from":"2027-03-20","to":"2027-03-22"}]},
        {"id":"tova","roles":["administrator"]},
        {"id":"maeve","roles":["payroll"],"away":[{"from":"2027-03-22","to":"2027-03-26","standIn":"callum"}]},
        {"id":"callum","roles":[]}],"rules":[{"id":"rise","fields":["pay_rate"],"when":"new > old * 1.05 and site == 'skerry'","by":["manager",
        "manager2","role:payroll"]},
        {"id":"hours","fields":["hours"],"when":"new - old > 5","by":["manager"]}],"request":{"by":"orla","person":"nils",
        "changes":[{"field":"pay_rate","old":17.4,"new":18.5},
        {"field":"hours","old":30,"new":32}],"values":{"site":"skerry"}}}
        """;

    private const string Worked = """
        {"steps":[{"rule":"rise","who":["tova"]},{"rule":"rise","who":["callum"]}],"direct":["hours"]}
        """;

    // Nils under Orla under Ruth under Tova, who is the administrator with Una; Maeve and Mo are payroll.
    private static string Ask(string rules, string changes, string by = "nils", string person = "nils", string away = "", string values = "\"site\":\"skerry\"")
    {
        var people = new (string Id, string? Manager, string Roles)[]
        {
            ("nils", "orla", ""),
            ("orla", "ruth", ""),
            ("ruth", "tova", ""),
            ("tova", null, "\"administrator\""),
            ("una", "tova", "\"administrator\",\"payroll\""),
            ("mo", "tova", "\"payroll\""),
            ("ring", "gnir", ""),
            ("gnir", "ring", ""),
        };
        var absences = away.Split(';', StringSplitOptions.RemoveEmptyEntries).Select(a => a.Split(' ')).ToLookup(a => a[0]);
        var all = people.Select(p =>
            $$"""{"id":"{{p.Id}}","manager":{{(p.Manager is null ? "null" : $"\"{p.Manager}\"")}},"roles":[{{p.Roles}}],"away":[{{string.Join(
                ',',
                absences[p.Id].Select(a => $$"""{"from":"2027-03-{{a[1]}}","to":"2027-03-{{a[2]}}"{{(a.Length > 3 ? $",\"standIn\":\"{a[3]}\"" : "")}}}""")
            )}}]}"""
        );
        return $$"""
            {"today":"2027-03-22","people":[{{string.Join(',', all)}}],"rules":[{{rules}}],
             "request":{"by":"{{by}}","person":"{{person}}","changes":[{{changes}}],"values":{ {{values}} } } }
            """;
    }

    private static string Steps(string question)
    {
        var answer = JsonNode.Parse(Asked.Answer("approvals.needed", question))!;
        var steps = answer["steps"]!.AsArray().Select(s => $"{s!["rule"]}: {string.Join(' ', s["who"]!.AsArray())}");
        return string.Join("; ", steps.Append($"direct: {string.Join(' ', answer["direct"]!.AsArray())}".TrimEnd()));
    }

    private static string Rule(string by, string when = "", string id = "r", string fields = "\"pay_rate\"") =>
        $$"""{"id":"{{id}}","fields":[{{fields}}]{{(when.Length > 0 ? $",\"when\":\"{when}\"" : "")}},"by":[{{Listed(by)}}]}""";

    private static string Listed(string words) => string.Join(',', words.Split(' ').Select(w => $"\"{w}\""));

    private static string Change(string old, string becomes, string field = "pay_rate") => $$"""{"field":"{{field}}","old":{{old}},"new":{{becomes}} }""";

    [Theory]
    [InlineData("manager", "orla")]
    [InlineData("manager2", "ruth")]
    [InlineData("role:payroll", "mo una")]
    [InlineData("person:mo", "mo")]
    [InlineData("role:nobody", "tova una")] // who is left out leaves it to the administrators
    [InlineData("manager", "ruth", "orla")] // who asks does not approve: the next one up does
    [InlineData("manager2", "ruth", "orla")]
    [InlineData("manager2", "tova", "ruth")]
    [InlineData("role:payroll", "una", "mo")]
    [InlineData("person:mo", "tova una", "mo")]
    [InlineData("manager", "tova una", "tova", "tova", "una")] // above the top there is nobody, and she is asked about herself
    [InlineData("manager", "gnir", "ring", "ring")]
    [InlineData("manager", "tova una", "gnir", "ring")] // a ring leads to nobody
    [InlineData("manager2", "gnir", "ring", "ring")] // she stands above herself, and gives way
    public void Who_is_asked(string by, string who, string asker = "nils", string about = "nils", string? only = null) =>
        Steps(Ask(Rule(by), Change("17", "18"), asker, about)).ShouldBe($"r: {only ?? who}; direct:");

    [Theory]
    [InlineData("orla 22 22 mo", "manager", "mo")]
    [InlineData("orla 20 21 mo", "manager", "orla")] // back today
    [InlineData("orla 23 24 mo", "manager", "orla")] // goes tomorrow
    [InlineData("orla 22 22", "manager", "ruth")]
    [InlineData("orla 22 22;ruth 1 31 mo", "manager", "mo")] // who is asked next may be away too
    [InlineData("orla 22 22 nils", "manager", "ruth")] // whom it is about does not stand in
    [InlineData("orla 22 22 mo;mo 22 22 una", "manager", "mo")] // once
    [InlineData("orla 22 22;ruth 22 22;tova 22 22", "manager", "tova una")] // administrators, away or not
    [InlineData("ruth 22 22 mo", "manager2", "mo")]
    [InlineData("mo 22 22", "role:payroll", "una")]
    [InlineData("mo 22 22 una", "role:payroll", "una")]
    [InlineData("mo 22 22 orla", "role:payroll", "orla una")]
    [InlineData("mo 22 22", "person:mo", "tova una")]
    [InlineData("mo 22 22 ruth", "person:mo", "ruth")]
    [InlineData("mo 1 2 orla;mo 21 22 ruth", "person:mo", "ruth")]
    public void Who_is_away_gives_way(string away, string by, string who) =>
        Steps(Ask(Rule(by), Change("17", "18"), away: away.Replace(" 1 ", " 01 ", StringComparison.Ordinal).Replace(" 2 ", " 02 ", StringComparison.Ordinal)))
            .ShouldBe($"r: {who}; direct:");

    [Theory]
    [InlineData("", "17", "18", true)]
    [InlineData("new > old * 1.05", "17.4", "18.5", true)]
    [InlineData("new > old * 1.05", "17.4", "18.27", false)]
    [InlineData("new > old and site == 'skerry'", "17", "18", true)]
    [InlineData("new > old and site == 'hallan'", "17", "18", false)]
    [InlineData("1 / (new - 18) > 0", "17", "18", false)] // it cannot be computed
    [InlineData("new - old", "17", "18", false)] // it comes to no yes
    [InlineData("today() == '2027-03-22'", "17", "18", true)]
    public void A_rule_asks_where_its_condition_holds(string when, string old, string becomes, bool asks) =>
        Steps(Ask(Rule("manager", when), Change(old, becomes))).ShouldBe(asks ? "r: orla; direct:" : "direct: pay_rate");

    [Theory]
    [InlineData("17.4", "17.40", false)]
    [InlineData("17.4", "\"17.4\"", true)]
    [InlineData("null", "\"\"", false)]
    [InlineData("[]", "null", false)]
    [InlineData("null", "0", true)]
    [InlineData("[\"a\",\"b\"]", "[\"a\",\"b\"]", false)]
    [InlineData("[\"a\",\"b\"]", "[\"b\",\"a\"]", true)]
    [InlineData("true", "false", true)]
    public void A_field_changes_when_its_values_differ(string old, string becomes, bool changes)
    {
        Steps(Ask(Rule("manager"), Change(old, becomes))).ShouldBe(changes ? "r: orla; direct:" : "direct:");
        Steps(Ask("", Change(old, becomes))).ShouldBe(changes ? "direct: pay_rate" : "direct:");
    }

    [Fact]
    public void Each_rule_asks_once_a_step_for_each_who_agrees_and_the_same_people_not_twice_in_a_row()
    {
        var rules = string.Join(
            ',',
            Rule("manager manager2", id: "a", fields: "\"pay_rate\",\"hours\""),
            Rule("manager2 manager", id: "b", fields: "\"hours\""),
            Rule("manager", "old == 1", "c", "\"hours\",\"site\""),
            Rule("role:payroll manager", "new == 2", "d", "\"site\",\"none\"")
        );
        var changes = string.Join(
            ',',
            Change("1", "3", "hours"),
            Change("5", "5", "none"),
            Change("17", "18"),
            Change("3", "2", "site"),
            Change("1", "2", "room"),
            Change("null", "4", "desk")
        );
        Steps(Ask(rules, changes)).ShouldBe("a: orla; a: ruth; b: orla; d: mo una; d: orla; direct: room desk");
    }

    [Theory]
    [InlineData("\"manager\":\"orla\"", "\"manager\":\"olra\"", "/people/0/manager unknown-person")]
    [InlineData("\"id\":\"mo\"", "\"id\":\"nils\"", "/people/5/id duplicate-id")]
    [InlineData("\"standIn\":\"una\"", "\"standIn\":\"anu\"", "/people/1/away/0/standIn unknown-person")]
    [InlineData("\"to\":\"2027-03-22\"", "\"to\":\"2027-03-19\"", "/people/1/away/0/to not-in-order")]
    [InlineData("\"to\":\"2027-03-22\"", "\"to\":\"2027-03-20\"", "")]
    [InlineData("person:una", "person:anu", "/rules/0/by/1 unknown-person")]
    [InlineData("person:una", "persons", "/rules/0/by/1 bad-value")]
    [InlineData("person:una", "person:", "/rules/0/by/1 bad-value")]
    [InlineData("person:una", "role:", "/rules/0/by/1 bad-value")]
    [InlineData("\"manager\",\"person:una\"", "", "/rules/0/by bad-value")]
    [InlineData("new > old", "new >", "/rules/0/when formula-error")]
    [InlineData("\"by\":\"nils\"", "\"by\":\"slin\"", "/request/by unknown-person")]
    [InlineData("\"person\":\"nils\"", "\"person\":\"slin\"", "/request/person unknown-person")]
    [InlineData("\"field\":\"hours\"", "\"field\":\"pay_rate\"", "/request/changes/1/field duplicate-field")]
    [InlineData("\"id\":\"second\"", "\"id\":\"r\"", "/rules/1/id duplicate-id")]
    public void What_is_wrong_is_told_at_its_place(string part, string changed, string problem)
    {
        var rules = Rule("manager person:una", "new > old") + "," + Rule("manager", id: "second");
        var question = Ask(rules, Change("1", "2") + "," + Change("1", "2", "hours"), away: "orla 20 22 una");
        question.ShouldContain(part);
        Asked.ShouldTell("approvals.needed", question.Replace(part, changed, StringComparison.Ordinal), problem);
    }
}
