using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>What a record held: before, after, and as it was believed in between.</summary>
public class HistoryTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task A_change_entered_late_is_read_before_after_and_as_believed_in_between()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        // Halyna leads Rigging; what the record says was entered when the demonstration was loaded, long before what follows.
        var id = (string)(await firm.Database.AskAsync("select employment_id::text from records_now where family_name = 'Bondar' and given_name = 'Halyna'"))!;
        await firm.Database.AskAsync(
            $"set session_replication_role = replica; update record_values set known = tstzrange('2026-01-01', null) where owner_id = '{id}' "
                + "and field = 'department'"
        );
        orla.Open($"/people/{id}");
        orla.Pick("Department", "shipwr", "Shipwrights");
        orla.Button("From").Click();
        orla.Write("From", "2026-10-01");
        orla.Field("From").SendKeys(Keys.Tab);
        orla.Write("Why", "Moved in October, told today");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Saved.");
        orla.NoteOf("Department").ShouldBe("typed");

        orla.Link("History").Click();
        orla.Heading("Two dates side by side");
        // Before and after, as known now.
        Ask(orla, "2026-09-30", "", "2026-10-02", "");
        orla.SeeText("Rigging");
        Differences(orla).ShouldContain("Department Rigging Shipwrights");
        // Before and after, as it was believed while nobody had told.
        Ask(orla, "2026-09-30", "2026-10-15", "2026-10-02", "2026-10-15");
        orla.SeeText("Nothing differs between the two.");
        // The same day, as believed then and as known now.
        Ask(orla, "2026-10-02", "2026-10-15", "2026-10-02", "");
        orla.Until(() => Differences(orla).Contains("Department Rigging Shipwrights"), () => string.Join("; ", Differences(orla)));
        orla.IsAccessible("History");

        // Taken back, which is itself recorded.
        orla.SeeText("Moved in October, told today");
        orla.Button("Take back").Click();
        orla.Write("Why", "It was somebody else");
        orla.Script("[...document.querySelector('#change-why').closest('li').querySelectorAll('button')].at(-1).click()");
        orla.SeeText("Taken back.");
        orla.SeeText("took a change back");
        Ask(orla, "2026-09-30", "", "2026-10-02", "");
        orla.SeeText("Nothing differs between the two.");
        orla.Complaints().ShouldBeEmpty();
    }

    private static void Ask(Browser browser, string on, string known, string with, string withKnown)
    {
        foreach (var (field, day) in new[] { ("compare-on", on), ("compare-known", known), ("compare-with", with), ("compare-with-known", withKnown) })
        {
            var input = browser.Id(field);
            input.SendKeys(Keys.Control + "a");
            input.SendKeys(Keys.Delete);
            input.SendKeys(day + Keys.Tab);
        }
    }

    private static string[] Differences(Browser browser) =>
        browser.Script(
            """
            return [...document.querySelectorAll('section:first-of-type tbody tr')].map((r) => [...r.children].map((c) => c.textContent.trim()).join(' '));
            """
        )
            is IEnumerable<object> rows
            ? [.. rows.Cast<string>()]
            : [];
}
