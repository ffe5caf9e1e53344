using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Core.Fields;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

/// <summary>Fields that are rows: their addresses, what follows from their cells, and what is wrong with them.</summary>
public class RowsTests
{
    private static readonly Guid One = new("11111111-1111-7111-8111-111111111111");
    private static readonly Guid Two = new("22222222-2222-7222-8222-222222222222");

    private const string Fields = """
        [{"key":"site","type":"text","access":{"coordinator":"edit","owner":"view"}},
         {"key":"spare","type":"number","access":{"coordinator":"edit"}},
         {"key":"things","label":"Things","type":"rows","access":{"coordinator":"edit","owner":"view"},"rowKey":"what","dates":{"from":"given","until":"back"},
          "columns":[{"key":"what","label":"What","type":"text","required":"always"},{"key":"size","type":"number","min":1,"max":9,"default":{"value":4}},
            {"key":"given","type":"date"},{"key":"back","type":"date"},
            {"key":"note","type":"text","required":{"from":"arrive"},"access":{"coordinator":"edit"}},
            {"key":"label","type":"computed","default":{"formula":"what + ' at ' + site"}},
            {"key":"why","type":"text","requiredWhen":"size > spare"}]},
         {"key":"count","type":"computed","access":{"coordinator":"view","owner":"view"},"default":{"formula":"'rope' in things"}}]
        """;

    private static FieldSet Set { get; } = Compile(Fields);

    private static FieldSet Compile(string fields) => FieldSet.Read(Read(fields), ["prepare", "arrive"]).Answer!;

    private static IReadOnlyList<FieldDefinition> Read(string fields) =>
        FieldConfiguration.Read(System.Text.Encoding.UTF8.GetBytes($$"""{"sections":[],"fields":{{fields}}}""")).Answer!.Fields;

    private static EvaluatedRecord Evaluate(
        string values,
        string role = "coordinator",
        string? stage = "prepare",
        string[]? typed = null,
        string[]? changed = null
    ) =>
        RecordEvaluation.Of(
            Set,
            new RecordQuestion(
                JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(values.Replace("@1", $"@{One}").Replace("@2", $"@{Two}"))!,
                typed ?? [],
                changed ?? [],
                FieldRights.OfRoles(Set, [role]),
                stage,
                new LocalDate(2027, 3, 22),
                RecordQuestion.NoLists
            )
        );

    [Fact]
    public void A_value_in_a_row_is_known_by_field_column_and_row()
    {
        var cell = FieldAddress.Cell("things", "size", One.ToString());
        cell.ToString().ShouldBe($"things.size@{One}");
        FieldAddress.Read(cell.ToString()).ShouldBe(cell);
        (cell.Whole, cell.Column, cell.RowId).ShouldBe(("things", "size", One));
        var whole = FieldAddress.Read($"things@{One}");
        (whole.Whole, whole.Column, whole.RowId).ShouldBe(("things", null, One));
        var alone = FieldAddress.Read("site");
        (alone.Whole, alone.Column, alone.Row, alone.RowId).ShouldBe(("site", null, null, null));
        // What a row is about may hold any sign a code does.
        FieldAddress.Read("things.what@SEA.2@x").ShouldBe(new FieldAddress("things.what", "SEA.2@x"));
        FieldAddress.Of("site", null).ShouldBe("site");
        FieldAddress.Of("things.size", One).ShouldBe(cell.ToString());
    }

    [Fact]
    public void A_row_of_a_template_becomes_the_same_row_of_one_owner_and_another_of_any_other()
    {
        var rope = FieldAddress.Cell("things", "what", "rope");
        var mine = rope.For(One);
        mine.RowId.ShouldNotBeNull();
        rope.For(One).ShouldBe(mine);
        FieldAddress.Cell("things", "size", "rope").For(One).Row.ShouldBe(mine.Row, "all its columns go into one row");
        new[] { rope.For(Two), FieldAddress.Cell("things", "what", "lamp").For(One), FieldAddress.Cell("stuff", "what", "rope").For(One) }
            .Select(a => a.Row)
            .ShouldNotContain(mine.Row);
        mine.For(Two).ShouldBe(mine, "A row that is somebody's stays theirs.");
        new FieldAddress("site", null).For(One).ShouldBe(new FieldAddress("site", null));
        mine.RowId!.Value.Version.ShouldBe(8);
        mine.RowId!.Value.Variant.ShouldBeInRange(8, 11);
    }

    [Fact]
    public void Formulas_in_a_row_read_the_row_and_the_record_and_the_record_reads_what_rows_are_about()
    {
        var record = Evaluate($$"""{"site":"Skerry","things.what@1":"rope","things.what@2":"lamp"}""");
        record.Values[$"things.label@{One}"].GetString().ShouldBe("rope at Skerry");
        record.Values[$"things.label@{Two}"].GetString().ShouldBe("lamp at Skerry");
        record.Values[$"things.size@{One}"].GetDecimal().ShouldBe(4);
        record.SetBy[$"things.size@{One}"].ShouldBe("default");
        record.Values["things"].GetRawText().ShouldBe("""["rope","lamp"]""");
        record.Values["count"].GetBoolean().ShouldBeTrue();
        record.Shown.ShouldBe(["site", "spare", "things", "count"], "Cells are counted with their field.");
        Evaluate("{}").Values["count"].GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public void Nothing_is_filled_in_where_the_rows_are_as_they_are_stored()
    {
        var record = Evaluate("""{"things.what@1":"rope"}""", typed: ["things"]);
        record.Values.ShouldNotContainKey($"things.size@{One}");
        Evaluate("""{"things.what@1":"rope"}""", typed: [$"things.size@{One}"]).Values.ShouldNotContainKey($"things.size@{One}");
    }

    [Fact]
    public void What_a_cell_lacks_or_does_not_fit_is_told_of_the_rows_and_at_the_cell()
    {
        var record = Evaluate("""{"things.size@1":10,"things.what@2":"lamp","things.note@2":"x"}""");
        record.Errors.ShouldBe([new FieldError($"things.size@{One}", Misfit.Max)]);
        record.MissingNow.ShouldBe(["things"]);
        record.MissingLater[0].Fields.ShouldBeEmpty("It is missing now already.");
        (record.Filled, record.Required).ShouldBe((0, 1));
        // Only at a later stage.
        var later = Evaluate("""{"things.what@1":"rope","spare":99}""");
        later.MissingNow.ShouldBeEmpty();
        later.MissingLater.Select(l => (l.Stage, string.Join(' ', l.Fields))).ShouldBe([("arrive", "things")]);
        Evaluate("""{"things.what@1":"rope","spare":99}""", stage: "arrive").MissingNow.ShouldBe(["things"]);
        Evaluate("""{"things.what@1":"rope","things.note@1":"x","spare":99}""", stage: "arrive").MissingNow.ShouldBeEmpty();
        // By a condition over the row and the record.
        Evaluate("""{"things.what@1":"rope","spare":3}""").MissingNow.ShouldBe(["things"]);
        Evaluate("""{"things.what@1":"rope","spare":4}""").MissingNow.ShouldBeEmpty();
    }

    [Fact]
    public void A_column_is_seen_at_most_as_the_rows_are_and_what_is_not_seen_counts_as_empty()
    {
        const string Values = """{"site":"Skerry","things.what@1":"rope","things.note@1":"secret","spare":1}""";
        var record = Evaluate(Values, "owner");
        record.Values.ShouldContainKey($"things.what@{One}");
        record.Values.ShouldNotContainKey($"things.note@{One}");
        record.Access["things.what"].ShouldBe(FieldAccess.View);
        record.Access.ShouldNotContainKey("things.note");
        record.MissingNow.ShouldBeEmpty("Whether one is needed hangs on what this role may not see.");
        Evaluate(Values, "manager").Values.ShouldBeEmpty();
        Evaluate("""{"things.note@1":"secret"}""", "owner").Values.ShouldNotContainKey("things", "Of a row nothing may be seen of, not even that it is there.");
        Set.Find("things.label")!.AccessOf("coordinator").ShouldBe(FieldAccess.View, "Nobody edits what is worked out.");
        Set.ConditionsRead("things").ShouldBe(["things.what", "things.note", "things.why", "things.size", "spare"], ignoreOrder: true);
    }

    [Fact]
    public void A_column_outside_its_rows_is_called_by_both()
    {
        Set.Find($"things.what@{One}")!.Label("en").ShouldBe("Things: What");
        Set.Find("things.what")!.IsColumn.ShouldBeTrue();
        Set.AboutOf($"things.size@{One}").ShouldBe($"things.what@{One}");
        Set.AboutOf("site").ShouldBeNull();
        foreach (
            var (address, holds) in new[]
            {
                ("site", true),
                ($"things.size@{One}", true),
                ("things", false),
                ("things.size", false),
                ($"site@{One}", false),
                ($"things.nothing@{One}", false),
            }
        )
            Set.HoldsValue(address).ShouldBe(holds, address);
    }

    [Theory]
    [InlineData("""{"things.size@1":2}""", "things.what@1 missing")]
    [InlineData("""{"things.what@1":"rope","things.given@1":"2027-03-02","things.back@1":"2027-03-01"}""", "things.back@1 not-in-order")]
    [InlineData("""{"things.what@1":"rope","things.given@1":"2027-03-02","things.back@1":"2027-03-02"}""", "")]
    [InlineData("""{"things.what@1":"rope","things.back@1":"2027-03-01"}""", "")]
    // Only what was touched: what another row lacks is not this save's.
    [InlineData("""{"things.what@1":"rope","things.size@2":2}""", "")]
    [InlineData("{}", "")]
    public void A_row_says_what_it_is_about_and_ends_no_earlier_than_it_begins(string values, string problem) =>
        string.Join(' ', RowRules.Problems(Set, Rows(values), [$"things.size@{One}"]).Select(p => $"{p.Path[1..].Replace($"@{One}", "@1")} {p.Code}"))
            .ShouldBe(problem);

    [Theory]
    [InlineData(RowRules.MostRows, 0)]
    [InlineData(RowRules.MostRows + 1, 1)]
    public void There_are_so_many_rows_and_no_more(int rows, int problems)
    {
        var values = Enumerable
            .Range(0, rows)
            .ToDictionary(i => FieldAddress.Of("things.what", new Guid(i, 0, 0, new byte[8])), _ => JsonSerializer.SerializeToElement("x"));
        RowRules.Problems(Set, values, [values.Keys.First()]).Count(p => p.Code == "too-many").ShouldBe(problems);
    }

    private static Dictionary<string, JsonElement> Rows(string values) =>
        JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(values.Replace("@1", $"@{One}").Replace("@2", $"@{Two}"))!;

    [Theory]
    [InlineData("things.size", "size", "out-of-range", "0")]
    [InlineData("things", "things", "wrong-type", "[]")]
    public void A_cell_is_checked_as_a_field_is_and_rows_as_a_whole_are_not_entered(string key, string _, string code, string value) =>
        ValueCheck.Check(Set.Find(key)!, JsonElement.Parse(value)).Problem!.Code.ShouldBe(code);

    [Theory]
    [InlineData("""{"key":"t","type":"rows","access":{"coordinator":"edit"}}""", "nothing-to-choose", "columns")]
    [InlineData("""{"key":"t","type":"text","columns":[{"key":"a","type":"text"}]}""", "not-rows", "columns")]
    [InlineData("""{"key":"t","type":"rows","rowKey":"wat","columns":[{"key":"what","type":"text"}]}""", "unknown-field", "rowKey", "what")]
    [InlineData("""{"key":"t","type":"rows","rowKey":"f","columns":[{"key":"f","type":"file"}]}""", "bad-value", "rowKey")]
    [InlineData("""{"key":"t","type":"rows","rowKey":"f","columns":[{"key":"f","type":"text","sensitive":true}]}""", "bad-value", "rowKey")]
    [InlineData(
        """{"key":"t","type":"rows","dates":{"from":"a","until":"b"},"columns":[{"key":"a","type":"date"},{"key":"b","type":"text"}]}""",
        "bad-value",
        "dates/until"
    )]
    [InlineData("""{"key":"t","type":"rows","dates":{"from":"a","until":"a"},"columns":[{"key":"a","type":"date"}]}""", "bad-value", "dates/until")]
    [InlineData("""{"key":"t","type":"rows","columns":[{"key":"a","type":"text","showWhen":"true"}]}""", "not-in-rows", "columns/0/showWhen")]
    [InlineData(
        """{"key":"t","type":"rows","columns":[{"key":"a","type":"text","onChange":[{"set":"a","formula":"1"}]}]}""",
        "not-in-rows",
        "columns/0/onChange"
    )]
    [InlineData("""{"key":"t","type":"rows","unique":true,"columns":[{"key":"a","type":"text"}]}""", "not-in-rows", "unique")]
    [InlineData("""{"key":"t","type":"rows","default":{"value":1},"columns":[{"key":"a","type":"text"}]}""", "not-in-rows", "default")]
    [InlineData("""{"key":"t","type":"rows","columns":[{"key":"a","type":"text"},{"key":"a","type":"text"}]}""", "duplicate-key", "columns/1/key")]
    [InlineData(
        """{"key":"t","type":"rows","columns":[{"key":"a","label":"X","type":"text"},{"key":"b","label":"x","type":"text"}]}""",
        "duplicate-label",
        "columns/1/label/en"
    )]
    [InlineData("""{"key":"t","type":"rows","columns":[{"key":"a","type":"choice"}]}""", "nothing-to-choose", "columns/0/options")]
    [InlineData("""{"key":"t","type":"rows","columns":[{"key":"a","type":"listEntry","list":"sits"}]}""", "unknown-list", "columns/0/list", "sites")]
    [InlineData(
        """{"key":"t","type":"rows","columns":[{"key":"a","type":"computed","default":{"formula":"nam"}}]}""",
        "unknown-field",
        "columns/0/default/formula",
        "name"
    )]
    [InlineData(
        """{"key":"t","type":"rows","columns":[{"key":"a","type":"text","default":{"formula":"b"}},{"key":"b","type":"text","default":{"formula":"a"}}]}""",
        "circular",
        "columns/0/default"
    )]
    [InlineData(
        """{"key":"t","type":"rows","columns":[{"key":"a","type":"text","required":"always","access":{"nobody":"edit"}}]}""",
        "nobody-can-fill",
        "columns/0/access"
    )]
    [InlineData("""{"key":"t","type":"rows","columns":[{"key":"a","type":"text","required":{"from":"later"}}]}""", "unknown-stage", "columns/0/required")]
    public void What_is_wrong_with_rows_or_a_column_is_found_where_it_stands(string field, string code, string part, string? suggestion = null)
    {
        var found = Find(field).Where(f => f.Fields[0] == "t").ToList();
        found.ShouldContain(f => f.Code == code && f.Part == part && f.Suggestion == suggestion, JsonSerializer.Serialize(found));
    }

    [Fact]
    public void Sound_rows_have_nothing_wrong_with_them()
    {
        Find(
                """
                {"key":"t","type":"rows","access":{"coordinator":"edit"},"rowKey":"a","dates":{"from":"f","until":"u"},
                "columns":[{"key":"a","label":"Name","type":"text",
                "required":"always"},{"key":"f","type":"date"},{"key":"u","type":"date"},{"key":"c","type":"computed","default":{"formula":"name"}}]}
                """
            )
            .ShouldBeEmpty();
        // The columns that a field can have, and one more.
        Find($$$"""{"key":"t","type":"rows","access":{"coordinator":"edit"},"columns":[{{{Columns(20)}}}]}""").ShouldBeEmpty();
        Find($$$"""{"key":"t","type":"rows","access":{"coordinator":"edit"},"columns":[{{{Columns(21)}}}]}""").ShouldHaveSingleItem().Code.ShouldBe("too-many");

        static string Columns(int count) => string.Join(',', Enumerable.Range(0, count).Select(i => $$"""{"key":"c{{i}}","type":"text"}"""));
    }

    private static IReadOnlyList<Finding> Find(string field) =>
        ConfigurationCheck.Of(
            new ConfigurationQuestion(
                Read($$$"""[{"key":"name","type":"text","access":{"coordinator":"edit"}},{{{field}}}]"""),
                ["prepare"],
                new Dictionary<string, IReadOnlyList<string>> { ["sites"] = ["skerry"] },
                ["coordinator"]
            )
        );

    [Fact]
    public void A_column_that_goes_under_stored_values_strands_them()
    {
        var live = Read(
            """[{"key":"t","label":"T","type":"rows","access":{"coordinator":"edit"},"columns":[{"key":"a","type":"text"},{"key":"b","type":"text"}]}]"""
        );
        var draft = Read("""[{"key":"t","label":"T","type":"rows","access":{"coordinator":"edit"},"columns":[{"key":"a","type":"number"}]}]""");
        var stored = new Dictionary<string, IReadOnlyDictionary<string, int>>
        {
            ["t.a"] = new Dictionary<string, int> { ["x"] = 2 },
            ["t.b"] = new Dictionary<string, int> { ["y"] = 1 },
        };
        var found = ConfigurationCheck.Of(new ConfigurationQuestion(draft, [], new Dictionary<string, IReadOnlyList<string>>(), ["coordinator"], live, stored));
        found.Select(f => f.Code).ShouldBe(["strands-values", "strands-values"]);
        found.ShouldContain(f => f.Message.Contains("2 active records", StringComparison.Ordinal));
        found.ShouldContain(f => f.Fields[0] == "t.b");
    }

    [Fact]
    public void Rows_are_written_as_they_are_read_and_a_column_has_no_columns()
    {
        var configuration = new FieldConfiguration([], Read(Fields));
        var again = FieldConfiguration.Read(configuration.Write()).Answer!;
        ConfigurationDifference.Of(configuration, again).ShouldBeEmpty();
        (again.Fields[2].RowKey, again.Fields[2].Dates, again.Fields[2].Columns!.Count).ShouldBe(("what", new RowDates("given", "back"), 7));
        FieldConfiguration
            .Read("""{"sections":[],"fields":[{"key":"t","type":"rows","columns":[{"key":"a","type":"rows","columns":[]}]}]}"""u8)
            .Problems.ShouldHaveSingleItem()
            .Path.ShouldBe("/fields/0/columns/0/columns");
        var changed = configuration with
        {
            Fields = [.. configuration.Fields.Select(f => f.Key == "things" ? f with { Columns = [.. f.Columns!.Skip(1)] } : f)],
        };
        ConfigurationDifference.Of(configuration, changed).ShouldHaveSingleItem().CanChangeCompleteness.ShouldBeTrue();
    }

    [Fact]
    public void Who_would_see_more_of_a_guarded_column_is_found_also_through_a_copy_in_its_row()
    {
        const string Live = """
            [{"key":"t","type":"rows","access":{"payroll":"edit","manager":"view"},
              "columns":[{"key":"a","type":"text","sensitive":true,"access":{"payroll":"edit"}},
              {"key":"b","type":"text"}]}]
            """;
        var draft = JsonNode.Parse(Live)!;
        draft[0]!["columns"]![0]!.AsObject()["access"]!["manager"] = "view";
        Widened(draft).ShouldBe([("t.a", "t.a", "manager")]);
        draft = JsonNode.Parse(Live)!;
        draft[0]!["columns"]![1]!["default"] = new JsonObject { ["formula"] = "a" };
        Widened(draft).ShouldBe([("t.a", "t.b", "manager")]);
        Widened(JsonNode.Parse(Live)!).ShouldBeEmpty();

        static IEnumerable<(string, string, string)> Widened(JsonNode draft) =>
            AccessWidening
                .Of(new FieldConfiguration([], Read(Live)), new FieldConfiguration([], Read(draft.ToJsonString())), ["payroll", "manager"])
                .Select(w => (w.Field, w.Through, string.Join(' ', w.Roles)));
    }

    [Theory]
    [InlineData("""{"things":["rope"]}""", "[]", "/values")]
    [InlineData("""{"things.what":"rope"}""", "[]", "/values")]
    [InlineData("""{"things.wat@x":"rope"}""", "[]", "/values")]
    [InlineData("{}", """["things.wat@x"]""", "/typed")]
    public void The_door_tells_addresses_there_are_not(string values, string typed, string path) =>
        Asked
            .Problems(
                "fields.evaluate",
                $$"""
                {"fields":{{Fields}},"stages":["prepare","arrive"],"lists":{},"values":{{values}},"typed":{{typed}},"changed":[],"role":"coordinator",
                "stage":"prepare","today":"2027-03-22"}
                """
            )
            .Select(p => (p.Path, p.Code))
            .ShouldBe([(path, "unknown-field")]);

    [Theory]
    [InlineData("""{"kit.b@1":"x","kit.c@1":"x"}""", "second")]
    [InlineData("""{"kit.a@1":"x","kit.c@1":"x"}""", "third")]
    [InlineData("""{"kit.a@1":"x","kit.b@1":"x"}""", "fourth")]
    [InlineData("""{"kit.a@1":"x","kit.b@1":"x","kit.c@2":"x","kit.b@2":"x"}""", "second")]
    [InlineData("""{"kit.b@1":"x","kit.c@1":"x","kit.a@2":"x","kit.b@2":"x"}""", "second")]
    [InlineData("""{"kit.a@1":"x","kit.b@1":"x","kit.c@1":"x"}""", "")]
    public void Rows_lack_something_from_the_first_stage_at_which_one_of_them_does(string values, string from)
    {
        var columns = string.Join(',', "abc".Select((c, i) => $$"""{"key":"{{c}}","type":"text","required":{"from":"{{Stages[i + 1]}}"} }"""));
        var set = FieldSet.Read(Read($$"""[{"key":"kit","type":"rows","columns":[{{columns}}]}]"""), Stages).Answer!;
        var held = JsonNode
            .Parse(values)!
            .AsObject()
            .ToDictionary(
                v => v.Key.Replace("@1", $"@{One}", StringComparison.Ordinal).Replace("@2", $"@{Two}", StringComparison.Ordinal),
                v => JsonSerializer.SerializeToElement((string)v.Value!)
            );
        var record = RecordEvaluation.Of(set, new RecordQuestion(held, [.. held.Keys], [], null, "first", new LocalDate(2027, 3, 1), RecordQuestion.NoLists));
        string.Join(' ', record.MissingLater.Where(l => l.Fields.Count > 0).Select(l => l.Stage)).ShouldBe(from);
    }

    private static readonly string[] Stages = ["first", "second", "third", "fourth"];
}
