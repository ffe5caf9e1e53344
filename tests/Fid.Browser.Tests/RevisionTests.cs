using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>A coordinator raises the pay of a group, having seen of each what it comes to.</summary>
public class RevisionTests(PageFixture firm) : IClassFixture<PageFixture>
{
    private const string Rates =
        "select string_agg(owner_id || ' ' || value || ' ' || effective, ',' order by owner_id, effective) from record_values "
        + "where field = 'pay_rate' and upper_inf(known)";

    [Fact]
    public async Task The_pay_of_all_deckhands_is_raised_from_a_day_and_as_it_was_with_one_press_more()
    {
        var before = await firm.Database.AskAsync(Rates);
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("People").Click();
        orla.Link("Pay revision").Click();
        orla.SeeText("Whose pay rises, by how much, and from when?");
        orla.Pick("Job", "deck", "Deckhand");
        orla.Write("Rise in percent", "two");
        orla.SeeAt("Rise in percent", "Enter a number such as 2.5.");
        orla.Write("Rise in percent", "2,5");
        orla.Write("At least, an hour", "0.40");
        orla.SeeText("are paid more from Thu 1 Apr.");
        orla.SeeText("% of what they are paid now.");
        orla.IsAccessible("a revision of pay that is looked at");
        orla.Button("Raise the pay of ").Click();
        orla.SeeText("Say why pay is revised");
        (await firm.Database.AskAsync(Rates)).ShouldBe(before);
        orla.Id("revision-why").SendKeys("the spring round");
        orla.Button("Raise the pay of ").Click();
        orla.SeeText(" is raised.");
        orla.SeeText("Deckhand: + 2.5 %, at least 0.40 an hour, up to the band");
        (await firm.Database.AskAsync(Rates)).ShouldNotBe(before);
        // It stands in everybody's history, and on the record from the day.
        orla.Button("Undo the revision from Thu 1 Apr").Click();
        orla.SeeText("Everybody is paid as before.");
        orla.SeeText("undone by Orla Dunmore");
        (await firm.Database.AskAsync(Rates)).ShouldBe(before);
        orla.Press(Keys.Escape);
        orla.SeeAddress("/people");
    }

    [Fact]
    public void What_was_typed_is_kept_and_can_be_looked_through_on_a_telephone_in_the_dark()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/people/pay-revision");
        orla.Write("Rise in percent", "9");
        orla.SeeText("are paid more from");
        orla.Reload();
        orla.Resize(390, 844, dark: true);
        orla.SeeText("are paid more from");
        orla.ValueOf("Rise in percent").ShouldBe("9");
        orla.Button("Up to the band ").Click();
        orla.SeeText("up to the band");
        orla.IsAccessible("a revision of pay on a telephone in the dark");
        // Nothing that is left: whoever may not change pay has no way here.
        using var ruth = Browser.SignedIn(firm.Server.Address, "ruth");
        ruth.Open("/people");
        ruth.SeeText("Pay check");
        ruth.SeeNo("Pay revision");
    }
}
