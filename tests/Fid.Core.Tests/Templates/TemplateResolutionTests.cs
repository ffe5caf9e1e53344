using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Fid.Core.Templates;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Templates;

public class TemplateResolutionTests
{
    private const string Firm = """
        {"facts":{"site":"skerry","start_date":"2027-03-22"},
         "templates":[
           {"id":"crew-basics","version":2,"values":{"pay_rate":{"value":16.1},"overtime_rate":{"formula":"pay_rate * 1.5"}},
            "tasks":[{"key":"radio","work":8,"owner":"it"},{"key":"kit","work":1}],"items":[{"key":"uniform-winter"},{"key":"jacket","size":"M"}]},
           {"id":"deckhand","version":4,"buildsOn":"crew-basics","values":{"pay_rate":{"value":17.4},"end_date":{"formula":"addMonths(start_date, 7)"}},
             "tasks":[{"key":"tour"},{"key":"radio","work":5}]}],
         "use":"deckhand",
         "addOns":[
           {"id":"skerry","version":1,"when":"site == 'skerry'","order":10,"values":{"shift":{"value":"early"}},"tasks":[{"key":"ferry-pass","work":2}],
             "documents":[{"key":"island-rules"}]},
           {"id":"seasonal","version":3,"when":"end_date < '2028-01-01'","order":20,"values":{"kind":{"value":"seasonal"}},
             "items":[{"key":"uniform-winter","drop":true}]},
           {"id":"corran","version":1,"when":"site == 'corran'","order":10,"values":{"shift":{"value":"late"}}}],
         "typed":{"first_name":"Ines"}}
        """;

    [Fact]
    public void Every_value_and_every_property_tells_which_layer_gave_it_and_what_it_displaced()
    {
        var answer = JsonNode.Parse(Asked.Answer("templates.resolve", Firm))!;
        answer["layers"]!.ToJsonString().ShouldBe("""["template:crew-basics@2","template:deckhand@4","addOn:skerry@1","addOn:seasonal@3","typed"]""");
        answer["values"]!["pay_rate"]!
            .ToJsonString()
            .ShouldBe("""{"value":17.4,"from":"template:deckhand@4","displaced":[{"from":"template:crew-basics@2","value":16.1}]}""");
        // A formula of a lower layer reads what the layers above it come to.
        answer["values"]!["overtime_rate"]!.ToJsonString().ShouldBe("""{"value":26.1,"from":"template:crew-basics@2","displaced":[]}""");
        answer["values"]!["end_date"]!.ToJsonString().ShouldBe("""{"value":"2027-10-22","from":"template:deckhand@4","displaced":[]}""");
        answer["values"]!.AsObject().Select(v => v.Key).ShouldBe(["pay_rate", "overtime_rate", "end_date", "shift", "kind", "first_name"]);
        answer["tasks"]!.AsArray().Select(t => (string)t!["key"]!).ShouldBe(["radio", "kit", "tour", "ferry-pass"]);
        answer["tasks"]![0]!["properties"]!
            .ToJsonString()
            .ShouldBe(
                """{"work":{"value":5,"from":"template:deckhand@4","displaced":[{"from":"template:crew-basics@2","value":8}]},"owner":"""
                    + """{"value":"it","from":"template:crew-basics@2","displaced":[]}}"""
            );
        answer["items"]!.AsArray().Select(t => (string)t!["key"]!).ShouldBe(["jacket"]);
        answer["documents"]!.ToJsonString().ShouldBe("""[{"key":"island-rules","properties":{}}]""");
        answer["dropped"]!.ToJsonString().ShouldBe("""[{"list":"items","key":"uniform-winter","by":"addOn:seasonal@3"}]""");
    }

    [Theory]
    [InlineData("\"use\":\"deckhand\"", "\"use\":\"bosun\"", "/use", "unknown-template", "bosun")]
    [InlineData("\"buildsOn\":\"crew-basics\"", "\"buildsOn\":\"basics\"", "/templates/1/buildsOn", "unknown-template", "basics")]
    [InlineData(
        "\"version\":2,",
        "\"version\":2,\"buildsOn\":\"deckhand\",",
        "/templates/0/buildsOn",
        "builds-on-loop",
        "crew-basics → deckhand → crew-basics"
    )]
    [InlineData("\"id\":\"deckhand\"", "\"id\":\"crew-basics\"", "/templates/1/id", "duplicate-id", "crew-basics")]
    [InlineData(
        "\"use\":",
        "\"fields\":[\"pay_rate\",\"overtime_rate\",\"end_date\",\"kind\",\"shift\"],\"use\":",
        "/typed/first_name",
        "unknown-field",
        "first_name"
    )]
    [InlineData("addMonths(start_date, 7)", "addMonths(start_date, 7", "/templates/1/values/end_date/formula", "formula-error", "character")]
    [InlineData("addMonths(start_date, 7)", "addMonths(site, 7)", "/templates/1/values/end_date/formula", "formula-error", "end_date")]
    [InlineData("addMonths(start_date, 7)", "today()", "/templates/1/values/end_date/formula", "formula-error", "today")]
    [InlineData(
        "\"pay_rate\":{\"value\":17.4}",
        "\"pay_rate\":{\"formula\":\"overtime_rate / 2\"}",
        "/templates/1/values/pay_rate/formula",
        "formula-loop",
        "pay_rate → overtime_rate → pay_rate"
    )]
    [InlineData("\"when\":\"site == 'corran'\"", "\"when\":\"site != 'corran'\"", "/addOns/0/values/shift", "order-clash", "shift")]
    [InlineData("{\"key\":\"kit\",\"work\":1}", "{\"key\":\"radio\",\"work\":1}", "/templates/0/tasks/1/key", "duplicate-key", "radio")]
    [InlineData("{\"value\":\"early\"}", "{\"value\":\"early\",\"formula\":\"1\"}", "/addOns/0/values/shift", "bad-value", "either")]
    [InlineData("{\"value\":\"early\"}", "\"early\"", "/addOns/0/values/shift", "wrong-type", "object")]
    [InlineData("{\"key\":\"kit\",\"work\":1}", "{\"work\":1}", "/templates/0/tasks/1/key", "missing-property", "key")]
    [InlineData("{\"key\":\"kit\",\"work\":1}", "{\"key\":7,\"work\":1}", "/templates/0/tasks/1/key", "bad-value", "key")]
    public void Says_where_a_template_cannot_be_right(string part, string changed, string path, string code, string named)
    {
        Firm.ShouldContain(part);
        var problem = Asked.Problems("templates.resolve", Firm.Replace(part, changed, StringComparison.Ordinal)).ShouldHaveSingleItem();
        (problem.Path, problem.Code).ShouldBe((path, code));
        problem.Message.ShouldContain(named);
    }

    [Theory]
    [InlineData(
        """{"base":{"a":1,"b":1,"c":1,"d":1,"e":1},"mine":{"a":1.0,"b":1,"c":2,"d":2,"e":2},"theirs":{"a":1,"b":2,"c":1,"d":2,"e":3}}""",
        """{"fields":{"a":"same","b":"take","c":"keep","d":"agree","e":"conflict"}}"""
    )]
    [InlineData(
        """{"base":{"gone":1,"kept":1,"null":null},"mine":{"gone":1,"mine":1},"theirs":{"kept":1,"null":null,"new":[1,2]}}""",
        """{"fields":{"gone":"take","kept":"keep","null":"keep","mine":"keep","new":"take"}}"""
    )]
    [InlineData("""{"base":{},"mine":{"x":{"a":1,"b":2}},"theirs":{"x":{"b":2,"a":1}}}""", """{"fields":{"x":"agree"}}""")]
    public void A_new_version_says_of_each_field_who_changed_it(string question, string answer) => Asked.Answer("templates.merge", question).ShouldBe(answer);

    [Fact]
    public void Add_ons_come_out_the_same_in_whatever_order_they_are_listed_and_what_is_typed_always_wins() =>
        Gen.Select(Gen.Int[0, 5].Array[2, 6], Gen.Int[0, 1000], Gen.Int[-3, 3])
            .Sample(
                (orders, seed, typed) =>
                {
                    // Add-ons of one order set different things; those of different orders may set the same.
                    var addOns = orders.Select(
                        (o, i) => new AddOnDefinition($"a{i}", 1, null, o, Sets(($"of{o}{i}", i), ($"shared{orders.Take(i).Count(x => x == o)}", o)))
                    );
                    var shuffled = addOns.ToArray();
                    new Random(seed).Shuffle(shuffled);
                    var template = new TemplateDefinition("t", 1, null, Sets(("rate", 10), ("shared0", 99)));
                    var typedValues = new Dictionary<string, JsonElement> { ["shared0"] = JsonSerializer.SerializeToElement(typed) };
                    var (one, other) = (Resolve(template, [.. addOns], typedValues), Resolve(template, shuffled, typedValues));
                    JsonSerializer.Serialize(other).ShouldBe(JsonSerializer.Serialize(one));
                    (one.Values["shared0"].From, one.Values["shared0"].Value.GetInt32()).ShouldBe((Layer.Typed, typed));
                }
            );

    [Fact]
    public void Dropping_and_bringing_back_changes_nothing() =>
        Gen.Select(Gen.Int[1, 5], Gen.Int[0, 4])
            .Sample(
                (count, at) =>
                {
                    var entries = Enumerable
                        .Range(0, count)
                        .Select(i => new LayerEntry($"k{i}", new Dictionary<string, JsonElement> { ["work"] = JsonSerializer.SerializeToElement(i) }))
                        .ToArray();
                    var template = new TemplateDefinition("t", 1, null, OfTasks(entries));
                    AddOnDefinition Names(string id, int order, bool drop) =>
                        new(id, 1, null, order, OfTasks(new LayerEntry($"k{at % count}", new Dictionary<string, JsonElement>(), drop)));
                    var plain = Resolve(template, [], []);
                    Resolve(template, [Names("drop", 1, drop: true)], []).Tasks.Count.ShouldBe(count - 1);
                    JsonSerializer
                        .Serialize(Resolve(template, [Names("drop", 1, drop: true), Names("back", 2, drop: false)], []).Tasks)
                        .ShouldBe(JsonSerializer.Serialize(plain.Tasks));
                }
            );

    [Fact]
    public void Empty_fields_are_filled_from_the_lists_and_set_ones_are_left()
    {
        var layered = Resolve(new TemplateDefinition("skerry", 1, null, Sets(("cost_centre", 410))), [], []);
        var filled = StartingValues.Fill(layered, new KnownFacts("islands", "400", "900", "manager above", "head", "000007"));
        filled
            .Select(v => (v.Key, v.Value.Value.ToString(), v.Value.From))
            .ShouldBe([
                ("cost_centre", "410", "template:skerry@1"),
                ("holiday_calendar", "islands", StartingValues.FromSite),
                ("manager", "manager above", StartingValues.FromSeat),
                ("badge", "000007", StartingValues.NextFree),
            ]);
    }

    private static Layered Resolve(TemplateDefinition template, IReadOnlyList<AddOnDefinition> addOns, Dictionary<string, JsonElement> typed) =>
        TemplateResolution
            .Resolve(new TemplateQuestion(new Dictionary<string, JsonElement>(), [template], template.Id, addOns, typed))
            .Answer.ShouldNotBeNull();

    private static LayerContent OfTasks(params LayerEntry[] tasks) =>
        new(new Dictionary<string, LayerValue>(), new Dictionary<string, IReadOnlyList<LayerEntry>> { [TemplateLists.Tasks] = tasks });

    private static LayerContent Sets(params (string Field, int Value)[] values) =>
        LayerContent.OfLiterals(values.Select(v => KeyValuePair.Create(v.Field, JsonSerializer.SerializeToElement(v.Value))));
}
