using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>What a record says of pay while somebody types.</summary>
public class PayTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void The_first_pay_opens_its_working_and_follows_what_is_typed()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Tomasz Brandt").Click();
        orla.Link("Record").Click();
        orla.SeeText("First pay Fri 26 Mar, cut-off Mon 22 Mar");
        orla.SeeText("€938.72");
        orla.SeeNo("4 % of BASE");
        orla.Button("Island allowance").Click();
        orla.SeeText("4 % of BASE (1044.00): 4 % of 1044.00 = 41.76.");
        orla.IsAccessible("a record with its first pay");

        orla.Write("Pay rate", "20");
        // What was opened stays open.
        orla.SeeText("4 % of BASE (1200.00): 4 % of 1200.00 = 48.00.");
        orla.SeeText("€1,200.00");
        orla.Resize(390, 844, dark: true);
        orla.IsAccessible("the same on a telephone in the dark");
    }

    [Fact]
    public void Pay_above_the_band_is_saved_once_it_is_said_why()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Tomasz Brandt").Click();
        orla.Link("Record").Click();
        orla.Until(() => orla.ValueOf("Pay rate") == "17.40");
        orla.Write("Pay rate", "23");
        orla.SeeText("above the band");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Say which it is, then it is saved.");
        orla.Press(Keys.Enter);
        orla.SeeAt("Why", "lies outside the band of C2, 30000.00 to 42000.00. Say why.");
        orla.Focus().ShouldBe("change-why");
        orla.Press("eleven seasons elsewhere");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Saved.");
        orla.Until(() => orla.ValueOf("Pay rate") == "23.00");
        orla.Link("History").Click();
        orla.SeeText("eleven seasons elsewhere");
    }

    [Fact]
    public void A_newcomer_outside_the_band_is_opened_once_somebody_says_why()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.SeeText("arriving or settling in.");
        orla.Press("n");
        foreach (var (label, text) in new[] { ("Given name", "Outer"), ("Family name", "Bandsworth"), ("E-mail", "outer@example.org"), ("Start", "+60wd") })
            orla.Write(label, text);
        orla.Pick("Role template", "deck", "Deckhand");
        orla.Pick("Site", "skerry", "Skerry Pier");
        orla.Until(() => orla.ValueOf("Pay rate") == "17.40");
        orla.Write("Pay rate", "23");
        orla.Chord(Keys.Control, "s");
        orla.SeeAt("Why this pay (kept with the hire)", "lies outside the band of C2, 30000.00 to 42000.00. Say why.");
        orla.Focus().ShouldBe("new-why");
        orla.Press("eleven seasons elsewhere");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Outer Bandsworth");
        orla.SeeAddress("/hires/");
        orla.Link("History").Click();
        orla.SeeText("eleven seasons elsewhere");
    }
}
