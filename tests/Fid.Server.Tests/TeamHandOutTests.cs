using Fid.Acts.Checklists;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Tasks of teams that hand them out to their members, and what a changed calendar does to all checklists. The firm's today is
/// 1 March 2027, a Monday; Thandiwe and Nils are in the stores.</summary>
public sealed class TeamHandOutTests : IAsyncLifetime
{
    private const string Members = """'thandiwe@halyard.example', 'nils@halyard.example'""";

    private readonly FirmFixture _firm = new();
    private Caller _orla = null!;
    private ActCaller _acts = null!;

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        _orla = await _firm.As("orla");
        _acts = new ActCaller(_firm.Server);
        await _firm.Database.AskAsync($"update users set teams = '{{stores}}' where email in ({Members})");
        await _firm.Database.AskAsync($"update users set teams = array_remove(teams, 'stores') where email not in ({Members})");
    }

    public async ValueTask DisposeAsync()
    {
        await _acts.DisposeAsync();
        _orla.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task In_rotation_each_task_that_can_be_begun_comes_to_the_next_once_and_on_record()
    {
        (await TakenAsync()).ShouldAllBe(t => t.TakenBy == null);
        await HandOutAsync("rotation");
        var handed = await TakenAsync();
        handed.Count.ShouldBeGreaterThan(2);
        handed.ShouldAllBe(t => t.CanStart == (t.TakenBy != null));
        var (thandiwe, nils) = (handed.Count(t => t.TakenBy == "Thandiwe Maseko"), handed.Count(t => t.TakenBy == "Nils Aakre"));
        Math.Abs(thandiwe - nils).ShouldBeLessThanOrEqualTo(1, $"{thandiwe} and {nils}");
        (await EntriesAsync()).ShouldBe(thandiwe + nils);

        await ReplanAsync();
        (await TakenAsync()).ShouldBe(handed);
        (await EntriesAsync()).ShouldBe(thandiwe + nils);
    }

    [Fact]
    public async Task What_somebody_gives_back_comes_to_another_and_stays_the_teams_where_all_have_given_it_back()
    {
        await HandOutAsync("load");
        var task = (await TakenAsync()).First(t => t.TakenBy != null);
        var other = task.TakenBy == "Thandiwe Maseko" ? "Nils Aakre" : "Thandiwe Maseko";
        await GiveBackAsync(task);
        (await AgainAsync(task)).TakenBy.ShouldBe(other);
        await GiveBackAsync(task);
        (await AgainAsync(task)).TakenBy.ShouldBeNull();
    }

    [Fact]
    public async Task Who_is_away_gets_nothing_and_what_a_leaver_had_comes_to_those_who_are_left()
    {
        await _firm.Database.AskAsync(
            """
            insert into account_absences (id, account_id, "from", "to", at, by_name)
              select gen_random_uuid(), id, '2027-02-25', '2027-03-01', now(), 'Nils' from users
            where email = 'nils@halyard.example'
            """
        );
        await HandOutAsync("rotation");
        (await TakenAsync()).Select(t => t.TakenBy).OfType<string>().Distinct().ShouldBe(["Thandiwe Maseko"]);

        await _firm.Database.AskAsync("delete from account_absences");
        // That somebody leaves a team has all checklists looked at, by whichever way they leave it.
        await _firm.Database.AskAsync("delete from jobs where kind = 'replan'");
        await _firm.Database.AskAsync("update users set disabled_at = now() where email = 'thandiwe@halyard.example'");
        await ReplanAsync();
        (await TakenAsync()).Select(t => t.TakenBy).OfType<string>().Distinct().ShouldBe(["Nils Aakre"]);
    }

    [Fact]
    public async Task A_changed_holiday_has_all_checklists_planned_anew_in_one_job_that_says_how_far_it_is()
    {
        await using (var transaction = await _acts.Db.Database.BeginTransactionAsync(TestContext.Current.CancellationToken))
        {
            var entries = await _acts.Db.ListEntries.Where(e => e.List == "calendars").ToListAsync(TestContext.Current.CancellationToken);
            // Two at once ask for it once; a name alone asks for nothing.
            foreach (var entry in entries)
                entry.Name += ".";
            await _acts.Db.SaveChangesAsync(TestContext.Current.CancellationToken);
            (await JobsAsync()).ShouldBe(0);
            await _acts.Db.Database.ExecuteSqlAsync(
                $$"""update list_entries set "values" = "values" - 'holidays' where list = 'calendars'""",
                TestContext.Current.CancellationToken
            );
            (await JobsAsync()).ShouldBe(1);
        }

        var reports = new List<(int Done, int Of)>();
        _acts.Get<Fid.Acts.Work.JobProgress>().Heard = (done, of) =>
        {
            reports.Add((done, of));
            return Task.CompletedTask;
        };
        await ReplanAsync();
        reports.ShouldBe([(0, await _acts.Db.Hires.CountAsync(h => h.Closed == null, TestContext.Current.CancellationToken))]);

        // Of this transaction, whatever else goes on.
        Task<int> JobsAsync() =>
            _acts
                .Db.Database.SqlQuery<int>($"""select count(*)::int as "Value" from jobs where kind = {ReplanChecklists.Kind} and made_at = now()""")
                .SingleAsync();
    }

    private async Task HandOutAsync(string way)
    {
        await _firm.Database.AskAsync(
            $$"""update list_entries set "values" = "values" || '{"hand_out": "{{way}}"}' where list = 'teams' and code = 'stores'"""
        );
        await ReplanAsync();
    }

    private async Task ReplanAsync()
    {
        _acts.Db.ChangeTracker.Clear();
        (await _acts.Get<ReplanChecklists>().DoAsync(new ReplanChecklistsRequest(), await _acts.AsFidAsync("test"), default))
            .IsDone(out _, out _)
            .ShouldBeTrue();
    }

    // Whoever has it gives it back.
    private async Task GiveBackAsync(TeamTask task)
    {
        using var mine = await _firm.As((await AgainAsync(task)).TakenBy!.Split(' ')[0].ToLowerInvariant());
        using var answer = await mine.SendAsync("POST", "/api/tasks/taken", new { tasks = new[] { new { hire = task.Hire, key = task.Key } }, take = false });
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
        await ReplanAsync();
    }

    private async Task<TeamTask> AgainAsync(TeamTask task) => (await TakenAsync()).Single(t => t.Hire == task.Hire && t.Key == task.Key);

    private Task<int> EntriesAsync() => _acts.Db.Changes.CountAsync(c => c.Action == "task.handedOut" && c.ByName == "Fid");

    private async Task<List<TeamTask>> TakenAsync()
    {
        var tasks = new List<TeamTask>();
        foreach (var hire in await _acts.Db.Hires.Where(h => h.Closed == null).Select(h => h.Id.ToString()).ToListAsync())
        foreach (var task in (await _orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.AsArray().Select(t => t!))
            if (task.Text("owner") == "team:stores" && task["done"] is null && task["skippedWhy"] is null)
                tasks.Add(new TeamTask(hire, task.Text("key"), (bool)task["canStart"]!, (string?)task["takenBy"]));
        return tasks;
    }

    private sealed record TeamTask(string Hire, string Key, bool CanStart, string? TakenBy);
}
