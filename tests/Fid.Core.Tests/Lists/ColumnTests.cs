using System.Text.Json;
using CsCheck;
using Fid.Core.Lists;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Lists;

public class ColumnTests
{
    private static readonly Label None = new("", "");

    [Theory]
    [InlineData(
        ColumnType.Bands,
        "2027-01-01 30000-36000-42000 year; 2028-01-01 14.5–16–18 hour",
        "2027-01-01 30000-36000-42000 year; 2028-01-01 14.5-16-18 hour"
    )]
    [InlineData(ColumnType.Heads, "2027-01-01 1042; 2028-01-01 -", "2027-01-01 1042; 2028-01-01 -")]
    [InlineData(ColumnType.Requirements, "SEA; RADIO desirable", "SEA essential; RADIO desirable")]
    [InlineData(ColumnType.Rates, "2027-01-01 percent 10", "2027-01-01 percent 10")]
    [InlineData(ColumnType.Brackets, "0% to 12000; 18 % to 30000; 32%", "0% to 12000; 18% to 30000; 32%")]
    [InlineData(ColumnType.Holidays, "2027-05-17 Jubilee; --05 1MO x2 Spring; easter", "2027-05-17 Jubilee; --05 1MO x2 Spring; easter")]
    [InlineData(ColumnType.Shifts, "E 6:00-14:00 30; N 22:00–06:00", "E 06:00-14:00 30; N 22:00-06:00 0")]
    [InlineData(ColumnType.Options, "S: small | klein; M; L: large (retired)", "S: small | klein; M: M; L: large (retired)")]
    [InlineData(ColumnType.Cycle, "EENN----", "E E N N - - - -")]
    [InlineData(ColumnType.Entries, "a, b;B", "a; b")]
    [InlineData(ColumnType.RestDays, "11", "0000011")]
    [InlineData(ColumnType.TimeZone, "europe/dublin", "Europe/Dublin")]
    [InlineData(ColumnType.YesNo, "Ja", "yes")]
    public void What_a_cell_says_is_kept_as_JSON_and_written_back_the_same(ColumnType type, string cell, string written)
    {
        var column = new ListColumn("x", type, None, None, List: "things");
        var read = ColumnValue.FromText(column, cell, CellStyle.Own);
        read.Message.ShouldBeNull();
        ColumnValue.ToText(column, read.Value).ShouldBe(written);
        // Through the database and back.
        var list = new ListDefinition("x", ListGroup.Words, None, None, [column]);
        var kept = EntryJson.Write(list, new Dictionary<string, object> { ["x"] = read.Value! });
        ColumnValue.ToText(column, EntryJson.Read(list, kept)["x"]).ShouldBe(written);
        ColumnValue.FromText(column, written, CellStyle.Own).IsWrong.ShouldBeFalse();
    }

    [Theory]
    [InlineData(ColumnType.Bands, "2027-01-01 1-1-2 year", true)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2-2 year", true)]
    [InlineData(ColumnType.Bands, "2027-01-01 2-2-2 year", false)] // no band at all
    [InlineData(ColumnType.Bands, "2027-01-01 0-1-2 year", false)]
    [InlineData(ColumnType.Bands, "2027-01-01 3-2-4 year", false)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-5-4 year", false)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2-3 month", false)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2-1000000000000 year", true)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2-1000000000001 year", false)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2-3 year more", false)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2 year", false)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2-3-4 year", false)]
    [InlineData(ColumnType.Bands, "2027-01-01", false)]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2-3", true)] // a year, where nothing is said
    [InlineData(ColumnType.Bands, "1899-12-31 1-2-3", false)]
    [InlineData(ColumnType.Bands, "1900-01-01 1-2-3", true)]
    [InlineData(ColumnType.Brackets, "1000%", true)]
    [InlineData(ColumnType.Brackets, "-1000%", true)]
    [InlineData(ColumnType.Brackets, "1001%", false)]
    [InlineData(ColumnType.Brackets, "-1001%", false)]
    [InlineData(ColumnType.Brackets, "5% to 0", false)]
    [InlineData(ColumnType.Brackets, "5% to 10; 6% to 10", false)]
    [InlineData(ColumnType.Brackets, "5% to 10; 6% to 11", true)]
    [InlineData(ColumnType.Brackets, "5% to 1000000000000; 6%", true)]
    [InlineData(ColumnType.Brackets, "5% to 1000000000001; 6%", false)]
    [InlineData(ColumnType.Brackets, "5%; 6% to 10", false)]
    [InlineData(ColumnType.Brackets, "5%; 6%", false)]
    [InlineData(ColumnType.Brackets, "5% bis 10; 6%", true)]
    [InlineData(ColumnType.Brackets, "5% upto 10; 6%", false)]
    [InlineData(ColumnType.Brackets, "5% to", false)]
    [InlineData(ColumnType.Brackets, "5% to ten", false)]
    [InlineData(ColumnType.Holidays, "--05-01 x60 Long", true)]
    [InlineData(ColumnType.Holidays, "--05-01 x61 Long", false)]
    [InlineData(ColumnType.Holidays, "--05-01 x0 None", false)]
    [InlineData(ColumnType.Holidays, "--05-01 x Long", true)] // a name that begins with x
    [InlineData(ColumnType.Holidays, "--05-01 x", true)]
    [InlineData(ColumnType.Holidays, "--05-01 32 Long", true)]
    [InlineData(ColumnType.Holidays, "--05-01; --05-01 Again", false)]
    [InlineData(ColumnType.Holidays, "1899-12-31 Old", false)]
    [InlineData(ColumnType.Holidays, "1900-01-01 Old", true)]
    [InlineData(ColumnType.Holidays, "2199-12-31 Far", true)]
    [InlineData(ColumnType.Holidays, "2200-01-01 Far", false)]
    [InlineData(ColumnType.Shifts, "- 06:00-14:00", false)]
    [InlineData(ColumnType.Shifts, "E! 06:00-14:00", false)]
    [InlineData(ColumnType.Shifts, "E 06:00-14:00 30 more", false)]
    [InlineData(ColumnType.Shifts, "E 06:00", false)]
    [InlineData(ColumnType.Shifts, "E 06:00-14:00-22:00", false)]
    [InlineData(ColumnType.Shifts, "E 06:00-14:00 half", false)]
    [InlineData(ColumnType.Options, "S: small; S: again", false)]
    [InlineData(ColumnType.Options, "S", true)]
    [InlineData(ColumnType.Heads, "2027-01-01 -; 2027-01-01 1042", false)]
    [InlineData(ColumnType.Heads, "2027-01-01", false)]
    [InlineData(ColumnType.Requirements, "SEA; SEA desirable", false)]
    [InlineData(ColumnType.Currency, "eur", true)]
    [InlineData(ColumnType.Currency, "EU", false)]
    [InlineData(ColumnType.Currency, "EURO", false)]
    [InlineData(ColumnType.Currency, "E2R", false)]
    [InlineData(ColumnType.Country, "ie", true)]
    [InlineData(ColumnType.Phone, "+353 1 555 0100", true)]
    [InlineData(ColumnType.Phone, "12", false)]
    [InlineData(ColumnType.Phone, "call 12345", false)]
    [InlineData(ColumnType.Link, "geo:53.3,-6.2", true)]
    [InlineData(ColumnType.Link, "example.org", false)]
    [InlineData(ColumnType.Number, "0", true)]
    [InlineData(ColumnType.Number, "-0.01", false)]
    [InlineData(ColumnType.Number, "1000000000", true)]
    [InlineData(ColumnType.Number, "1000000000.01", false)]
    [InlineData(ColumnType.Number, "0.000001", true)]
    [InlineData(ColumnType.Number, "0.0000001", false)]
    [InlineData(ColumnType.Whole, "3", true)]
    [InlineData(ColumnType.Number, "1.5", true)]
    [InlineData(ColumnType.YesNo, "perhaps", false)]
    [InlineData(ColumnType.Rates, "2027-01-01 flat 0", true)]
    [InlineData(ColumnType.Rates, "2027-01-01 flat 1000000", true)]
    [InlineData(ColumnType.Rates, "2027-01-01 flat 1000001", false)]
    [InlineData(ColumnType.Rates, "2027-01-01 flat -1", false)]
    [InlineData(ColumnType.Options, "S:", true)] // called by what it is
    [InlineData(ColumnType.Options, ": small", false)]
    [InlineData(ColumnType.Options, "S: small | klein | petit", false)]
    [InlineData(ColumnType.Shifts, "E 06:00-14:00 1439", true)]
    [InlineData(ColumnType.Shifts, "E 06:00-14:00 1440", false)]
    [InlineData(ColumnType.Shifts, "EEE 06:00-14:00", true)]
    [InlineData(ColumnType.Shifts, "EEEE 06:00-14:00", false)]
    public void A_cell_is_right_up_to_its_bounds_and_no_further(ColumnType type, string cell, bool isRight) =>
        ColumnValue.FromText(new ListColumn("x", type, None, None, List: "things"), cell, CellStyle.Own).IsWrong.ShouldBe(!isRight);

    [Theory]
    [InlineData(ColumnType.Bands, "2027-01-01 42000-36000-30000 year", "rise")]
    [InlineData(ColumnType.Bands, "2027-01-01 1-2-3 year; 2027-01-01 1-2-4 year", "twice")]
    [InlineData(ColumnType.Brackets, "18% to 30000; 0% to 12000", "ascend")]
    [InlineData(ColumnType.Holidays, "someday Jubilee", "cannot be read")]
    [InlineData(ColumnType.Holidays, "--05-01 x99 Long", "60")]
    [InlineData(ColumnType.Shifts, "E 06:00-25:00", "cannot be read")]
    [InlineData(ColumnType.Shifts, "E 06:00-14:00; E 07:00-15:00", "twice")]
    [InlineData(ColumnType.RestDays, "1111111", "one day")]
    [InlineData(ColumnType.TimeZone, "Moon/Crater", "time zone")]
    [InlineData(ColumnType.Country, "ZZ", "country")]
    [InlineData(ColumnType.Link, "javascript:alert(1)", "https://")]
    [InlineData(ColumnType.Whole, "1.5", "whole")]
    [InlineData(ColumnType.Formula, "BASE +", "character")]
    [InlineData(ColumnType.Date, "tomorrow", "date")]
    public void What_cannot_be_says_what_to_do(ColumnType type, string cell, string says) =>
        ColumnValue.FromText(new ListColumn("x", type, None, None, List: "things"), cell, CellStyle.Own).Message.ShouldNotBeNull().ShouldContain(says);

    [Fact]
    public void No_cell_and_no_JSON_whatever_throws()
    {
        var columns = Enum.GetValues<ColumnType>()
            .Select(t => new ListColumn("x", t, None, None, List: "things", Options: [new("a", new("A", "Ä"))]))
            .ToArray();
        var json = Gen.OneOf(
            "null",
            "true",
            "1e999",
            "\"\\ud800\"",
            "[null]",
            "[{}]",
            "[1]",
            "{\"from\":1}",
            "[{\"from\":\"2027-13-01\"}]",
            "[{\"on\":null,\"name\":null}]",
            "[[[]]]",
            "-0",
            "\"\""
        );
        Gen.Select(Gen.OneOf(columns), Gen.String[Gen.OneOf([.. ";:|-–%x\u0000 \n0123456789ABab.,/'\"=+@\u202E()"]), 0, 30], json)
            .Sample(
                (column, text, document) =>
                {
                    ColumnValue.FromText(column, text, CellStyle.Own);
                    using var parsed = JsonDocument.Parse(document);
                    ColumnValue.FromJson(column, parsed.RootElement);
                }
            );
    }

    [Fact]
    public void Every_list_has_its_columns_in_both_languages_and_refers_to_lists_there_are()
    {
        foreach (var list in ShippedLists.All)
        {
            list.Columns.Select(c => c.Key).ShouldBeUnique();
            foreach (var label in list.Columns.SelectMany(c => new[] { c.Label, c.Note }).Concat([list.Label, list.About]))
                label.All.ShouldAllBe(text => text.Length > 0);
            foreach (var column in list.Columns)
            {
                if (column.List is { } other)
                    ShippedLists.Find(other).ShouldNotBeNull($"{list.Key}.{column.Key}");
                if (column.Default is { } usual)
                    ColumnValue.FromText(column, usual, CellStyle.Own).IsWrong.ShouldBeFalse($"{list.Key}.{column.Key}");
            }
        }
        Fields.ShippedFieldsLists().ShouldAllBe(l => ShippedLists.Find(l) != null);
    }

    private static class Fields
    {
        public static IEnumerable<string> ShippedFieldsLists() => Fid.Core.Fields.Shipped.ShippedFields.All.Select(f => f.List).OfType<string>();
    }

    [Fact]
    public void Columns_are_recognised_by_header_spelling_and_content()
    {
        var list = ShippedLists.Get("jobs");
        ColumnMatcher
            .Match(
                list,
                ["Job code", "Titel", "Ueberstundn", "Stufe (neu)", "foo", ""],
                [
                    ["a", "b", "paid", "x", "CREW", "z"],
                ],
                (of, text) => (of, text) is ("jobFamilies", "CREW"),
                "de"
            )
            .Select(m => (m.Column, m.By))
            .ShouldBe([
                ("code", MatchedBy.Header),
                ("name", MatchedBy.Header),
                ("overtime", MatchedBy.Spelling),
                ("grade", MatchedBy.Header),
                ("family", MatchedBy.Content),
                (null, MatchedBy.Nothing),
            ]);
    }

    [Theory]
    [InlineData("Surname", "family_name")]
    [InlineData("last", "family_name")]
    [InlineData("Nachname", "family_name")]
    [InlineData("Email address", "email")]
    [InlineData("Template", "role_template")]
    [InlineData("Location", "site")]
    [InlineData("Supervisor", "manager")]
    [InlineData("Hire date", "start_date")]
    [InlineData("Departmnet", "department")]
    [InlineData("Abteilnug", null)] // misspelt in a language that is not the reader's
    [InlineData("Lang", null)] // one letter from "Land", which is "Country"
    [InlineData("Lant", null)]
    [InlineData("Sire", null)] // and one from "Site", but so is much else
    public void A_header_is_known_by_its_meaning_and_by_its_letters_only_where_they_can_tell(string header, string? column)
    {
        var people = new ListDefinition(
            "people",
            ListGroup.Work,
            new("People", "Personen"),
            None,
            [
                new("role_template", ColumnType.Text, new("Role template", "Rollenvorlage"), None),
                .. Fid.Core.Fields.Shipped.ShippedFields.All.Where(FieldCell.Has).Select(FieldCell.Column),
            ],
            HasNames: false
        );
        ColumnMatcher.Match(people, [header], [], (_, _) => false, "en").Single().Column.ShouldBe(column);
    }

    [Fact]
    public void No_word_means_two_columns_of_a_record()
    {
        var people = new ListDefinition(
            "people",
            ListGroup.Work,
            new("People", "Personen"),
            None,
            [.. Fid.Core.Fields.Shipped.ShippedFields.All.Select(FieldCell.Column)],
            HasNames: false
        );
        var words = ColumnMatcher
            .Spellings(people)
            .Select(s => (Word: string.Concat(s.Spelling.ToLowerInvariant().Where(char.IsLetterOrDigit)), s.Key))
            .Distinct()
            .GroupBy(s => s.Word)
            .Where(g => g.Count() > 1);
        words.Select(g => $"{g.Key}: {string.Join(", ", g.Select(s => s.Key))}").ShouldBeEmpty();
    }

    [Fact]
    public void A_tree_refuses_rings_and_a_sixth_level_and_names_them()
    {
        var list = ShippedLists.Get("departments");
        EntryContent At(string code, string? parent) =>
            new(code, code, null, parent is null ? new Dictionary<string, object>() : new Dictionary<string, object> { ["parent"] = parent });
        ListConsistency
            .Between(list, [At("a", "c"), At("b", "a"), At("c", "b"), At("d", "a"), At("e", null)])
            .Select(w => (w.Entry, w.Code))
            .ShouldBe([("a", "loop"), ("c", "loop"), ("b", "loop")], ignoreOrder: true);
        ListConsistency
            .Between(list, [At("6", "5"), At("1", null), At("2", "1"), At("3", "2"), At("4", "3"), At("5", "4")])
            .Select(w => (w.Entry, w.Code))
            .ShouldBe([("6", "too-deep")]);
    }

    [Fact]
    public void An_option_that_was_there_is_retired_and_not_taken_away()
    {
        var list = ShippedLists.Get("choiceLists");
        EntryContent With(params OptionEntry[] options) => new("x", "x", null, new Dictionary<string, object> { ["options"] = options });
        ListConsistency.Against(list, With(new("a", "A"), new OptionEntry("b", "B")), With(new OptionEntry("b", "B"))).Single().Code.ShouldBe("option-gone");
        ListConsistency.Against(list, With(new OptionEntry("a", "A")), With(new OptionEntry("a", "A", Retired: true))).ShouldBeEmpty();
    }

    [Fact]
    public void Texts_have_a_longest_length_by_their_kind()
    {
        foreach (var (type, longest) in new[] { (ColumnType.Text, 200), (ColumnType.Entry, 200), (ColumnType.LongText, ColumnValue.LongestLongText) })
        {
            var column = new ListColumn("x", type, None, None, List: "things");
            ColumnValue.FromText(column, new string('a', longest), CellStyle.Own).Value.ShouldBe(new string('a', longest));
            ColumnValue.FromText(column, new string('a', longest + 1), CellStyle.Own).Code.ShouldBe("too-long");
        }
    }

    [Fact]
    public void A_long_text_keeps_its_lines_and_a_short_one_has_none()
    {
        ColumnValue.FromText(new ListColumn("x", ColumnType.LongText, None, None), "a\r\nb", CellStyle.Own).Value.ShouldBe("a\nb");
        ColumnValue.FromText(new ListColumn("x", ColumnType.LongText, None, None), "a\n\u0001", CellStyle.Own).Code.ShouldBe("bad-characters");
        ColumnValue.FromText(new ListColumn("x", ColumnType.Text, None, None), "a\nb", CellStyle.Own).Code.ShouldBe("bad-characters");
        ColumnValue.FromJson(new ListColumn("x", ColumnType.LongText, None, None), JsonElement.Parse("\"a\\nb\"")).Value.ShouldBe("a\nb");
        ColumnValue.FromJson(new ListColumn("x", ColumnType.LongText, None, None), JsonElement.Parse("\"\\ud800\"")).Code.ShouldBe("bad-characters");
        ColumnValue.FromJson(new ListColumn("x", ColumnType.Text, None, None), JsonElement.Parse("\"a\\nb\"")).Code.ShouldBe("bad-characters");
    }

    [Theory]
    [InlineData(ColumnType.Text, "null", null)]
    [InlineData(ColumnType.Number, "null", null)]
    [InlineData(ColumnType.Text, "3", "wrong-type")]
    [InlineData(ColumnType.Number, "\"3\"", "wrong-type")]
    [InlineData(ColumnType.Number, "3", null)]
    [InlineData(ColumnType.YesNo, "true", null)]
    [InlineData(ColumnType.YesNo, "\"yes\"", "wrong-type")]
    [InlineData(ColumnType.Entries, "[\"a\"]", null)]
    [InlineData(ColumnType.Entries, "[1]", "wrong-type")]
    [InlineData(ColumnType.Entries, "\"a\"", "wrong-type")]
    [InlineData(ColumnType.Heads, "[]", null)]
    [InlineData(ColumnType.Heads, "[null]", "wrong-type")]
    [InlineData(ColumnType.Heads, "[{\"from\":3}]", "wrong-type")]
    [InlineData(ColumnType.Heads, "[{\"from\":\"someday\",\"person\":null}]", "wrong-type")]
    [InlineData(ColumnType.Heads, "[{\"from\":\"2027-01-01\",\"person\":null}]", null)]
    [InlineData(ColumnType.Shifts, "[{\"letter\":\"E\",\"start\":\"6\",\"end\":\"14:00\",\"break\":0}]", "bad-value")]
    [InlineData(ColumnType.Shifts, "[{\"letter\":\"E\",\"start\":\"06:00\",\"end\":\"14\",\"break\":0}]", "bad-value")]
    [InlineData(ColumnType.Holidays, "[{\"on\":\"--05-01\",\"name\":\"a\\u0001\",\"days\":1}]", "bad-value")]
    [InlineData(ColumnType.Options, "[{\"value\":\"S\",\"en\":\"a\\u0001\",\"de\":null,\"retired\":false}]", "bad-value")]
    public void JSON_is_taken_where_it_is_of_the_type(ColumnType type, string json, string? code) =>
        ColumnValue.FromJson(new ListColumn("x", type, None, None, List: "things"), JsonElement.Parse(json)).Code.ShouldBe(code);

    [Fact]
    public void Of_several_things_there_are_at_most_two_hundred()
    {
        var (codes, heads) = (
            new ListColumn("x", ColumnType.Entries, None, None, List: "things"),
            new ListColumn("x", ColumnType.Requirements, None, None, List: "t")
        );
        string Many(int count) => string.Join("; ", Enumerable.Range(0, count).Select(i => $"C{i}"));
        (ColumnValue.FromText(codes, Many(200), CellStyle.Own).Code, ColumnValue.FromText(codes, Many(201), CellStyle.Own).Code).ShouldBe(
            (null, "out-of-range")
        );
        ColumnValue.FromText(codes, " ; , ", CellStyle.Own).ShouldBe(CellValue.Empty);
        ColumnValue.FromText(codes, "a; ;b", CellStyle.Own).Value.ShouldBe(new[] { "a", "b" });
        ColumnValue.FromText(heads, "  ", CellStyle.Own).ShouldBe(CellValue.Empty);
    }

    [Fact]
    public void A_choice_is_known_by_its_value_and_by_its_labels()
    {
        var column = new ListColumn("x", ColumnType.Choice, None, None, Options: [new("a", new("Bee", "Biene")), new("b", new("A", "Ä"))]);
        string? Chosen(string cell) => ColumnValue.FromText(column, cell, CellStyle.Own).Value as string;
        (Chosen("A"), Chosen("bee"), Chosen("BIENE"), Chosen("b"), Chosen("wasp")).ShouldBe(("a", "a", "a", "b", null));
    }

    [Fact]
    public void A_sheet_is_matched_by_what_its_columns_hold_where_their_names_say_nothing()
    {
        var list = new ListDefinition(
            "things",
            ListGroup.Work,
            new("Things", "Dinge"),
            None,
            [
                new("begun", ColumnType.Date, new("Begun on", "Begonnen am"), None),
                new("site", ColumnType.Entry, new("Where it is", "Ort"), None, List: "sites"),
                new("land", ColumnType.Country, new("Country of it", "Land"), None),
                new("memo", ColumnType.Text, new("Memo", "Notiz"), None),
            ]
        );
        string?[] Matched(string language, string[] headers, params string[][] rows) =>
            [.. ColumnMatcher.Match(list, headers, rows, (_, text) => text == "skerry", language).Select(m => m.Column)];
        string[][] rows =
        [
            ["3/4/2027", "skerry", "IE", "x"],
            ["2027-03-05", "skerry", "", "y"],
            ["46450"],
        ];
        Matched("en", ["A", "B", "C", "D"], rows).ShouldBe(["begun", "site", "land", null]);
        // One cell that does not fit, and none at all.
        Matched("en", ["A", "B"], ["3/4/2027", "skerry"], ["soon", "nowhere"]).ShouldBe([null, null]);
        Matched("en", ["A", "B"], ["", "skerry"]).ShouldBe([null, "site"]);
        // What a column has is given once, first to the header that is called so.
        Matched("en", ["A", "Begun on", "B"], ["3/4/2027", "x", "3/4/2027"]).ShouldBe([null, "begun", null]);
        Matched("en", ["A", "B"], ["3/4/2027", "4/4/2027"]).ShouldBe(["begun", null]);
        Matched("en", ["Begun on", "Begun on"]).ShouldBe(["begun", null]);
        Matched("en", ["", "Memo (long)", "(Memo)"]).ShouldBe([null, "memo", null]);
        // Misspelt in the reader’s language.
        (Matched("en", ["Begum on"])[0], Matched("de", ["Begonen am"])[0]).ShouldBe(("begun", "begun"));
    }

    [Fact]
    public void A_part_of_a_value_keeps_to_its_bounds_as_JSON_too()
    {
        CellValue Json(ColumnType type, object value) =>
            ColumnValue.FromJson(new ListColumn("x", type, None, None, List: "t"), JsonSerializer.SerializeToElement(value));
        var letters = new string('a', 200);
        Json(
            ColumnType.Holidays,
            new[]
            {
                new
                {
                    on = "--05-01",
                    name = letters,
                    days = 1,
                },
            }
        )
            .IsWrong.ShouldBeFalse();
        Json(
            ColumnType.Holidays,
            new[]
            {
                new
                {
                    on = "--05-01",
                    name = letters + "a",
                    days = 1,
                },
            }
        )
            .Code.ShouldBe("bad-value");
        Json(
            ColumnType.Options,
            new[]
            {
                new
                {
                    value = "a",
                    en = letters,
                    de = (string?)null,
                    retired = false,
                },
            }
        )
            .IsWrong.ShouldBeFalse();
        Json(
            ColumnType.Options,
            new[]
            {
                new
                {
                    value = "a",
                    en = letters + "a",
                    de = (string?)null,
                    retired = false,
                },
            }
        )
            .Code.ShouldBe("bad-value");
        var many = Enumerable.Range(0, 1000).Select(i => new { certificate = $"C{i}", essential = true }).ToArray();
        var most = Enumerable.Range(1, 1000).Last(n => !Json(ColumnType.Requirements, many.Take(n).ToArray()).IsWrong);
        most.ShouldBeLessThan(1000);
        Json(ColumnType.Requirements, many.Take(most + 1).ToArray()).Code.ShouldBe("out-of-range");
        ColumnValue.FromText(new ListColumn("x", ColumnType.Rates, None, None), "2027-01-01 sometimes 3", CellStyle.Own).Code.ShouldBe("bad-value");
        ColumnValue.FromText(new ListColumn("x", ColumnType.Number, None, None), "  ", CellStyle.Own).ShouldBe(CellValue.Empty);
        (ColumnValue.FromText(new ListColumn("x", ColumnType.Cycle, None, None), "E", CellStyle.Own).Value, StructureOf("EN -")).ShouldBe(("E", "EN -"));
        string? StructureOf(string cycle) => ColumnValue.FromText(new ListColumn("x", ColumnType.Cycle, None, None), cycle, CellStyle.Own).Value as string;
    }

    [Fact]
    public void What_a_pattern_does_on_holidays_and_what_its_rounding_takes_are_as_its_list_says()
    {
        EntryContent With(string on) => new("P", "P", null, new Dictionary<string, object> { ["on_holiday"] = on });
        (ShiftPatternEntry.OnHoliday(With("worked")), ShiftPatternEntry.OnHoliday(With("off"))).ShouldBe(
            (Fid.Core.Clock.OnHoliday.Worked, Fid.Core.Clock.OnHoliday.Off)
        );
        var rules = ShippedLists.Find("clockRules")!;
        (rules.Find("round_to")!.Min, rules.Columns.First(c => c.Type == ColumnType.Whole && c.Key != "round_to").Min).ShouldBe((1, 0));
    }
}
