using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Fields.Shipped;
using Fid.Core.Texts;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

public class ValueCheckTests
{
    [Theory]
    [InlineData("given_name", "\"  Siân \"", "Siân")]
    [InlineData("given_name", "\"Sia\\u0302n\"", "Siân")] // composed, so that equal names are equal
    [InlineData("family_name", "\"O'Driscoll-Prys\"", "O'Driscoll-Prys")]
    [InlineData("family_name", "\"בן־עמי\"", "בן־עמי")]
    [InlineData("pay_rate", "17.4", "17.40")]
    [InlineData("pay_rate", "17.4567", "17.4567")]
    [InlineData("weekly_hours", "37.5", "37.5")]
    [InlineData("birth_date", "\"1998-02-28\"", "1998-02-28")]
    [InlineData("email", "\"o'neill+home@example.org\"", "o'neill+home@example.org")]
    [InlineData("badge", "\"004812\"", "004812")]
    [InlineData("known_as", "\"   \"", null)]
    [InlineData("end_date", "null", null)]
    public void Takes_what_fits_in_the_form_that_is_stored(string field, string entered, string? stored)
    {
        var (value, problem) = ValueCheck.Check(ShippedFields.Find(field)!, JsonElement.Parse(entered));
        problem.ShouldBeNull();
        (value?.ToString()).ShouldBe(stored);
    }

    [Theory]
    [InlineData("given_name", "7", "wrong-type")]
    [InlineData("given_name", "[]", "wrong-type")]
    [InlineData("given_name", "\"a\\u0000b\"", "bad-characters")]
    [InlineData("given_name", "\"\\ud83d\"", "bad-characters")]
    [InlineData("given_name", "\"\\u202Eevil\"", "bad-characters")]
    [InlineData("given_name", "\" sealed:0123456789012345678901234567890123456789012345678901234567890123:abc\"", "masked")]
    [InlineData("pay_rate", "-1", "out-of-range")]
    [InlineData("pay_rate", "1.23456", "too-fine")]
    [InlineData("pay_rate", "\"17\"", "wrong-type")]
    [InlineData("pay_rate", "1e400", "wrong-type")]
    [InlineData("weekly_hours", "169", "out-of-range")]
    [InlineData("birth_date", "\"1998-02-30\"", "bad-value")]
    [InlineData("birth_date", "\"0998-02-01\"", "bad-value")]
    [InlineData("email", "\"nobody\"", "bad-value")]
    [InlineData("phone", "\"call me\"", "bad-value")]
    [InlineData("badge", "\"12a\"", "bad-value")]
    [InlineData("paid_by", "\"pirate\"", "bad-value")]
    [InlineData("manager", "\"me\"", "bad-value")]
    public void Says_at_the_field_what_does_not_fit(string field, string entered, string code)
    {
        var (_, problem) = ValueCheck.Check(ShippedFields.Find(field)!, JsonElement.Parse(entered));
        problem.ShouldNotBeNull();
        (problem.Path, problem.Code).ShouldBe(($"/{field}", code));
    }

    [Theory]
    [InlineData("date", "\"2027-03-01\" \"2027-03-31\"", "\"2027-02-28\" \"2027-04-01\"", "\"min\":\"2027-03-01\",\"max\":\"2027-03-31\"")]
    [InlineData("date", "\"1900-01-01\" \"2199-12-31\"", "\"1899-12-31\" \"2200-01-01\"", "")]
    [InlineData("number", "2 4 2.0001", "1.9999 4.0001", "\"min\":2,\"max\":4")]
    [InlineData("text", "\"ab\" \"abcd\"", "\"a\" \"abcde\"", "\"min\":2,\"max\":4")]
    [InlineData(
        "choices",
        "[\"a\"] [\"a\",\"b\"]",
        "[\"a\",\"b\",\"c\"]",
        "\"min\":1,\"max\":2,\"options\":[{\"value\":\"a\"},{\"value\":\"b\"},{\"value\":\"c\"}]"
    )]
    public void The_least_and_the_most_are_allowed_and_nothing_beyond(string type, string within, string beyond, string limits)
    {
        var json = $$"""{"sections":[],"fields":[{"key":"x","type":"{{type}}"{{(limits.Length > 0 ? "," + limits : "")}}}]}""";
        var field = FieldConfiguration.Read(System.Text.Encoding.UTF8.GetBytes(json)).Answer!.Fields.Single();
        foreach (var value in within.Split(' '))
            ValueCheck.Check(field, JsonElement.Parse(value)).Problem.ShouldBeNull(value);
        foreach (var value in beyond.Split(' '))
            ValueCheck.Check(field, JsonElement.Parse(value)).Problem.ShouldNotBeNull(value);
    }

    [Theory]
    [InlineData(true, Misfit.Option)] // chosen just now
    [InlineData(false, Misfit.None)] // chosen while it was offered
    public void An_option_that_is_no_longer_offered_stays_where_it_was_chosen(bool chosenNow, Misfit misfit)
    {
        const string Json = """{"sections":[],"fields":[{"key":"x","type":"choice","options":[{"value":"old","retired":true},{"value":"new"}]}]}""";
        var set = FieldSet.Read(FieldConfiguration.Read(System.Text.Encoding.UTF8.GetBytes(Json)).Answer!.Fields, []).Answer!;
        var held = new Dictionary<string, JsonElement> { ["x"] = JsonElement.Parse("\"old\"") };
        var record = RecordEvaluation.Of(set, new RecordQuestion(held, ["x"], chosenNow ? ["x"] : [], null, null, new(2027, 3, 1), RecordQuestion.NoLists));
        record.Errors.Select(e => e.Misfit).ShouldBe(misfit == Misfit.None ? [] : [misfit]);
    }

    [Fact]
    public void Refuses_texts_that_are_too_long() =>
        ValueCheck.Check(ShippedFields.Find("street")!, JsonSerializer.SerializeToElement(new string('x', 201))).Problem!.Code.ShouldBe("too-long");

    [Fact]
    public void Folds_names_for_searching()
    {
        TextRules.Fold("  Siân   O'Driscoll ").ShouldBe("sian o'driscoll");
        TextRules.Fold("Tuấn Phạm").ShouldBe("tuan pham");
    }

    [Fact]
    public void Counts_what_is_filled_and_what_is_needed_of_what_is_shown()
    {
        var set = FieldSet.Read(ShippedFields.All, ["prepare", "arrive"]).Answer!;
        var needed = ShippedFields.All.Where(f => f.Required.Kind == RequirementKind.From && f.Key is not ("badge" or "cost_centre"));
        var values = needed.ToDictionary(f => f.Key, _ => JsonElement.Parse("\"there\""));
        values["permit_needed"] = JsonElement.Parse("true");
        values["pension_percent"] = JsonElement.Parse("5"); // kept, but hidden: the scheme is not chosen
        var count = Completeness.Count(set, values, new LocalDate(2027, 3, 1));
        count.Filled.ShouldBe(values.Count - 1);
        count.Of.ShouldBe(ShippedFields.All.Count(f => f.ShowWhen is null) + 1);
        count.Missing.ShouldBe(["permit_until", "cost_centre", "badge"], ignoreOrder: true);
    }

    [Theory]
    [InlineData("number", "", "1000000000", null)]
    [InlineData("number", "", "-1000000000", null)]
    [InlineData("number", "", "1000000000.01", "out-of-range")]
    [InlineData("number", "", "-1000000001", "out-of-range")]
    [InlineData("number", "\"min\":2", "1.9", "out-of-range")]
    [InlineData("number", "\"max\":2", "2.1", "out-of-range")]
    [InlineData("number", "", "1.23456", null)]
    [InlineData("money", "", "1.2345", null)]
    [InlineData("money", "", "1.23456", "too-fine")]
    [InlineData("yesNo", "", "true", null)]
    [InlineData("yesNo", "", "false", null)]
    [InlineData("yesNo", "", "\"yes\"", "wrong-type")]
    [InlineData("choices", "\"options\":[{\"value\":\"a\"}]", "\"a\"", "wrong-type")]
    [InlineData("choices", "\"options\":[{\"value\":\"a\"}]", "[1]", "wrong-type")]
    [InlineData("choices", "\"options\":[{\"value\":\"a\"}]", "[\"a\",\"a\"]", null)]
    [InlineData("choices", "\"options\":[{\"value\":\"a\"}]", "[\"a\",\"b\"]", "bad-value")]
    [InlineData("choices", "\"options\":[{\"value\":\"a\"},{\"value\":\"b\"}]", "[\"a\",\"b\"]", null)]
    [InlineData("choice", "\"options\":[{\"value\":\"a\"}]", "\"a\"", null)]
    [InlineData("choice", "\"options\":[{\"value\":\"a\"}]", "\"A\"", "bad-value")]
    [InlineData("text", "\"options\":[{\"value\":\"a\"}]", "\"b\"", null)] // options are of choices alone
    [InlineData("computed", "", "3", "read-only")]
    public void Each_type_takes_what_is_of_it(string type, string more, string entered, string? code)
    {
        var (_, problem) = ValueCheck.Check(Field(type, more), JsonElement.Parse(entered));
        (problem?.Code).ShouldBe(code);
    }

    [Fact]
    public void Choices_are_kept_each_once_in_their_order_and_none_are_nothing()
    {
        var field = Field("choices", "\"options\":[{\"value\":\"a\"},{\"value\":\"b\"}]");
        ValueCheck.Check(field, JsonElement.Parse("""["b","a","b"]""")).Value!.Value.ToString().ShouldBe("""["b","a"]""");
        ValueCheck.Check(field, JsonElement.Parse("[]")).ShouldBe((null, null));
        var free = Field("choices", "");
        ValueCheck.Check(free, JsonSerializer.SerializeToElement(Enumerable.Range(0, 200))).Problem!.Code.ShouldBe("wrong-type");
        ValueCheck.Check(free, JsonSerializer.SerializeToElement(Enumerable.Range(0, 100).Select(i => $"{i}"))).Problem.ShouldBeNull();
        ValueCheck.Check(free, JsonSerializer.SerializeToElement(Enumerable.Range(0, 101).Select(i => $"{i}"))).Problem!.Code.ShouldBe("too-many");
    }

    [Theory]
    [InlineData("17", "17.00")]
    [InlineData("17.4", "17.40")]
    [InlineData("17.40", "17.40")]
    [InlineData("17.405", "17.405")]
    public void An_amount_keeps_its_decimals_and_has_two_at_least(string entered, string stored) =>
        ValueCheck.Check(Field("money", ""), JsonElement.Parse(entered)).Value!.Value.GetRawText().ShouldBe(stored);

    [Theory]
    [InlineData("text", 200)]
    [InlineData("longText", 4000)]
    public void A_text_has_a_longest_length(string type, int longest)
    {
        ValueCheck.Check(Field(type, ""), JsonSerializer.SerializeToElement(new string('a', longest))).Problem.ShouldBeNull();
        ValueCheck.Check(Field(type, ""), JsonSerializer.SerializeToElement(new string('a', longest + 1))).Problem!.Code.ShouldBe("too-long");
        (ValueCheck.Check(Field(type, ""), JsonElement.Parse("\"a\\nb\"")).Problem?.Code).ShouldBe(type == "text" ? "bad-characters" : null);
    }

    [Fact]
    public void A_mask_is_no_value_of_a_sealed_field_and_any_text_of_another()
    {
        var mask = JsonSerializer.SerializeToElement(SealedText.Mask);
        ValueCheck.Check(Field("text", "\"sensitive\":true"), mask).Problem!.Code.ShouldBe("masked");
        ValueCheck.Check(Field("text", ""), mask).Problem.ShouldBeNull();
        ValueCheck.Check(Field("text", "\"sensitive\":true"), JsonElement.Parse("\"IE29AIBK93115212345678\"")).Problem.ShouldBeNull();
    }

    private static FieldDefinition Field(string type, string more) =>
        FieldConfiguration
            .Read(System.Text.Encoding.UTF8.GetBytes($$"""{"sections":[],"fields":[{"key":"x","type":"{{type}}"{{(more.Length == 0 ? "" : "," + more)}} }]}"""))
            .Answer!.Fields[0];
}
