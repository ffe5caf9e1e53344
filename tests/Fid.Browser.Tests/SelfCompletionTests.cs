using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Tasks that complete themselves: said in a template, and seen where somebody looks on. And Arrivals in groups and from day one.</summary>
public class SelfCompletionTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task A_task_is_done_where_one_looks_on_once_the_record_has_what_it_asks_for()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        const string brandt = "(select h.id from hires h join records_now r using (employment_id) where r.family_name = 'Brandt')";
        await firm.Database.AskAsync($"update hire_tasks set kind = 'Fill', about = '{{badge,emergency_name_2}}' where key = 'badge' and hire_id = {brandt}");
        orla.Open($"/hires/{await firm.Database.AskAsync($"select {brandt}")}/checklist");
        orla.Row("Issue badge").Click();
        orla.SeeText("Completes itself once the record has:");
        orla.SeeText("still missing");
        orla.IsAccessible("a task that completes itself");
        using var other = Browser.SignedIn(firm.Server.Address, "orla");
        other.Open(orla.Address.Replace("checklist", "record", StringComparison.Ordinal));
        other.SeeText("more, empty");
        other.Unfold();
        other.Write("Second emergency contact", "Ada Brandt");
        other.Button("Save").Click();
        orla.SeeText("by Fid");
        orla.SeeNo("still missing");
    }

    [Fact]
    public void What_a_task_asks_for_is_chosen_with_what_it_is_about()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/templates/deckhand");
        orla.Button("Checklist").Click();
        orla.Button("Order radio").Click();
        orla.Press("e");
        orla.Pick("What it asks for", "issue", "issue items");
        orla.SeeText("Completes itself when the record has it");
        // Added to the others, it leaves the field empty for the next.
        orla.Pick("Items", "radio", "");
        orla.Until(() =>
            (string?)orla.Script("return document.querySelector('ul[aria-label=Items]')?.textContent") is { } chosen
            && chosen.Contains("Radio", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void Arrivals_stand_in_groups_from_day_one_and_the_keys_go_over_their_headings()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/arrivals");
        orla.Row("Tomasz Brandt");
        orla.Script("const s = [...document.querySelectorAll('select')]; s[1].value = 'site'; s[1].dispatchEvent(new Event('change', { bubbles: true }))");
        orla.Heading("Hallan Town");
        orla.Script("const s = [...document.querySelectorAll('select')]; s[2].value = 'dayOne'; s[2].dispatchEvent(new Event('change', { bubbles: true }))");
        orla.SeeText("2 weeks before");
        orla.IsAccessible("Arrivals in groups");
        for (var i = 0; i < 4; i++)
            orla.Press(OpenQA.Selenium.Keys.ArrowDown);
        orla.SeeText("Yusuf Demirci");
        orla.Until(() =>
            (string?)orla.Script("return document.activeElement.textContent") is { } row && row.Contains("Yusuf Demirci", StringComparison.Ordinal)
        );
    }
}
