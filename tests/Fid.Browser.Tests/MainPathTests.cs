using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>The whole path, as the coordinator, a task owner and a newcomer walk it.</summary>
public class MainPathTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void From_a_role_template_to_a_running_checklist()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.SeeText("arriving or settling in.");
        var before = orla.Script("return document.querySelectorAll('.hire').length");

        // N, eight entries at most, one save.
        orla.Press("n");
        orla.Field("Given name").SendKeys("Liv");
        orla.Field("Family name").SendKeys("Østby-O'Hara");
        orla.Field("E-mail").SendKeys("liv@example.org");
        orla.Pick("Role template", "deck", "Deckhand");
        orla.Field("Start").SendKeys("+5wd" + Keys.Tab);
        orla.Until(() => orla.ValueOf("Start") == "Mon 8 Mar");
        orla.Pick("Site", "skerry", "Skerry Pier");
        orla.SeeText("Not ready by Mon 8 Mar.");
        (orla.ValueOf("Job"), orla.NoteOf("Job")).ShouldBe(("Deckhand", "Deckhand, v4"));
        (orla.ValueOf("Manager"), orla.NoteOf("Manager")).ShouldBe(("Callum Reyes", "head of the department"));
        (orla.ValueOf("Pay rate"), orla.NoteOf("Pay rate")).ShouldBe(("17.40", "Deckhand, v4"));
        (orla.ValueOf("Cost centre"), orla.NoteOf("Cost centre")).ShouldBe(("410 Skerry crews", "Skerry Pier, v1"));
        (orla.ValueOf("Holiday calendar"), orla.NoteOf("Holiday calendar")).ShouldBe(("Sound, islands", "from the site"));
        orla.NoteOf("Badge").ShouldBe("next free");
        orla.SeeText("6 typed");
        orla.Button("take it").Click();
        orla.SeeText("Everything can be ready by Fri 19 Mar.");
        orla.Chord(Keys.Control, "s");

        // The checklist opens; ticking moves readiness and what to chase.
        orla.SeeAddress("/hires/");
        orla.Heading("Liv Østby-O'Hara");
        orla.Link("Checklist 0/11");
        orla.Row("Send the contract").Click();
        orla.Press("d");
        orla.Link("Checklist 1/11");
        orla.Button("Undo").Click();
        orla.Link("Checklist 0/11");
        orla.Row("Send the contract").Click();
        orla.Press("d");
        orla.Link("Checklist 1/11");

        // Moving the start says what changes, before it is confirmed.
        orla.Button("Move start…").Click();
        orla.Write("New start", "2027-03-26");
        orla.Field("New start").SendKeys(Keys.Tab);
        orla.SeeText("7 days later");
        orla.SeeText("tasks change");
        orla.Button("Start on Fri 26 Mar").Click();
        orla.SeeText("starts Fri 26 Mar");

        // The record opens, and all of it survives a reload.
        orla.Link("Record").Click();
        orla.SeeAddress("/hires/");
        orla.Until(() => orla.ValueOf("Start") == "Fri 26 Mar");
        orla.ValueOf("Family name").ShouldBe("Østby-O'Hara");
        orla.Reload();
        orla.Until(() => orla.ValueOf("Given name") == "Liv");
        orla.Link("Arrivals").Click();
        orla.Until(() => (long)orla.Script("return document.querySelectorAll('.hire').length")! == (long)before! + 1);
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void A_second_browser_sees_a_ticked_task_at_once()
    {
        using var nils = Browser.SignedIn(firm.Server.Address, "nils");
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Adaeze Okafor").Click();
        orla.Link("Checklist 6/9");
        orla.Row("Uniform").Text.ShouldContain("done");
        nils.SeeText("things for you to do.");
        nils.Row("Order radio").FindElement(By.TagName("button")).Click();
        nils.SeeText("The chandler takes eight working days.");

        orla.Row("Uniform").Click();
        orla.Button("Not done after all").Click();
        nils.SeeText("Adaeze Okafor");
        nils.Button("Done: Uniform, Adaeze Okafor").Click();
        orla.Until(() => orla.Row("Uniform").Text.Contains("done", StringComparison.Ordinal));
        orla.Row("Uniform").Click();
        orla.SeeText("by Nils Aakre");
        nils.Button("Undo").Click();
        orla.Until(() => orla.Row("Uniform").Text.Contains("ready", StringComparison.Ordinal));
        nils.Button("Done: Uniform, Adaeze Okafor");
    }

    [Fact]
    public void A_record_is_saved_with_its_old_and_new_values_in_sight()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Ines Varga").Click();
        orla.Link("Record").Click();
        orla.Until(() => orla.ValueOf("Pay rate") == "17.40");
        orla.Write("Pay rate", "17,90");
        orla.SeeText("1 change");
        orla.SeeText("€34,905"); // the reading follows: 17.90 × 37.5 × 52
        orla.Write("Badge", "12a");
        // Not here yet, so that putting right what it begins with is the likelier; it is offered first, and has the focus.
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Say which it is, then it is saved.");
        orla.Script("return document.activeElement.textContent").ShouldBe("Fix");
        orla.Press(Keys.Enter);
        orla.SeeText("Enter 1 to 20 digits and nothing else.");
        orla.ValueOf("Pay rate").ShouldBe("17,90"); // nothing entered is lost
        orla.Write("Badge", "009999");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Saved.");
        orla.SeeNo("2 changes");
        orla.Until(() => orla.ValueOf("Pay rate") == "17.90" && orla.NoteOf("Pay rate") == "typed");
        orla.Field("Pay rate").SendKeys(Keys.Alt + Keys.ArrowDown);
        orla.Until(() => orla.NoteOf("Pay rate").Contains("by Orla Dunmore in the record", StringComparison.Ordinal));
    }

    [Fact]
    public void Two_who_save_one_record_see_both_versions_and_choose()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        foreach (var browser in new[] { orla, piet })
        {
            browser.Link("Saoirse Lind").Click();
            browser.Link("Record").Click();
            browser.Until(() => browser.ValueOf("Given name") == "Saoirse");
            browser.Unfold();
        }
        orla.Write("Town", "Corran");
        orla.Write("Street", "4 Slip Road");
        piet.Write("Town", "Little Brae");
        piet.Chord(Keys.Control, "s");
        piet.SeeText("Saved.");
        orla.Chord(Keys.Control, "s");
        orla.Heading("Somebody else saved this record in the meantime");
        orla.SeeText("Little Brae");
        orla.Until(() =>
            (bool)
                orla.Script(
                    "const r = document.querySelectorAll('[role=dialog] input[type=radio]'); if (r.length !== 2) return false; r[1].click(); return true"
                )!
        );
        orla.Button("Go on with these").Click();
        orla.SeeText("2 changes");
        orla.Chord(Keys.Control, "s");
        orla.Button("Fix").Click();
        orla.SeeText("Saved.");
        piet.Until(() => piet.ValueOf("Town") == "Corran" && piet.ValueOf("Street") == "4 Slip Road");
    }

    [Fact]
    public void Two_who_move_one_start_see_both_dates()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        foreach (var browser in new[] { orla, piet })
        {
            browser.Link("Jun Nakamura").Click();
            // Arrivals offers the same of the row that is selected.
            browser.SeeAddress("/hires/");
            browser.Button("Move start…").Click();
            browser.Write("New start", browser == orla ? "2027-03-29" : "2027-03-30");
            browser.Field("New start").SendKeys(Keys.Tab);
            browser.SeeText("days later");
        }
        piet.Button("Start on Tue 30 Mar").Click();
        piet.SeeText("starts Tue 30 Mar");
        orla.Button("Start on Mon 29 Mar").Click();
        orla.SeeText("It is now Tue 30 Mar. You chose Mon 29 Mar.");
        orla.Button("Keep theirs").Click();
        orla.SeeText("starts Tue 30 Mar");
    }

    [Fact]
    public void Everything_is_reached_by_keyboard()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Heading("F");
        orla.Chord(Keys.Control, "k");
        orla.SeeText("Places");
        // Whoever types quickly does not wait for the answer.
        orla.Press("okafor" + Keys.Enter);
        orla.Heading("Adaeze Okafor");
        orla.Press(Keys.ArrowDown + Keys.ArrowDown);
        orla.SeeText("Send the contract");
        orla.Press("e");
        orla.SeeAddress("/hires/");
        orla.Until(() => orla.ValueOf("Given name") == "Adaeze");
        orla.Press("?");
        orla.Heading("Keys");
        orla.SeeText("Where a field’s value came from");
        orla.Press(Keys.Escape);
        orla.SeeNo("All keys");
        orla.Chord(Keys.Control, "k");
        orla.Press("templ" + Keys.Enter);
        orla.SeeAddress("/templates");
    }

    [Fact]
    public void A_newcomer_and_a_manager_see_what_is_theirs()
    {
        using var ines = Browser.SignedIn(firm.Server.Address, "ines", 390, 844);
        ines.SeeText("Sea survival certificate");
        ines.SeeNo("Arrivals");
        using var callum = Browser.SignedIn(firm.Server.Address, "callum");
        callum.SeeText("Ines Varga");
        callum.SeeNo("Adaeze Okafor");
    }

    [Fact]
    public void The_interface_speaks_German()
    {
        using var ruth = Browser.SignedIn(firm.Server.Address, "ruth");
        ruth.Button("Ruth A.").Click();
        ruth.Button("Deutsch").Click();
        ruth.SeeText("kommen an oder leben sich ein.");
        ruth.SeeText("Mo 8. März");
        ruth.IsAccessible("Arrivals in German");
        ruth.Link("Personen").Click();
        ruth.SeeText("Name");
    }
}
