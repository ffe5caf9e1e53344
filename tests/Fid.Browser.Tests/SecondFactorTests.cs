using Fid.Testing;
using OtpNet;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>A second factor, from adding it to being asked again, as people meet it.</summary>
public class SecondFactorTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void An_authenticator_is_added_and_asked_for_at_signing_in_and_before_a_sheet_is_taken_out()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/account");
        orla.SeeText("There is none so far.");
        orla.Button("Add an authenticator").Click();
        orla.SeeText("Scan this with your authenticator, or type in the key.");
        orla.IsAccessible("adding an authenticator");
        var key = ((string)orla.Script("return document.querySelector('code').textContent")!).Replace(" ", "", StringComparison.Ordinal);
        orla.Write("Code", Code(key));
        orla.Button("Add it").Click();
        orla.SeeText("They are shown this once");
        orla.IsAccessible("recovery codes");
        orla.Button("I have kept them").Click();
        orla.SeeText("10 recovery codes are left.");

        using var again = new Browser(firm.Server.Address);
        again.Open("/people");
        again.Write("E-mail", "orla@halyard.example");
        again.Write("Password", Caller.Password);
        again.Button("Sign in").Click();
        again.SeeText("Prove that it is you");
        again.IsAccessible("the second step of signing in");
        again.Write("Code of your authenticator, or a recovery code", "000 000");
        again.Button("Go on").Click();
        again.SeeText("This code is not right, or was used before.");
        again.Write("Code of your authenticator, or a recovery code", Code(key, 30));
        again.Button("Go on").Click();
        again.SeeAddress("/people");
    }

    [Fact]
    public async Task A_passkey_is_added_used_and_asked_for_again()
    {
        var named = new UriBuilder(firm.Server.Address) { Host = "localhost" }.Uri;
        using var ruth = Browser.SignedIn(named, "ruth");
        ruth.TakePasskeys();
        ruth.Open("/account");
        ruth.Button("Add a passkey").Click();
        ruth.Write("What to call it", "Payroll desk");
        ruth.Button("Add it").Click();
        ruth.SeeText("Recovery codes");
        ruth.Button("I have kept them").Click();
        ruth.SeeText("Payroll desk");
        ruth.Script("document.querySelector('details summary').click()");
        ruth.Button("Sign out").Click();
        ruth.SeeAddress("/sign-in");
        ruth.Write("E-mail", "ruth@halyard.example");
        ruth.Write("Password", Caller.Password);
        ruth.Button("Sign in").Click();
        ruth.Button("Use a passkey").Click();
        ruth.SeeText("Arrivals");

        // A sealed value is revealed with a fresh proof only, and what was asked for then goes on.
        await firm.Database.AskAsync("update user_sessions set proved_at = proved_at - interval '11 minutes' where proved_at is not null returning 1");
        ruth.Open("/account");
        ruth.Button("Make new recovery codes").Click();
        ruth.SeeText("Prove once more that it is you");
        ruth.IsAccessible("proving once more");
        ruth.Button("Use a passkey").Click();
        ruth.SeeText("They are shown this once");
        ruth.SeeNo("Prove once more that it is you");
    }

    [Fact]
    public void A_role_asks_for_a_factor_and_whoever_holds_it_adds_one_before_anything_else()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        using var nils = Browser.SignedIn(firm.Server.Address, "nils");
        nils.SeeAddress("/tasks");
        piet.Open("/admin/roles");
        piet.Button("Task owner").Click();
        piet.Checkbox("Its holders prove by a second factor").Click();
        piet.PressLast("Close");
        // Told of what is saved.
        piet.SeeText("Saved by Piet Haverkort");
        piet.Button("What it gives and takes").Click();
        piet.SeeText("Task owner: asked for a second factor from then on");
        piet.Button("Make it live").Click();
        piet.SeeText("is live.");
        nils.Open("/tasks");
        nils.SeeText("Your role asks for a second factor");
        nils.IsAccessible("adding the factor a role asks for");
        nils.Button("Add an authenticator").Click();
        nils.SeeText("Scan this");
        var key = ((string)nils.Script("return document.querySelector('code').textContent")!).Replace(" ", "", StringComparison.Ordinal);
        nils.Write("Code", Code(key));
        nils.Button("Add it").Click();
        nils.Button("I have kept them").Click();
        nils.SeeAddress("/tasks");
        key.Length.ShouldBe(32);
    }

    private static string Code(string key, int ahead = 0) => new Totp(Base32Encoding.ToBytes(key)).ComputeTotp(DateTime.UtcNow.AddSeconds(ahead));
}
