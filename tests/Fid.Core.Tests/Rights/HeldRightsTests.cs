using System.Text;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Rights;

/// <summary>What somebody may by the roles they hold: with things, with fields, and with whom.</summary>
public class HeldRightsTests
{
    private static readonly FieldSet Fields = FieldSet
        .Read(
            FieldConfiguration
                .Read(
                    """
                    {"sections":[{"key":"work","label":"Work"},{"key":"pay","label":"Pay"}],"fields":[
                      {"key":"job","type":"text","section":"work","access":{"lead":"view","payroll":"view"}},
                      {"key":"pay_rate","type":"number","section":"pay","access":{"payroll":"edit"}},
                      {"key":"pay_year","type":"computed","section":"pay","default":{"formula":"pay_rate * 52"},"access":{"payroll":"view"}},
                      {"key":"things","type":"rows","section":"work","access":{"lead":"edit"},"columns":[
                        {"key":"what","type":"text"},
                        {"key":"cost","type":"number","access":{"payroll":"view"} }]}
                    ]}
                    """u8
                )
                .Answer!.Fields,
            []
        )
        .Answer!;

    [Fact]
    public void A_field_says_what_it_gives_to_a_role_and_the_role_to_whom()
    {
        var (held, site) = Held("""{"id":"lead","label":"Lead","fields":[{"site":"skerry"}],"rights":[]}""");
        Given(held, site).ShouldBe("job:View things:Edit things.what:Edit");
        Given(held, ReachSet.At(RoleSet.AllPlace)).ShouldBe("");
    }

    [Theory]
    [InlineData("""{"do":"see","on":"section:pay","reach":{"site":"skerry"}}""", "pay_rate:View pay_year:View")]
    [InlineData("""{"do":"edit","on":"section:pay","reach":{"site":"skerry"}}""", "pay_rate:Edit pay_year:View")]
    [InlineData("""{"do":"edit","on":"pay_rate","reach":{"site":"skerry"}}""", "pay_rate:Edit")]
    // Who may ask for a field sees it; nobody asks for what is computed.
    [InlineData("""{"do":"ask","on":"section:pay","reach":{"site":"skerry"}}""", "pay_rate:Ask pay_year:View")]
    [InlineData("""{"do":"ask","on":"things","reach":{"site":"skerry"}}""", "things:Ask things.what:Ask things.cost:Ask")]
    // A right to rows is one to all that stands in them; one to a column alone opens no rows.
    [InlineData("""{"do":"see","on":"things","reach":{"site":"skerry"}}""", "things:View things.what:View things.cost:View")]
    [InlineData("""{"do":"see","on":"things.cost","reach":{"site":"skerry"}}""", "")]
    [InlineData("""{"do":"see","on":"*","reach":"all"}""", "job:View pay_rate:View pay_year:View things:View things.what:View things.cost:View")]
    [InlineData("""{"do":"see","on":"template","reach":"all"}""", "")]
    [InlineData("""{"do":"see","on":"pay_rate","reach":{"site":"other"}}""", "")]
    public void A_role_adds_fields_and_sections_where_it_reaches(string right, string given)
    {
        var (held, site) = Held($$"""{"id":"lead2","label":"Lead","fields":[{"site":"skerry"}],"rights":[{{right}}]}""");
        Given(held, site).ShouldBe(given);
    }

    [Fact]
    public void Of_two_roles_each_gives_its_own_where_it_reaches_and_no_further()
    {
        var set = Set(
            """
            {"id":"lead","label":"Lead","fields":["all"],"rights":[]},
            {"id":"clerk","label":"C","fields":[],"rights":[{"do":"see","on":"pay_rate","reach":"direct"}]}
            """
        );
        var held = HeldRights.Of(set, ["lead", "clerk", "clerk", "gone"]);
        var direct = Place(set, new RightReach.Direct());
        Given(held, ReachSet.At(0)).ShouldBe("job:View things:Edit things.what:Edit");
        Given(held, ReachSet.At(0) | direct).ShouldBe("job:View pay_rate:View things:Edit things.what:Edit");
        held.OnAll(Fields, ReachSet.At(0)).On("pay_rate").ShouldBe(FieldAccess.None);
        held.OnAll(Fields, direct).On("pay_rate").ShouldBe(FieldAccess.View);
        held.OnAll(Fields, direct | Place(set, new RightReach.Self())).On("job").ShouldBe(FieldAccess.View);
    }

    [Theory]
    [InlineData("edit", "see", "template", true)]
    [InlineData("see", "edit", "template", false)]
    [InlineData("edit", "see", "list", false)]
    [InlineData("edit", "export", "template", false)]
    public void To_edit_a_thing_is_to_see_it_and_nothing_else(string given, string asked, string thing, bool may)
    {
        var held = HeldRights.Of(Set($$"""{"id":"one","label":"One","fields":[],"rights":[{"do":"{{given}}","on":"template","reach":"all"}]}"""), ["one"]);
        held.May(asked, thing).ShouldBe(may);
        held.MayToAll(asked, thing).ShouldBe(may);
    }

    [Fact]
    public void What_is_of_some_people_may_be_done_somewhere_and_not_to_all()
    {
        var set = Set("""{"id":"one","label":"One","fields":[],"rights":[{"do":"see","on":"record","reach":"reports"}]}""");
        var held = HeldRights.Of(set, ["one"]);
        held.May("see", "record").ShouldBeTrue();
        held.MayToAll("see", "record").ShouldBeFalse();
        held.May("see", "record", ReachSet.At(RoleSet.AllPlace)).ShouldBeFalse();
        held.May("see", "record", Place(set, new RightReach.Reports())).ShouldBeTrue();
        held.Reached.ShouldBe(Place(set, new RightReach.Reports()));
        HeldRights.None.May("see", "record").ShouldBeFalse();
        HeldRights.None.Reached.ShouldBe(ReachSet.At(RoleSet.AllPlace));
    }

    [Fact]
    public void Explained_is_every_right_that_gives_it_the_fields_own_first()
    {
        var set = Set(
            """
            {"id":"lead","label":"Lead","fields":["direct","all"],"rights":[
              {"do":"edit","on":"section:work","reach":"all"},{"do":"see","on":"*","reach":"all"}]}
            """
        );
        var held = HeldRights.Of(set, ["lead"]);
        var job = Fields.Find("job")!;
        Said(held.Explain(job, FieldAccess.View, ReachSet.At(0))).ShouldBe(["see job All", "edit section:work All", "see * All"]);
        Said(held.Explain(job, FieldAccess.Edit, ReachSet.Whole)).ShouldBe(["edit section:work All"]);
        Said(held.Explain("see", "list", ReachSet.At(0))).ShouldBe(["see * All"]);
        held.Explain(job, FieldAccess.View, ReachSet.None).ShouldBeEmpty();
    }

    [Fact]
    public void The_roles_that_ship_give_what_each_field_gives_them_and_whoever_administers_may_everything()
    {
        var fields = FieldSet.Read(FieldConfiguration.Shipped.Fields, []).Answer!;
        foreach (var role in ShippedRoles.All)
        {
            var held = HeldRights.Of(RoleSet.Shipped, [role.Id]);
            var given = held.On(fields, ReachSet.Whole);
            fields.FieldsAndColumns.Where(f => given.On(f.Key) != f.AccessOf(role.Id)).Select(f => $"{role.Id} {f.Key}").ShouldBeEmpty();
        }
        var all = HeldRights.Of(RoleSet.Shipped, [ShippedRoles.Administrator]);
        Things.Rights.Where(r => !all.MayToAll(r.Action, r.Thing)).ShouldBeEmpty();
        RoleSet.Shipped.Administering.ShouldBe([ShippedRoles.Administrator]);
        Things.Rights.Select(r => (r.Action, r.Thing)).Distinct().Count().ShouldBe(Things.Rights.Count);
        Things.Rights.ShouldAllBe(r => r.Label.En.Length > 0 && r.Label.De.Length > 0);
    }

    [Theory]
    [InlineData("see", false, false, true)]
    [InlineData("ask", false, true, true)]
    [InlineData("edit", true, true, true)]
    public void Of_seeing_asking_and_editing_each_gives_what_comes_before_it(string given, bool edits, bool asks, bool sees)
    {
        var held = HeldRights.Of(Set($$"""{"id":"one","label":"One","fields":[],"rights":[{"do":"{{given}}","on":"job","reach":"all"}]}"""), ["one"]);
        var job = Fields.Find("job")!;
        (!held.Where(job, FieldAccess.Edit).IsEmpty, !held.Where(job, FieldAccess.Ask).IsEmpty, !held.Where(job, FieldAccess.View).IsEmpty).ShouldBe(
            (edits, asks, sees)
        );
        held.Explain(job, FieldAccess.Ask, ReachSet.At(RoleSet.AllPlace)).Count.ShouldBe(asks ? 1 : 0);
        var rights = held.On(Fields, ReachSet.At(RoleSet.AllPlace));
        (rights.MayEdit("job"), rights.ForAsking().MayEdit("job"), rights.ForAsking().MayEdit("pay_rate")).ShouldBe((edits, asks, false));
    }

    [Fact]
    public void A_set_of_reaches_tells_as_many_apart_as_it_says()
    {
        var last = ReachSet.At(ReachSet.Most - 1);
        (last.Has(ReachSet.Most - 1), last.Has(0), last.IsEmpty).ShouldBe((true, false, false));
        (last | ReachSet.At(0)).Places().ShouldBe([0, ReachSet.Most - 1]);
        (last | ReachSet.At(3)).Contains(last).ShouldBeTrue();
        last.Contains(last | ReachSet.At(3)).ShouldBeFalse();
        last.Overlaps(ReachSet.At(3)).ShouldBeFalse();
        ReachSet.Whole.Places().Count().ShouldBe(ReachSet.Most);
        HeldRights.Covers(ReachSet.At(RoleSet.AllPlace), last).ShouldBeTrue();
        HeldRights.Covers(ReachSet.At(3), last).ShouldBeFalse();
    }

    [Theory]
    [InlineData("owner", "Tasks")]
    [InlineData("owner staff", "Self Tasks")] // to see one's own record takes nobody away
    [InlineData("newcomer", "Self Tasks")]
    [InlineData("manager staff", "Self Direct")]
    [InlineData("payroll staff", "All Self")]
    public void Who_is_listed_for_somebody(string roles, string reached) =>
        HeldRights
            .Of(RoleSet.Shipped, roles.Split(' '))
            .Reached.Places()
            .Select(place => RoleSet.Shipped.Reaches[place].GetType().Name)
            .ShouldBe(reached.Split(' '), ignoreOrder: true);

    [Theory]
    [InlineData("""{"do":"grant","on":"role","reach":"all"},{"do":"edit","on":"account","reach":"all"}""", true)]
    [InlineData("""{"do":"grant","on":"role","reach":"all"}""", false)]
    [InlineData("""{"do":"edit","on":"account","reach":"all"}""", false)]
    public void Who_gives_roles_and_invites_others_administers_and_who_does_one_of_the_two_does_not(string rights, bool administers) =>
        Set($$"""{"id":"own","label":{"en":"Own"},"fields":[],"rights":[{{rights}}]}""").Administering.Contains("own").ShouldBe(administers);

    private static (HeldRights Held, ReachSet Site) Held(string role)
    {
        var set = Set(role);
        return (HeldRights.Of(set, set.Roles.Skip(ShippedRoles.All.Count).Select(r => r.Id)), ReachSet.At(0) | Place(set, new RightReach.Site("skerry")));
    }

    private static RoleSet Set(string roles) => new(RightsConfiguration.Read(Encoding.UTF8.GetBytes($$"""{"roles":[{{roles}}],"groups":[]}""")).Answer!);

    private static ReachSet Place(RoleSet set, RightReach reach) => set.Reaches.ToList().IndexOf(reach) is var at and >= 0 ? ReachSet.At(at) : ReachSet.None;

    private static string Given(HeldRights held, ReachSet target) => Said(held.On(Fields, target));

    private static string Said(FieldRights rights) =>
        string.Join(' ', Fields.FieldsAndColumns.Where(f => rights.Sees(f.Key)).Select(f => $"{f.Key}:{rights.On(f.Key)}"));

    private static IEnumerable<string> Said(IEnumerable<GrantedRight> rights) =>
        rights.Select(r => $"{r.Right.Action} {r.Right.On} {r.Right.Reach.GetType().Name}");
}
