using System.Text.Json;
using Fid.Core.Fields;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

/// <summary>What in a formula does not fit together is said before it is ever computed.</summary>
public class FormulaTypingTests
{
    private const string Fields = """
        {"key":"pay","type":"money","access":{"coordinator":"edit"}},{"key":"hours","type":"number","access":{"coordinator":"edit"}},
        {"key":"start","type":"date","access":{"coordinator":"edit"}},{"key":"end","type":"date","access":{"coordinator":"edit"}},
        {"key":"union","type":"yesNo","access":{"coordinator":"edit"}},{"key":"note","type":"text","access":{"coordinator":"edit"}},
        {"key":"deck","type":"choice","options":[{"value":"fore"},{"value":"aft"}],"access":{"coordinator":"edit"}},
        {"key":"skills","type":"choices","options":[{"value":"knots"},{"value":"radio"}],"access":{"coordinator":"edit"}},
        {"key":"older","type":"computed","default":{"formula":"ageOn(start, end) > 3"},"access":{"coordinator":"view"}},
        {"key":"renewed","type":"computed","default":{"formula":"addMonths(start, 12)"},"access":{"coordinator":"view"}},
        {"key":"empty","type":"computed","default":{"formula":"null"},"access":{"coordinator":"view"}}
        """;

    private const string Access = """ "access":{"coordinator":"edit"}} """;

    [Theory]
    [InlineData("union and pay > 3")]
    [InlineData("not union or deck == 'fore'")]
    [InlineData("skills == null")]
    [InlineData("note like 'a%' and start like '2027%'")]
    [InlineData("deck in ('fore', 'aft') and not ('knots' in skills)")]
    [InlineData("deck in ('fore')")]
    [InlineData("in(deck, 'fore', 'aft')")]
    [InlineData("start == '2027-03-01' and '2027-03-01' < start")]
    [InlineData("start < end and note == start")]
    [InlineData("start <= firstOf(end, '2027-12-31')")]
    [InlineData("older and renewed > start")]
    [InlineData("empty == 3 and empty == 'a' and empty == start")]
    [InlineData("-pay < hours and (union ? pay : hours) > 2")]
    [InlineData("note + 'x' == 'ax' and 'x' + note == 'xa'")]
    [InlineData("addDays(note, 3) > start and addDays('2027-03-01', 3) > start")]
    [InlineData("max(pay, hours) > min(1, 2) and round(pay, 2) > abs(hours) and floor(pay) > ceiling(pay)")]
    [InlineData("MAX(pay, 1) > 2 and Min(pay, 1) > 2 and ROUND(pay, 1) > 2")]
    [InlineData("ifs(union, pay, older, hours, 3) > 2")]
    [InlineData("ifs(union, 1, 2) > 2")]
    [InlineData("if(union, start, null) < end and if(union, null, start) < end")]
    [InlineData("if(union, start, '2027-01-01') < end and if(union, '2027-01-01', start) < end")]
    [InlineData("(pay ?? hours) > 2 and addWorkingDays(start, 2) < today()")]
    [InlineData("union == true and union != older")]
    [InlineData("max(empty, 3) > 2 and -empty < 3 and (empty or union)")]
    [InlineData("if(union, pay, note) == 'a' and if(union, pay, note) > 3")] // either, so anything may be meant
    [InlineData("if(union, start, note) < end and if(union, note, start) < end")]
    [InlineData("if(union, 'soon', start) == 'a'")]
    [InlineData("ifs(union, 1, older, 2, 3) > 2")]
    [InlineData("in(note, 'a')")]
    public void What_fits_together_is_left_alone(string condition) => Clashes(condition).ShouldBeEmpty();

    [Theory]
    [InlineData("not pay", "pay is a number, and not needs yes or no.")]
    [InlineData("-note > 3", "note is a text, and a sign needs a number.")]
    [InlineData("pay and union", "pay is a number, and and, or needs yes or no.")]
    [InlineData("union or note", "note is a text, and and, or needs yes or no.")]
    [InlineData("(pay ? union : older)", "pay is a number, and ? needs yes or no.")]
    [InlineData("deck in note", "What stands right of “in” is to be a list")]
    [InlineData("deck in pay", "What stands right of “in” is to be a list")]
    [InlineData("pay like 'a%'", "pay is a number, and like needs a text.")]
    [InlineData("note like pay", "pay is a number, and like needs a text.")]
    [InlineData("union like 'a%'", "union is yes or no, and like needs a text.")]
    [InlineData("start + 3 > 'a'", "A date cannot be added to.")]
    [InlineData("3 + start > 'a'", "A date cannot be added to.")]
    [InlineData("start + note == 'a'", "A date cannot be added to.")]
    [InlineData("end - start > 3", "Dates cannot be taken from each other.")]
    [InlineData("end - 3 > 2", "end is a date, and a calculation needs a number.")]
    [InlineData("3 - end > 2", "end is a date, and a calculation needs a number.")]
    [InlineData("pay * union > 2", "union is yes or no, and a calculation needs a number.")]
    [InlineData("skills * 2 > 2", "skills is a list, and a calculation needs a number.")]
    [InlineData("today(3) > start", "today takes nothing in its brackets, and 1 stand there.")]
    [InlineData("addDays(start) > end", "addDays takes 2 arguments in its brackets, and 1 stand there.")]
    [InlineData("addMonths(start, note) > end", "note is a text, and addMonths needs a number.")]
    [InlineData("addDays(deck, 3) > end", "deck is a text, and a date is needed there.")]
    [InlineData("addDays('soon', 3) > end", "'soon' is no date such as 2027-03-01, and a date is needed there.")]
    [InlineData("ageOn(start) > 3", "ageOn takes 2 arguments in its brackets, and 1 stand there.")]
    [InlineData("ageOn(pay, start) > 3", "pay is a number, and a date is needed there.")]
    [InlineData("ageOn(start, union) > 3", "union is yes or no, and a date is needed there.")]
    [InlineData("firstOf() == 3", "firstOf needs at least one argument.")]
    [InlineData("if(union, 3) > 2", "if takes 3 arguments in its brackets, and 2 stand there.")]
    [InlineData("if(union, start, end) > 3", "what stands there and what stands there cannot be compared")]
    [InlineData("if(union, start, null) > 3", "what stands there and what stands there cannot be compared")]
    [InlineData("if(union, null, start) > 3", "what stands there and what stands there cannot be compared")]
    [InlineData("if(union, start, '2027-01-01') > 3", "what stands there and what stands there cannot be compared")]
    [InlineData("if(union, '2027-01-01', start) > 3", "what stands there and what stands there cannot be compared")]
    [InlineData("if(union, 'a', 'b') > 3", "what stands there is a text and what stands there is a number")]
    [InlineData("if(union, '2027-01-01', 'b') > 3", "what stands there is a text and what stands there is a number")]
    [InlineData("if(union, note, '2027-01-01') > 3", "what stands there is a text and what stands there is a number")]
    [InlineData("ifs(union, 1, 2) == 'a'", "what stands there is a number and 'a' is a text")]
    [InlineData("ifs(union) > 2", "ifs needs pairs of a condition and a value, and a last value.")]
    [InlineData("if(pay, 3, 4) > 2", "pay is a number, and if needs yes or no.")]
    [InlineData("ifs(union, 3) > 2", "ifs needs pairs of a condition and a value, and a last value.")]
    [InlineData("ifs(union, 3, older, 4) > 2", "ifs needs pairs of a condition and a value, and a last value.")]
    [InlineData("ifs(union, 3, pay, 4, 5) > 2", "pay is a number, and ifs needs yes or no.")]
    [InlineData("ifs(pay, 3, 4) > 2", "pay is a number, and ifs needs yes or no.")]
    [InlineData("in(deck)", "in needs what to look for, and what to look in.")]
    [InlineData("abs(pay, 2) > 3", "abs takes one argument in its brackets, and 2 stand there.")]
    [InlineData("max(pay) > 3", "max takes 2 arguments in its brackets, and 1 stand there.")]
    [InlineData("round(note, 2) > 3", "note is a text, and round needs a number.")]
    [InlineData("skills == 'knots'", "skills is a list. Ask for a member of it: 'a' in skills.")]
    [InlineData("'knots' == skills", "skills is a list. Ask for a member of it: 'a' in skills.")]
    [InlineData("start == pay", "start and pay cannot be compared: one is a date, the other is not.")]
    [InlineData("pay < start", "pay and start cannot be compared: one is a date, the other is not.")]
    [InlineData("deck == start", "deck and start cannot be compared: one is a date, the other is not.")]
    [InlineData("start > 'soon'", "start and 'soon' cannot be compared: one is a date, the other is not.")]
    [InlineData("renewed == pay", "renewed and pay cannot be compared: one is a date, the other is not.")]
    [InlineData("older == 3", "older is yes or no and what stands there is a number: they are never equal.")]
    [InlineData("union > true", "union is yes or no: there is no greater and lesser of them.")]
    [InlineData("union <= older", "union is yes or no: there is no greater and lesser of them.")]
    [InlineData("if(union, pay, hours) == 'a'", "what stands there is a number and 'a' is a text: they are never equal.")]
    [InlineData("pay", "must come to true or false, such as a comparison.")]
    [InlineData("start", "must come to true or false, such as a comparison.")]
    [InlineData("if(union, 1, 2)", "must come to true or false, such as a comparison.")]
    public void What_does_not_is_said(string condition, string clash) => Clashes(condition).ShouldHaveSingleItem().ShouldContain(clash);

    [Theory]
    [InlineData("date", "addDays(start, 3)", null)]
    [InlineData("date", "'2027-03-01'", null)]
    [InlineData("date", "if(union, '2027-03-01', '2027-04-01')", null)]
    [InlineData("date", "if(union, '2027-03-01', 'soon')", "“x” holds a date")]
    [InlineData("date", "if(union, 'soon', '2027-03-01')", "“x” holds a date")]
    [InlineData("date", "'soon'", "“x” holds a date")]
    [InlineData("date", "if(union, start, 'soon')", null)]
    [InlineData("date", "note", null)] // a text may be a date
    [InlineData("date", "pay", "comes to a number")]
    [InlineData("text", "start", null)]
    [InlineData("longText", "start", null)]
    [InlineData("identifier", "start", "comes to a date")]
    [InlineData("text", "pay", "comes to a number")]
    [InlineData("text", "union", "comes to true or false")]
    [InlineData("text", "skills", "comes to a list")]
    [InlineData("number", "note", "“x” holds a number")]
    [InlineData("money", "note", "“x” holds an amount")]
    [InlineData("yesNo", "pay", "“x” holds yes or no")]
    [InlineData("number", "pay + hours", null)]
    [InlineData("number", "null", null)]
    [InlineData("number", "empty", null)]
    [InlineData("yesNo", "older", null)]
    public void What_a_field_is_filled_with_has_to_suit_it(string type, string formula, string? said)
    {
        var findings = Check($$"""{"key":"x","type":"{{type}}","default":{"formula":"{{formula}}"},{{Access}}""");
        if (said is null)
            findings.ShouldBeEmpty();
        else
            findings.ShouldHaveSingleItem().Message.ShouldContain(said);
    }

    [Theory]
    [InlineData("deck == 'fore' and deck != 'aft' and 'aft' == deck", null)]
    [InlineData("deck == 'bow'", "bow")]
    [InlineData("'bow' == deck", "bow")]
    [InlineData("deck in ('fore', 'bow')", "bow")]
    [InlineData("in(deck, 'fore', 'bow')", "bow")]
    [InlineData("in('bow', 'fore', 'bow')", null)]
    [InlineData("'sail' in skills", "sail")]
    [InlineData("note == 'bow'", null)]
    public void A_text_that_a_field_can_never_be_is_named(string condition, string? never)
    {
        var findings = Check($$"""{"key":"x","type":"text","showWhen":"{{condition}}",{{Access}}""");
        if (never is null)
            findings.ShouldBeEmpty();
        else
            (findings.ShouldHaveSingleItem().Code, findings[0].Message.Contains($"“{never}”", StringComparison.Ordinal)).ShouldBe(("never-true", true));
    }

    [Theory]
    [InlineData("computed", null, "formula-error")]
    [InlineData("computed", """{"formula":"pay + 1"}""", null)]
    [InlineData("computed", """{"value":3}""", null)]
    [InlineData("number", null, null)]
    public void A_computed_field_needs_a_formula(string type, string? value, string? code)
    {
        var given = value is null ? "" : $$""","default":{{value}}""";
        Check($$"""{"key":"x","type":"{{type}}"{{given}},{{Access}}""").Select(f => f.Code).ShouldBe(code is null ? [] : [code]);
    }

    private static string[] Clashes(string condition) =>
        [
            .. Check($$"""{"key":"x","type":"text","showWhen":"{{condition}}",{{Access}}""")
                .Where(f => f.Code != "never-true")
                .Select(f => f.Code == "formula-type" ? f.Message : $"{f.Code}: {f.Message}"),
        ];

    private static Finding[] Check(string field) =>
        JsonSerializer
            .Deserialize<Answer>(
                Asked.Answer("fields.check", $$"""{"fields":[{{Fields}},{{field}}],"stages":["prepare"],"lists":{},"roles":["coordinator"]}"""),
                JsonSerializerOptions.Web
            )!
            .Findings;

    private sealed record Answer(Finding[] Findings);
}
