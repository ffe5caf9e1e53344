using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Acts that are sent twice, or by two at once, are done once.</summary>
public class ActKeyTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Twenty_ticks_of_one_task_at_once_are_one_entry_in_the_trail()
    {
        using var orla = await firm.As("orla");
        var (hire, task) = await OpenTaskAsync(orla);
        var before = await TrailAsync(hire, task, "task.done");
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 20).Select(_ => orla.SendAsync("PUT", $"/api/hires/{hire}/tasks/{task}/done", new { done = (string?)null }))
        );
        answers.Select(a => a.StatusCode).ShouldAllBe(s => s == HttpStatusCode.NoContent);
        (await TrailAsync(hire, task, "task.done") - before).ShouldBe(1);
    }

    [Fact]
    public async Task A_tick_sent_again_under_its_key_does_not_undo_what_came_since()
    {
        using var orla = await firm.As("orla");
        var (hire, task) = await OpenTaskAsync(orla);
        var key = Guid.NewGuid();
        (await orla.SendAsync("PUT", $"/api/hires/{hire}/tasks/{task}/done", new { done = (string?)null }, key: key)).EnsureSuccessStatusCode();
        (await orla.SendAsync("DELETE", $"/api/hires/{hire}/tasks/{task}/done", key: Guid.NewGuid())).EnsureSuccessStatusCode();
        (await orla.SendAsync("PUT", $"/api/hires/{hire}/tasks/{task}/done", new { done = (string?)null }, key: key)).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await firm.Database.AskAsync($"select done is null from hire_tasks where hire_id = '{hire}' and key = '{task}'")).ShouldBe(true);
        using var other = await orla.SendAsync("PUT", $"/api/hires/{hire}/tasks/{task}/done", new { done = "2027-02-26" }, key: key);
        (other.StatusCode, (await other.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.UnprocessableEntity, "key-reused"));
        using var unreadable = await orla.SendAsync("PUT", $"/api/hires/{hire}/tasks/{task}/done", new { done = (string?)null }, key: null);
        unreadable.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        // Somebody else's key is another.
        using var piet = await firm.As("piet");
        (await piet.SendAsync("DELETE", $"/api/hires/{hire}/tasks/{task}/done", key: key)).EnsureSuccessStatusCode();
        (await firm.Database.AskAsync($"select done is null from hire_tasks where hire_id = '{hire}' and key = '{task}'")).ShouldBe(true);
    }

    [Fact]
    public async Task A_save_sent_again_under_its_key_is_one_change_and_answers_with_what_is_there()
    {
        using var orla = await firm.As("orla");
        var id = (await FirmFixture.HireAsync(orla, "Okafor")).Text("employmentId");
        var version = (await orla.GetAsync($"/api/records/{id}")).Text("version");
        var (key, body) = (
            Guid.NewGuid(),
            new
            {
                changes = new { room = "Loft 4" },
                from = (string?)null,
                why = (string?)null,
            }
        );
        var answers = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => orla.SendAsync("PUT", $"/api/records/{id}", body, version, key: key)));
        answers.Select(a => a.StatusCode).ShouldAllBe(s => s == HttpStatusCode.OK);
        foreach (var answer in answers)
            Records.Field(await answer.JsonAsync(), "room").Text("value").ShouldBe("Loft 4");
        (
            await firm.Database.AskAsync($"select count(*) from record_values v where v.owner_id = '{id}' and v.field = 'room' and v.value = '\"Loft 4\"'")
        ).ShouldBe(1L);
        // What was refused was not done, and may be sent anew under its key.
        var refused = Guid.NewGuid();
        (
            await orla.SendAsync(
                "PUT",
                $"/api/records/{id}",
                new
                {
                    changes = new { email = "no address" },
                    from = (string?)null,
                    why = (string?)null,
                },
                version,
                key: refused
            )
        ).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await firm.Database.AskAsync($"select count(*) from done_acts where key = '{refused}'")).ShouldBe(0L);
    }

    [Fact]
    public async Task The_same_hire_sent_ten_times_at_once_is_opened_once_and_answered_ten_times()
    {
        using var orla = await firm.As("orla");
        var hire = Records.NewHire("Tamsin", "Quell");
        var answers = await Task.WhenAll(Enumerable.Range(0, 10).Select(_ => orla.SendAsync("POST", "/api/hires", hire.ToJsonString())));
        answers.Select(a => a.StatusCode).ShouldAllBe(s => s == HttpStatusCode.Created);
        var said = await Task.WhenAll(answers.Select(async a => (await a.JsonAsync()).ToJsonString()));
        said.Distinct().Count().ShouldBe(1);
        (await firm.Database.AskAsync("select count(*) from records_now where family_name = 'Quell'")).ShouldBe(1L);
        var many = new JsonObject { ["hires"] = new JsonArray(Records.NewHire("Una", "Quellin"), Records.NewHire("Ulf", "Quellin")) }.ToJsonString();
        var opened = await Task.WhenAll(Enumerable.Range(0, 5).Select(_ => orla.SendAsync("POST", "/api/hires/many", many)));
        opened.Select(a => a.StatusCode).ShouldAllBe(s => s == HttpStatusCode.OK);
        (await firm.Database.AskAsync("select count(*) from records_now where family_name = 'Quellin'")).ShouldBe(2L);
    }

    [Fact]
    public async Task The_tasks_of_a_hire_that_came_to_nothing_stay_as_they_are()
    {
        using var orla = await firm.As("orla");
        var opened = await (await orla.SendAsync("POST", "/api/hires", Records.NewHire("Wim", "Halsted").ToJsonString())).JsonAsync();
        var task = (string)(await firm.Database.AskAsync($"select key from hire_tasks where hire_id = '{opened["id"]}' order by position limit 1"))!;
        (await orla.SendAsync("PUT", $"/api/hires/{opened["id"]}/outcome", new { outcome = "withdrawn", why = "Went elsewhere" })).EnsureSuccessStatusCode();
        foreach (
            var (method, what, body) in new (string, string, object?)[]
            {
                ("PUT", "done", new { done = (string?)null }),
                ("DELETE", "done", null),
                ("PUT", "skipped", new { why = "no" }),
                ("DELETE", "skipped", null),
            }
        )
        {
            using var answer = await orla.SendAsync(method, $"/api/hires/{opened["id"]}/tasks/{task}/{what}", body);
            (answer.StatusCode, (await answer.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "closed"));
        }
    }

    [Fact]
    public async Task Two_who_publish_at_once_make_one_version_and_a_save_at_the_same_moment_is_told()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        for (var round = 0; round < 4; round++)
        {
            var fields = await piet.GetAsync("/api/fields");
            var configuration = fields["configuration"]!.DeepClone().AsObject();
            configuration["fields"]!.AsArray().Single(f => f!.Text("key") == "room")!["label"]!["en"] = $"Cabin {round}";
            var body = new JsonObject { ["configuration"] = configuration }.ToJsonString();
            var draft = await (await piet.SendAsync("PUT", "/api/fields/draft", body, (string?)fields["draft"]?["version"])).JsonAsync();
            var before = fields["version"]!.GetValue<int>();
            var publish = new { why = (string?)null, despite = true };
            var answers = await Task.WhenAll(
                piet.SendAsync("POST", "/api/fields/draft/publish", publish, draft.Text("version")),
                orla.SendAsync("POST", "/api/fields/draft/publish", publish, draft.Text("version")),
                orla.SendAsync("PUT", "/api/fields/draft", body, draft.Text("version"))
            );
            var after = await piet.GetAsync("/api/fields");
            var published = answers.Take(2).Count(a => a.StatusCode == HttpStatusCode.OK);
            (after["version"]!.GetValue<int>() - before).ShouldBe(published);
            published.ShouldBeLessThanOrEqualTo(1);
            // Either the save went in and there is a draft, or it was told that the draft is gone: never both lost and answered.
            (answers[2].StatusCode == HttpStatusCode.OK).ShouldBe(after["draft"] is not null);
            if (after["draft"] is { } left)
                (await piet.SendAsync("DELETE", "/api/fields/draft", null, left.Text("version"))).EnsureSuccessStatusCode();
        }
    }

    private static async Task<(string Hire, string Task)> OpenTaskAsync(Caller orla)
    {
        var hire = (await FirmFixture.HireAsync(orla, "Okafor")).Text("id");
        var task = (await orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.AsArray().First(t => t!["done"] is null && t["skippedWhy"] is null)!.Text("key");
        return (hire, task);
    }

    private async Task<long> TrailAsync(string hire, string task, string action) =>
        (long)(await firm.Database.AskAsync($"select count(*) from changes where subject_id = '{hire}' and part = '{task}' and action = '{action}'"))!;
}
