using System.Text.Json.Nodes;
using CsCheck;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

public class RecordEvaluationTests
{
    private const string Fields = """
        {"key":"name","type":"text","required":"always","access":{"coordinator":"edit","manager":"view"}},
        {"key":"site","type":"listEntry","list":"sites","access":{"coordinator":"edit","manager":"view"},"onChange":[{"set":"centre",
          "formula":"if(site == 'skerry', '410', '')"},{"set":"boat","formula":"'MV ' + site"}]},
        {"key":"centre","type":"text","access":{"coordinator":"edit"},"onChange":[{"set":"boat","formula":"'by centre'"},{"set":"site","formula":"'hallan'"}]},
        {"key":"boat","type":"text","access":{"coordinator":"edit","manager":"view"}},
        {"key":"start","type":"date","access":{"coordinator":"edit","manager":"view"}},
        {"key":"review","type":"date","default":{"formula":"addWorkingDays(end, -5)"},"access":{"coordinator":"edit"}},
        {"key":"end","type":"date","default":{"formula":"addMonths(start, 7)"},"access":{"coordinator":"edit","manager":"view"}},
        {"key":"seasonal","type":"computed","default":{"formula":"end != null and addMonths(start, 12) > end"},"access":{"coordinator":"edit",
          "manager":"view"}},
        {"key":"return","type":"yesNo","showWhen":"seasonal","required":{"from":"settle"},"access":{"coordinator":"edit","manager":"edit"}},
        {"key":"pay","type":"money","min":12,"max":90,"required":{"from":"prepare"},"access":{"coordinator":"edit"}},
        {"key":"bank","type":"identifier","pattern":"[A-Z]{2}\\d+","requiredWhen":"pay > 50","required":{"from":"arrive"},"access":{"coordinator":"edit"}},
        {"key":"deck","type":"choice","options":[{"value":"fore"},{"value":"aft"}],"access":{"coordinator":"edit"}},
        {"key":"berth","type":"choices","parent":"deck","options":[{"value":"1","within":["fore"]},{"value":"2","within":["aft"]},{"value":"9",
          "retired":true}],"access":{"coordinator":"edit","manager":"view"}}
        """;

    [Fact]
    public void Rules_then_defaults_then_computed_each_after_what_it_reads()
    {
        var record = Evaluate("""{"name":"Ines","site":"skerry","start":"2027-03-31"}""", typed: "name,site", changed: "site");
        record["values"]!
            .ToJsonString()
            .ShouldBe(
                """{"name":"Ines","site":"skerry","centre":"410","boat":"MV skerry","start":"""
                    + "\"2027-03-31\",\"review\":\"2027-10-25\",\"end\":\"2027-10-31\",\"seasonal\":true}"
            );
        record["setBy"]!
            .ToJsonString()
            .ShouldBe("""{"name":"typed","site":"typed","centre":"rule:site","boat":"rule:site","review":"default","end":"default","seasonal":"computed"}""");
        record["access"]!["seasonal"]!.ToString().ShouldBe("view");
        record["missing"]!.ToJsonString().ShouldBe("""{"now":["pay"],"arrive":[],"settle":["return"]}""");
        record["completeness"]!.ToJsonString().ShouldBe("""{"filled":1,"required":2}""");
    }

    [Fact]
    public void Nobody_s_typing_is_overwritten_and_what_was_emptied_stays_empty()
    {
        var record = Evaluate("""{"name":"Ines","site":"skerry","centre":"999","start":"2027-03-31"}""", typed: "site,centre,end", changed: "site");
        record["values"]!["centre"]!.ToString().ShouldBe("999");
        record["values"]!["end"].ShouldBeNull();
        record["setBy"]!["boat"]!.ToString().ShouldBe("rule:site");
    }

    [Theory]
    [InlineData("pay", "11.99", "min")]
    [InlineData("pay", "90.01", "max")]
    [InlineData("pay", "\"17\"", "type")]
    [InlineData("site", "\"atlantis\"", "option")]
    [InlineData("bank", "\"xy12\"", "pattern")]
    [InlineData("bank", "\"XY12 and more\"", "pattern")]
    [InlineData("berth", "[\"1\",\"2\"]", "within")]
    [InlineData("berth", "[\"3\"]", "option")]
    [InlineData("berth", "\"1\"", "type")]
    [InlineData("start", "\"2027-02-30\"", "type")]
    [InlineData("return", "\"yes\"", null)] // hidden, so nobody is troubled
    [InlineData("berth", "[\"9\"]", null)] // retired, but there already
    [InlineData("site", "\" SKERRY \"", null)] // codes match however they are capitalised
    public void Says_what_is_wrong_with_what_is_shown(string field, string value, string? code)
    {
        var errors = Evaluate($$"""{"deck":"fore","{{field}}":{{value}}}""")["errors"]!.AsArray();
        errors.Select(e => $"{e!["field"]}:{e["code"]}").ShouldBe(code is null ? [] : [$"{field}:{code}"]);
    }

    [Fact]
    public void Each_part_of_a_formula_is_computed_once_however_deep_it_stands()
    {
        // Computed twice at each level, this would not end.
        var nested = Enumerable.Range(0, 50).Aggregate("pay == 7", (inner, _) => $"({inner}) == true");
        var record = JsonNode.Parse(
            Asked.Answer(
                "fields.evaluate",
                $$"""
                {"fields":[{"key":"pay","type":"money","access":{"c":"view"} },{"key":"x","type":"computed","access":{"c":"view"},
                  "default":{"formula":"{{nested}}" } }],
                 "values":{"pay":7},"role":"c","today":"2027-03-01"}
                """
            )
        )!;
        record["values"]!["x"]!.GetValue<bool>().ShouldBeTrue();
    }

    [Fact]
    public void Texts_that_double_from_field_to_field_come_to_an_end()
    {
        var fields = Enumerable
            .Range(1, 12)
            .Select(i =>
                $$"""{"key":"f{{i}}","type":"computed","access":{"c":"view"},"default":"""
                + $$"""{"formula":"{{string.Join(" + ", Enumerable.Repeat($"f{i - 1}", 40))}}"} }"""
            );
        var before = GC.GetAllocatedBytesForCurrentThread();
        var record = JsonNode.Parse(
            Asked.Answer(
                "fields.evaluate",
                $$"""
                {"fields":[{"key":"f0","type":"text","access":{"c":"view"} },{{string.Join(
                    ',',
                    fields
                )}}],"values":{"f0":"aaaaaaaa"},"role":"c","today":"2027-03-01"}
                """
            )
        )!;
        record["values"]!["f1"]!.ToString().Length.ShouldBe(8 * 40);
        record["values"]!["f2"].ShouldBeNull();
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(100_000_000);
    }

    [Theory]
    [InlineData("Skerry Pier", "Sk%", true)]
    [InlineData("Skerry Pier", "%Pier", true)]
    [InlineData("Skerry Pier", "%err%P_er", true)]
    [InlineData("Skerry Pier", "skerry%", false)]
    [InlineData("Skerry Pier", "Skerry", false)]
    [InlineData("", "%", false)] // an empty text is no value
    [InlineData(
        "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa",
        "%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%a%ab",
        false
    )]
    public void Like_knows_any_characters_and_one_and_never_runs_away(string text, string pattern, bool like) => JsonNode.Parse(
            Asked.Answer(
                "fields.evaluate",
                $$"""
                {"fields":[{"key":"t","type":"text","access":{"c":"view"} },{"key":"x","type":"computed","access":{"c":"view"},
                  "default":{"formula":"t like '{{pattern}}'"} }],"values":{"t":"{{text}}"},"role":"c","today":"2027-03-01"}
                """
            )
        )!["values"]!["x"]!.GetValue<bool>().ShouldBe(like);

    [Theory]
    [InlineData("\"never\"", "9", "prepare", "now:x")]
    [InlineData("\"never\"", "9", null, "prepare:x")] // from the first stage on
    [InlineData("\"never\"", "1", "settle", "")]
    [InlineData(null, "9", "arrive", "now:x")]
    [InlineData("\"always\"", "9", null, "now:x")]
    [InlineData("\"always\"", "1", "settle", "")] // narrowed to the records where the condition holds
    [InlineData("{\"from\":\"arrive\"}", "9", "prepare", "arrive:x")]
    [InlineData("{\"from\":\"arrive\"}", "9", "arrive", "now:x")]
    [InlineData("{\"from\":\"arrive\"}", "9", "settle", "now:x")]
    [InlineData("{\"from\":\"arrive\"}", "1", "prepare", "")]
    [InlineData("{\"from\":\"arrive\"}", "1", "settle", "")]
    [InlineData("\"always\"", "\"much\"", "settle", "")] // what cannot be computed does not hold
    public void A_condition_narrows_from_when_a_field_is_required(string? required, string pay, string? stage, string missing)
    {
        var record = JsonNode.Parse(
            Asked.Answer(
                "fields.evaluate",
                $$"""
                {"fields":[{"key":"pay","type":"number","access":{"c":"edit"} },{"key":"x","type":"text","access":{"c":"edit"},{{(
                    required is null ? "" : $"\"required\":{required},"
                )}}"requiredWhen":"pay > 5"}],
                 "stages":["prepare","arrive","settle"],{{(
                    stage is null ? "" : $"\"stage\":\"{stage}\","
                )}}"values":{"pay":{{pay}}},"role":"c","today":"2027-03-01"}
                """
            )
        )!;
        string.Join(' ', record["missing"]!.AsObject().SelectMany(m => m.Value!.AsArray().Select(f => $"{m.Key}:{f}"))).ShouldBe(missing);
        record["completeness"]!["required"]!.GetValue<int>().ShouldBe(missing.StartsWith("now", StringComparison.Ordinal) ? 1 : 0);
    }

    [Theory]
    [InlineData("a", "a", """{"a":"typed","b":"rule:a","c":"rule:b"}""")] // from rule to rule
    [InlineData("a,c", "a", """{"a":"typed","b":"rule:a","c":"typed"}""")] // none that was typed
    [InlineData("a", "", """{"a":"typed"}""")] // nothing has changed
    [InlineData("a", "c", """{"a":"typed"}""")] // what cannot be computed sets nothing
    public void A_change_is_followed_from_rule_to_rule(string typed, string changed, string setBy) =>
        Of(
                """{"key":"a","type":"number","access":{"c":"edit"},"onChange":[{"set":"b","formula":"a + 1"},{"set":"none","formula":"a"}]}""",
                """{"key":"b","type":"number","access":{"c":"edit"},"onChange":[{"set":"c","formula":"b + 1"},{"set":"a","formula":"0"}]}""",
                """{"key":"c","type":"number","access":{"c":"edit"},"onChange":[{"set":"b","formula":"9 / 0"}]}"""
            )
            .With("""{"a":1,"c":5}""", typed, changed)["setBy"]!
            .ToJsonString()
            .ShouldBe(setBy);

    [Fact]
    public void A_rule_can_empty_a_field_which_then_stays_empty()
    {
        var fields = Of(
            """{"key":"a","type":"number","access":{"c":"edit"},"onChange":[{"set":"b","formula":"null"}]}""",
            """{"key":"b","type":"number","access":{"c":"edit"},"default":{"value":3}}"""
        );
        var emptied = fields.With("""{"a":1,"b":4}""", "a", "a");
        (emptied["values"]!.ToJsonString(), emptied["setBy"]!.ToJsonString()).ShouldBe(("""{"a":1}""", """{"a":"typed"}"""));
        fields.With("""{"a":1,"b":4}""", "a,b", "a,b")["values"]!.ToJsonString().ShouldBe("""{"a":1,"b":4}""");
    }

    [Fact]
    public void A_rule_that_cannot_be_computed_leaves_what_was_there()
    {
        var fields = Of(
            """{"key":"a","type":"number","access":{"c":"edit"},"onChange":[{"set":"b","formula":"9 / 0"},{"set":"h","formula":"3"}]}""",
            """{"key":"b","type":"number","access":{"c":"edit"} }""",
            """{"key":"h","type":"number","access":{"c":"none"},"onChange":[{"set":"b","formula":"7"}]}"""
        );
        // Nor does it set what its reader may not see, or follow from there.
        fields.With("""{"a":1,"b":4,"h":2}""", "a", "a")["values"]!.ToJsonString().ShouldBe("""{"a":1,"b":4}""");
    }

    [Fact]
    public void A_default_fills_what_is_empty_and_nothing_else()
    {
        var fields = Of(
            """{"key":"a","type":"number","access":{"c":"edit"},"default":{"value":3}}""",
            """{"key":"b","type":"text","access":{"c":"edit"},"default":{"formula":"''"} }""",
            """{"key":"d","type":"computed","access":{"c":"edit"},"default":{"formula":"a * 2"}}"""
        );
        fields.With("{}", "", "")["values"]!.ToJsonString().ShouldBe("""{"a":3,"d":6}""");
        fields.With("""{"a":4}""", "", "")["values"]!.ToJsonString().ShouldBe("""{"a":4,"d":8}""");
        fields.With("{}", "a", "")["values"]!.ToJsonString().ShouldBe("{}");
        // What is computed is computed, whatever stands there, and by whatever name it was called typed.
        fields.With("""{"a":4,"d":1}""", "d", "")["values"]!.ToJsonString().ShouldBe("""{"a":4,"d":8}""");
        fields.With("""{"a":4}""", "", "")["setBy"]!.ToJsonString().ShouldBe("""{"d":"computed"}""");
    }

    [Fact]
    public void Of_two_fields_with_one_key_the_first_counts()
    {
        var record = Of("""{"key":"a","type":"number","access":{"c":"edit"}}""", """{"key":"a","type":"text","access":{"c":"edit"},"default":{"value":"x"} }""")
            .With("""{"a":4}""", "", "");
        (record["values"]!.ToJsonString(), record["access"]!.ToJsonString()).ShouldBe(("""{"a":4}""", """{"a":"edit"}"""));
    }

    [Fact]
    public void The_first_field_sets_and_narrows_as_any_other_does()
    {
        var record = Of(
            """{"key":"deck","type":"choice","options":[{"value":"fore"},{"value":"aft"}],"access":{"c":"edit"}}""",
            """{"key":"berth","type":"choice","parent":"deck","options":[{"value":"1","within":["fore"]},{"value":"2","retired":true}],"""
                + """ "access":{"c":"edit"},"onChange":[{"set":"deck","formula":"'aft'"}]}"""
        );
        record.With("""{"deck":"aft","berth":"1"}""", "", "")["errors"]![0]!["code"]!.ToString().ShouldBe("within");
        record.With("""{"deck":"fore","berth":"1"}""", "", "")["errors"]!.AsArray().ShouldBeEmpty();
        record.With("""{"berth":"1"}""", "", "")["errors"]!.AsArray().ShouldBeEmpty(); // nothing narrows it
        record.With("""{"berth":"2"}""", "", "")["errors"]!.AsArray().ShouldBeEmpty(); // retired, but there already
        record.With("""{"berth":"2"}""", "berth", "berth")["errors"]![0]!["code"]!.ToString().ShouldBe("option");
        record.With("""{"berth":"1"}""", "berth", "berth")["setBy"]!["deck"]!.ToString().ShouldBe("rule:berth");
    }

    [Theory]
    [InlineData("text", "\"min\":2", "\"ab\"", null)]
    [InlineData("text", "\"min\":2", "\"a\"", "min")]
    [InlineData("number", "\"min\":2", "2", null)]
    [InlineData("number", "\"min\":2", "1.99", "min")]
    [InlineData("number", "\"max\":2", "2", null)]
    [InlineData("number", "\"max\":2", "2.01", "max")]
    [InlineData("choice", "\"min\":3", "\"a\"", null)] // a limit of its length is not meant
    [InlineData("file", "\"max\":3", "\"long enough\"", null)]
    [InlineData("number", "", "1e40", "type")]
    [InlineData("number", "", "\"1\"", "type")]
    [InlineData("computed", "\"min\":2", "1", null)]
    [InlineData("choices", "\"max\":1", "[\"a\",\"b\"]", "max")]
    public void What_is_stored_fits_or_says_why_not(string type, string more, string value, string? misfit) =>
        Of($$"""{"key":"x","type":"{{type}}"{{(more.Length == 0 ? "" : "," + more)}},"access":{"c":"edit"} }""").With($$"""{"x":{{value}} }""", "", "")[
            "errors"
        ]!
            .AsArray()
            .Select(e => e!["code"]!.ToString())
            .ShouldBe(misfit is null ? [] : [misfit]);

    private static AskedRecord Of(params string[] fields) => new(string.Join(',', fields));

    private sealed record AskedRecord(string Fields)
    {
        public JsonNode With(string values, string typed, string changed) =>
            JsonNode.Parse(
                Asked.Answer(
                    "fields.evaluate",
                    $$"""
                    {"fields":[{{Fields}}],"values":{{values}},"typed":{{Keys(typed)}},"changed":{{Keys(changed)}},"role":"c","today":"2027-03-01"}
                    """
                )
            )!;
    }

    [Fact]
    public void Nothing_of_what_a_role_may_not_see_shows_through() =>
        // Whatever the hidden fields hold, or whether they hold anything, the answer is the same to the letter.
        Gen.Select(Hidden, Hidden, Gen.OneOf("", "site", "centre,pay", "pay,deck"))
            .Sample(
                (one, other, changed) =>
                    Evaluate($$"""{"site":"hallan","start":"2027-03-31","berth":["1"]{{one}}}""", "pay,centre", changed, "manager")
                        .ToJsonString()
                        .ShouldBe(Evaluate($$"""{"site":"hallan","start":"2027-03-31","berth":["1"]{{other}}}""", "", changed, "manager").ToJsonString()),
                iter: 200
            );

    private static Gen<string> Hidden { get; } =
        Gen.Select(
                Gen.OneOf("", ",\"centre\":\"410\"", ",\"centre\":7"),
                Gen.OneOf("", ",\"pay\":60", ",\"pay\":\"much\""),
                Gen.OneOf("", ",\"deck\":\"aft\"", ",\"deck\":\"none\""),
                Gen.OneOf("", ",\"bank\":\"XY1\"", ",\"review\":\"2027-05-05\"")
            )
            .Select((a, b, c, d) => a + b + c + d);

    private static JsonNode Evaluate(string values, string typed = "", string changed = "", string role = "coordinator") =>
        JsonNode.Parse(
            Asked.Answer(
                "fields.evaluate",
                $$"""
                {"fields":[{{Fields}}],"stages":["prepare","arrive","settle"],"lists":{"sites":["skerry","hallan"]},"values":{{values}},
                 "typed":{{Keys(typed)}},"changed":{{Keys(changed)}},"role":"{{role}}","stage":"prepare","today":"2027-03-01"}
                """
            )
        )!;

    private static string Keys(string keys) => keys.Length == 0 ? "[]" : "[\"" + keys.Replace(",", "\",\"") + "\"]";
}
