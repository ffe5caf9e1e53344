using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Somebody goes away: who stands in has the tasks at once, and gives them back.</summary>
public class AwayTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void Whoever_stands_in_sees_the_tasks_while_somebody_is_away_and_no_longer()
    {
        using var eoin = Browser.SignedIn(firm.Server.Address, "eoin");
        eoin.Open("/tasks");
        eoin.SeeNo("You do the tasks of Nils Aakre");

        using var nils = Browser.SignedIn(firm.Server.Address, "nils");
        nils.Resize(390, 800);
        nils.Open("/tasks");
        nils.Button("Away?").Click();
        nils.SeeText("Mon 8 Mar to Fri 12 Mar, Thandiwe Maseko stands in");
        nils.Button("Enter").Click();
        nils.SeeText("Say from when.");
        nils.Write("First day", "1/3");
        nils.Write("Last day", "2/3");
        nils.Pick("Who stands in", "eoin", "Eoin Brannigan");
        nils.IsAccessible("when somebody is away");
        nils.Button("Enter").Click();
        nils.SeeText("You are away until Tue 2 Mar; Eoin Brannigan stands in.");

        // He is told without having asked again.
        eoin.SeeText("You do the tasks of Nils Aakre until Tue 2 Mar.");
        eoin.SeeText("Order radio");
        nils.Script("document.querySelector('button[aria-label^=\\'I am back\\']').click()");
        nils.SeeNo("You are away until");
        eoin.SeeNo("You do the tasks of Nils Aakre");
    }
}
