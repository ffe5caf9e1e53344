using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Sections of the record and their fields, in a firm of their own: others count what is drafted.</summary>
public class SectionTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void A_section_and_its_fields_are_made_named_moved_and_copied_without_a_formula()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/fields");
        orla.Button("Add a section").Click();
        orla.Until(() => orla.Script("return document.activeElement.id") is string id && id.StartsWith("section-name-", StringComparison.Ordinal));
        orla.Press("Lockers" + Keys.Enter);
        orla.Button("Lockers").SendKeys(Keys.Alt + Keys.ArrowUp);
        orla.Until(() => Sections(orla).IndexOf("Lockers") == Sections(orla).Count - 2, () => string.Join(", ", Sections(orla)));

        // The key follows the label until somebody chooses one.
        orla.Button("Add a field").Click();
        orla.Write("Label in English", "Locker size");
        orla.Field("Label in English").SendKeys(Keys.Tab);
        orla.Until(() => orla.ValueOf("Key in formulas and files") == "locker_size");
        orla.Pick("Section", "lock", "Lockers");
        orla.Pick("Kind", "choice", "choice");
        orla.SeeText("is a choice without anything to choose");
        orla.Button("Add an option").Click();
        orla.Press(Keys.Tab + "Tall" + Keys.Tab);
        orla.SeeNo("is a choice without anything to choose");
        // When it is shown is chosen, not written.
        orla.Pick("Only where", "site", "Site");
        orla.Pick("Value of Site", "skerry", "Skerry Pier");
        orla.Write("Key in formulas and files", "cabinet");
        orla.Field("Key in formulas and files").SendKeys(Keys.Tab);
        orla.Button("Copy the field").Click();
        orla.Until(() => orla.ValueOf("Key in formulas and files") == "cabinet_2", () => $"cabinet_2, not {orla.ValueOf("Key in formulas and files")}");
        orla.ValueOf("Label in English").ShouldBe("Locker size, copy");
        orla.Reload();
        orla.SeeText("Locker size, copy");
        Sections(orla).ShouldContain("Lockers");
        orla.Complaints().ShouldBeEmpty();
    }

    private static List<string> Sections(Browser browser) =>
        [.. ((IReadOnlyCollection<object>)browser.Script("return [...document.querySelectorAll('[id^=section-]')].map((b) => b.textContent)")!).Cast<string>()];
}
