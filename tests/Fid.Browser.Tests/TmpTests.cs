using OpenQA.Selenium;
using Xunit;
namespace Fid.Browser.Tests;
public class TmpTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task Look()
    {
        using var b = Browser.SignedIn(firm.Server.Address, "orla");
        var id = (string)(await firm.Database.AskAsync("select r.employment_id::text from records_now r join record_values v on v.owner_id = r.person_id where v.field = 'certificates.kind' order by r.family_name limit 1"))!;
        b.Open($"/people/{id}");
        b.SeeText("Certificates");
        b.Script("document.getElementById('section-certificates').scrollIntoView()");
        b.Picture("/tmp/s/r1.png");
        b.Script("document.getElementById('field-certificates').click()");
        Thread.Sleep(500);
        b.Picture("/tmp/s/r2.png");
    }
}
