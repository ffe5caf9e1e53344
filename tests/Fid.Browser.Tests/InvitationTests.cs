using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Newcomers who are invited, in a firm of their own: others count who was.</summary>
public class InvitationTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void A_newcomer_is_invited_from_their_record()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/arrivals");
        piet.Row("Tomasz Brandt").Click();
        piet.Press(OpenQA.Selenium.Keys.Enter);
        piet.Link("Record ").Click();
        piet.SeeText("Has an account that sleeps.");
        piet.Link("Invite").Click();
        piet.SeeAddress("/admin");
        piet.Until(() => piet.ValueOf("Name") == "Tomasz Brandt" && piet.ValueOf("E-mail, to sign in with").Contains('@', StringComparison.Ordinal));
        piet.PressLast("Invite");
        piet.SeeText("Give Tomasz Brandt this link");
    }
}
