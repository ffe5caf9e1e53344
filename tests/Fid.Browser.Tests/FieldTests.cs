using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>What a record holds: configured, tried, published, filled.</summary>
public class FieldTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void A_field_that_nobody_could_fill_is_told_mended_published_and_filled_on_the_next_hire()
    {
        using var piet = Browser.SignedIn(firm.Server.Address, "piet");
        piet.Open("/fields");
        piet.Heading("95 fields in 8 sections.");
        piet.Fill("Find a field", "came to us");
        foreach (var role in new[] { "Coord.", "Admin" })
        {
            piet.Part($"{role}, Came to us through: edits").Click();
            piet.Part($"{role}, Came to us through: asks").Click();
            piet.Part($"{role}, Came to us through: sees");
        }
        piet.Button("Came to us through").Click();
        piet.Pick("Required", "always", "always");
        piet.SeeAt("Required", "must be filled, but nobody may edit it and nothing fills it by itself");
        piet.Heading("95 fields in 8 sections. The draft has one trap.");
        piet.Pick("Starts with", "a value", "a value");
        piet.Write("Value", "the harbour board");
        piet.Heading("95 fields in 8 sections. The draft is sound.");
        piet.Button("Close").Click();

        piet.Button("Try it").Click();
        piet.Until(() => piet.ValueOf("Came to us through") == "the harbour board");
        piet.NoteOf("Came to us through").ShouldBe("by default");
        piet.Press(Keys.Escape);
        piet.Button("Publish").Click();
        piet.SeeText("active records would then lack “Came to us through”.");
        piet.IsAccessible("publishing");
        piet.Write("Why", "The board wants to know");
        piet.Script("[...document.querySelectorAll('[role=dialog] button')].find((b) => b.textContent.trim() === 'Publish').click()");
        piet.SeeText("Version 1 is live.");
        piet.Complaints().ShouldBeEmpty();

        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Press("n");
        foreach (var (label, text) in new[] { ("Given name", "Bela"), ("Family name", "Novak"), ("E-mail", "bela@example.org"), ("Start", "+30wd") })
            orla.Write(label, text);
        orla.Pick("Role template", "deck", "Deckhand");
        orla.Pick("Site", "skerry", "Skerry Pier");
        orla.SeeText("Everything can be ready by");
        orla.Chord(Keys.Control, "s");
        orla.Heading("Bela Novak");
        orla.Link("Record").Click();
        orla.Until(() => orla.ValueOf("Came to us through") == "the harbour board");
        orla.NoteOf("Came to us through").ShouldBe("by default");
        orla.Field("Came to us through").GetDomProperty("readOnly").ShouldBe("True", StringCompareShould.IgnoreCase);
    }

    [Fact]
    public void Gaps_are_filled_down_a_grid_each_line_by_itself_with_errors_at_the_cell()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/fields/work_email");
        orla.SeeText("\n0 of "); // however many people the other test leaves
        orla.Pick("Department", "payroll", "Payroll");
        orla.SeeText("Payroll clerk");
        orla.Until(() => orla.Script("return document.querySelectorAll('tbody tr').length") is 4L);
        orla.Fill("E-mail at work, Ruth Abara", "ruth.abara at halyard");
        orla.SeeText("Enter an e-mail address, such as name@example.org.");
        orla.Fill("E-mail at work, Ruth Abara", "ruth.abara@halyard.example");
        orla.SeeText("✓ saved");
        orla.SeeNo("Enter an e-mail address");
        orla.Reload();
        orla.SeeText("\n1 of ");
    }
}
