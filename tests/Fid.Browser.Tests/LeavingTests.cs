using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Somebody leaves: opened from their record, moved, called off; and done by three people until it is through.</summary>
public class LeavingTests(PageFixture firm) : IClassFixture<PageFixture>
{
    private const string Leaver =
        "(select h.id from hires h join records_now r using (employment_id) where h.occasion = 'Leaving' and r.family_name = 'Bondar')";

    [Fact]
    public async Task A_leaving_is_opened_from_the_record_listed_with_the_leavers_moved_and_called_off()
    {
        var person = await firm.Database.AskAsync("select employment_id from records_now where given_name = 'Gethin' and family_name = 'Prys'");
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open($"/people/{person}");
        orla.Button("Leaves…").Click();
        orla.SeeText("Gethin Prys leaves");
        orla.Button("Open the checklist").Click();
        orla.SeeAt("Last day", "Say which day.");
        orla.IsAccessible("a leaving being opened");
        orla.Write("Last day", "2027-04-09");
        orla.Press(OpenQA.Selenium.Keys.Tab);
        orla.SeeAt("Last day", "in 39 days");
        orla.Pick("Reason for leaving", "own", "Leaves at own wish");
        orla.Button("Open the checklist").Click();
        orla.SeeText("Hand the work over");
        orla.SeeText("last day Fri 9 Apr");
        orla.IsAccessible("the checklist of a leaver");

        orla.Button("Move the last day…").Click();
        orla.Write("New last day", "2027-04-16");
        orla.Press(OpenQA.Selenium.Keys.Tab);
        orla.SeeText("7 days later");
        orla.Button("Last day on Fri 16 Apr").Click();
        orla.SeeText("last day Fri 16 Apr");
        orla.Link("Record").Click();
        orla.Unfold();
        orla.Until(() => orla.ValueOf("End") == "Fri 16 Apr", () => orla.ValueOf("End"));
        // What is under way is not offered a second time.
        orla.SeeNo("Leaves…");

        orla.Open("/arrivals?for=leaving");
        orla.Row("Gethin Prys");
        orla.IsAccessible("leavers");
        orla.Row("Gethin Prys").Click();
        orla.Press(OpenQA.Selenium.Keys.Enter);
        orla.Button("Stays after all…").Click();
        orla.Write("Why", "Changed his mind");
        orla.Button("Call it off").Click();
        orla.SeeText("Gethin Prys stays.");
        orla.Open($"/people/{person}");
        orla.Button("Leaves…");
        orla.SeeNo("Leaving 0/4");
    }

    [Fact]
    public async Task Three_people_bring_a_leaver_to_the_end_and_what_was_issued_is_back()
    {
        var (hire, name) = (await firm.Database.AskAsync($"select {Leaver}"), "Halyna Bondar");
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/arrivals?for=jobChange");
        orla.SeeText("One changing jobs.");
        orla.IsAccessible("job changes");
        // The store-keeper sees what is still out, and cannot tick it off: the record says when it is back.
        using var nils = Browser.SignedIn(firm.Server.Address, "nils");
        nils.Open("/tasks");
        ShowLater(nils);
        nils.SeeText("Everything issued is back");
        nils.SeeText("last day Fri 12 Mar");
        orla.Open($"/hires/{hire}/checklist");
        orla.Row("Everything issued is back").Click();
        orla.SeeText("Tool roll");
        orla.SeeText("is out");
        await firm.Database.AskAsync(
            $"""
            insert into record_values (id, owner_id, owner_kind, field, row_id, value, source, effective, known, change_id)
            select gen_random_uuid(), v.owner_id, v.owner_kind, 'items.returned', v.row_id, '"2027-03-01"', 'typed', v.effective, v.known, v.change_id
            from record_values v join hires h on h.employment_id = v.owner_id or exists
              (select from employments e where e.id = h.employment_id and e.person_id = v.owner_id)
            where h.id = '{hire}' and v.field = 'items.item' and upper_inf(v.known)
            """
        );
        // Seen where somebody looks on.
        orla.SeeText("by Fid");
        using var thandiwe = Browser.SignedIn(firm.Server.Address, "thandiwe");
        thandiwe.Open("/tasks");
        ShowLater(thandiwe);
        thandiwe.SeeText("End access to mail and systems");
        thandiwe.SeeText(name);
        foreach (
            var task in new[]
            {
                "Hand the work over",
                "Leave and hours to be paid worked out",
                "End access to mail and systems",
                "Withdraw the badge at the clocks",
            }
        )
        {
            orla.Row(task).Click();
            orla.Press("d");
            orla.SeeText($"{task} is done.");
        }
        orla.Row("Write the reference").Click();
        orla.Press("d");
        // On the last day, with all of it done, they leave the list by themselves.
        orla.Button("Move the last day…").Click();
        orla.Write("New last day", "2027-03-01");
        orla.Press(OpenQA.Selenium.Keys.Tab);
        orla.Button("Last day on Mon 1 Mar").Click();
        orla.SeeText("All of it was done on Mon 1 Mar.");
        orla.SeeText("This is the checklist as it was then.");
    }

    private static void ShowLater(Browser owner)
    {
        owner.SeeText("that come later");
        owner.Script("[...document.querySelectorAll('button')].find((b) => b.textContent.includes('that come later')).click()");
    }
}
