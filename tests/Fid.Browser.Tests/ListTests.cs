using Fid.Core.Lists;
using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Every list's editor: its main act, and one of its refusals.</summary>
public class ListTests(PageFixture firm) : IClassFixture<PageFixture>
{
    // What an entry of each list needs besides a code and a name; lists that need nothing are left out.
    private static readonly Dictionary<string, Action<Browser>> Needs = new()
    {
        ["sites"] = b =>
        {
            b.Write("Time zone", "europe/dublin");
            b.Pick("Holiday calendar", "sound, isl", "Sound, islands");
        },
        ["seats"] = b =>
        {
            b.Pick("Job", "DK-4", "Bosun");
            b.Pick("Department", "kombüse", "Galley");
        },
        ["payGroups"] = b => b.Pick("Holiday calendar", "shutdown", "Yard shutdown"),
        ["payComponents"] = b => b.Write("Amount", "12,50"),
        ["clockDevices"] = b => b.Pick("Group", "isl", "Islands"),
        ["choiceLists"] = b =>
        {
            b.Button("Add an option").Click();
            b.Fill("Value", "one");
        },
        ["shiftPatterns"] = b =>
        {
            b.Button("Add a shift").Click();
            b.Button("A day longer").Click();
            b.Write("Cycle begins", "2027-03-01");
            b.Press(Keys.Tab);
        },
    };

    [Fact]
    public void Every_list_takes_an_entry_and_refuses_a_missing_name_and_a_code_that_is_taken_at_their_fields()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        foreach (var list in ShippedLists.All)
        {
            orla.Open($"/lists/{list.Key}");
            orla.Heading(list.Label.En);
            orla.Press("a");
            orla.Heading($"Add to {list.Label.En}");
            orla.Write("Code", "ours");
            orla.Chord(Keys.Control, "s");
            orla.SeeAt("Name", "Fill this in.");
            orla.Write("Name", "Our own");
            Needs.GetValueOrDefault(list.Key)?.Invoke(orla);
            orla.Chord(Keys.Control, "s");
            orla.SeeAddress($"/lists/{list.Key}/ours");

            orla.Open($"/lists/{list.Key}/+");
            orla.Write("Code", " OURS ");
            orla.Write("Name", "Again");
            Needs.GetValueOrDefault(list.Key)?.Invoke(orla);
            orla.Chord(Keys.Control, "s");
            orla.SeeAt("Code", "The code ours is taken by Our own.");
            orla.ValueOf("Name").ShouldBe("Again");
            // Given up, so that leaving asks nothing.
            orla.Button("Discard").Click();
            orla.Heading(list.Label.En);
        }
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void A_branch_is_moved_by_dragging_and_by_keyboard_and_a_ring_is_refused()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/departments");
        orla.SeeText("led by");
        orla.Script(
            """
            const row = (name) => [...document.querySelectorAll('tr')].find((r) => r.textContent.includes(name));
            const data = new DataTransfer();
            row('Rigging').dispatchEvent(new DragEvent('dragstart', { bubbles: true, dataTransfer: data }));
            row('Safety').dispatchEvent(new DragEvent('dragover', { bubbles: true, cancelable: true, dataTransfer: data }));
            row('Safety').dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: data }));
            """
        );
        orla.SeeText("Rigging is now part of Safety.");
        orla.Button("Undo").Click();
        orla.SeeText("Rigging is now part of Yard.");
        orla.Open("/lists/departments/rigging");
        orla.Until(() => orla.ValueOf("Part of") == "Yard");

        orla.Open("/lists/departments");
        orla.Link("Yard");
        for (var i = 0; i < 30 && !orla.Script("return document.activeElement.textContent")!.ToString()!.StartsWith("Yard", StringComparison.Ordinal); i++)
            orla.Press(Keys.ArrowDown);
        orla.Press("e");
        orla.Heading("Yard");
        orla.Pick("Part of", "rigg", "Rigging");
        orla.Chord(Keys.Control, "s");
        orla.SeeAt("Part of", "This would close a ring");
        orla.Pick("Part of", "office", "Office");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Yard is saved.");
    }

    [Fact]
    public void A_pay_group_draws_its_next_twelve_periods_and_marks_what_a_holiday_moves()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/payGroups/crew");
        orla.SeeText("The next twelve periods");
        orla.SeeText("a day earlier for Spring holiday");
        orla.Fill("Pay day, days after the end", "1");
        orla.SeeText("moved from 3 May for Spring holiday");
        orla.Pick("Paid every", "week", "week");
        orla.Write("First period begins", "");
        orla.Press(Keys.Tab);
        orla.Chord(Keys.Control, "s");
        orla.SeeAt("First period begins", "Say on which day the first period begins");
    }

    [Fact]
    public void A_calendar_shows_its_year_as_it_is_edited_and_refuses_a_day_that_is_none()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/calendars/islands");
        orla.SeeText("254 working days, 9 holidays");
        orla.Button("Add a holiday").Click();
        orla.Fill("Holiday", "Easter Monday", 2);
        orla.Choose("Falls", "from Easter Sunday", 2);
        orla.Fill("Days after Easter Sunday", "1");
        orla.SeeText("Mon 29 Mar");
        orla.SeeText("253 working days, 10 holidays");
        orla.Choose("Falls", "every year on a day", 2);
        orla.Fill("Day", "31", 2);
        orla.Choose("Month", "February", 2);
        orla.Chord(Keys.Control, "s");
        orla.SeeText("is no day. Write 2027-05-17");
        orla.Choose("Falls", "a weekday of a month", 2);
        orla.Choose("Which", "last");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Sound, islands is saved.");
        orla.SeeText("Mon 22 Feb");
    }

    [Fact]
    public void A_shift_pattern_is_painted_by_keyboard_and_warns_of_weeks_that_are_too_long()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/shiftPatterns/office");
        orla.SeeText("37.5 h");
        orla.Part("Day 6: off").SendKeys("dd");
        orla.SeeText("52.5 h");
        orla.SeeText("more than 48 h");
        orla.Part("Day 6: D").SendKeys("-");
        orla.Part("Day 7: D").SendKeys("-");
        orla.SeeText("37.5 h");
        orla.Pick("On the calendar", "sound", "Sound");
        orla.SeeText("30 h");
        orla.Fill("Letter", "X");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("The cycle has a shift D that is not described.");
        orla.Button("Discard").Click();
        orla.SeeNo("is not described");
    }

    [Fact]
    public void A_pay_component_is_worked_out_for_an_example_person_and_a_loop_is_named()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/payComponents/+");
        orla.Write("Code", "DIRT");
        orla.Write("Name", "Dirt money");
        orla.Write("Formula", "BAS");
        orla.Button("BASE").Click();
        orla.Until(() => orla.ValueOf("Formula") == "BASE");
        orla.Field("Formula").SendKeys(" * 0.1");
        orla.SeeText("BASE * 0.1 with BASE = 1250.00 = 125.00.");
        orla.Write("Earns a period", "2000");
        orla.SeeText("BASE * 0.1 with BASE = 2000.00 = 200.00.");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Dirt money is saved.");
        orla.Open("/lists/payComponents/ISLE");
        orla.Pick("Of", "dirt", "Dirt money");
        orla.Open("/lists/payComponents/DIRT");
        orla.Write("Formula", "BASE + [DIRT]");
        orla.SeeText("These components read each other: DIRT reads DIRT.");
        orla.Write("Formula", "BASE + +");
        orla.Chord(Keys.Control, "s");
        orla.SeeAt("Formula", "The formula cannot be read");
    }

    [Fact]
    public void A_change_of_a_component_is_compared_before_it_is_made()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/payComponents/ISLE");
        orla.Until(() => orla.ValueOf("Percentage") == "4");
        orla.Button("Compare").Click();
        orla.SeeText("Touches nobody of ");
        orla.Write("Percentage", "5");
        orla.SeeText("The component has changed since: compare again.");
        // Above the bar that says what is not saved.
        orla.Script("document.getElementById('effects-on').scrollIntoView({ block: 'center' })");
        orla.Button("Compare").Click();
        orla.SeeText("Touches the pay of ");
        orla.SeeText("In a year: net +38,945.40, cost to the firm +61,068.02.");
        orla.IsAccessible("a component before and after a change");
        orla.Resize(390, 844, dark: true);
        orla.IsAccessible("the same on a telephone in the dark");
        orla.Resize(1280, 800);
        orla.Button("Discard").Click();
    }

    [Fact]
    public void A_band_holds_from_a_date_and_must_rise()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/grades/C2");
        orla.Button("Add a band").Click();
        orla.Fill("Least", "45000", 1);
        orla.Chord(Keys.Control, "s");
        orla.SeeText("must rise from its least over its middle to its most.");
        orla.Fill("Least", "31000", 1);
        orla.Chord(Keys.Control, "s");
        orla.SeeText("C2 is saved.");
    }

    [Fact]
    public void What_hangs_on_a_job_stands_in_the_record_of_every_holder()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Tomasz Brandt").Click();
        orla.Link("Record").Click();
        orla.SeeText("Sea survival, Radio operator (desirable), Medical fitness");
        orla.Pick("Job", "ticket cl", "Ticket clerk");
        orla.SeeNo("Sea survival, Radio operator");
    }

    [Fact]
    public void A_missing_entry_is_added_where_it_is_missed_and_is_chosen_and_recent_then()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Press("n");
        orla.Pick("Role template", "deck", "Deckhand");
        var field = orla.Field("Cost centre");
        field.Click();
        field.SendKeys(Keys.Control + "a");
        field.SendKeys("470 Divers");
        orla.Option("Add “470 Divers”…").Click();
        orla.Heading("Add to Cost centres");
        orla.Until(() => orla.ValueOf("Name") == "470 Divers");
        orla.Button("Add").Click();
        orla.SeeAt("Code", "Fill this in.");
        orla.Write("Code", "470");
        orla.Press(Keys.Enter);
        orla.Until(() => orla.ValueOf("Cost centre") == "470 Divers");
        orla.Field("Cost centre").SendKeys(Keys.Control + "a" + Keys.Delete);
        orla.Until(() => orla.FirstOption().StartsWith("470 Divers", StringComparison.Ordinal));
    }

    [Fact]
    public void An_entry_in_use_is_retired_and_its_users_move()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/clockDevices");
        orla.SeeText("Corran gangway");
        orla.Script("[...document.querySelectorAll('tr')].find((r) => r.textContent.includes('Corran gangway')).click()");
        orla.Button("Who uses it").Click();
        orla.Heading("Who uses Corran gangway");
        orla.Press(Keys.Escape);
        orla.SeeNo("Who uses Corran gangway");
        orla.Button("Retire…").Click();
        orla.Pick("Move its users to", "skerry", "Skerry kiosk");
        orla.Field("Why (optional)").SendKeys("One kiosk is enough" + Keys.Enter);
        orla.SeeText("Corran gangway is retired.");
        orla.Button("Retired ones").Click();
        orla.SeeText("Corran gangway");
    }
}
