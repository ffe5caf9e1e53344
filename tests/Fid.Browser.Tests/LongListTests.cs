using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Lists of hundreds lay out what is in sight, and are walked through as if all of it were there.</summary>
public class LongListTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task Of_hundreds_of_arrivals_those_in_sight_are_in_the_page_and_keys_reach_all_of_them()
    {
        using (var caller = await firm.As("orla"))
            foreach (var part in new[] { 0, 110 })
            {
                var hires = Enumerable
                    .Range(part, 110)
                    .Select(i => new
                    {
                        id = Guid.CreateVersion7(),
                        template = "deckhand",
                        start = "2027-06-07",
                        typed = new
                        {
                            given_name = $"Row{i:000}",
                            family_name = $"Zz{i:000}",
                            email = $"row{i}@example.org",
                            site = "skerry",
                        },
                    });
                using var opened = await caller.SendAsync("POST", "/api/hires/many", new { hires });
                opened.IsSuccessStatusCode.ShouldBeTrue(await opened.Content.ReadAsStringAsync());
            }
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.SeeText("arriving or settling in.");
        var all = Number(orla.Script("return document.querySelector('[role=grid]').ariaRowCount")) - 1;
        all.ShouldBeGreaterThan(220);
        Rows(orla).ShouldBeLessThan(60);

        // The whole is as long as its rows, so that the end can be scrolled to.
        orla.Script("window.scrollTo(0, document.documentElement.scrollHeight)");
        orla.SeeText("Row219 Zz219");
        Rows(orla).ShouldBeLessThan(60);

        // From the last row upwards by keys, further than was laid out; the row with the focus is in sight each time.
        orla.Press(Keys.Up);
        for (var i = 0; i < 40; i++)
            orla.Press(Keys.Up);
        orla.Until(() => Focused(orla).StartsWith("Row179 Zz179", StringComparison.Ordinal), () => Focused(orla));
        orla.Until(
            () => orla.Script(Where) is true,
            () => orla.Script(Where.Replace("return", "return [r.top, r.bottom, window.innerHeight].join() ||", StringComparison.Ordinal)) as string ?? ""
        );
        orla.IsAccessible("Arrivals of hundreds");

        // Scrolled out of sight, it keeps the focus.
        orla.Script("window.scrollTo(0, 0)");
        orla.SeeText(orla.Script("return document.querySelector('[aria-rowindex=\"2\"] a').textContent") as string ?? "no first row");
        Focused(orla).ShouldStartWith("Row179 Zz179");
    }

    private const string Where = "const r = document.activeElement.getBoundingClientRect(); return r.top >= 0 && r.bottom <= window.innerHeight";

    private static long Number(object? value) => long.Parse(value!.ToString()!, null);

    private static long Rows(Browser browser) => Number(browser.Script("return document.querySelectorAll('.hire').length"));

    private static string Focused(Browser browser) => browser.Script("return document.activeElement.innerText") as string ?? "";
}
