using System.Text;
using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Rights;

/// <summary>The firm's own roles and groups: read, written, looked through, and compared.</summary>
public class RightsConfigurationTests
{
    private static readonly RightsSurroundings Firm = new(
        FieldSet.Read(FieldConfiguration.Shipped.Fields, []).Answer!,
        FieldConfiguration.Shipped.Sections.Select(s => s.Key).ToHashSet(),
        new HashSet<string> { "skerry" },
        new HashSet<string> { "deck" }
    );

    private const string Whole = """
        {"roles":[{"id":"lead","label":{"de":"Leitung","en":"Lead"},"fields":["all",{"site":"skerry"}],"rights":[
        {"do":"see","on":"section:pay","reach":{"department":"deck"}},{"do":"edit","on":"task","reach":{"group":"crew"}},
        {"do":"see","on":"record","reach":"self"},{"do":"see","on":"hire","reach":"direct"},{"do":"edit","on":"town","reach":"reports"},
        {"do":"see","on":"phone","reach":"tasks"},{"do":"export","on":"people","reach":"all"}]}],
        "groups":[{"id":"crew","label":{"en":"Crew"},"when":"job == 'deckhand'","roles":["lead"]},{"id":"none","label":{"en":"None"},"when":"false"}]}
        """;

    [Fact]
    public void Written_and_read_again_it_is_the_same_and_nothing_is_wrong_with_it()
    {
        var read = Read(Whole);
        Encoding.UTF8.GetString(read.Write()).ShouldBe(Whole.ReplaceLineEndings(""));
        RightsCheck.Of(read, Firm).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("{}", "/roles", "missing-property")]
    [InlineData("[]", "", "wrong-type")]
    [InlineData("nonsense", "", "malformed-json")]
    [InlineData("""{"roles":[{"id":"","label":"x","fields":[],"rights":[]}],"groups":[]}""", "/roles/0/id", "bad-value")]
    [InlineData("""{"roles":[{"id":"a","label":"x","fields":["nobody"],"rights":[]}],"groups":[]}""", "/roles/0/fields/0", "bad-value")]
    [InlineData("""{"roles":[{"id":"a","label":"x","fields":[{}],"rights":[]}],"groups":[]}""", "/roles/0/fields/0", "bad-value")]
    [InlineData("""{"roles":[{"id":"a","label":"x","fields":[{"site":"s","group":"g"}],"rights":[]}],"groups":[]}""", "/roles/0/fields/0", "bad-value")]
    [InlineData("""{"roles":[{"id":"a","label":"x","fields":[],"rights":[{"do":"see"}]}],"groups":[]}""", "/roles/0/rights/0/on", "missing-property")]
    [InlineData("""{"roles":[],"groups":[],"more":1}""", "/more", "unknown-property")]
    public void What_cannot_be_read_says_where_and_why(string json, string path, string code)
    {
        var read = RightsConfiguration.Read(Encoding.UTF8.GetBytes(json));
        read.Answer.ShouldBeNull();
        read.Problems.ShouldContain(p => p.Path == path && p.Code == code);
    }

    [Theory]
    [InlineData(80, null)]
    [InlineData(81, "too-long")]
    public void A_label_has_at_most_eighty_characters(int length, string? code) =>
        RightsCheck
            .Of(Read($$"""{"roles":[{"id":"a","label":"{{new string('x', length)}}","fields":[],"rights":[]}],"groups":[]}"""), Firm)
            .Select(p => p.Code)
            .ShouldBe(code is null ? [] : [code]);

    [Theory]
    [InlineData("""{"id":"payroll","label":"x","fields":[],"rights":[]}""", "/roles/0/id", "taken")]
    [InlineData("""{"id":"Lead","label":"x","fields":[],"rights":[]}""", "/roles/0/id", "bad-id")]
    [InlineData("""{"id":"1st","label":"x","fields":[],"rights":[]}""", "/roles/0/id", "bad-id")]
    [InlineData("""{"id":"a2345678901234567890123456789012345678901","label":"x","fields":[],"rights":[]}""", "/roles/0/id", "bad-id")]
    [InlineData("""{"id":"a","label":" ","fields":[],"rights":[]}""", "/roles/0/label", "required")]
    [InlineData("""{"id":"a","label":"x","fields":[],"rights":[]},{"id":"a","label":"x","fields":[],"rights":[]}""", "/roles/1/id", "duplicate-id")]
    [InlineData("""{"id":"a","label":"x","fields":[{"site":"nowhere"}],"rights":[]}""", "/roles/0/fields/0/site", "unknown-entry")]
    [InlineData("""{"id":"a","label":"x","fields":[{"department":"nowhere"}],"rights":[]}""", "/roles/0/fields/0/department", "unknown-entry")]
    [InlineData("""{"id":"a","label":"x","fields":[{"group":"nobody"}],"rights":[]}""", "/roles/0/fields/0/group", "unknown-group")]
    [InlineData("""{"id":"a","label":"x","fields":[{"when":"true"}],"rights":[]}""", "/roles/0/fields/0/when", "needs-group")]
    [InlineData("""{"id":"a","label":"x","fields":[],"rights":[{"do":"edit","on":"list","reach":"direct"}]}""", "/roles/0/rights/0/reach", "needs-all")]
    [InlineData("""{"id":"a","label":"x","fields":[],"rights":[{"do":"see","on":"*","reach":"direct"}]}""", "/roles/0/rights/0/reach", "needs-all")]
    [InlineData("""{"id":"a","label":"x","fields":[],"rights":[{"do":"fly","on":"*","reach":"all"}]}""", "/roles/0/rights/0/do", "unknown-right")]
    [InlineData("""{"id":"a","label":"x","fields":[],"rights":[{"do":"merge","on":"town","reach":"all"}]}""", "/roles/0/rights/0/do", "unknown-right")]
    [InlineData("""{"id":"a","label":"x","fields":[],"rights":[{"do":"see","on":"section:gone","reach":"all"}]}""", "/roles/0/rights/0/on", "unknown-section")]
    [InlineData("""{"id":"a","label":"x","fields":[],"rights":[{"do":"see","on":"gone","reach":"all"}]}""", "/roles/0/rights/0/on", "unknown-field")]
    public void What_would_not_work_says_where_and_why(string roles, string path, string code) =>
        RightsCheck
            .Of(Read($$"""{"roles":[{{roles}}],"groups":[]}"""), Firm)
            .ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(p => (p.Path, p.Code).ShouldBe((path, code)));

    [Theory]
    [InlineData("job ==", "/groups/0/when", "formula-error")]
    [InlineData("gone == 1", "/groups/0/when", "unknown-field")]
    [InlineData("certificates.number == 'x'", "/groups/0/when", "formula-error")]
    [InlineData("bank_account == 'x'", "/groups/0/when", "sealed-field")]
    [InlineData("start_date < today()", "/groups/0/when", "not-stored")]
    [InlineData("length(certificates) > 1", "/groups/0/when", "formula-error")]
    public void A_group_is_made_of_what_records_hold(string when, string path, string code)
    {
        var problems = RightsCheck.Of(Read($$"""{"roles":[],"groups":[{"id":"g","label":"G","when":{{JsonSerializer.Serialize(when)}}}]}"""), Firm);
        (problems.Single().Path, problems.Single().Code).ShouldBe((path, code));
    }

    [Fact]
    public void A_group_gives_roles_that_there_are()
    {
        var problems = RightsCheck.Of(Read("""{"roles":[],"groups":[{"id":"g","label":"G","when":"true","roles":["payroll","gone"]}]}"""), Firm);
        (problems.Single().Path, problems.Single().Code).ShouldBe(("/groups/0/roles/1", "unknown-role"));
    }

    [Fact]
    public void There_can_be_so_many_and_no_more()
    {
        static string Many(int count, Func<int, string> one) => string.Join(',', Enumerable.Range(0, count).Select(one));
        var roles = Many(RightsCheck.MostRoles + 1, i => $$"""{"id":"r{{i}}","label":"x","fields":[],"rights":[]}""");
        RightsCheck.Of(Read($$"""{"roles":[{{roles}}],"groups":[]}"""), Firm).Single().Path.ShouldBe("/roles");
        var groups = Many(RightsCheck.MostGroups + 1, i => $$"""{"id":"g{{i}}","label":"x","when":"true"}""");
        RightsCheck.Of(Read($$"""{"roles":[],"groups":[{{groups}}]}"""), Firm).Single().Path.ShouldBe("/groups");
        var rights = Many(RightsCheck.MostRights + 1, _ => """{"do":"see","on":"town","reach":"all"}""");
        RightsCheck
            .Of(Read($$"""{"roles":[{"id":"a","label":"x","fields":[],"rights":[{{rights}}]}],"groups":[]}"""), Firm)
            .Single()
            .Path.ShouldBe("/roles/0/rights");
        // Each group is a reach of its own, and four reaches ship: all, direct, tasks and oneself.
        var places = new HashSet<string>(Enumerable.Range(0, ReachSet.Most).Select(i => $"s{i}"));
        RightsConfiguration Reaching(int count) =>
            Read($$"""{"roles":[{"id":"a","label":"x","fields":[{{Many(count, i => $$"""{"site":"s{{i}}"}""")}}],"rights":[]}],"groups":[]}""");
        RightsCheck.Of(Reaching(ReachSet.Most - 4), Firm with { Sites = places }).ShouldBeEmpty();
        RightsCheck.Of(Reaching(ReachSet.Most - 3), Firm with { Sites = places }).Single().Code.ShouldBe("too-many");
        new RoleSet(Reaching(ReachSet.Most - 4)).Reaches.Count.ShouldBe(ReachSet.Most);
    }

    [Theory]
    [InlineData("""{"job":"deckhand"}""", "crew")]
    [InlineData("""{"job":"clerk"}""", "")]
    [InlineData("""{"job":null}""", "")]
    [InlineData("""{"site":"skerry"}""", "")]
    public void Somebody_is_in_the_groups_whose_formula_holds_for_what_is_there(string values, string groups)
    {
        var held = JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(values)!;
        var set = new RoleSet(Read(Whole));
        set.GroupsOf(held, new(2027, 3, 1)).ShouldBe(groups.Split(' ', StringSplitOptions.RemoveEmptyEntries));
        RoleByRule[] ruled = groups == "crew" ? [new RoleByRule("lead", "crew")] : [];
        set.ByRule(set.GroupsOf(held, new(2027, 3, 1)), worksHere: false).ShouldBe(ruled);
        set.ByRule(set.GroupsOf(held, new(2027, 3, 1)), worksHere: true).ShouldBe([.. ruled, new RoleByRule("staff", null)]);
    }

    [Fact]
    public void A_set_goes_by_the_fields_its_groups_read_and_its_roles_name()
    {
        var set = new RoleSet(Read(Whole));
        (set.GoesBy("job"), set.GoesBy("town"), set.GoesBy("phone"), set.GoesBy("site"), set.GoesBy("record")).ShouldBe((true, true, true, false, false));
    }

    [Theory]
    [InlineData("see list all", "see list all", "", "")]
    [InlineData("see list all", "edit list all", "edit list", "")]
    [InlineData("edit list all", "see list all", "", "edit list")]
    [InlineData("see record direct", "see record all", "see record", "")]
    [InlineData("see record all", "see record direct", "", "see record")]
    [InlineData("see record direct", "see record reports", "see record", "see record")]
    [InlineData("see section:pay all", "see pay_rate all", "", "see section:pay")]
    [InlineData("see town all", "see section:pay all", "see section:pay", "see town")]
    [InlineData("see * all", "see town all", "", "see *")]
    [InlineData("edit town all", "see * all", "see *", "edit town")]
    [InlineData("", "see town all", "see town", "")]
    public void The_difference_is_what_is_given_by_one_and_by_nothing_of_the_other(string before, string after, string gained, string lost)
    {
        var difference = RightsDifference.Of(Role(before), Role(after), key => Firm.Fields.Find(key)?.Section);
        Said(difference.Gained).ShouldBe(gained);
        Said(difference.Lost).ShouldBe(lost);
        difference.IsEmpty.ShouldBe(gained + lost == "");

        static RoleDefinition[] Role(string right) =>
            right.Split(' ') is [var action, var on, var reach]
                ?
                [
                    .. Read(
                        $$"""{"roles":[{"id":"a","label":"x","fields":[],"rights":[{"do":"{{action}}","on":"{{on}}","reach":"{{reach}}"}]}],"groups":[]}"""
                    ).Roles,
                ]
                : [];
    }

    [Fact]
    public void What_fields_give_to_one_role_they_do_not_give_to_another()
    {
        RoleDefinition Role(string id, params RightReach[] fields) => new(id, new Dictionary<string, string>(), fields, []);
        var everybody = new RightReach.All();
        RightsDifference.Of([Role("a", everybody)], [Role("b", everybody)], _ => null).Gained.Single().On.ShouldBe("b");
        RightsDifference.Of([Role("a", everybody)], [Role("a", new RightReach.Direct())], _ => null).Gained.ShouldBeEmpty();
        RightsDifference
            .Of([Role("a", new RightReach.Direct())], [Role("a", everybody)], _ => null)
            .Gained.Single()
            .Action.ShouldBe(RightsDifference.AsFieldsSay);
    }

    [Fact]
    public void A_role_is_called_as_its_labels_say_and_by_its_id_where_they_do_not()
    {
        var set = new RoleSet(Read(Whole));
        var lead = set.Find("lead")!;
        (lead.Label("de"), lead.Label("fr"), (lead with { Labels = new Dictionary<string, string>() }).Label("de")).ShouldBe(("Leitung", "Lead", "lead"));
        var crew = set.Groups[0];
        (crew.Label("de"), (crew with { Labels = new Dictionary<string, string>() }).Label("en")).ShouldBe(("Crew", "crew"));
        set.Find("nobody").ShouldBeNull();
    }

    private static RightsConfiguration Read(string json) =>
        RightsConfiguration.Read(Encoding.UTF8.GetBytes(json)) is { Answer: { } answer } ? answer : throw new ArgumentException("unreadable", nameof(json));

    private static string Said(IEnumerable<Right> rights) => string.Join(' ', rights.Select(r => $"{r.Action} {r.On}"));
}
