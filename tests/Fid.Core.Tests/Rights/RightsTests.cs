using System.Text.Json.Nodes;
using CsCheck;
using Fid.Core.Rights;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Rights;

public class RightsTests
{
    [Fact]
    public void The_worked_example_comes_to_what_was_worked_out_by_hand() =>
        JsonNode.DeepEquals(JsonNode.Parse(Asked.Answer("rights.explain", Example)), JsonNode.Parse(Worked)).ShouldBeTrue();

    private const string Example = """
        {"today":"2027-03-22","departments":[{"code":"fleet"},
        {"code":"deck","parent":"fleet"}],"people":[{"id":"ruth","values":{"site":"skerry","department":"fleet"}},
        {"id":"orla","manager":"ruth","values":{"site":"hallan","department":"deck"}},
        {"id":"nils","manager":"orla","values":{"site":"skerry","department":"deck"}}],"roles":[{"id":"lead","rights":[{"do":"see",
        "on":"section:pay","reach":"reports"},
        {"do":"edit","on":"pay_rate","reach":{"site":"skerry"}}]},
        {"id":"master","rights":[{"do":"see","on":"*","reach":{"department":"fleet"}}]}],"grants":[{"person":"ruth","role":"master"},
        {"person":"ruth","role":"lead","from":"2027-03-22"},
        {"person":"callum","role":"master","to":"2027-03-21"}],"ask":[{"who":"ruth","do":"see","on":"pay_rate@pay","target":"nils"},
        {"who":"ruth","do":"edit","on":"pay_rate@pay","target":"orla"},
        {"who":"callum","do":"see","on":"pay_rate@pay","target":"nils"}]}
        """;

    private const string Worked = """
        {"answers":[{"allowed":true,"because":[{"role":"master","do":"see","reach":{"department":"fleet"}},
        {"role":"lead","do":"see","reach":"reports"},{"role":"lead","do":"edit","reach":{"site":"skerry"}}]},
        {"allowed":false,"because":[]},{"allowed":false,"because":[]}]}
        """;

    // The master of all; two leads under her who report to each other's reports in no way; a deckhand; two in a ring.
    private const string Firm = """
        {"today":"2027-03-22","departments":[{"code":"fleet"},{"code":"deck","parent":"fleet"},{"code":"bow","parent":"deck"},{"code":"quay"},
          {"code":"round","parent":"trip"},{"code":"trip","parent":"round"}],
         "people":[{"id":"ruth","values":{"site":"skerry","department":"fleet","hours":38}},{"id":"orla","manager":"ruth","values":{"department":"deck"}},
          {"id":"nils","manager":"orla","values":{"site":"skerry","department":"bow","hours":20}},{"id":"eoin","manager":"ruth","values":{"department":"quay"}},
          {"id":"ring","manager":"gnir","values":{"department":"trip"}},{"id":"gnir","manager":"ring","values":{"site":""}}],
         "roles":[{"id":"it","rights":[RIGHTS]}],
          "grants":[{"person":"ruth","role":"it"},{"person":"orla","role":"it"},{"person":"ring","role":"it"}],"ask":[ASK]}
        """;

    private static bool IsAllowed(string rights, string who, string what, string target)
    {
        var parts = what.Split(' ');
        var ask = $$"""{"who":"{{who}}","do":"{{parts[0]}}","on":"{{parts[1]}}","target":"{{target}}"}""";
        return JsonNode.Parse(
            Asked.Answer("rights.explain", Firm.Replace("RIGHTS", rights, StringComparison.Ordinal).Replace("ASK", ask, StringComparison.Ordinal))
        )!["answers"]![0]!["allowed"]!.GetValue<bool>();
    }

    [Theory]
    // Whom a right reaches.
    [InlineData("\"all\"", "ruth", "ruth orla nils eoin ring gnir")]
    [InlineData("\"self\"", "orla", "orla")]
    [InlineData("\"direct\"", "ruth", "orla eoin")]
    [InlineData("\"direct\"", "ring", "gnir")]
    [InlineData("\"reports\"", "ruth", "orla nils eoin")]
    [InlineData("\"reports\"", "orla", "nils")]
    [InlineData("\"reports\"", "ring", "gnir")] // a ring is walked once, and never leads to oneself
    [InlineData("{\"site\":\"skerry\"}", "ruth", "ruth nils")]
    [InlineData("{\"site\":\"nowhere\"}", "ruth", "")]
    [InlineData("{\"department\":\"fleet\"}", "ruth", "ruth orla nils")]
    [InlineData("{\"department\":\"bow\"}", "ruth", "nils")]
    [InlineData("{\"department\":\"quay\"}", "ruth", "eoin")]
    [InlineData("{\"department\":\"round\"}", "ruth", "ring")]
    [InlineData("{\"when\":\"site == 'skerry'\"}", "ruth", "ruth nils")]
    [InlineData("{\"when\":\"site != 'skerry'\"}", "ruth", "")] // what is not known gives no right, and neither does an empty text
    [InlineData("{\"when\":\"hours < 30 or department == 'fleet'\"}", "ruth", "ruth nils")]
    [InlineData("{\"when\":\"hours\"}", "ruth", "")] // it comes to no yes
    [InlineData("{\"when\":\"1 / (hours - 38) < 0\"}", "ruth", "nils")] // of one it cannot be computed
    [InlineData("{\"when\":\"today() == '2027-03-22'\"}", "orla", "ruth orla nils eoin ring gnir")]
    public void A_right_reaches(string reach, string who, string targets)
    {
        string[] all = ["ruth", "orla", "nils", "eoin", "ring", "gnir"];
        var right = $$"""{"do":"see","on":"*","reach":{{reach}} }""";
        string.Join(' ', all.Where(t => IsAllowed(right, who, "see pay_rate@pay", t))).ShouldBe(targets);
    }

    [Theory]
    // What a right is of.
    [InlineData("see", "pay_rate", "see pay_rate@pay", true)]
    [InlineData("see", "pay_rate", "see pay_rate", true)]
    [InlineData("see", "pay_rate", "edit pay_rate@pay", false)]
    [InlineData("edit", "pay_rate", "see pay_rate@pay", true)]
    [InlineData("edit", "pay_rate", "edit pay_rate@pay", true)]
    [InlineData("edit", "pay_rate", "approve pay_rate@pay", false)]
    [InlineData("approve", "pay_rate", "see pay_rate@pay", false)]
    [InlineData("approve", "section:pay", "approve pay_rate@pay", true)]
    [InlineData("see", "section:pay", "see allowance@pay", true)]
    [InlineData("see", "section:pay", "see pay_rate@payroll", false)]
    [InlineData("see", "section:pay", "see pay_rate", false)]
    [InlineData("see", "pay", "see pay_rate@pay", false)]
    [InlineData("see", "section:", "see pay_rate", false)]
    [InlineData("export", "*", "export pay_rate@pay", true)]
    [InlineData("export", "*", "see pay_rate@pay", false)]
    [InlineData("skip", "task", "skip task", true)]
    [InlineData("skip", "task", "skip tasks", false)]
    [InlineData("skip", "*", "skip task", true)]
    public void A_right_is_of(string action, string on, string asked, bool isAllowed) =>
        IsAllowed($$"""{"do":"{{action}}","on":"{{on}}","reach":"all"}""", "ruth", asked, "nils").ShouldBe(isAllowed);

    [Theory]
    [InlineData("", true)]
    [InlineData(",\"from\":\"2027-03-22\"", true)]
    [InlineData(",\"from\":\"2027-03-23\"", false)]
    [InlineData(",\"to\":\"2027-03-22\"", true)]
    [InlineData(",\"to\":\"2027-03-21\"", false)]
    [InlineData(",\"from\":\"2027-03-22\",\"to\":\"2027-03-22\"", true)]
    [InlineData(",\"from\":null,\"to\":null", true)]
    public void A_grant_counts_on_its_days_both_ends_included(string days, bool counts) =>
        Because($$"""{"person":"ruth","role":"it"{{days}}}""").Length.ShouldBe(counts ? 2 : 0);

    [Fact]
    public void Every_right_that_gives_it_is_told_in_the_order_of_grants_then_of_rights() =>
        Because(
                """
                {"person":"ruth","role":"other"},{"person":"eoin","role":"it"},
                {"person":"ruth","role":"it"},{"person":"ruth","role":"other","to":"2027-04-01"}
                """
            )
            .ShouldBe(["other see {\"site\":\"skerry\"}", "it see \"all\"", "it edit {\"when\":\"hours > 1\"}", "other see {\"site\":\"skerry\"}"]);

    private static string[] Because(string grants)
    {
        const string People =
            "{\"today\":\"2027-03-22\",\"departments\":[],\"people\":[{\"id\":\"nils\",\"values\":{\"site\":\"skerry\",\"hours\":20}}],\"roles\":["
            + "{\"id\":\"it\",\"rights\":[{\"do\":\"see\",\"on\":\"*\",\"reach\":\"all\"},{\"do\":\"see\",\"on\":\"badge\",\"reach\":\"all\"},"
            + "{\"do\":\"edit\",\"on\":\"pay_rate\",\"reach\":{\"when\":\"hours > 1\"}}]},"
            + "{\"id\":\"other\",\"rights\":[{\"do\":\"see\",\"on\":\"section:pay\",\"reach\":{\"site\":\"skerry\"}}]}],";
        var answer = Asked.Answer(
            "rights.explain",
            People + "\"grants\":[" + grants + "],\"ask\":[{\"who\":\"ruth\",\"do\":\"see\",\"on\":\"pay_rate@pay\",\"target\":\"nils\"}]}"
        );
        return [.. JsonNode.Parse(answer)!["answers"]![0]!["because"]!.AsArray().Select(b => $"{b!["role"]} {b["do"]} {b["reach"]!.ToJsonString(Plain)}")];
    }

    private static readonly System.Text.Json.JsonSerializerOptions Plain = new()
    {
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    [Theory]
    [InlineData("\"parent\":\"fleet\"", "\"parent\":\"flet\"", "/departments/1/parent unknown-department")]
    [InlineData("\"code\":\"quay\"", "\"code\":\"deck\"", "/departments/3/code duplicate-id")]
    [InlineData("\"manager\":\"orla\"", "\"manager\":\"olra\"", "/people/2/manager unknown-person")]
    [InlineData("\"id\":\"eoin\"", "\"id\":\"nils\"", "/people/3/id duplicate-id")]
    [InlineData("{\"person\":\"orla\",\"role\":\"it\"}", "{\"person\":\"orla\",\"role\":\"ti\"}", "/grants/1/role unknown-role")]
    [InlineData("{\"person\":\"orla\",\"role\":\"it\"}", "{\"person\":\"nobody\",\"role\":\"it\"}", "")]
    [InlineData(
        "{\"person\":\"orla\",\"role\":\"it\"}",
        "{\"person\":\"orla\",\"role\":\"it\",\"from\":\"2027-03-02\",\"to\":\"2027-03-01\"}",
        "/grants/1/to not-in-order"
    )]
    [InlineData("\"roles\":[", "\"roles\":[{\"id\":\"it\",\"rights\":[]},", "/roles/1/id duplicate-id")]
    [InlineData("\"reach\":\"all\"", "\"reach\":\"everybody\"", "/roles/0/rights/0/reach bad-value")]
    [InlineData("\"reach\":\"all\"", "\"reach\":{}", "/roles/0/rights/0/reach bad-value")]
    [InlineData("\"reach\":\"all\"", "\"reach\":{\"site\":\"a\",\"department\":\"deck\"}", "/roles/0/rights/0/reach bad-value")]
    [InlineData("\"reach\":\"all\"", "\"reach\":{\"department\":\"dek\"}", "/roles/0/rights/0/reach/department unknown-department")]
    [InlineData("\"reach\":\"all\"", "\"reach\":{\"when\":\"hours >\"}", "/roles/0/rights/0/reach/when formula-error")]
    [InlineData("\"target\":\"nils\"", "\"target\":\"nobody\"", "/ask/0/target unknown-person")]
    [InlineData("\"who\":\"ruth\"", "\"who\":\"nobody\"", "")]
    public void What_is_wrong_is_told_at_its_place(string part, string changed, string problem)
    {
        var question = Firm.Replace("RIGHTS", """{"do":"see","on":"*","reach":"all"}""", StringComparison.Ordinal)
            .Replace("ASK", """{"who":"ruth","do":"see","on":"*","target":"nils"}""", StringComparison.Ordinal);
        question.ShouldContain(part);
        Asked.ShouldTell("rights.explain", question.Replace(part, changed, StringComparison.Ordinal), problem);
    }

    /// <summary>One more right takes none away.</summary>
    [Fact]
    public void Rights_only_add_up()
    {
        RightReach[] reaches = [new RightReach.All(), new RightReach.Self(), new RightReach.Direct(), new RightReach.Reports(), new RightReach.Site("s")];
        var right = Gen.Select(One("see", "edit"), One("*", "a", "section:x"), Gen.Int[0, reaches.Length - 1].Select(i => reaches[i]))
            .Select(r => new Right(r.Item1, r.Item2, r.Item3));
        Gen.Select(right.List[0, 4], right, One("p", "q", "r"), One("p", "q", "r"))
            .Sample(
                (some, more, who, target) =>
                {
                    var (before, after) = (Explained(some), Explained([.. some, more]));
                    after.Count.ShouldBeInRange(before.Count, before.Count + 1);
                    after.Take(before.Count).ShouldBe(before);

                    IReadOnlyList<GrantedRight> Explained(IReadOnlyList<Right> rights) =>
                        RightsBook
                            .Of(
                                new RightsQuestion(
                                    new LocalDate(2027, 3, 22),
                                    [],
                                    [new("p", null, new Dictionary<string, System.Text.Json.JsonElement>()), Under("q", "p"), Under("r", "q")],
                                    [new Role("it", rights)],
                                    [new RoleGrant(who, "it", null, null)]
                                )
                            )
                            .Answer!.Explain(who, "see", new RightSubject("a", "x"), target);
                },
                iter: 2000
            );

        static RightsPerson Under(string id, string manager) => new(id, manager, new Dictionary<string, System.Text.Json.JsonElement>());
    }

    private static Gen<string> One(params string[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);
}
