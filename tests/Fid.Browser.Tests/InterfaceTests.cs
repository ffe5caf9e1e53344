using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>What holds for every page: what it may run, and the language it speaks.</summary>
public class InterfaceTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void A_page_runs_nothing_that_it_did_not_come_with()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.SeeText("Arrivals");
        // As an injected text would: a script in the page, a handler at an image, one from elsewhere.
        orla.Script("const s = document.createElement('script'); s.textContent = 'window.injected = 1'; document.body.append(s)");
        orla.Script("const d = document.createElement('div'); d.innerHTML = '<img src=x onerror=\"window.injected = 2\">'; document.body.append(d)");
        orla.Script(
            "const s = document.createElement('script'); s.src = 'https://127.0.0.1:9/x.js'; s.onerror = () => window.refused = 1; document.body.append(s)"
        );
        orla.Until(() => Equals(orla.Script("return window.refused"), 1L));
        orla.Script("return window.injected ?? null").ShouldBeNull();
    }

    [Fact]
    public void Another_language_is_spoken_everywhere_at_once_and_after_a_reload()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/lists");
        piet.SeeText("What hires, records and templates choose from.");
        piet.Open("/account");
        piet.SeeText("Change your password");
        Speak(piet, "de");
        piet.SeeText("Ihr Passwort ändern");
        piet.Link("Listen").Click();
        piet.SeeNo("What hires, records and templates choose from.");
        piet.Script("return document.documentElement.lang").ShouldBe("de");
        piet.Reload();
        piet.SeeText("Listen");
        piet.Open("/account");
        piet.SeeText("Ihr Passwort ändern");
        Speak(piet, "en");
        piet.SeeText("Change your password");
        piet.Complaints().ShouldBeEmpty();
    }

    private static void Speak(Browser browser, string language) =>
        browser.Script(
            "const s = document.querySelector('main select'); s.value = arguments[0]; s.dispatchEvent(new Event('change', { bubbles: true }))",
            language
        );
}
