using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>A role of the firm's own: made, given for a time, and working for somebody who did nothing but go on.</summary>
public class RoleTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void A_new_role_works_for_somebody_within_a_minute_of_its_grant()
    {
        using var nils = Browser.SignedIn(firm.Server.Address, "nils");
        nils.SeeAddress("/tasks");
        nils.SeeNo("Templates");
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/admin/roles");
        piet.SeeText("Seven roles ship with Fid.");
        piet.IsAccessible("roles");
        piet.Press("a");
        piet.SeeText("Known to fields and files as new-role");
        piet.Write("Name", "Template reader");
        piet.Pick("Add a right", "see templ", "See templates");
        piet.SeeText("See templates");
        piet.IsAccessible("a role");
        piet.PressLast("Close");
        piet.SeeText("Seven roles ship with Fid, and one is your own.");
        piet.SeeText("Nothing of this is live yet.");
        piet.Button("What it gives and takes").Click();
        piet.SeeText("new, held by nobody yet");
        piet.IsAccessible("what a role gives and takes");
        piet.Button("Make it live").Click();
        piet.SeeText("Version 1 is live.");
        piet.SeeNo("Nothing of this is live yet.");

        piet.Open("/admin");
        piet.Button("Nils Aakre").Click();
        piet.SeeText("For a time");
        piet.Choose("Role", "Template reader");
        piet.Write("Until", "30 June 2027");
        piet.Press(OpenQA.Selenium.Keys.Tab);
        piet.Until(() => piet.Button("Give it").Enabled, () => "a date that is read");
        piet.Button("Give it").Click();
        piet.SeeText("Given. It counts on its days.");
        piet.SeeText("until Wed 30 Jun");
        piet.IsAccessible("an account with a role for a time");
        nils.Link("Templates").Click();
        nils.SeeText("Deckhand");

        piet.Button("End: Template reader, until Wed 30 Jun").Click();
        piet.SeeText("Ended. It is gone at once.");
        nils.SeeText("There is nothing here, or nothing you may see.");
        nils.SeeNo("Deckhand");
    }

    [Fact]
    public void Who_may_what_is_explained_and_seen_through_their_eyes()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/admin/roles");
        piet.Button("Who may").Click();
        // All who can sign in: everybody who works here opens their own.
        piet.SeeText("9 people may.");
        piet.SeeText("as Everybody here: oneself");
        piet.SeeText("by rule, works here");
        piet.SeeText("as Manager: who reports to them");
        piet.SeeText("as Newcomer: oneself");
        piet.Pick("What", "edit pay rate", "Edit “Pay rate”");
        piet.SeeText("3 people may.");
        piet.IsAccessible("rights explained");
        piet.Open("/admin");
        piet.Button("Callum Reyes").Click();
        piet.Button("See Fid as they do").Click();
        piet.SeeText("You see Fid as Callum Reyes does. Nothing can be changed.");
        piet.SeeAddress("/arrivals");
        piet.SeeNo("Admin");
        piet.IsAccessible("looking as somebody else");
        piet.Button("Back to yourself").Click();
        piet.SeeAddress("/admin");
        piet.SeeNo("You see Fid as");
        piet.Complaints().ShouldBeEmpty();
    }
}
