using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Fields.Shipped;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

public class ConfigurationCheckTests
{
    // Fields that every case has, without a finding of their own.
    private const string Common = """
        {"key":"site","label":{"en":"Site"},"type":"listEntry","list":"sites","required":"always","access":{"coordinator":"edit"}},
        {"key":"pay","type":"money","access":{"payroll":"edit"}},{"key":"start","type":"date","access":{"coordinator":"edit"}},
        {"key":"deck","type":"choice","options":[{"value":"fore"},{"value":"aft"},{"value":"hold","retired":true}],"access":{"coordinator":"edit"}},
        {"key":"skills","type":"choices","options":[{"value":"knots"},{"value":"radio"}],"access":{"coordinator":"edit"}}
        """;

    [Theory]
    [InlineData("nobody-can-fill", "x", null, """{"key":"x","type":"text","required":{"from":"arrive"},"access":{"coordinator":"view"}}""")]
    [InlineData("nobody-can-fill", "x", null, """{"key":"x","type":"text","requiredWhen":"pay > 3","access":{"payroll":"view","stranger":"edit"}}""")]
    [InlineData("nobody-can-see", "x", null, """{"key":"x","type":"text","required":"always","default":{"value":"a"}}""")]
    [InlineData(
        "circular",
        "x,y,z",
        null,
        """{"key":"x","type":"number","default":{"formula":"y + 1"}},{"key":"y","type":"computed","default":{"formula":"z + 1"}},"""
            + """{"key":"z","type":"number","default":{"formula":"x"}}"""
    )]
    [InlineData(
        "circular",
        "x,y",
        null,
        """{"key":"x","type":"number","onChange":[{"set":"y","formula":"x"}]},{"key":"y","type":"number","onChange":[{"set":"x","formula":"y"}]}"""
    )]
    [InlineData("circular", "x", null, """{"key":"x","type":"computed","default":{"formula":"x + 1"}}""")]
    [InlineData("unknown-field", "x", "site", """{"key":"x","type":"text","showWhen":"Site == 'skerry'"}""")]
    [InlineData("unknown-field", "x", "deck", """{"key":"x","type":"choice","parent":"dekc","options":[{"value":"a"}]}""")]
    [InlineData("unknown-field", "x", "start", """{"key":"x","type":"date","onChange":[{"set":"strat","formula":"x"}]}""")]
    [InlineData("unknown-list", "x", "sites", """{"key":"x","type":"listEntry","list":"Sites "}""")]
    [InlineData("unknown-stage", "x", "arrive", """{"key":"x","type":"text","required":{"from":"Arrive"},"access":{"coordinator":"edit"}}""")]
    [InlineData("unknown-option", "x", "fore", """{"key":"x","type":"choice","parent":"deck","options":[{"value":"a"},{"value":"b","within":["Fore"]}]}""")]
    [InlineData("unknown-option", "x", "aft", """{"key":"x","type":"text","onChange":[{"set":"deck","formula":"if(x == 'a', 'fore', 'atf')"}]}""")]
    [InlineData(
        "parent-after-child",
        "x,y",
        null,
        """{"key":"x","type":"choice","parent":"y","options":[{"value":"a"}]},{"key":"y","type":"choice","options":[{"value":"a"}]}"""
    )]
    [InlineData("parent-after-child", "x", null, """{"key":"x","type":"choice","parent":"x","options":[{"value":"a"}]}""")]
    [InlineData("nothing-to-choose", "x", null, """{"key":"x","type":"listEntry"}""")]
    [InlineData(
        "nothing-to-choose",
        "x,deck",
        null,
        """{"key":"x","type":"choice","parent":"deck","options":[{"value":"a","within":["fore"]},{"value":"b","within":["aft"],"retired":true}]}"""
    )]
    [InlineData("default-outside", "x", "aft", """{"key":"x","type":"choice","options":[{"value":"aft"}],"default":{"value":"Aft"}}""")]
    [InlineData("default-outside", "x", null, """{"key":"x","type":"number","max":5,"default":{"value":7}}""")]
    [InlineData("default-outside", "x", null, """{"key":"x","type":"text","pattern":"[A-Z]{3}","default":{"value":"ABCD"}}""")]
    [InlineData("default-outside", "x", null, """{"key":"x","type":"date","min":"2027-01-01","default":{"value":"2026-12-31"}}""")]
    [InlineData("never-true", "x", "skerry", """{"key":"x","type":"text","showWhen":"site == 'Skerry'"}""")]
    [InlineData("never-true", "x", "radio", """{"key":"x","type":"text","showWhen":"'radoi' in skills"}""")]
    [InlineData("never-true", "x", null, """{"key":"x","type":"text","requiredWhen":"deck in ('fore', 'everywhere')","access":{"coordinator":"edit"}}""")]
    [InlineData("formula-error", "x", "addDays", """{"key":"x","type":"date","default":{"formula":"addDay(start, 3)"}}""")]
    [InlineData("formula-error", "x", null, """{"key":"x","type":"text","showWhen":"(pay > 3"}""")]
    [InlineData("formula-error", "x", null, """{"key":"x","type":"number","default":{"formula":"9 ** 9"}}""")]
    [InlineData("formula-type", "x", null, """{"key":"x","type":"text","showWhen":"pay + 3"}""")]
    [InlineData("formula-type", "x", null, """{"key":"x","type":"number","default":{"formula":"addDays(start, 3)"}}""")]
    [InlineData("formula-type", "x", null, """{"key":"x","type":"date","default":{"formula":"addDays(pay, 3)"}}""")]
    [InlineData("formula-type", "x", null, """{"key":"x","type":"text","showWhen":"pay == 'much'"}""")]
    [InlineData("formula-type", "x", null, """{"key":"x","type":"text","onChange":[{"set":"pay","formula":"'seventeen'"}]}""")]
    [InlineData("bad-pattern", "x", null, """{"key":"x","type":"text","pattern":"[a-z"}""")]
    [InlineData("bad-pattern", "x", null, """{"key":"x","type":"text","pattern":"^(\\w+\\s?)*$"}""")]
    [InlineData("bad-pattern", "x", null, """{"key":"x","type":"text","pattern":"(?<a>x)(?<b-a>y)"}""")]
    [InlineData("bad-pattern", "x", null, """{"key":"x","type":"text","pattern":"(.)\\1"}""")]
    [InlineData("duplicate-key", "x", null, """{"key":"x","type":"text"},{"key":"x","type":"date"}""")]
    [InlineData(
        "duplicate-label",
        "y,x",
        null,
        """{"key":"x","section":"s","label":{"de":"Gleich"},"type":"text"},{"key":"y","section":"s","label":{"de":"gleich "},"type":"text"}"""
    )]
    public void Finds_what_would_trip_people_up(string code, string about, string? suggestion, string fields)
    {
        var finding = Check(fields).ShouldHaveSingleItem();
        (finding.Code, string.Join(",", finding.Fields), finding.Suggestion).ShouldBe((code, about, suggestion));
        finding.Message.ShouldEndWith(suggestion is null ? "" : $"“{suggestion}”?");
    }

    [Theory]
    [InlineData("""{"key":"x","type":"text","required":"always","access":{"coordinator":"view"},"default":{"value":"a"}}""")]
    [InlineData(
        """{"key":"x","type":"text","required":"always","access":{"coordinator":"view"}},{"key":"y","type":"text","onChange":[{"set":"x","formula":"y"}]}"""
    )]
    [InlineData("""{"key":"x","type":"date","default":{"formula":"if(start == null, today(), addMonths(start, 7))"}}""")]
    [InlineData("""{"key":"x","type":"text","showWhen":"start > '2027-01-01' and (deck == 'hold' or 'knots' in skills) and not (site in ('skerry'))"}""")]
    [InlineData("""{"key":"x","type":"money","default":{"formula":"deck == 'fore' ? pay * 1.1 : firstOf(pay, 12)"}}""")]
    [InlineData("""{"key":"x","type":"computed","default":{"formula":"ageOn(start, today()) >= 18"}},{"key":"y","type":"text","showWhen":"x"}""")]
    [InlineData("""{"key":"x","type":"choice","parent":"deck","options":[{"value":"a","within":["fore","aft"]}]}""")]
    [InlineData("""{"key":"x","type":"choice","options":[{"value":"a"}],"default":{"value":""}}""")]
    [InlineData("""{"key":"x","type":"text","pattern":"^[A-Z]{2}(\\d{4}-)*\\d{1,12}$"}""")]
    public void Leaves_sound_fields_alone(string fields) => Check(fields).ShouldBeEmpty();

    [Fact]
    public void Counts_the_values_that_a_change_would_strand()
    {
        const string live =
            """{"key":"t","type":"choice","options":[{"value":"red"},{"value":"blue"},{"value":"green"}]},{"key":"u","type":"text"},"""
            + """{"key":"v","type":"text"},{"key":"w","type":"text"}""";
        const string next =
            """{"key":"t","type":"choice","options":[{"value":"red"},{"value":"green","retired":true}]},{"key":"u","type":"number"},"""
            + """{"key":"v","type":"longText"}""";
        const string stored = """{"t":{"red":3,"blue":18,"green":2},"u":{"12":2,"abc":1},"v":{"any":9},"w":{"kept":4}}""";
        var findings = Check(next, $$""","live":[{{live}}],"stored":{{stored}}""");
        findings.Select(f => (f.Code, f.Fields[0])).ShouldBe([("strands-values", "t"), ("strands-values", "u"), ("strands-values", "w")]);
        findings[0].Message.ShouldContain("18 active records");
        findings[1].Message.ShouldContain("3 active records");
        // An option that goes is one thing, another type another: each says what to do instead.
        findings[0].Message.ShouldEndWith("Retire the option instead of removing it.");
        findings[1].Message.ShouldContain("Add a new field instead");
        findings[2].Message.ShouldContain("4 active records");
    }

    [Theory]
    [InlineData("text", "number", "abc", 3, true)]
    [InlineData("text", "number", "12", 3, true)] // the text "12" is no number
    [InlineData("text", "longText", "abc", 3, false)]
    [InlineData("text", "computed", "abc", 3, false)]
    [InlineData("computed", "number", "abc", 3, false)]
    [InlineData("text", "number", "abc", 0, false)] // nobody has it any more
    [InlineData("date", "text", "2027-03-01", 1, false)]
    [InlineData("yesNo", "text", "true", 1, true)]
    public void Another_type_strands_the_values_that_are_not_of_it(string before, string after, string value, int count, bool strands)
    {
        string One(string type) => $$"""{"key":"t","type":"{{type}}","default":{"value":null} }""";
        var findings = Check(One(after), $$""","live":[{{One(before)}}],"stored":{"t":{"{{value}}":{{count}}} }""")
            .Where(f => f.Code == "strands-values")
            .ToList();
        findings.Count.ShouldBe(strands ? 1 : 0);
        if (strands)
            findings[0].Message.ShouldContain("another type");
    }

    [Fact]
    public void What_was_stranded_before_a_change_is_not_laid_to_it()
    {
        const string Live = """{"key":"t","type":"choice","options":[{"value":"red"}]}""";
        const string Next = """{"key":"t","type":"choice","options":[{"value":"blue"}]}""";
        var findings = Check(Next, $$""","live":[{{Live}}],"stored":{"t":{"red":1,"mauve":4} }""");
        var finding = findings.ShouldHaveSingleItem();
        finding.Message.ShouldContain("would lose “red”, and 1 active record has it");
        finding.Message.ShouldNotContain("and more");
        var many = string.Join(',', Enumerable.Range(0, 6).Select(i => $$"""{"value":"o{{i}}"}"""));
        Check(Next, $$""","live":[{"key":"t","type":"choice","options":[{{many}}]}],"stored":{"t":{"o0":1,"o1":1,"o2":1,"o3":1,"o4":1,"o5":1} }""")[0]
            .Message.ShouldContain("“o4” and more, and 6 active records have it");
        Check(Next, $$""","live":[{{Live}}],"stored":{"t":{} }""").ShouldBeEmpty();
    }

    private const string Inner = """{"key":"n","type":"text"},{"key":"from","type":"date"},{"key":"to","type":"date"}""";

    [Theory]
    [InlineData("\"type\":\"text\",\"columns\":[{\"key\":\"n\",\"type\":\"text\"}]", "not-rows:columns")]
    [InlineData("\"type\":\"text\",\"rowKey\":\"n\"", "not-rows:columns")]
    [InlineData("\"type\":\"text\",\"dates\":{\"from\":\"a\",\"until\":\"b\"}", "not-rows:columns")]
    [InlineData("\"type\":\"rows\",\"columns\":[]", "nothing-to-choose:columns")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER]", "")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"rowKey\":\"n\",\"dates\":{\"from\":\"from\",\"until\":\"to\"}", "")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"rowKey\":\"m\"", "unknown-field:rowKey")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"dates\":{\"from\":\"n\",\"until\":\"to\"}", "bad-value:dates/from")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"dates\":{\"from\":\"from\",\"until\":\"n\"}", "bad-value:dates/until")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"dates\":{\"from\":\"from\",\"until\":\"from\"}", "bad-value:dates/until")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"onChange\":[{\"set\":\"pay\",\"formula\":\"1\"}]", "not-in-rows:onChange")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"unique\":true", "not-in-rows:unique")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"sensitive\":true", "not-in-rows:sensitive")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER],\"list\":\"sites\"", "not-in-rows:list")]
    [InlineData("\"type\":\"rows\",\"columns\":[{\"key\":\"n\",\"type\":\"longText\"}],\"rowKey\":\"n\"", "bad-value:rowKey")]
    [InlineData("\"type\":\"rows\",\"columns\":[{\"key\":\"n\",\"type\":\"longText\"}]", "")]
    [InlineData("\"type\":\"rows\",\"columns\":[{\"key\":\"n\",\"type\":\"text\",\"sensitive\":true}],\"rowKey\":\"n\"", "bad-value:rowKey")]
    [InlineData("\"type\":\"rows\",\"columns\":[{\"key\":\"n\",\"type\":\"text\",\"sensitive\":true}]", "")]
    [InlineData("\"type\":\"rows\",\"columns\":[{\"key\":\"n\",\"type\":\"text\",\"showWhen\":\"pay > 1\"}]", "not-in-rows:columns/0/showWhen")]
    [InlineData("\"type\":\"rows\",\"columns\":[INNER,{\"key\":\"l\",\"type\":\"listEntry\",\"list\":\"nowhere\"}]", "unknown-list:columns/3/list")]
    public void Rows_have_columns_and_what_goes_with_them(string rest, string findings)
    {
        var field = $$"""{"key":"x",{{rest.Replace("INNER", Inner, StringComparison.Ordinal)}},"access":{"coordinator":"edit"} }""";
        var fields = FieldConfiguration.Read(System.Text.Encoding.UTF8.GetBytes($$"""{"sections":[],"fields":[{{Common}},{{field}}]}""")).Answer!.Fields;
        var lists = new Dictionary<string, IReadOnlyList<string>> { ["sites"] = ["skerry"] };
        ConfigurationCheck
            .Of(new ConfigurationQuestion(fields, ["prepare", "arrive"], lists, ["coordinator", "payroll"]))
            .Select(f => $"{f.Code}:{f.Part}")
            .ShouldBe(findings.Length == 0 ? [] : [findings]);
    }

    [Fact]
    public void What_ships_is_sound_and_reads_back_as_it_was_written()
    {
        var lists = ShippedFields
            .All.SelectMany(f => f.WithColumns())
            .Select(f => f.List)
            .OfType<string>()
            .Distinct()
            .ToDictionary(l => l, _ => (IReadOnlyList<string>)[]);
        ConfigurationCheck.Of(new ConfigurationQuestion(ShippedFields.All, ["prepare", "arrive"], lists, ShippedFields.Roles)).ShouldBeEmpty();
        var written = FieldConfiguration.Shipped.Write();
        FieldConfiguration.Read(written).Answer!.Write().ShouldBe(written);
        ShippedFields.All.Count.ShouldBeGreaterThan(85);
        ShippedFields.All.ShouldAllBe(f => f.Labels.Count == 2 && ShippedFields.Sections.Any(s => s.Key == f.Section));
    }

    [Theory]
    [InlineData("""{"sections":[],"fields":[{"key":"x","type":"texts"}]}""", "/fields/0/type", "bad-value")]
    [InlineData("""{"sections":[],"fields":[{"key":"x","type":"text","lable":"X"}]}""", "/fields/0/lable", "unknown-property")]
    [InlineData("""{"sections":[{"label":{"en":"A"}}],"fields":[]}""", "/sections/0/key", "missing-property")]
    [InlineData("""{"sections":[],"fields":[""", "", "malformed-json")]
    public void A_document_that_is_no_configuration_is_refused_at_its_place(string json, string path, string code)
    {
        var problem = FieldConfiguration.Read(System.Text.Encoding.UTF8.GetBytes(json)).Problems[0];
        (problem.Path, problem.Code).ShouldBe((path, code));
    }

    private static Finding[] Check(string fields, string more = "") =>
        JsonSerializer
            .Deserialize<Answer>(
                Asked.Answer(
                    "fields.check",
                    $$"""{"fields":[{{Common}},"""
                        + $$"""{{fields}}],"stages":["prepare","arrive"],"lists":{"sites":["skerry","hallan"]},"roles":["coordinator","payroll"]{{more}}}"""
                ),
                JsonSerializerOptions.Web
            )!
            .Findings;

    private sealed record Answer(Finding[] Findings);
}
