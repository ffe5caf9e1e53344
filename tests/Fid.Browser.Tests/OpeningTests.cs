using Fid.Testing;
using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Every way to open a hire but the plain one, as the coordinator goes it.</summary>
public class OpeningTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void In_full_with_any_field_of_the_record()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Button("New hire").Click();
        orla.Button("In full").Click();
        Person(orla, "Fulla", "Whole");
        Role(orla);
        orla.Until(() => orla.ValueOf("Weekly hours") == "37.5");
        orla.NoteOf("Weekly hours").ShouldBe("Crew basics, v2");
        orla.Write("Town", "New Quay");
        orla.Chord(Keys.Control, "s");
        orla.Heading("Fulla Whole");
        orla.Link("Record").Click();
        orla.Until(() => orla.ValueOf("Town") == "New Quay");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void Like_a_colleague_with_a_word_from_whom_each_value_is()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Button("New hire").Click();
        orla.Button("Like a colleague").Click();
        Person(orla, "Ola", "Like");
        Role(orla);
        orla.Pick("Colleague", "demirci", "Yusuf Demirci");
        orla.Until(() => orla.ValueOf("Job") == "Engine hand");
        orla.NoteOf("Job").ShouldStartWith("as ");
        orla.NoteOf("Pay rate").ShouldStartWith("as ");
        orla.NoteOf("Badge").ShouldBe("next free");
        orla.Chord(Keys.Control, "s");
        orla.Heading("Ola Like");
        orla.Row("Engine room walk-through");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void A_colleague_alone_says_what_they_were_hired_as_and_put_away_and_reopened_everything_is_there()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Button("New hire").Click();
        orla.Button("Like a colleague").Click();
        orla.Pick("Colleague", "demirci", "Yusuf Demirci");
        orla.Until(() => orla.ValueOf("Job") == "Engine hand");
        orla.ValueOf("Role template").ShouldBe("Engine hand");
        Person(orla, "Kept", "Aside");
        // In the past, and meant so: another day would have to be meant anew.
        orla.Field("Start").SendKeys("2027-02-22" + Keys.Tab);
        orla.Id("new-backDated").Click();
        orla.Write("Pay rate", "19.25");
        orla.Press(Keys.Escape);
        // Away from Arrivals and back.
        orla.Link("People").Click();
        orla.SeeAddress("/people");
        orla.Link("Arrivals").Click();
        orla.Button("New hire").Click();
        orla.Until(() => orla.ValueOf("Job") == "Engine hand");
        (orla.ValueOf("Colleague"), orla.ValueOf("Family name"), orla.ValueOf("Pay rate")).ShouldBe(("Yusuf Demirci", "Aside", "19.25"));
        orla.IsTicked("new-backDated").ShouldBeTrue();
        // Another way and back again loses nothing of this one.
        orla.Button("In full").Click();
        orla.Button("Like a colleague").Click();
        orla.ValueOf("Colleague").ShouldBe("Yusuf Demirci");
        orla.Write("Start", "2027-02-24");
        orla.Press(Keys.Tab);
        orla.Until(() => !orla.IsTicked("new-backDated"));
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void What_is_typed_waits_for_whoever_typed_it_and_for_nobody_else()
    {
        using var browser = Browser.SignedIn(firm.Server.Address, "orla");
        browser.Button("New hire").Click();
        Person(browser, "Left", "Standing");
        browser.Press(Keys.Escape);
        browser.Link("People").Click();
        browser.Link("Arrivals").Click();
        browser.Button("New hire").Click();
        browser.Until(() => browser.ValueOf("Family name") == "Standing");
        browser.Press(Keys.Escape);
        browser.Button("Orla D.").Click();
        browser.Button("Sign out").Click();
        browser.SeeAddress("/sign-in");
        browser.Field("E-mail").SendKeys("piet@halyard.example");
        browser.Field("Password").SendKeys(Fid.Testing.Caller.Password + Keys.Enter);
        browser.Button("New hire").Click();
        browser.ValueOf("Family name").ShouldBe("");
        browser.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void Many_at_once_pasted_mended_filled_down_and_opened()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Button("New hire").Click();
        orla.Link("Many at once").Click();
        orla.Part("Given name, row 1");
        orla.Paste(
            "Anouk\tDevi\tanouk@example.org\tDeckhand\t19/4\tSkerry Pier\nPavel\tNový\tpavel at example\tEngine hand\t19/4\tMV Hallan "
                + "Star\nSuda\tWat\tsuda@example.org\tDeckhand\tsome day\tSkerry Pier\n",
            "cell-0-0"
        );
        orla.SeeText("2 cells are not right");
        orla.SeeText("Enter an e-mail address");
        // What is not right leads to its cell.
        orla.Button("E-mail").Click();
        orla.Focus().ShouldBe("cell-1-2");
        orla.Fill("E-mail, row 2", "pavel@example.org");
        // What was typed in the row below stays; emptied, it is filled, and that alone is taken back.
        orla.Part("Start, row 2").SendKeys(Keys.Control + "d");
        orla.SeeText("One cell was filled already and stays");
        orla.Fill("Start, row 3", Keys.Backspace);
        orla.Part("Start, row 2").SendKeys(Keys.Control + "d");
        orla.Until(() => orla.Part("Start, row 3").GetDomProperty("value") == "19/4");
        orla.Part("Start, row 2").SendKeys(Keys.Control + "z");
        orla.Until(() => orla.Part("Start, row 3").GetDomProperty("value") == "");
        orla.Part("E-mail, row 2").GetDomProperty("value").ShouldBe("pavel@example.org");
        orla.Part("Start, row 2").SendKeys(Keys.Control + "d");
        orla.SeeNo("are not right");
        orla.SeeNo("is not right");
        orla.Button("Open 3 hires").Click();
        orla.SeeAddress("/arrivals");
        orla.SeeText("Suda Wat");
        orla.SeeText("Pavel Nový");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task From_recruiting_as_a_new_stint_of_somebody_known()
    {
        await using var feed = await Feed.StartAsync();
        feed.Candidates = """
            {"candidates":[{"id":"C-7","givenName":"June","familyName":"Nakamura","email":"jun.nakamura@example.org",
              "role":"Galley cook","site":"MV Corran","start":"2027-05-03"}]}
            """;
        using (var piet = await firm.As("piet"))
            (await piet.SendAsync("PUT", "/api/intake/feed", new { address = feed.Address })).EnsureSuccessStatusCode();
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Exchange").Click();
        orla.Link("Candidates").Click();
        orla.Button("Pull now").Click();
        orla.Heading("Candidates from recruiting. One candidate waits.");
        orla.SeeText("“Galley cook” becomes Galley cook");
        orla.SeeText("Already known? Jun Nakamura");
        orla.Button("Open the hire…").Click();
        orla.SeeText("much the same name, same e-mail");
        orla.Button("A new stint of theirs").Click();
        orla.SeeText("New stint of Jun Nakamura");
        orla.SeeText("first hired Tue 1 Apr 2025");
        orla.Until(() => orla.NoteOf("Badge") == "as before");
        orla.SeeText("They work here then already.");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("Open that record, or say that two stints at once are meant.");
        orla.Id("new-person").Click();
        orla.Chord(Keys.Control, "s");
        orla.Heading("Jun Nakamura");
        orla.Row("Go through what has changed");
        (await feed.HeardAsync(1)).Single().ShouldStartWith("C-7 opened");
        orla.Link("Record").Click();
        orla.SeeText("Also worked here");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void In_the_past_once_it_is_said_to_be_meant_so_and_withdrawn_with_a_way_back()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Button("New hire").Click();
        Person(orla, "Late", "Comer");
        Role(orla, "2027-02-15");
        orla.SeeText("The start was 14 days ago.");
        orla.Chord(Keys.Control, "s");
        orla.SeeText("The start lies in the past.");
        orla.Id("new-backDated").Click();
        orla.Chord(Keys.Control, "s");
        orla.Heading("Late Comer");
        orla.SeeText("before we knew");

        ComesToNothing(orla, "Took another post");
        orla.PressLast("Go on with it");
        orla.SeeText("The hire goes on.");
        orla.SeeNo("To be returned");

        // Nor is it too late on another day, from the record.
        ComesToNothing(orla, "No, another post");
        orla.PressLast("Close");
        orla.SeeAddress("/arrivals");
        orla.Link("People").Click();
        // Among those who are here or coming it no longer is.
        orla.Id("people-all").Click();
        orla.Link("Comer, Late").Click();
        orla.SeeText("No, another post");
        orla.Button("Go on with it").Click();
        orla.Heading("Late Comer");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void Two_records_of_one_person_are_made_one_and_parted_again()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Adaeze Okafor").Click();
        orla.Link("Record").Click();
        orla.Button("Same person as…").Click();
        orla.Pick("The other record", "lind", "Saoirse Lind");
        orla.Part("Given name: take Saoirse").Click();
        orla.Button("Make them one").Click();
        orla.Heading("Saoirse Okafor");
        orla.Button("Part them again").Click();
        orla.Heading("Adaeze Okafor");
        orla.Complaints().ShouldBeEmpty();
    }

    private static void ComesToNothing(Browser browser, string why)
    {
        browser.Button("Came to nothing…").Click();
        browser.Field("Why").SendKeys(why);
        browser.Button("Close the hire").Click();
        browser.SeeText("To be returned");
    }

    private static void Person(Browser orla, string given, string family)
    {
        orla.Field("Given name").SendKeys(given);
        orla.Field("Family name").SendKeys(family);
        orla.Field("E-mail").SendKeys($"{given}.{family}@example.org".ToLowerInvariant());
    }

    private static void Role(Browser orla, string start = "2027-04-05")
    {
        orla.Pick("Role template", "deck", "Deckhand");
        orla.Field("Start").SendKeys(start + Keys.Tab);
        orla.Pick("Site", "skerry", "Skerry Pier");
    }
}
