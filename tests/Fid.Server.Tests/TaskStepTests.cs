using System.Net;
using System.Text.Json.Nodes;
using Fid.Data.Hires;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Tasks that are a group of steps: done with the last of them, and open again when one is not. The firm's today is 1 March 2027.</summary>
public sealed class TaskStepTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _orla = null!,
        _nils = null!;
    private string _hire = "";

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        (_orla, _nils) = (await _firm.As("orla"), await _firm.As("nils"));
        _hire = (await FirmFixture.HireAsync(_orla, "Brandt")).Text("id");
        await _firm.Database.AskAsync(
            $$"""
            update hire_tasks set kind = 'Steps', steps = '{Locker,Boots,Gloves}', steps_de = '{Spind,Stiefel,Handschuhe}'
            where hire_id = '{{_hire}}' and key = 'kit'
            """
        );
    }

    public async ValueTask DisposeAsync()
    {
        _orla.Dispose();
        _nils.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task With_the_last_step_it_is_done_and_open_again_when_one_is_not()
    {
        await StepAsync(_nils, "Boots", true);
        (await KitAsync()).ShouldBe(("Locker Boots+ Gloves", null, null));
        await StepAsync(_orla, "Locker", true);
        await StepAsync(_nils, "Gloves", true);
        (await KitAsync()).ShouldBe(("Locker+ Boots+ Gloves+", "2027-03-01", "Nils Aakre"));
        // Said twice, it says nothing new.
        (await StepAsync(_orla, "Gloves", true))["changes"]!.AsArray().ShouldBeEmpty();
        await StepAsync(_orla, "Boots", false);
        (await KitAsync()).ShouldBe(("Locker+ Boots Gloves+", null, null));
        _orla.Language = "de";
        (await TaskAsync())["steps"]!.AsArray().Select(s => s!.Text("name")).ShouldBe(["Spind", "Stiefel", "Handschuhe"]);
        var history = await _orla.GetAsync($"/api/hires/{_hire}/tasks/kit/history");
        history["changes"]!.AsArray().Count(c => c!.Text("action") == "task.stepped").ShouldBe(4);
    }

    [Fact]
    public async Task Ticked_as_a_whole_all_steps_are_done_and_what_was_done_is_taken_back_with_them()
    {
        await StepAsync(_nils, "Boots", true);
        var ticked = await SentAsync(_nils, "/api/tasks/done", new { tasks = Tasks });
        (await KitAsync()).ShouldBe(("Locker+ Boots+ Gloves+", "2027-03-01", "Nils Aakre"));
        await SentAsync(_nils, "/api/tasks/taken-back", new { changes = ticked["changes"]!.AsArray().Select(c => (string)c!).ToArray() });
        (await KitAsync()).ShouldBe(("Locker Boots+ Gloves", null, null));
        await SentAsync(_nils, "/api/tasks/done", new { tasks = Tasks });
        await SentAsync(_nils, "/api/tasks/undone", new { tasks = Tasks });
        (await KitAsync()).ShouldBe(("Locker Boots Gloves", null, null));
    }

    [Fact]
    public async Task Two_who_tick_different_steps_at_once_both_have_done_so()
    {
        await Task.WhenAll(new[] { "Locker", "Boots", "Gloves" }.Select((step, i) => StepAsync(i == 1 ? _orla : _nils, step, true)));
        (await KitAsync()).Steps.ShouldBe("Locker+ Boots+ Gloves+");
        (await KitAsync()).Done.ShouldBe("2027-03-01");
    }

    [Fact]
    public async Task What_is_no_step_or_not_theirs_is_refused()
    {
        (await CodeAsync(_orla, "Helmet", "kit")).ShouldBe("unknown-step");
        (await CodeAsync(_orla, "Locker", "badge")).ShouldBe("no-steps");
        using var eoin = await _firm.As("eoin");
        (await CodeAsync(eoin, "Locker", "kit")).ShouldBe("not-found");
        await SentAsync(_orla, "/api/tasks/skipped", new { tasks = Tasks, why = "Has it all" });
        (await CodeAsync(_orla, "Locker", "kit")).ShouldBe("done");
    }

    [Fact]
    public async Task A_template_says_its_steps_each_by_a_name_of_its_own()
    {
        var spec = (await _orla.GetAsync("/api/templates/deckhand"))["live"]!.DeepClone();
        (string Steps, string? Code)[] tried =
        [
            ("""[{"name":"Locker"},{"name":"Boots","nameDe":"Stiefel"}]""", null),
            ("""[{"name":"Locker"},{"name":"Locker"}]""", "twice"),
            ("""[{"name":" "}]""", "missing"),
            ("[]", "missing"),
            ("""["Locker"]""", "bad-value"),
        ];
        foreach (var (steps, code) in tried)
        {
            var tasks = spec["lists"]!["tasks"]!.AsArray();
            tasks.RemoveAll(t => t!.Text("key") == "steps-tried");
            var task = JsonNode.Parse("""{"key":"steps-tried","properties":{"name":"Fit out","stage":"prepare","owner":"team:stores","kind":"steps"}}""")!;
            task["properties"]!["steps"] = JsonNode.Parse(steps);
            tasks.Add(task);
            using var answer = await _orla.SendAsync(
                "POST",
                "/api/templates/deckhand/example",
                new
                {
                    spec,
                    use = (string?)null,
                    facts = new { },
                    start = (string?)null,
                }
            );
            var found = (await answer.JsonAsync())["findings"]!.AsArray().Where(f => (string?)f!["key"] == "steps-tried").Select(f => f!.Text("code"));
            found.ShouldBe(code is null ? [] : [code], steps);
        }
    }

    [Fact]
    public void Steps_called_as_before_stay_done_when_a_template_names_others()
    {
        var task = new HireTask
        {
            Key = "kit",
            Position = 0,
            Name = "Kit",
            StageKey = "prepare",
            Owner = "manager",
            CalendarCode = "own",
            Work = 1,
            Steps = ["Locker", "Boots"],
            StepsDone = [1],
        };
        task.TakeSteps(["Helmet", "Boots", "Locker"], []);
        task.StepsDone.ShouldBe([1]);
        task.TakeSteps(["Boots"], []);
        task.StepsDone.ShouldBe([0]);
    }

    private object Tasks => new[] { new { hire = _hire, key = "kit" } };

    private Task<JsonNode> StepAsync(Caller caller, string step, bool done) =>
        SentAsync(
            caller,
            "/api/tasks/step",
            new
            {
                tasks = Tasks,
                step,
                done,
            }
        );

    private async Task<string> CodeAsync(Caller caller, string step, string key)
    {
        using var answer = await caller.SendAsync(
            "POST",
            "/api/tasks/step",
            new
            {
                tasks = new[] { new { hire = _hire, key } },
                step,
                done = true,
            }
        );
        answer.StatusCode.ShouldNotBe(HttpStatusCode.OK);
        var body = await answer.JsonAsync();
        return body["errors"] is JsonArray { Count: > 0 } errors ? errors[0]!.Text("code") : body.Text("code");
    }

    private static async Task<JsonNode> SentAsync(Caller caller, string path, object body)
    {
        using var answer = await caller.SendAsync("POST", path, body);
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
        return await answer.JsonAsync();
    }

    private async Task<JsonNode> TaskAsync() => (await _orla.GetAsync($"/api/hires/{_hire}"))["tasks"]!.AsArray().Single(t => t!.Text("key") == "kit")!;

    private async Task<(string Steps, string? Done, string? By)> KitAsync()
    {
        var task = await TaskAsync();
        var steps = task["steps"]!.AsArray().Select(s => s!.Text("step") + ((bool)s!["done"]! ? "+" : ""));
        return (string.Join(' ', steps), (string?)task["done"], (string?)task["doneBy"]);
    }
}
