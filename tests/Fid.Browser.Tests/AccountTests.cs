using Xunit;

namespace Fid.Browser.Tests;

/// <summary>From an invitation to the first task done: an administrator at a desk, and whoever they invite on a telephone.</summary>
public class AccountTests(PageFixture firm) : IClassFixture<PageFixture>
{
    private const string Password = "ladders rope quietly harbours";

    [Fact]
    public void A_task_owner_who_is_invited_sets_a_password_and_ticks_a_task()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/admin");
        piet.SeeText("9 people can sign in.");
        piet.Press("i");
        piet.Write("Name", "Tove Lindqvist");
        piet.Write("E-mail, to sign in with", "nils@halyard.example");
        piet.PressLast("Invite");
        piet.SeeAt("E-mail, to sign in with", "Another account signs in with this address.");
        piet.SeeText("Choose at least one role.");
        piet.IsAccessible("an invitation with errors");
        piet.Write("E-mail, to sign in with", "tove@halyard.example");
        piet.Checkbox("Task owner").Click();
        piet.SeeText("A task owner without a team has only the tasks that name them.");
        piet.Pick("Teams whose tasks they do", "stor", "Stores");
        piet.PressLast("Invite");
        piet.SeeText("It is shown this once");
        piet.IsAccessible("a link to give");
        var link = piet.Part("Give Tove Lindqvist this link").GetDomProperty("value")!;
        piet.Button("Done").Click();
        piet.SeeText("One was invited and has not come yet.");

        using var tove = new Browser(firm.Server.Address);
        tove.Resize(390, 844);
        tove.Open(new Uri(link).PathAndQuery + new Uri(link).Fragment);
        tove.SeeText("Tove Lindqvist, you are invited to Fid at Halyard Sound Ferries.");
        tove.Write("Your password", Password);
        tove.Write("The same once more", "another one entirely");
        tove.Button("Set it and sign in").Click();
        tove.SeeAt("The same once more", "The two are not the same.");
        tove.IsAccessible("an invitation, telephone");
        tove.Write("The same once more", Password);
        tove.Button("Set it and sign in").Click();
        tove.SeeAddress("/tasks");
        tove.Button("Done: Order radio, Tomasz Brandt").Click();
        tove.SeeText("Order radio is done.");

        using var late = new Browser(firm.Server.Address);
        late.Open(new Uri(link).PathAndQuery + new Uri(link).Fragment);
        late.SeeText("This link opens nothing any more.");
        late.IsAccessible("a link that is spent");

        piet.Reload();
        piet.SeeText("10 people can sign in.");
        piet.Button("Tove Lindqvist").Click();
        piet.SeeText("Signed in at one place now.");
        piet.Button("Disable").Click();
        piet.SeeText("Tove Lindqvist cannot sign in any more.");
        tove.Reload();
        tove.SeeAddress("/sign-in");
    }
}
