using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Gates that a person lets pass and opens again; where work stalls, and the past that is behind it.</summary>
public class StageTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task A_gate_is_let_pass_with_a_reason_that_stays_beside_it_and_opened_again()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        var hire = await firm.Database.AskAsync("select h.id from hires h join records_now r using (employment_id) where r.family_name = 'Demirci'");
        orla.Open($"/hires/{hire}/checklist");
        orla.Button("Let it pass…").Click();
        orla.SeeText("Two required tasks are not done.");
        orla.IsAccessible("before a gate passes");
        orla.Button("Pass the gate").Click();
        orla.SeeText("Say why it need not wait for the rest.");
        orla.Write("Why?", "The talk was held on the telephone");
        orla.Button("Pass the gate").Click();
        orla.SeeText("Orla Dunmore let it pass: The talk was held on the telephone");
        orla.IsAccessible("a gate that passed by hand");
    }

    [Fact]
    public void Where_it_stalls_leads_to_the_hires_behind_it_as_they_were_and_to_a_draft_of_the_template()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/templates");
        orla.Link("Where it stalls").Click();
        orla.SeeText("Order radio holds up");
        orla.Row("Order radio").Click();
        orla.SeeText("8 of 10 were done within");
        orla.IsAccessible("where it stalls, a row selected");
        orla.Script("[...document.querySelectorAll('button')].find((b) => b.textContent.includes('into a draft')).click()");
        orla.SeeText("It is in a draft of Deckhand.");
        orla.Script("[...document.querySelectorAll('button')].find((b) => b.textContent.includes('behind it')).click()");
        orla.SeeText("Could be begun");
        orla.IsAccessible("the hires behind it");
        // What took longest of those who have settled.
        orla.Script("[...document.querySelectorAll('[role=dialog] tr')].find((r) => r.textContent.includes('held it up')).querySelector('a').click()");
        orla.SeeText("This is the checklist as it was then.");
        orla.SeeText("Open again…");
        orla.IsAccessible("a checklist that is past");
    }
}
