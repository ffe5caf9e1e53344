using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Rows of a record, changed in place by keyboard, and their columns set up.</summary>
public class RowsTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task A_certificate_is_filled_in_added_and_taken_away_where_it_stands()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        var id = (string)
            (
                await firm.Database.AskAsync(
                    """
                    select r.employment_id::text from records_now r join record_values v on v.owner_id = r.person_id
                    where v.field = 'certificates.kind' and v.value = '"MED"' order by r.family_name limit 1
                    """
                )
            )!;
        orla.Open($"/people/{id}");
        orla.SeeText("Medical fitness");
        // By keyboard alone: open the first row, fill it in, and save.
        orla.Id("field-certificates").SendKeys(Keys.Enter);
        var row = (string)orla.Script("return document.querySelector('[id^=cells-]').id.slice('cells-'.length)")!;
        orla.Id($"field-certificates.number@{row}").SendKeys("MF 204");
        orla.Id($"field-certificates.from@{row}").SendKeys("1 mar 2027" + Keys.Tab);
        orla.Id($"field-certificates.until@{row}").SendKeys("28 feb 2027" + Keys.Tab);
        orla.Until(() => orla.Id($"field-certificates.until@{row}").GetDomProperty("value") == "Sun 28 Feb");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("The last day is not before the first.");
        var until = orla.Id($"field-certificates.until@{row}");
        until.SendKeys(Keys.Control + "a");
        until.SendKeys("28 feb 2029" + Keys.Tab);
        orla.Until(() => orla.Id($"field-certificates.until@{row}").GetDomProperty("value") == "Wed 28 Feb 2029");
        orla.Chord(Keys.Control, "s");
        orla.SeeNo("Discard");
        orla.SeeText("Wed 28 Feb 2029 valid");
        orla.IsAccessible("rows of a record");

        // Up and down between rows, Esc closes one, Delete takes one away.
        orla.Id("field-certificates").SendKeys(Keys.Enter);
        orla.Until(() => orla.Focus()!.StartsWith("field-certificates.kind@", StringComparison.Ordinal));
        orla.Press(Keys.Escape);
        orla.Until(() => orla.Focus() == "field-certificates");
        orla.Id("field-certificates").SendKeys(Keys.ArrowDown);
        orla.Focus().ShouldStartWith("row-");
        orla.Press(Keys.Delete);
        orla.SeeText("Put back");
        orla.Button("Put back").Click();
        orla.SeeNo("Put back");

        orla.Button("Add to Certificates").Click();
        orla.Until(() => orla.Focus()!.StartsWith("field-certificates.kind@", StringComparison.Ordinal));
        orla.Press("first");
        orla.Option("First aid").Click();
        var added = orla.Focus()!.Split('@')[1];
        orla.Id($"field-certificates.number@{added}").SendKeys("FA 1");
        orla.Chord(Keys.Control, "s");
        orla.SeeNo("Discard");
        (
            await firm.Database.AskAsync($"select string_agg(value #>> array[]::text[], ' ' order by field) from record_values where row_id = '{added}'")
        ).ShouldBe("AID FA 1");
        orla.Open($"/hires/{await firm.Database.AskAsync($"select id from hires where employment_id = '{id}'")}/history");
        orla.SeeText("Certificates: Number (Medical fitness)");
    }

    [Fact]
    public void A_field_becomes_rows_with_columns_of_its_own()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/fields");
        piet.Button("Add a field").Click();
        piet.Field("Kind").Click();
        piet.Field("Kind").SendKeys(Keys.Control + "a");
        piet.Field("Kind").SendKeys("rows");
        piet.Option("rows").Click();
        piet.SeeText("so nothing could be entered");
        piet.Button("Add a column").Click();
        var label = piet.Id("column-0-label-en");
        label.SendKeys(Keys.Control + "a");
        label.SendKeys("Course" + Keys.Tab);
        piet.Until(() => piet.Text.Contains("Course", StringComparison.Ordinal));
        piet.SeeNo("so nothing could be entered");
        piet.Pick("A row is about", "Course", "Course");
        piet.IsAccessible("columns of rows");
        piet.Reload();
        piet.SeeText("New field");
    }
}
