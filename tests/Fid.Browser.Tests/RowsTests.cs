using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Rows of a record, changed in place by keyboard, and their columns set up.</summary>
public class RowsTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task A_second_job_changes_what_somebody_costs_and_is_not_entered_twice()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        var id = await firm.Database.AskAsync("select owner_id::text from record_values where field = 'pay_elements.kind' and value = '\"secondJob\"' limit 1");
        orla.Open($"/people/{id}");
        orla.SeeText("€15.20");
        orla.SeeText("Costs the firm");
        var cost = CostOf(orla);
        orla.Id("field-pay_elements").SendKeys(Keys.Enter);
        var row = OpenRow(orla);
        // From today on, so that today's cost has it.
        Type(orla, $"field-pay_elements.from@{row}", "1 mar 2027");
        orla.Until(() => CostOf(orla) != cost);
        orla.Button("Add to Pay beside base pay").Click();
        orla.Until(() => orla.Focus()!.StartsWith("field-pay_elements.kind@", StringComparison.Ordinal));
        orla.Press("a second");
        orla.Option("a second job").Click();
        var added = orla.Focus()!.Split('@')[1];
        orla.Id($"field-pay_elements.amount@{added}").SendKeys("16");
        orla.Id($"field-pay_elements.hours@{added}").SendKeys("2");
        orla.Id($"field-pay_elements.job@{added}").SendKeys("ticket clerk");
        orla.Option("Ticket clerk").Click();
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Say which it is, then it is saved.");
        orla.Press(Keys.Enter);
        orla.SeeText("There is one for the same at the same time. End that one before, or say what each is for.");
        orla.IsAccessible("two rows of pay that overlap");
        // Either of them can say what it is for; one is open where the trouble is.
        orla.Id($"field-pay_elements.note@{OpenRow(orla)}").SendKeys("the summer fair");
        orla.Chord(Keys.Control, "s");
        orla.SeeNo("Discard");
        orla.SeeText("the summer fair");
        (await firm.Database.AskAsync($"select count(distinct row_id) from record_values where owner_id = '{id}' and row_id is not null")).ShouldBe(2L);
    }

    private static string OpenRow(Browser browser) => (string)browser.Script("return document.querySelector('[id^=cells-]').id.slice('cells-'.length)")!;

    private static string CostOf(Browser browser) =>
        (string)browser.Script("return [...document.querySelectorAll('aside section')].find((s) => s.textContent.includes('Costs the firm')).innerText")!;

    private static void Type(Browser browser, string id, string text)
    {
        var field = browser.Id(id);
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(text + Keys.Tab);
    }

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
