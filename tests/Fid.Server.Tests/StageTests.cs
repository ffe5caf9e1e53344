using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Acts.Checklists;
using Fid.Acts.Tasks;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Stages that go on by themselves or by a person's word, and newcomers who have settled. The firm's today is 1 March 2027, a Monday.</summary>
public sealed class StageTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _orla = null!;
    private ActCaller _acts = null!;
    private int _before;

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        _orla = await _firm.As("orla");
        _acts = new ActCaller(_firm.Server);
    }

    public async ValueTask DisposeAsync()
    {
        await _acts.DisposeAsync();
        _orla.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task Whatever_changes_a_task_or_a_start_asks_once_for_the_checklist_to_go_on_and_only_if_it_is_committed()
    {
        var hire = Guid.Parse(await HireAsync("Brandt"));
        var orla = await _acts.AsAsync("orla");
        await using (await ActScope.BeginAsync(_acts.Db, orla, "larger", default))
        {
            await new TickTasks(_acts.Db).DoAsync(new TickTasksRequest([new(hire, "kit"), new(hire, "badge")]), orla, default);
            await new NoteTasks(_acts.Db).DoAsync(new NoteTasksRequest([new(hire, "kit")], "Size 46"), orla, default);
            await _acts.Db.Database.ExecuteSqlAsync($"update hires set start = start + 1 where id = {hire}", default);
            (await JobsAsync()).ShouldBe([hire.ToString()]);
        }
        _acts.Db.ChangeTracker.Clear();
        (await JobsAsync()).ShouldBeEmpty();

        Task<List<string?>> JobsAsync() => _acts.Db.Jobs.Where(j => j.Kind == AdvanceChecklists.Kind).Select(j => j.Argument).ToListAsync();
    }

    [Fact]
    public async Task A_gate_passes_by_its_tasks_opens_what_waits_for_it_and_falls_back_with_them_each_once_on_record()
    {
        var hire = await StartedAsync();
        var left = (await TasksAsync(hire, "arrive")).Where(t => (bool)t["required"]! && t["done"] is null).Select(t => t.Text("key")).ToArray();
        left.ShouldNotBeEmpty();
        await TickAsync(hire, left, "2027-02-27");
        await GoOnAsync(hire, hire);
        var arrive = await StageAsync(hire, "arrive");
        (arrive.Text("state"), arrive.Text("passed"), arrive["word"]).ShouldBe(("passed", "2027-02-27", null));
        (await TrailAsync(hire)).ShouldBe(["stage.passed arrive by Fid", "stage.opened settle by Fid"]);

        await SentAsync("POST", "/api/tasks/undone", new { tasks = new[] { new { hire, key = left[0] } } });
        await GoOnAsync(hire);
        (await StageAsync(hire, "settle")).Text("state").ShouldBe("closed");
        (await TrailAsync(hire))[2..].ShouldBe(["stage.reopened arrive by Fid", "stage.closed settle by Fid"]);
    }

    [Fact]
    public async Task A_person_lets_a_gate_pass_with_a_reason_and_what_is_left_of_it_stays_to_be_done()
    {
        var hire = await StartedAsync();
        var path = $"/api/hires/{hire}/stages/arrive/passed";
        (await RefusedAsync(path, new { why = "  " })).ShouldBe("missing");
        (await RefusedAsync(path, new { why = new string('x', 501) })).ShouldBe("too-long");
        (await RefusedAsync($"/api/hires/{hire}/stages/nowhere/passed", new { why = "So" })).ShouldBe("not-found");
        using (var nils = await _firm.As("nils"))
        using (var refused = await nils.SendAsync("PUT", path, new { why = "So" }))
            refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        var key = Guid.NewGuid();
        for (var i = 0; i < 2; i++)
            (await _orla.SendAsync("PUT", path, new { why = "The muster was held elsewhere" }, key: key)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var arrive = await StageAsync(hire, "arrive");
        (arrive.Text("state"), arrive.Text("passed"), arrive["word"]!.Text("by"), arrive["word"]!.Text("why")).ShouldBe(
            ("passed", "2027-03-01", "Orla Dunmore", "The muster was held elsewhere")
        );
        (await StageAsync(hire, "settle")).Text("state").ShouldBe("open");
        (await TrailAsync(hire)).ShouldBe(["stage.passed arrive by Orla Dunmore", "stage.opened settle by Orla Dunmore"]);
        (await TasksAsync(hire, "arrive")).ShouldContain(t => (bool)t["required"]! && t["done"] == null);
        (await RefusedAsync(path, new { why = "Again" })).ShouldBe("passed");
        // Fid leaves it at that.
        await GoOnAsync(hire);
        (await TrailAsync(hire)).Count.ShouldBe(2);

        // Opened again, its tasks have the say.
        (await RefusedAsync($"/api/hires/{hire}/stages/settle/reopened", new { why = "So" })).ShouldBe("not-passed");
        await SentAsync("PUT", $"/api/hires/{hire}/stages/arrive/reopened", new { why = "It was not held at all" });
        ((await StageAsync(hire, "arrive")).Text("state"), (await StageAsync(hire, "arrive"))["word"]).ShouldBe(("open", null));
        (await TrailAsync(hire))[2..].ShouldBe(["stage.reopened arrive by Orla Dunmore", "stage.closed settle by Orla Dunmore"]);
    }

    [Fact]
    public async Task Of_two_who_let_a_gate_pass_at_once_one_does()
    {
        var hire = await StartedAsync();
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(i => _orla.SendAsync("PUT", $"/api/hires/{hire}/stages/arrive/passed", new { why = $"So says {i}" }))
        );
        answers.Select(a => a.StatusCode).Order().ShouldBe([HttpStatusCode.NoContent, .. Enumerable.Repeat(HttpStatusCode.Conflict, 3)]);
        (await TrailAsync(hire)).ShouldBe(["stage.passed arrive by Orla Dunmore", "stage.opened settle by Orla Dunmore"]);
    }

    [Fact]
    public async Task Who_has_settled_leaves_Arrivals_can_be_looked_back_at_and_comes_back_when_a_stage_is_opened_again()
    {
        var hire = await StartedAsync();
        var all = (await _orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.AsArray().Where(t => t!["done"] is null && (bool)t["required"]!);
        await TickAsync(hire, [.. all.Select(t => t!.Text("key"))], "2027-02-28");
        await GoOnAsync(hire);
        (await _orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().ShouldNotContain(h => h!.Text("id") == hire);
        (await TrailAsync(hire))[^1].ShouldBe("hire.settled  by Fid");

        // It stays as it was on that day, whatever the day.
        await using var later = new FidInstance(_firm.Database.Connection, today: TestDatabase.Today.PlusDays(40));
        using var orla = await Caller.SignedInAsync(later.Address, "orla");
        var past = await orla.GetAsync($"/api/hires/{hire}");
        (past.Text("settled"), past.Text("today")).ShouldBe(("2027-03-01", "2027-03-01"));
        past["tasks"]!.AsArray().ShouldAllBe(t => !(bool)t!["mayTick"]!);
        (await orla.GetAsync($"/api/hires/{hire}/person"))["hasChecklist"]!.GetValue<bool>().ShouldBeTrue();
        var record = await orla.GetAsync($"/api/records/{past.Text("employmentId")}");
        (record["hire"], record["settled"]!.Text("id")).ShouldBe((null, hire));
        (await RefusedAsync("POST", "/api/tasks/undone", new { tasks = new[] { new { hire, key = "muster" } } })).ShouldBe("closed");
        (await RefusedAsync($"/api/hires/{hire}/stages/confirm/passed", new { why = "So" })).ShouldBe("passed");

        await SentAsync("PUT", $"/api/hires/{hire}/stages/settle/reopened", new { why = "The buddy was away" });
        var settle = await StageAsync(hire, "settle");
        (settle.Text("state"), settle["word"]!.Text("by")).ShouldBe(("open", "Orla Dunmore"));
        (await _orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().ShouldContain(h => h!.Text("id") == hire);
        // All of it is done, and so nobody but a person lets it pass.
        await GoOnAsync(hire);
        (await StageAsync(hire, "settle")).Text("state").ShouldBe("open");
        await SentAsync("PUT", $"/api/hires/{hire}/stages/settle/passed", new { why = "She is back" });
        (await _orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().ShouldNotContain(h => h!.Text("id") == hire);
    }

    [Fact]
    public async Task A_hire_that_came_to_nothing_has_not_settled_and_has_no_gates_to_pass()
    {
        var hire = await StartedAsync();
        await SentAsync("PUT", $"/api/hires/{hire}/outcome", new { outcome = "noShow", why = "Never came" });
        await GoOnAsync(hire);
        (await TrailAsync(hire)).ShouldNotContain(t => t.StartsWith("hire.settled", StringComparison.Ordinal));
        (await RefusedAsync($"/api/hires/{hire}/stages/arrive/passed", new { why = "So" })).ShouldBe("closed");
        (await _orla.GetAsync($"/api/hires/{hire}/person"))["hasChecklist"]!.GetValue<bool>().ShouldBeFalse();
    }

    [Fact]
    public async Task The_day_opens_stages_by_itself_after_days_on_which_no_server_ran_too_and_tells_once_who_has_work_now()
    {
        var hire = await HireAsync("Varga");
        var left = (await TasksAsync(hire, "prepare")).Where(t => t["done"] is null && (bool)t["required"]!);
        await TickAsync(hire, [.. left.Select(t => t.Text("key"))], "2027-03-01");
        // By no day, so that nobody is told of it but because its stage opens.
        await SentAsync(
            "POST",
            $"/api/hires/{hire}/tasks",
            new
            {
                name = "Show her the loft",
                stage = "arrive",
                owner = "team:stores",
                required = false,
            }
        );
        await GoOnAsync(hire);
        (await StageAsync(hire, "arrive")).Text("state").ShouldBe("open");
        (await TrailAsync(hire)).ShouldBe(["stage.passed prepare by Fid"]);

        // She starts on Monday the 8th; the next server runs on Wednesday.
        await using var later = new FidInstance(_firm.Database.Connection, today: TestDatabase.Today.PlusDays(9));
        await using var acts = new ActCaller(later);
        for (var i = 0; i < 2; i++)
            (await acts.Get<AdvanceChecklistsDaily>().DoAsync(new AdvanceChecklistsDailyRequest(), await acts.AsFidAsync("test"), default))
                .IsDone(out _, out _)
                .ShouldBeTrue();
        (await TrailAsync(hire)).ShouldBe(["stage.passed prepare by Fid", "stage.opened arrive by Fid"]);
        using var orla = await Caller.SignedInAsync(later.Address, "orla");
        var news = (await orla.GetAsync("/api/reminders?on=2027-03-10"))["messages"]!
            .AsArray()
            .SelectMany(m => m!["lines"]!.AsArray().Select(l => (Kind: l!.Text("kind"), Hire: l!["task"]!.Text("hireId"), Task: l["task"]!.Text("name"))))
            .Where(l => l.Hire == hire)
            .ToList();
        news.Where(l => l.Kind == "opened").Select(l => l.Task).Distinct().ShouldBe(["Show her the loft"]);
        // A week on it is news no more.
        (await orla.GetAsync("/api/reminders?on=2027-03-18"))["messages"]!
            .AsArray()
            .SelectMany(m => m!["lines"]!.AsArray())
            .ShouldNotContain(l => l!.Text("kind") == "opened");
    }

    [Fact]
    public async Task With_what_a_hire_begins_is_no_news_in_the_trail()
    {
        var hire = await HireAsync("Lind");
        await _firm.Database.AskAsync($"delete from hire_stages where hire_id = '{hire}'");
        await GoOnAsync(hire);
        (await TrailAsync(hire)).ShouldBeEmpty();
        (await _firm.Database.AskAsync($"select opened::text from hire_stages where hire_id = '{hire}' and stage_key = 'prepare'")).ShouldBe("2027-02-27");
    }

    // Yusuf came three weeks ago: of his arrival something is left after all.
    private async Task<string> StartedAsync()
    {
        var hire = await HireAsync("Demirci");
        await SentAsync("POST", "/api/tasks/undone", new { tasks = new[] { new { hire, key = "meet" } } });
        await GoOnAsync(hire);
        _before = (await TrailAsync(hire)).Count;
        return hire;
    }

    private async Task GoOnAsync(params string[] hires)
    {
        _acts.Db.ChangeTracker.Clear();
        foreach (var hire in hires)
            (await _acts.Get<AdvanceChecklists>().DoAsync(new AdvanceChecklistsRequest([Guid.Parse(hire)]), await _acts.AsFidAsync("test"), default))
                .IsDone(out _, out _)
                .ShouldBeTrue();
    }

    private Task TickAsync(string hire, string[] keys, string done) =>
        SentAsync("POST", "/api/tasks/done", new { tasks = keys.Select(key => new { hire, key }), done });

    private async Task SentAsync(string method, string path, object body)
    {
        using var response = await _orla.SendAsync(method, path, body);
        response.IsSuccessStatusCode.ShouldBeTrue(await response.Content.ReadAsStringAsync());
    }

    private Task<string> RefusedAsync(string path, object body) => RefusedAsync("PUT", path, body);

    private async Task<string> RefusedAsync(string method, string path, object body)
    {
        using var response = await _orla.SendAsync(method, path, body);
        response.IsSuccessStatusCode.ShouldBeFalse();
        var answer = await response.JsonAsync();
        return answer["errors"] is JsonArray { Count: > 0 } errors ? errors[0]!.Text("code") : answer.Text("code");
    }

    private async Task<string> HireAsync(string name) => (await FirmFixture.HireAsync(_orla, name)).Text("id");

    private async Task<JsonNode> StageAsync(string hire, string key) =>
        (await _orla.GetAsync($"/api/hires/{hire}"))["stages"]!.AsArray().Single(s => s!.Text("key") == key)!;

    private async Task<List<JsonNode>> TasksAsync(string hire, string stage) =>
        [.. (await _orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.AsArray().Where(t => t!.Text("stage") == stage).Select(t => t!)];

    private async Task<List<string>> TrailAsync(string hire)
    {
        _acts.Db.ChangeTracker.Clear();
        var id = Guid.Parse(hire);
        var entries = await _acts
            .Db.Changes.AsNoTracking()
            .Where(c => c.SubjectId == id && (c.Action.StartsWith("stage.") || c.Action.StartsWith("hire.settled")))
            .ToListAsync();
        // What one act did has one time: first the gate, then what follows from it.
        string[] order = ["stage.passed", "stage.reopened", "stage.opened", "stage.closed", "hire.settled"];
        return
        [
            .. entries
                .OrderBy(c => c.At)
                .ThenBy(c => Array.IndexOf(order, c.Action))
                .ThenBy(c => c.Part)
                .Select(c => $"{c.Action} {c.Part} by {c.ByName}")
                .Skip(_before),
        ];
    }
}
