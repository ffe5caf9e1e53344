using Fid.Testing;
using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>A newcomer's whole way, from the day their hire is opened to the day they have settled: three people sign in for it, mail tells them, and the
/// server is started anew between.</summary>
public class SettledTests(PageFixture firm) : IClassFixture<PageFixture>
{
    private const string Newcomer = "Liv Holt";

    // What is to be done of it by three people; the rest does not apply here.
    private static readonly string[] Kept = ["contract-send", "kit", "meet", "week-talk", "confirm"];

    [Fact]
    public async Task Three_people_bring_a_newcomer_from_the_opening_to_settled_with_mail_and_a_restart_between()
    {
        // Of its own: another server, whose day is another, would do its part of the work.
        await using var database = await TestDatabase.CloneAsync();
        await using var mail = new StandInMail();
        string hire;
        await using (var server = new FidInstance(database.Connection, Repository.WebBuild, settings: mail.Settings))
        {
            using var orla = Browser.SignedIn(server.Address, "orla");
            hire = Open(orla);
            using (var caller = await Caller.SignedInAsync(server.Address, "orla"))
                await SkipOthersAsync(caller, hire);
            orla.Link("Checklist 0/");
            orla.Row("Send the contract").Click();
            orla.Press("d");
            orla.SeeText("Send the contract is done.");
            orla.Row("Locker and kit").Click();
            orla.Button("Remind Stores").Click();
            orla.SeeText("Who does Locker and kit is written to.");
        }
        // What was written before the server ended has come, by whichever server.
        await using var again = new FidInstance(database.Connection, Repository.WebBuild, TestDatabase.Today.PlusDays(100), settings: mail.Settings);
        (await LetterAsync(mail, "Orla Dunmore asks you for this")).ShouldContain($"Locker and kit, for {Newcomer}");
        // And by itself, on the day.
        (await LetterAsync(mail, "Late")).ShouldContain($"Locker and kit, for {Newcomer}");

        using (var nils = Browser.SignedIn(again.Address, "nils"))
        {
            nils.Open("/tasks");
            nils.Button($"Done: Locker and kit, {Newcomer}").Click();
            nils.SeeText("Locker and kit is done.");
        }
        using (var callum = Browser.SignedIn(again.Address, "callum"))
        {
            callum.Open("/tasks");
            callum.Button($"Done: Meet at the pier, {Newcomer}").Click();
            // The gate that it waited for passes by itself, and with it the next can be begun.
            callum.Button($"Done: One-week talk, {Newcomer}").Click();
            callum.SeeText("One-week talk is done.");
        }
        using var last = Browser.SignedIn(again.Address, "orla");
        last.Open($"/hires/{hire}/checklist");
        last.Row("Confirm the appointment").Click();
        last.Press("d");
        last.SeeText("This is the checklist as it was then.");
        last.Open("/arrivals");
        last.SeeText("Tomasz Brandt");
        last.SeeNo(Newcomer);
    }

    [Fact]
    public async Task The_flag_is_put_on_another_day_to_see_what_that_does()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        var hire = await firm.Database.AskAsync("select h.id from hires h join records_now r using (employment_id) where r.family_name = 'Brandt'");
        orla.Open($"/hires/{hire}/checklist");
        orla.SeeText("Order radio holds it up");
        orla.Drag("[data-testid=flag]", 90);
        orla.SeeText("later");
        orla.ValueOf("New start").ShouldNotBe("Mon 8 Mar");
        // Nothing has moved: it is tried.
        orla.Press(Keys.Escape);
        orla.SeeText("starts Mon 8 Mar");
    }

    // What Nils was written to about it, once it has come.
    private static async Task<string> LetterAsync(StandInMail mail, string about)
    {
        for (var count = 1; ; count++)
        {
            var caught = await mail.CaughtAsync(count);
            count = caught.Count;
            foreach (var letter in caught.Where(m => m.To == "nils@halyard.example" && m.Text.Contains(about, StringComparison.Ordinal)))
                if (letter.Text.Contains(Newcomer, StringComparison.Ordinal))
                    return letter.Text;
        }
    }

    // As the coordinator opens it, a week ahead.
    private static string Open(Browser orla)
    {
        orla.SeeText("arriving or settling in.");
        orla.Press("n");
        orla.Field("Given name").SendKeys("Liv");
        orla.Field("Family name").SendKeys("Holt");
        orla.Field("E-mail").SendKeys("liv.holt@example.org");
        orla.Pick("Role template", "deck", "Deckhand");
        orla.Field("Start").SendKeys("+5wd" + Keys.Tab);
        orla.Until(() => orla.ValueOf("Start") == "Mon 8 Mar");
        orla.Pick("Site", "skerry", "Skerry Pier");
        orla.SeeText("Not ready by Mon 8 Mar.");
        orla.Until(() => orla.ValueOf("Manager") == "Callum Reyes");
        orla.Chord(Keys.Control, "s");
        orla.SeeAddress("/hires/");
        orla.Heading(Newcomer);
        return orla.Address.Split('/')[2];
    }

    private static async Task SkipOthersAsync(Caller orla, string hire)
    {
        var others = (await orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.AsArray().Select(t => t!.Text("key")).Except(Kept);
        using var skipped = await orla.SendAsync(
            "POST",
            "/api/tasks/skipped",
            new { tasks = others.Select(key => new { hire, key }).ToArray(), why = "She knows the house" }
        );
        skipped.IsSuccessStatusCode.ShouldBeTrue(await skipped.Content.ReadAsStringAsync());
    }
}
