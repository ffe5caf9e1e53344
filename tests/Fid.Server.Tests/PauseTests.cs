using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Reminders that are paused, of a task or of a hire. The firm's today is 1 March 2027, a Monday.</summary>
public sealed class PauseTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _orla = null!;

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        _orla = await _firm.As("orla");
    }

    public async ValueTask DisposeAsync()
    {
        _orla.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task Of_a_task_that_is_paused_nobody_is_reminded_and_of_all_others_they_are()
    {
        var before = await ShownAsync();
        var (hire, name) = before[0];
        var key = Find(await _orla.GetAsync($"/api/hires/{hire}"), t => t.Text("name") == name).Text("key");
        var paused = await DoneAsync(new { tasks = new[] { new { hire, key } } });
        (await ShownAsync()).ShouldBe(before.Where(l => l != (hire, name)));
        ((bool)Find(await _orla.GetAsync($"/api/hires/{hire}"), t => t.Text("key") == key)["remindersPaused"]!).ShouldBeTrue();
        (await _orla.GetAsync($"/api/hires/{hire}/tasks/{key}/history"))["changes"]!.AsArray().Select(e => e!.Text("action")).ShouldContain("task.paused");

        // Said twice, it is no news; taken back, its latest moment counts again.
        (await DoneAsync(new { tasks = new[] { new { hire, key } } }))["changes"]!.AsArray().ShouldBeEmpty();
        (await _orla.SendAsync("POST", "/api/tasks/taken-back", new { changes = paused["changes"] })).EnsureSuccessStatusCode();
        (await ShownAsync()).ShouldBe(before);
        await DoneAsync(new { tasks = new[] { new { hire, key } }, paused = true });
        await DoneAsync(new { tasks = new[] { new { hire, key } }, paused = false });
        (await ShownAsync()).ShouldBe(before);
    }

    [Fact]
    public async Task What_is_done_has_nothing_to_pause()
    {
        var hire = (await FirmFixture.HireAsync(_orla, "Varga")).Text("id");
        using var refused = await _orla.SendAsync("POST", "/api/tasks/paused", new { tasks = new[] { new { hire, key = "kit" } } });
        (refused.StatusCode, (await refused.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "done"));
    }

    [Fact]
    public async Task Of_a_hire_that_is_paused_nobody_is_reminded_until_they_are_again_and_the_trail_says_each_once()
    {
        var before = await ShownAsync();
        var hire = before[0].Hire;
        var key = Guid.NewGuid();
        for (var i = 0; i < 2; i++)
            (await PauseAsync(hire, true, key)).ShouldBe(HttpStatusCode.NoContent);
        (await Task.WhenAll(Enumerable.Range(0, 3).Select(_ => PauseAsync(hire, true)))).ShouldAllBe(s => s == HttpStatusCode.NoContent);
        ((bool)(await _orla.GetAsync($"/api/hires/{hire}"))["remindersPaused"]!).ShouldBeTrue();
        (await ShownAsync()).ShouldBe(before.Where(l => l.Hire != hire));
        (await PauseAsync(hire, false)).ShouldBe(HttpStatusCode.NoContent);
        (await ShownAsync()).ShouldBe(before);
        (
            await _firm.Database.AskAsync(
                $"select string_agg(action, ' ' order by at) from changes where subject_id = '{hire}' and action like 'hire.%ed' and action <> 'hire.opened'"
            )
        ).ShouldBe("hire.paused hire.resumed");

        (await PauseAsync(Guid.NewGuid().ToString(), true)).ShouldBe(HttpStatusCode.NotFound);
        (await _orla.SendAsync("PUT", $"/api/hires/{hire}/outcome", new { outcome = "withdrawn", why = "Stepped back" })).EnsureSuccessStatusCode();
        (await PauseAsync(hire, true)).ShouldBe(HttpStatusCode.Conflict);
    }

    private async Task<HttpStatusCode> PauseAsync(string hire, bool paused, Guid? key = null)
    {
        using var response = await _orla.SendAsync("PUT", $"/api/hires/{hire}/reminders", new { paused }, key: key);
        return response.StatusCode;
    }

    private async Task<List<(string Hire, string Task)>> ShownAsync() =>
        [
            .. (await _orla.GetAsync("/api/reminders?on=2027-03-01"))["messages"]!
                .AsArray()
                .SelectMany(m => m!["lines"]!.AsArray())
                .Select(l => (l!["task"]!.Text("hireId"), l["task"]!.Text("name")))
                .Distinct()
                .Order(),
        ];

    private static JsonNode Find(JsonNode hire, Func<JsonNode, bool> which) => hire["tasks"]!.AsArray().Single(t => which(t!))!;

    private async Task<JsonNode> DoneAsync(object body)
    {
        using var response = await _orla.SendAsync("POST", "/api/tasks/paused", body);
        response.IsSuccessStatusCode.ShouldBeTrue(await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }
}
