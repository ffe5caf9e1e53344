using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Every screen, in light and dark, at a desk, on a telephone and at 200 % zoom: accessible, nothing cut off, nothing in the console.</summary>
public class EveryScreenTests(PageFixture firm) : IClassFixture<PageFixture>
{
    private static readonly (string Name, int Width, int Height, double Zoom, bool Dark)[] Windows =
    [
        ("desk", 1280, 800, 1, false),
        ("desk, dark", 1280, 800, 1, true),
        ("telephone", 390, 844, 1, false),
        ("200 %", 1280, 800, 2, false),
        ("320 px", 320, 700, 1, false),
    ];

    [Fact]
    public void Sign_in()
    {
        using var nobody = new Browser(firm.Server.Address);
        nobody.Open("/");
        nobody.Field("E-mail").SendKeys("nobody@halyard.example");
        nobody.Field("Password").SendKeys("wrong");
        nobody.Button("Sign in").Click();
        nobody.SeeText("E-mail and password do not go together.");
        LookAtAll(nobody, "sign-in");
    }

    [Fact]
    public void Arrivals_and_new_hire()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Row("Tomasz Brandt").Click();
        orla.SeeText("Soonest start with everything ready:");
        LookAtAll(orla, "Arrivals");
        orla.Press("n");
        orla.Pick("Role template", "deck", "Deckhand");
        orla.SeeText("Needed to prepare and still empty");
        orla.Button("Open the hire").Click();
        orla.SeeText("entries are not right:");
        LookAtAll(orla, "New hire with errors");
    }

    [Fact]
    public void Admin()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/admin");
        piet.Button("Nils Aakre").Click();
        piet.Field("E-mail, to sign in with");
        LookAtAll(piet, "An account");
        piet.Button("Cancel").Click();
        LookAtAll(piet, "People who sign in");
        piet.Open("/admin/work");
        piet.SeeText("What runs next");
        LookAtAll(piet, "What Fid does by itself");
        piet.Open("/admin/trail");
        piet.SeeText("signed in");
        LookAtAll(piet, "Security");
        piet.Open("/admin/texts");
        piet.SeeText("Fid writes in the words it ships with.");
        LookAtAll(piet, "Texts of messages");
    }

    [Fact]
    public void Templates()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/templates/galley-cook");
        orla.Button("Pay rate").Click();
        orla.SeeText("displaces €16.10 from Crew basics");
        LookAtAll(orla, "Values of a template");
        orla.Button("Checklist").Click();
        orla.Button("Food handling").Click();
        orla.Button("Edit").Click();
        orla.Field("Who does it");
        LookAtAll(orla, "A task of a template");
        orla.Button("Close").Click();
        orla.Press(OpenQA.Selenium.Keys.Escape);
        orla.Button("From the library").Click();
        orla.SeeText("Check the right to work");
        LookAtAll(orla, "Library of tasks");
        orla.Open("/templates/seasonal");
        orla.Button("About").Click();
        orla.SeeText("It would apply to");
        orla.Button("Show them").Click();
        LookAtAll(orla, "An add-on");
    }

    [Fact]
    public void Other_ways_to_open_and_to_end_a_hire()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Press("n");
        orla.Button("In full").Click();
        orla.Pick("Role template", "deck", "Deckhand");
        orla.Write("Start", "2027-02-22");
        orla.Field("Start").SendKeys(OpenQA.Selenium.Keys.Tab);
        orla.SeeText("It is meant so");
        orla.Heading("New hire");
        LookAtAll(orla, "New hire in full, in the past");
        orla.Button("Like a colleague").Click();
        orla.Field("Given name").SendKeys("Jun");
        orla.Field("Family name").SendKeys("Nakamura");
        orla.Field("E-mail").SendKeys("jun.nakamura@example.org");
        orla.SeeText("Already known?");
        LookAtAll(orla, "New hire who is known");
        orla.Open("/arrivals");
        orla.Link("Bronagh Keel").Click();
        orla.Button("Came to nothing…").Click();
        orla.SeeText("No show");
        LookAtAll(orla, "Coming to nothing");
        orla.Open("/arrivals");
        orla.Link("Bronagh Keel").Click();
        orla.Link("Record").Click();
        orla.Button("Same person as…").Click();
        orla.Pick("The other record", "okafor", "Adaeze Okafor");
        orla.SeeText("Where both say something, choose.");
        LookAtAll(orla, "Two records of one person");
    }

    [Fact]
    public void Checklist_and_moving_the_start()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Tomasz Brandt").Click();
        orla.Row("Order radio").Click();
        orla.SeeText("The chandler takes eight working days.");
        LookAtAll(orla, "Checklist");
        orla.Button("Move start…").Click();
        orla.SeeText("tasks change");
        LookAtAll(orla, "Move start");
    }

    [Fact]
    public void Record()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Bronagh Keel").Click();
        orla.Link("Record").Click();
        orla.SeeText("is carried by Kenta Morita too.");
        orla.Write("Town", "Little Brae");
        orla.SeeText("1 change");
        LookAtAll(orla, "Record");
        orla.Button("Discard").Click();
        orla.SeeNo("1 change");
    }

    [Fact]
    public void My_tasks_people_templates_and_fields()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        foreach (
            var (path, sign) in new[]
            {
                ("/tasks", "Can be done now"),
                ("/people", "Show more"),
                ("/templates", "Add-ons"),
                ("/templates/deckhand", "Everything can be ready by then."),
                ("/templates/leaver", "Everything issued is back"),
                ("/arrivals?for=leaving", "One leaving."),
                ("/arrivals/many", "Paste from a spreadsheet"),
                ("/exchange/intake", "Nobody waits."),
                ("/fields", "Given name"),
                ("/fields/nationality", "Siân Aakre"),
                ("/account", "At least 12 characters."),
                ("/nowhere", "There is nothing here"),
            }
        )
        {
            orla.Open(path);
            orla.SeeText(sign);
            LookAtAll(orla, path);
        }
    }

    [Fact]
    public void Lists_their_editors_setting_up_and_exchange()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        foreach (
            var (path, sign) in new[]
            {
                ("/lists", "Holiday calendars"),
                ("/lists/jobs", "Deckhand"),
                ("/lists/departments", "Shore crew"),
                ("/lists/jobs/DK-2", "Second-job rates"),
                ("/lists/payGroups/crew", "Spring holiday"),
                ("/lists/shiftPatterns/four-a", "30 h"),
                ("/lists/calendars/islands", "254 working days"),
                ("/lists/payComponents/LEVY", "154.42"),
                ("/lists/grades/C2", "Add a band"),
                ("/lists/choiceLists/watch", "Add an option"),
                ("/setup", "Settings"),
                ("/exchange", "Fill from a spreadsheet"),
                ("/exchange/mail", "When Fid reminds"),
                ("/templates/where-it-stalls", "Order radio holds up"),
                ("/exchange/new?list=people", "Get everybody’s record"),
                ("/exchange/new?list=jobs", "Drop a file here"),
            }
        )
        {
            orla.Open(path);
            orla.SeeText(sign);
            LookAtAll(orla, path);
        }
        orla.Paste("Code\tName\tGrade\nX-1\tOne\tC-2\nDK-2\tMate\tC2\n");
        orla.SeeText("for all “C-2”");
        LookAtAll(orla, "a dry run");
    }

    [Fact]
    public void Nasty_texts_in_every_text_field_harm_no_screen()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        string[] nasty =
        [
            "<img src=x onerror=alert(1)>",
            "'; drop table people; --",
            "{{constructor}}",
            "\u202Egnp.exe",
            "مرحبا",
            "T̴̡̩o͢o͠ long " + new string('W', 180),
            "a\u0000b",
        ];
        orla.Press("n");
        orla.Pick("Role template", "ticket", "Ticket clerk");
        foreach (var text in nasty)
        {
            foreach (var label in new[] { "Given name", "Family name", "E-mail", "Pay rate", "Badge", "Start" })
                orla.Write(label, text);
            orla.Button("Open the hire").Click();
            orla.SeeText("not right:");
        }
        orla.IsAccessible("New hire full of nasty texts");
        orla.Press(OpenQA.Selenium.Keys.Escape);
        orla.Link("Yusuf Demirci").Click();
        orla.Link("Record").Click();
        orla.Field("Given name");
        orla.Unfold();
        foreach (var label in new[] { "Given name", "Family name", "Known as", "Street", "Emergency contact" })
            orla.Write(label, nasty[0]);
        orla.Chord(OpenQA.Selenium.Keys.Control, "s");
        orla.Button("Fix").Click();
        orla.SeeText("Saved.");
        orla.Heading("<img src=x onerror=alert(1)> <img src=x onerror=alert(1)>");
        orla.IsAccessible("Record with nasty names");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void The_first_load_is_small()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Heading("F");
        orla.Reload();
        orla.Heading("F");
        var bytes = (long)
            orla.Script(
                "return performance.getEntriesByType('resource').filter((r) => r.name.endsWith('.js')).reduce((sum, r) => sum + r.encodedBodySize, 0)"
            )!;
        bytes.ShouldBeLessThanOrEqualTo(130_000);
    }

    private static void LookAtAll(Browser browser, string screen)
    {
        foreach (var window in Windows)
        {
            browser.Resize(window.Width, window.Height, window.Zoom, window.Dark);
            browser.IsAccessible($"{screen}, {window.Name}");
        }
        browser.Resize(1280, 800);
        browser.Complaints().ShouldBeEmpty();
    }
}
