using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

public sealed class TmpTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task Pictures()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        await Roles.GrantAsync(piet, "orla", "administrator", to: "2027-12-31");
        await Roles.MakeLiveAsync(piet, Roles.OfSite("site-lead", "skerry"));
        await Roles.GrantAsync(piet, "nils", "site-lead", to: "2027-06-30");
        var wide = Roles.Of(
            "site-lead",
            """{"do":"see","on":"record","reach":{"site":"skerry"} },{"do":"see","on":"section:pay","reach":{"site":"skerry"} },{"do":"see","on":"people","reach":"all"}""",
            """{"id":"deck","label":"Deck crew","when":"job == 'deckhand'","roles":["site-lead"]}"""
        );
        await Roles.SaveAsync(piet, wide);
        using var browser = Browser.SignedIn(firm.Server.Address, "piet");
        browser.Open("/admin/roles");
        browser.SeeText("site-lead");
        browser.Picture("/tmp/s/r1.png");
        browser.Script("document.querySelectorAll('thead button')[6].click()");
        browser.SeeText("Add a right");
        browser.Picture("/tmp/s/r2.png");
        browser.Script("[...document.querySelectorAll('button')].find(b => b.textContent.trim() === 'Close').click()");
        browser.Script("[...document.querySelectorAll('button')].find(b => b.textContent.includes('What it gives and takes')).click()");
        browser.SeeText("By person");
        browser.Picture("/tmp/s/r3.png");
        browser.Script("[...document.querySelectorAll('button')].find(b => b.textContent.trim().startsWith('Cancel')).click()");
        browser.Script("[...document.querySelectorAll('button')].find(b => b.textContent.includes('Who may')).click()");
        browser.SeeText("people may");
        browser.Picture("/tmp/s/r4.png");
    }
}
