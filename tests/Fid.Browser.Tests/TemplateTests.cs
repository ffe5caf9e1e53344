using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Role templates as the coordinator builds them.</summary>
public class TemplateTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void A_template_is_changed_published_and_brought_to_the_hires_under_way_and_back()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Link("Templates").Click();
        orla.SeeText("role templates, ");
        orla.Link("Deckhand").Click();
        orla.SeeText("values, ");
        orla.Button("Pay rate").Click();
        orla.Write("Pay rate", "18.10");
        orla.NoteOf("Pay rate").ShouldBe("displaces €16.10 from Crew basics");
        orla.SeeText("€18.10");
        // An inherited value is set here, and given back to the layer below.
        orla.Button("Weekly hours").Click();
        orla.Button("Set it here").Click();
        orla.Write("Weekly hours", "36");
        orla.SeeText("36 37.5 in Crew basics");
        orla.Button("Use the lower layer’s").Click();
        orla.SeeNo("37.5 in Crew basics");

        // By the keyboard: a task added, named, given to the buddy, and one taken from the library.
        orla.Button("Checklist").Click();
        orla.SeeText("22");
        orla.Press("a");
        orla.Button("Edit").Click();
        orla.Write("Task", "Show the knots");
        orla.Pick("Who does it", "bud", "Buddy");
        orla.SeeText("Show the knots Buddy");
        orla.Button("Close").Click();
        orla.Press(Keys.Escape);
        orla.Button("From the library").Click();
        orla.Row("Name a buddy").Click();
        orla.Button("Take one task").Click();
        orla.SeeText("tasks, 11 for day one");
        orla.SeeText("24");

        orla.Button("Publish…").Click();
        orla.SeeText("8 under way: 8 would take it");
        orla.Field("Why").SendKeys("New rate");
        orla.PressLast("Publish");
        orla.Heading("Hires under way on older versions of Deckhand");
        orla.Row("Ines Varga").Text.ShouldContain("new task");
        orla.Button("Choose all").Click();
        orla.Button("Update 8 hires").Click();
        orla.SeeText("8 hires updated");
        orla.Heading("Every hire under way is up to date.");
        orla.Button("Undo").Click();
        orla.SeeText("8 hires are as they were");
        orla.Open("/templates/deckhand");
        orla.SeeText("version 5");
        orla.Button("Compare").Click();
        orla.SeeText("Orla Dunmore");
        orla.SeeText("New rate");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void An_add_on_is_made_of_plain_choices_and_says_whom_it_would_apply_to()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/templates");
        orla.Button("New add-on").Click();
        orla.Field("Name").SendKeys("Shipyard winter");
        orla.ValueOf("Code").ShouldBe("shipyard-winter");
        orla.Button("Begin").Click();
        orla.SeeAddress("/templates/shipyard-winter");
        orla.Button("About").Click();
        orla.SeeText("It applies to everybody.");
        orla.Pick("Add a condition", "site", "");
        orla.Pick("Value", "yard", "");
        orla.SeeText("Site is");
        orla.Button("Show them").Click();
        orla.SeeText("Mateo Ferreira");
        orla.SeeNo("Adaeze Okafor");
        orla.Button("Write it as a formula").Click();
        orla.ValueOf("Condition").ShouldBe("site == 'yard'");
        orla.Write("Condition", "site == 'yard' and nobody_knows == 1");
        orla.Press(Keys.Tab);
        orla.SeeAt("Condition", "nobody_knows");
        orla.Write("Condition", "site == 'yard'");
        orla.Press(Keys.Tab);
        orla.Button("Choose it").Click();
        orla.SeeText("Site is");
        orla.Button("Record values").Click();
        orla.Button("Add a value").Click();
        orla.Pick("Field to set", "weekly", "");
        orla.Write("Weekly hours", "35");
        orla.SeeText("35 37.5 in ");
        orla.Button("Publish…").Click();
        orla.PressLast("Publish");
        orla.SeeText("Version 1 is live");
        orla.Open("/arrivals#new");
        orla.Pick("Role template", "shipw", "Shipwright");
        orla.Pick("Site", "yard", "The Yard");
        orla.SeeText("Shipwright, v1");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void Tasks_are_moved_by_keys_and_by_dragging_dropped_brought_back_and_shared()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/templates/galley-cook");
        orla.Button("Checklist").Click();
        orla.Id("task-sea-survival").Click();
        orla.Part("Move up").Click();
        orla.Until(() => Tasks(orla, "Prepare") is [.., "task-sea-survival", "task-food-handling"]);
        orla.Script(
            """
            const data = new DataTransfer();
            const [task, stage] = [document.getElementById('task-food-handling').closest('li'), document.querySelector('[role=group][aria-label=Arrive]')];
            task.dispatchEvent(new DragEvent('dragstart', { bubbles: true, dataTransfer: data }));
            stage.dispatchEvent(new DragEvent('dragover', { bubbles: true, cancelable: true, dataTransfer: data }));
            stage.dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: data }));
            """
        );
        orla.Until(() => Tasks(orla, "Arrive").Contains("task-food-handling"));

        orla.Id("task-welcome").Click();
        orla.Button("Drop it here").Click();
        orla.SeeText("dropped by Galley cook");
        orla.Press(Keys.Escape);
        orla.Button("Bring it back").Click();
        orla.Until(() => Tasks(orla, "Prepare").Contains("task-welcome"));

        orla.Id("task-food-handling").Click();
        orla.Button("Share it").Click();
        orla.SeeText("follows the shared task food-handling");
        // Who publishes before it is known whom that touches is shown the hires as well.
        orla.CutOff("*/touches");
        orla.Button("Publish…").Click();
        orla.PressLast("Publish");
        orla.Heading("Hires under way on older versions of Galley cook");
        orla.Open("/templates");
        orla.Button("Food handling certificate").Click();
        orla.SeeText("A change makes a new version of Galley cook.");
        orla.Pick("Who does it", "saf", "Safety");
        orla.Button("Save for all").Click();
        orla.SeeText("Shared task saved");
        orla.Open("/templates/galley-cook");
        orla.Button("Checklist").Click();
        orla.Until(() => orla.Id("task-food-handling").Text.Contains("Safety", StringComparison.Ordinal));
        orla.Complaints().ShouldBeEmpty();
    }

    // The tasks of a stage, in their order.
    private static string[] Tasks(Browser browser, string stage) =>
        browser
            .Script("return [...document.querySelectorAll(`[role=group][aria-label=${arguments[0]}] button[id^=task-]`)].map((b) => b.id).join(' ')", stage)!
            .ToString()!
            .Split(' ');

    [Fact]
    public async Task A_template_from_a_file_comes_in_as_a_draft_with_a_missing_entry_replaced_and_another_made()
    {
        string file;
        using (var caller = await firm.As("orla"))
            file = (await caller.GetAsync("/api/templates/ticket-clerk/file"))
                .ToJsonString()
                .Replace("hall-early", "dawn", StringComparison.Ordinal)
                .Replace("\"510\"", "\"777\"", StringComparison.Ordinal);
        var folder = Directory.CreateTempSubdirectory();
        try
        {
            var path = Path.Combine(folder.FullName, "clerks.json");
            using var orla = Browser.SignedIn(firm.Server.Address, "orla");
            orla.Open("/templates");
            orla.SeeText("Import a file");
            await File.WriteAllTextAsync(path, "no template", TestContext.Current.CancellationToken);
            orla.Give(path);
            orla.SeeText("This is not a file of templates");
            await File.WriteAllTextAsync(path, file, TestContext.Current.CancellationToken);
            orla.Give(path);
            orla.SeeText("The file holds Ticket clerk.");
            orla.SeeText("create it");
            orla.Pick("Instead of 510 Ticket halls", "420", "");
            orla.Button("Import as drafts").Click();
            orla.SeeAddress("/templates/ticket-clerk-2");
            orla.Heading("Ticket clerk (2)");
            orla.SeeText("420");
            orla.SeeText("never published");
            orla.Complaints().ShouldBeEmpty();
        }
        finally
        {
            folder.Delete(true);
        }
    }
}
