using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Forms of an offer compared, and one taken over.</summary>
public class OfferTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void Forms_are_compared_side_by_side_and_one_is_taken_over_once_it_is_said_why()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Tomasz Brandt").Click();
        orla.Link("Record").Click();
        orla.Link("Compare offers").Click();
        orla.SeeText("Offer to Tomasz Brandt");
        orla.SeeIn("Form A", "€938.72");
        orla.Button("Take A over").Enabled.ShouldBeFalse("nothing of it is new");
        Type("offer-1-rate", "19,50");
        orla.SeeIn("Form B", "€30,420.00");
        orla.SeeIn("Form A", "€27,144.00");
        Type("offer-1-rate", "much");
        orla.SeeText("Enter a number, such as 17.40.");
        Type("offer-1-rate", "23");
        orla.SeeIn("Form B", "above");
        orla.IsAccessible("forms of an offer");
        orla.Resize(390, 844, dark: true);
        orla.IsAccessible("forms of an offer on a telephone in the dark");
        orla.Resize(1280, 800);

        // What is typed outlives the page.
        orla.Reload();
        orla.Until(() => orla.Id("offer-1-rate").GetDomProperty("value") == "23");
        orla.Button("Take B over").Click();
        orla.SeeText("lies outside the band of C2");
        orla.Id("offer-why").SendKeys("eleven seasons elsewhere");
        orla.Button("Take B over").Click();
        orla.SeeText("Taken over into the record.");
        orla.SeeAddress("/people/");
        orla.Until(() => orla.ValueOf("Pay rate") == "23.00");

        void Type(string id, string text)
        {
            orla.Id(id).SendKeys(Keys.Control + "a");
            orla.Id(id).SendKeys(text);
        }
    }
}
