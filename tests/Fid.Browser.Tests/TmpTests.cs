using OpenQA.Selenium;
using Xunit;

namespace Fid.Browser.Tests;

public class TmpTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task Look()
    {
        using var b = Browser.SignedIn(firm.Server.Address, "orla");
        var id = (string)
            (
                await firm.Database.AskAsync(
                    "select r.employment_id::text from records_now r join record_values v on v.owner_id = r.person_id where v.field = 'certificates.kind' order by r.family_name limit 1"
                )
            )!;
        b.Open($"/people/{id}");
        b.SeeText("Certificates");
        b.Resize(390, 844);
        b.Script("document.getElementById('field-certificates').click()");
        Thread.Sleep(500);
        b.Script("document.getElementById('section-certificates').scrollIntoView()");
        b.Picture("/tmp/s/r3.png");
        b.Resize(1280, 800, dark: true);
        b.Script("document.getElementById('section-certificates').scrollIntoView()");
        Thread.Sleep(300);
        b.Picture("/tmp/s/r4.png");
        using var p = Browser.SignedIn(firm.Server.Address, "piet");
        p.Open("/fields");
        p.SeeText("Certificates");
        p.Id("row-certificates").Click();
        Thread.Sleep(800);
        p.Picture("/tmp/s/f1.png");
        p.Script(
            "[...document.querySelectorAll('button')].find(x => x.getAttribute('aria-label')?.startsWith('Open ') && x.textContent.trim() === 'Number')?.click()"
        );
        Thread.Sleep(500);
        p.Picture("/tmp/s/f2.png");
    }
}
