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
}
