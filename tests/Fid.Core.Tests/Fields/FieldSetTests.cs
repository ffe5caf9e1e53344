using System.Text;
using System.Text.Json;
using Fid.Core.Fields;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

/// <summary>What a set of fields knows of itself: which reads which, what is required when, how it is written.</summary>
public class FieldSetTests
{
    private const string Fields = """
        [{"key":"pay","type":"money","required":"always","onChange":[{"set":"grade","formula":"if(pay > hours, 'A', 'B')"}]},
         {"key":"hours","type":"number","required":{"from":"prepare"} },
         {"key":"grade","type":"text","required":{"from":"settle"},"parent":"site"},
         {"key":"site","type":"text","requiredWhen":"senior"},
         {"key":"born","type":"date"},
         {"key":"age","type":"computed","default":{"formula":"ageOn(born, today())"} },
         {"key":"senior","type":"computed","default":{"formula":"age > limit"} },
         {"key":"limit","type":"number"},
         {"key":"note","type":"text","showWhen":"senior or pay > 3","default":{"formula":"site + 'x'"} },
         {"key":"round","type":"number","default":{"formula":"trip + 1"} },{"key":"trip","type":"number","default":{"formula":"round + 1"} },
         {"key":"own","type":"number","default":{"formula":"own + 1"} },
         {"key":"kit","type":"rows","rowKey":"what","columns":[{"key":"what","type":"text","required":"always"},
           {"key":"size","type":"text","requiredWhen":"what == site and senior"},{"key":"spare","type":"text"}]}]
        """;

    private static readonly FieldSet Set = Of(Fields, "prepare", "arrive", "settle");

    [Theory]
    [InlineData("pay", true)]
    [InlineData("hours", true)]
    [InlineData("grade", false)]
    [InlineData("site", true)]
    [InlineData("born", false)]
    [InlineData("nothing", false)]
    public void What_is_required_from_the_first_stage_on_is_known(string key, bool first) => Set.IsRequiredFirst(key).ShouldBe(first);

    [Fact]
    public void Without_stages_nothing_is_required_from_one()
    {
        var none = Of(
            Fields
                .Replace("{\"from\":\"prepare\"}", "\"always\"", StringComparison.Ordinal)
                .Replace("{\"from\":\"settle\"}", "\"never\"", StringComparison.Ordinal)
        );
        (none.IsRequiredFirst("hours"), none.IsRequiredFirst("grade"), none.IsRequiredFirst("site")).ShouldBe((true, false, true));
    }

    [Theory]
    [InlineData("site", "senior age limit born")]
    [InlineData("note", "senior age limit born pay")]
    [InlineData("pay", "")]
    [InlineData("nothing", "")]
    [InlineData("kit", "kit.what site senior age limit born")]
    public void What_decides_whether_a_field_is_shown_or_required_is_followed_to_the_end(string key, string read) =>
        Set.ConditionsRead(key).Except(["kit.size"]).ShouldBe(read.Split(' ', StringSplitOptions.RemoveEmptyEntries), ignoreOrder: true);

    [Theory]
    [InlineData("note", "senior age limit born pay")]
    [InlineData("site", "")]
    public void What_decides_whether_it_is_shown_is_that_alone(string key, string read) =>
        Set.ReadToShow(key).ShouldBe(read.Split(' ', StringSplitOptions.RemoveEmptyEntries), ignoreOrder: true);

    [Theory]
    [InlineData("grade", "site pay hours")] // its parent, and the rule that sets it
    [InlineData("age", "born")]
    [InlineData("senior", "age limit born")]
    [InlineData("note", "site senior age limit born pay")]
    [InlineData("born", "")]
    [InlineData("nothing", "")]
    public void What_a_value_is_worked_out_from_is_known(string key, string read) =>
        Set.Reads(key).ShouldBe(read.Split(' ', StringSplitOptions.RemoveEmptyEntries), ignoreOrder: true);

    [Fact]
    public void What_a_change_elsewhere_can_set_is_known()
    {
        (Set.IsSetByRule("grade"), Set.IsSetByRule("pay"), Set.IsSetByRule("nothing")).ShouldBe((true, false, false));
        (Set.HasRows, Of("""[{"key":"x","type":"text"}]""").HasRows).ShouldBe((true, false));
    }

    [Fact]
    public void Defaults_that_go_round_fill_nothing_and_hold_up_nothing_else()
    {
        var held = new Dictionary<string, JsonElement>
        {
            ["site"] = JsonSerializer.SerializeToElement("skerry"),
            ["trip"] = JsonSerializer.SerializeToElement(4),
        };
        var record = Evaluated(Set, held, "prepare");
        record.Values.Keys.ShouldBe(["site", "senior", "note", "trip"], ignoreOrder: true);
    }

    [Fact]
    public void Facts_of_an_employment_change_over_time_and_days_of_it_are_put_right()
    {
        var set = Of(
            """
            [{"key":"pay","type":"money"},{"key":"name","type":"text","of":"person"},{"key":"end","type":"date"},{"key":"scan","type":"file"},
             {"key":"memo","type":"longText"},{"key":"sum","type":"computed","default":{"formula":"pay"} },
             {"key":"kit","type":"rows","columns":[{"key":"what","type":"text"}]}]
            """
        );
        set.FieldsAndColumns.Where(f => f.ChangesOverTime).Select(f => f.Key).ShouldBe(["pay"]);
    }

    [Fact]
    public void A_text_is_replaced_where_it_is_the_whole_value_or_a_member_of_a_list()
    {
        string Replaced(string value) => FieldValues.Replace(JsonElement.Parse(value), "red", "blue").GetRawText();
        (Replaced("\"red\""), Replaced("\"reddish\""), Replaced("7")).ShouldBe(("\"blue\"", "\"reddish\"", "7"));
        (Replaced("[\"red\",\"green\"]"), Replaced("[\"red\",\"blue\"]"), Replaced("[\"green\"]")).ShouldBe(
            ("[\"blue\",\"green\"]", "[\"blue\"]", "[\"green\"]")
        );
    }

    [Fact]
    public void What_a_field_says_is_written_and_nothing_that_it_does_not_say()
    {
        const string Bare = """{"key":"x","type":"text"}""";
        const string Whole =
            """{"key":"x","label":{"de":"Iks","en":"Ex"},"section":"s","type":"choices","of":"person","""
            + """ "options":[{"value":"a"},{"value":"b","label":{"en":"B"},"retired":true,"within":["c"]}],"""
            + """ "parent":"deck","required":{"from":"arrive"},"requiredWhen":"pay > 3","access":{"a":"view","b":"edit"},"""
            + """ "default":{"value":["a"]},"pattern":"[a-z]+","""
            + """ "min":1,"max":2,"unique":true,"onChange":[{"set":"pay","formula":"3"}],"showWhen":"pay > 2","sensitive":true}""";
        const string Rows =
            """{"key":"r","type":"rows","columns":[{"key":"what","type":"text"},{"key":"f","type":"date"},"""
            + """ {"key":"u","type":"date"},{"key":"scan","type":"file","accepts":["pdf"]}],"""
            + """ "rowKey":"what","dates":{"from":"f","until":"u"}}""";
        foreach (var field in new[] { Bare, Whole, Rows })
        {
            var written = FieldConfiguration.Read(Encoding.UTF8.GetBytes($$"""{"sections":[],"fields":[{{field}}]}""")).Answer!.Write();
            JsonElement
                .Parse(written)
                .GetProperty("fields")[0]
                .GetRawText()
                .ShouldBe(JsonElement.Parse(field).GetRawText().Replace(", ", ",", StringComparison.Ordinal));
        }
    }

    // The first of the rows that lacks something says from when the field does.
    [Theory]
    [InlineData("""{"kit.what@1":"rope","kit.late@1":"x"}""", "")]
    [InlineData("""{"kit.what@1":"rope"}""", "settle")]
    [InlineData("""{"kit.what@1":"rope","kit.late@1":"x","kit.what@2":"pole"}""", "settle")]
    [InlineData("""{"kit.late@1":"x"}""", "now")]
    [InlineData("""{"kit.what@1":"rope","kit.late@2":"x"}""", "now")]
    public void What_a_row_lacks_its_field_lacks_from_the_same_stage_on(string values, string from)
    {
        var set = Of(
            """
            [{"key":"kit","type":"rows","rowKey":"what","columns":[{"key":"what","type":"text","required":"always"},
              {"key":"late","type":"text","required":{"from":"settle"} }]}]
            """,
            "prepare",
            "arrive",
            "settle"
        );
        var held = JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(
            values.Replace("@1", $"@{new Guid("11111111-1111-7111-8111-111111111111")}").Replace("@2", $"@{new Guid("22222222-2222-7222-8222-222222222222")}")
        )!;
        var record = Evaluated(set, held, "prepare");
        var missing = record.MissingLater.Where(m => m.Fields.Count > 0).Select(m => m.Stage).Concat(record.MissingNow.Count > 0 ? ["now"] : []).ToList();
        missing.ShouldBe(from.Length == 0 ? [] : [from]);
    }

    [Fact]
    public void A_sealed_value_is_shown_by_its_mask_and_fits_whatever_pattern_it_had()
    {
        var set = Of("""[{"key":"iban","type":"text","pattern":"[A-Z]{2}\\d+","sensitive":true},{"key":"open","type":"text","pattern":"[A-Z]{2}\\d+"}]""");
        var sealedValue = SealedText.Write(new string('0', 64), "closed");
        var mask = JsonSerializer.SerializeToElement(SealedText.Mask);
        var record = Evaluated(set, new() { ["iban"] = sealedValue, ["open"] = mask }, null);
        record.Values["iban"].ToString().ShouldBe(SealedText.Mask);
        record.Errors.Select(e => e.Field).ShouldBe(["open"]);
    }

    private static EvaluatedRecord Evaluated(FieldSet set, Dictionary<string, JsonElement> held, string? stage) =>
        RecordEvaluation.Of(set, new RecordQuestion(held, [], [], null, stage, new LocalDate(2027, 3, 1), RecordQuestion.NoLists));

    private static FieldSet Of(string fields, params string[] stages) =>
        FieldSet
            .Read(FieldConfiguration.Read(Encoding.UTF8.GetBytes($$"""{"sections":[],"fields":{{fields}}}""")).Answer!.Fields, stages)
            .Answer.ShouldNotBeNull();
}
