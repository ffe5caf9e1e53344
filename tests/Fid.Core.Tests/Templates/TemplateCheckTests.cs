using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Templates;

/// <summary>What is wrong between templates and add-ons, and where it is told: at the second of each, and further down.</summary>
public class TemplateCheckTests
{
    private static string Question(string templates, string addOns = "", string more = "") =>
        $$"""
            {"facts":{"site":"skerry"},"fields":["pay_rate","shift","note"],
             "templates":[{"id":"basics","version":1,"values":{"pay_rate":{"value":16} } },{{templates}}],
             "use":"basics","addOns":[{"id":"first","version":1,"when":"site == 'skerry'","order":10,"values":{"shift":{"value":"early"} },
               "tasks":[{"key":"radio","work":2,"owner":"it"},{"key":"pass"}]}{{addOns}}],"typed":{} {{more}}}
            """;

    private const string Deckhand = """{"id":"deckhand","version":1,"buildsOn":"basics","values":{}}""";

    private static string AddOn(string content, int order = 10) =>
        $$""",{"id":"second","version":1,"when":"site == 'skerry'","order":{{order}},"values":{},{{content}} }""";

    [Theory]
    // Of a property and of what is dropped, at the one that comes later; what they agree in, or one leaves alone, is no clash.
    [InlineData("\"tasks\":[{\"key\":\"kit\"},{\"key\":\"radio\",\"work\":3}]", 10, "/addOns/1/tasks/1/work order-clash")]
    [InlineData("\"tasks\":[{\"key\":\"radio\",\"drop\":true}]", 10, "/addOns/1/tasks/0 order-clash")]
    [InlineData("\"tasks\":[{\"key\":\"pass\",\"drop\":true}]", 11, "")]
    [InlineData("\"tasks\":[{\"key\":\"radio\",\"work\":3}]", 9, "")]
    [InlineData("\"tasks\":[{\"key\":\"radio\",\"work\":2}]", 10, "")]
    [InlineData("\"tasks\":[{\"key\":\"radio\",\"why\":\"x\"}]", 10, "")]
    [InlineData("\"items\":[{\"key\":\"radio\",\"work\":3}]", 10, "")]
    public void Add_ons_of_one_order_do_not_say_different_things(string content, int order, string problem) =>
        Asked.ShouldTell("templates.resolve", Question(Deckhand, AddOn(content, order)), problem);

    [Theory]
    [InlineData("\"pay_rate\":{\"formula\":\"10\"}", "\"pay_rate\":{\"formula\":\" 10 \"}", "")]
    [InlineData("\"pay_rate\":{\"formula\":\"10\"}", "\"pay_rate\":{\"formula\":\"11\"}", "/addOns/2/values/pay_rate order-clash")]
    [InlineData("\"pay_rate\":{\"formula\":\"10\"}", "\"pay_rate\":{\"value\":10}", "/addOns/2/values/pay_rate order-clash")]
    [InlineData("\"pay_rate\":{\"value\":10}", "\"pay_rate\":{\"formula\":\"10\"}", "/addOns/2/values/pay_rate order-clash")]
    [InlineData("\"pay_rate\":{\"value\":10}", "\"pay_rate\":{\"value\":10}", "")]
    [InlineData("\"pay_rate\":{\"value\":10}", "\"note\":{\"value\":11}", "")]
    public void A_formula_is_the_same_whatever_the_space_around_it(string one, string other, string problem)
    {
        var both = string.Concat(
            new[] { one, other }.Select((v, i) => $$""",{"id":"{{(i == 0 ? "b" : "c")}}","version":1,"when":"true","order":20,"values":{ {{v}} } }""")
        );
        Asked.ShouldTell("templates.resolve", Question(Deckhand, both), problem);
    }

    [Theory]
    [InlineData("\"values\":{\"pay_rat\":{\"value\":1}}", "", "/templates/1/values/pay_rat unknown-field")]
    [InlineData("\"values\":{\"note\":{\"formula\":\"sit + 1\"}}", "", "/templates/1/values/note/formula unknown-field")]
    [InlineData("\"values\":{\"note\":{\"formula\":\"site\"}}", "", "")]
    [InlineData("\"values\":{}", ",{\"id\":\"b\",\"version\":1,\"when\":\"sit == 'x'\",\"order\":1,\"values\":{}}", "/addOns/1/when unknown-field")]
    [InlineData(
        "\"values\":{}",
        ",{\"id\":\"b\",\"version\":1,\"when\":\"false\",\"order\":1,\"values\":{\"pay_rat\":{\"value\":1}}}",
        "/addOns/1/values/pay_rat unknown-field"
    )]
    [InlineData("\"values\":{\"note\":{\"formula\":\"today()\"}}", "", "/templates/1/values/note/formula formula-error")]
    [InlineData("\"values\":{}", ",{\"id\":\"b\",\"version\":1,\"when\":\"today() > '2027-01-01'\",\"order\":1,\"values\":{}}", "/addOns/1/when formula-error")]
    [InlineData(
        "\"values\":{}",
        ",{\"id\":\"b\",\"version\":1,\"when\":\"false\",\"order\":1,\"values\":{\"note\":{\"formula\":\"today()\"}}}",
        "/addOns/1/values/note/formula formula-error"
    )]
    public void What_is_not_there_is_told_where_it_is_read(string content, string addOns, string problem) =>
        Asked.ShouldTell("templates.resolve", Question($$"""{"id":"deckhand","version":1,{{content}} }""", addOns), problem);

    [Fact]
    public void Today_is_asked_for_only_while_nobody_says_which_day_that_is() =>
        Asked.ShouldTell(
            "templates.resolve",
            Question("""{"id":"deckhand","version":1,"values":{"note":{"formula":"today()"} }}""", more: ",\"today\":\"2027-03-01\""),
            ""
        );

    [Fact]
    public void Each_ring_is_told_once_at_the_template_of_it_that_stands_first()
    {
        string Builds(string id, string on) => $$"""{"id":"{{id}}","version":1,"buildsOn":"{{on}}","values":{} }""";
        var rings = string.Join(',', Builds("a", "c"), Builds("b", "a"), Builds("c", "b"), Builds("d", "a"), Builds("e", "e"), Builds("f", "basics"));
        Asked
            .Problems("templates.resolve", Question(rings))
            .Select(p => $"{p.Path} {p.Message[(p.Message.IndexOf(": ", StringComparison.Ordinal) + 2)..p.Message.IndexOf('.', StringComparison.Ordinal)]}")
            .ShouldBe(["/templates/1/buildsOn a → c → b → a", "/templates/5/buildsOn e → e"]);
    }

    [Fact]
    public void A_ring_of_formulas_is_told_at_the_layer_in_which_it_stands()
    {
        var ring =
            ",{\"id\":\"b\",\"version\":1,\"when\":\"true\",\"order\":30,\"values\":{\"note\":{\"formula\":\"shift\"},\"shift\":{\"formula\":\"note\"}}}";
        Asked
            .Problems("templates.resolve", Question(Deckhand, ring))
            .Select(p => $"{p.Path} {p.Code}")
            .ShouldBe(["/addOns/1/values/shift/formula formula-loop"]);
        var below = Question(Deckhand)
            .Replace("\"pay_rate\":{\"value\":16}", "\"note\":{\"formula\":\"pay_rate\"},\"pay_rate\":{\"formula\":\"note\"}", StringComparison.Ordinal);
        Asked.Problems("templates.resolve", below).Select(p => $"{p.Path} {p.Code}").ShouldContain("/templates/0/values/note/formula formula-loop");
    }
}
