using Fid.Testing;
using OpenQA.Selenium;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>A change that somebody may not make alone: asked for on the record, agreed to in Waiting by keys alone, and true then.</summary>
public class RequestTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task A_request_goes_through_approval_into_the_record()
    {
        var report = await Asking.ReportOfCallumAsync(firm.Database);
        using var callum = Browser.SignedIn(firm.Server.Address, "callum");
        callum.Open($"/people/{report}");
        callum.Write("Pay rate", "18.40");
        callum.SeeText("One of Orla Dunmore, Piet Haverkort, Ruth Abara has to agree.");
        callum.Button("From 1 Mar").Click();
        callum.Button("Ask").Click();
        callum.SeeText("Say why: it is read by those who are asked.");
        callum.Write("Why, for those who are asked", "Bosun in all but name");
        callum.IsAccessible("a record with something to ask for");
        callum.Button("Ask").Click();
        callum.SeeText("Asked. It waits for");
        callum.SeeText("A change is asked for and waits:");
        callum.SeeText("Callum Reyes asks for 18.40 from 1 Mar: it waits");

        // Ruth is told while she is elsewhere, and decides by keys alone.
        using var ruth = Browser.SignedIn(firm.Server.Address, "ruth");
        ruth.Open("/waiting");
        ruth.SeeText("One request waits for your word.");
        ruth.Press(Keys.ArrowDown);
        ruth.SeeText("Bosun in all but name");
        ruth.SeeText("Pay a year");
        ruth.IsAccessible("a request");
        ruth.Press("n");
        ruth.SeeText("Why not");
        ruth.Write("Why not", "From which budget?");
        ruth.Button("Say it").Click();
        ruth.SeeText("Said.");
        ruth.Press(Keys.Escape);
        ruth.Press(Keys.ArrowDown);
        ruth.SeeText("From which budget?");
        ruth.Press("a");
        ruth.SeeText("Agreed.");
        ruth.SeeText("Nothing waits for your word.");

        callum.SeeNo("A change is asked for and waits:");
        callum.Link("Waiting").Click();
        callum.SeeText("done");
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open($"/people/{report}");
        orla.Until(() => orla.Field("Pay rate").GetAttribute("value") == "18.40", () => "the new rate");
    }

    [Fact]
    public void On_a_telephone_somebody_asks_for_a_fact_of_their_own_and_takes_it_back()
    {
        using var ines = Browser.SignedIn(firm.Server.Address, "ines");
        ines.Resize(390, 800);
        ines.Script("document.querySelector('details summary').click()");
        ines.Link("Your record").Click();
        ines.Write("Family name", "Varga-Nemeth");
        ines.SeeText("has to agree.");
        ines.Write("Why, for those who are asked", "Married");
        ines.Button("Fix").Click();
        ines.Button("Ask").Click();
        ines.SeeText("Asked. It waits for");
        ines.Link("Waiting").Click();
        ines.SeeText("Varga-Nemeth");
        ines.Script("document.querySelector('[data-id]').click()");
        ines.SeeText("Take back");
        ines.IsAccessible("what one asked for, on a telephone");
        ines.Button("Take back").Click();
        ines.SeeText("taken back");
    }

    [Fact]
    public void Approvals_are_drafted_and_tried_beside_the_fields()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/fields");
        piet.SeeText("95 fields in 8 sections.");
        piet.Button("Approvals").Click();
        piet.SeeText("Nobody has to agree to anything so far.");
        piet.Button("Add an approval").Click();
        piet.SeeText("“New approval” asks about no field. Choose at least one.");
        piet.Pick("About changes of", "pay r", "Pay rate");
        piet.SeeNo("asks about no field");
        piet.Pick("On the record of", "ines", "Ines Varga");
        piet.Write("New value", "19");
        piet.IsAccessible("approvals");
        piet.Button("Who is asked?").Click();
        piet.SeeText("If you asked for it, these would be asked:");
    }
}
