using Fid.Testing;
using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>What the payroll clerk looks through before a run is paid.</summary>
public class PayCheckTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task A_rate_goes_from_being_asked_for_through_approval_to_checked_and_a_later_change_clears_the_tick()
    {
        var report = await Asking.ReportOfCallumAsync(firm.Database);
        using var callum = await Caller.SignedInAsync(firm.Server.Address, "callum");
        (await callum.AskAsync(report, new { pay_rate = 18.4 }, "2027-03-08", "Bosun in all but name")).EnsureSuccessStatusCode();

        using var ruth = Browser.SignedIn(firm.Server.Address, "ruth");
        ruth.Open("/waiting");
        ruth.SeeText("One request waits for your word.");
        ruth.Press(Keys.ArrowDown);
        ruth.SeeText("Bosun in all but name");
        ruth.Press("a");
        ruth.SeeText("Agreed.");

        ruth.Link("People").Click();
        ruth.Link("Pay check").Click();
        ruth.SeeText("cut-off Mon 8 Mar");
        ruth.Write("Day in the period", "15 Mar");
        ruth.Press(Keys.Enter);
        ruth.SeeText("cut-off Mon 22 Mar");
        var name = (string)(await firm.Database.AskAsync($"select given_name || ' ' || family_name from records_now where employment_id = '{report}'"))!;
        ruth.Row(name).Text.ShouldContain("rate from Mon 8 Mar");
        ruth.Row(name).Text.ShouldContain("→ 18.40)");
        ruth.Row(name).Click();
        ruth.SeeText("Bosun in all but name");
        ruth.IsAccessible("the pay check with a line chosen");
        ruth.Press("d");
        ruth.SeeText("Checked.");
        ruth.Until(() => ruth.Row(name).Text.Contains("by Ruth Abara", StringComparison.Ordinal));

        // Somebody changes it meanwhile: the tick goes before the clerk's eyes, and says why.
        using var orla = await Caller.SignedInAsync(firm.Server.Address, "orla");
        await orla.SaveAsync(
            report,
            new
            {
                changes = new { pay_rate = 18.6 },
                from = "2027-03-08",
                why = "a slip of the pen",
            }
        );
        ruth.Until(() => ruth.Row(name).Text.Contains("changed since: ", StringComparison.Ordinal));
        ruth.Row(name).Text.ShouldContain("pay rate");
        ruth.IsTicked($"checked-{report}").ShouldBeFalse();
        ruth.Id($"checked-{report}").Click();
        ruth.SeeNo("changed since: ");
        ruth.Button("Undo").Click();
        ruth.Until(() => !ruth.IsTicked($"checked-{report}"));
        ruth.Press(Keys.Escape);
        ruth.Press(Keys.Escape);
        ruth.SeeAddress("/people");
    }

    [Fact]
    public void Those_whom_nothing_stands_against_are_ticked_together_also_on_a_telephone()
    {
        using var ruth = Browser.SignedIn(firm.Server.Address, "ruth");
        ruth.Open("/people/pay-check?group=crew&on=2027-03-08");
        ruth.Resize(390, 844, dark: true);
        ruth.SeeText("cannot be paid.");
        ruth.SeeText("no bank account");
        ruth.IsAccessible("the pay check on a telephone in the dark");
        ruth.Button("Tick the ").Click();
        ruth.SeeText(" checked.");
        ruth.SeeText("by Ruth Abara");
        ruth.Row("Tomasz Brandt").Text.ShouldNotContain("Ruth Abara");
        // Who has no pay group is told with a way to the record.
        ruth.Link("Saoirse Lind").Click();
        ruth.SeeAddress("/people/");
    }

    [Fact]
    public void The_checklist_of_a_run_says_when_it_may_be_handed_over_while_others_tick_what_is_theirs()
    {
        using var ruth = Browser.SignedIn(firm.Server.Address, "ruth");
        ruth.Open("/people/pay-check?group=yard");
        ruth.SeeText("This run has no checklist.");
        ruth.Button("Begin its checklist").Click();
        ruth.SeeText("Four to do before it may be handed over.");
        ruth.IsAccessible("the checklist of a run");

        using var nils = Browser.SignedIn(firm.Server.Address, "nils");
        nils.Open("/tasks");
        nils.SeeText("Yard, weekly");
        // The yard is paid first: its task stands before those of the crews and the offices.
        nils.Checkbox("Who stood in for whom, from the ports: done").Click();
        nils.SeeText("Who stood in for whom, from the ports is done.");
        ruth.SeeText("Three to do before it may be handed over.");

        ruth.Checkbox("Hours of the crews collected: done").Click();
        ruth.SeeText("Two to do before it may be handed over.");
        ruth.Button("Undo").Click();
        ruth.SeeText("Three to do before it may be handed over.");
        ruth.Button("Skip Totals compared with the last run").Click();
        ruth.PressLast("Skip");
        ruth.SeeAt("Why does it not apply to this run?", "Fill this in");
        ruth.Write("Why does it not apply to this run?", "the first run of the year");
        ruth.Press(Keys.Enter);
        ruth.SeeText("skipped: the first run of the year");
        ruth.SeeText("Two to do before it may be handed over.");
        ruth.Button("Applies after all").Click();
        ruth.SeeNo("skipped: the first run of the year");
    }
}
