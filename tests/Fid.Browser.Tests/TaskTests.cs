using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Tasks changed for one newcomer, tried before it is done; and many done with one act.</summary>
public class TaskTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public async Task What_a_shorter_task_would_do_is_seen_before_it_is_done_and_taken_back_with_a_click()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        var hire = await firm.Database.AskAsync("select h.id from hires h join records_now r using (employment_id) where r.family_name = 'Brandt'");
        orla.Open($"/hires/{hire}/checklist");
        orla.SeeText("Order radio holds it up");
        orla.Row("Order radio").Click();
        orla.Button("Change…").Click();
        orla.SeeText("Change something to see what it would do.");
        orla.IsAccessible("when a task is changed");
        orla.Write("Working days", "2");
        orla.SeeText("Everything can be ready by then.");
        orla.Write("Note", "Lent by the yard");
        orla.Button("Change it").Click();
        orla.SeeText("Order radio is changed.");
        orla.SeeNo("Order radio holds it up");
        orla.SeeText("Lent by the yard");
        orla.Button("Undo").Click();
        orla.SeeText("Order radio holds it up");
        orla.SeeNo("Lent by the yard");
        orla.Button("What became of it").Click();
        orla.SeeText("working days: 8 → 2");
        orla.SeeText("working days: 2 → 8");
    }

    [Fact]
    public async Task Why_it_is_held_up_is_said_link_by_link_and_the_checklist_is_seen_by_owner_and_by_date()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        var hire = await firm.Database.AskAsync("select h.id from hires h join records_now r using (employment_id) where r.family_name = 'Brandt'");
        orla.Open($"/hires/{hire}/checklist");
        orla.Button("Why?").Click();
        orla.SeeText("Order radio can be finished on Wed 10 Mar, and has to be by Tue 2 Mar: Program radio comes after it.");
        orla.SeeText("it belongs before day one.");
        orla.Button("owner").Click();
        orla.SeeNo("opens Tue 16 Mar, once Prepare has passed");
        orla.IsAccessible("a checklist by owner");
        orla.Button("date").Click();
        orla.SeeText("By date, the next first");
    }

    [Fact]
    public void Who_is_written_to_for_all_that_is_held_up_is_said_before_they_are()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/arrivals");
        orla.Button("Remind…").Click();
        orla.SeeText("Order radio (Tomasz Brandt)");
        orla.IsAccessible("before many are reminded");
        orla.Button("Write to them").Click();
        orla.SeeText("No mail server is set. Nobody can be written to.");
    }

    [Fact]
    public void Lockers_of_many_newcomers_are_done_with_one_act_on_a_telephone_and_opened_again_with_another()
    {
        using var nils = Browser.SignedIn(firm.Server.Address, "nils");
        nils.Resize(390, 800);
        nils.Open("/tasks");
        nils.Button("kind").Click();
        nils.SeeText("Locker and kit");
        nils.IsAccessible("tasks by kind");
        nils.Script("document.querySelector('button[aria-label$=\": Locker and kit\"][aria-label^=\"All\"]').click()");
        nils.SeeText("tasks are done.");
        nils.SeeNo("Locker and kit");
        nils.Button("Undo").Click();
        nils.SeeText("Locker and kit");
        nils.Script("document.querySelector('button[aria-label^=\"I take it: Locker and kit\"]').click()");
        nils.SeeText("taken by Nils Aakre");
    }
}
