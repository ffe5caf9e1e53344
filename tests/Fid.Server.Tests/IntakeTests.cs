using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The recruiting feed: pulled, however it behaves, and told what became of its candidates.</summary>
public class IntakeTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Candidates_are_taken_in_once_become_hires_and_what_changes_later_is_proposed()
    {
        await using var feed = await Feed.StartAsync();
        using var orla = await ConnectedAsync(feed);
        feed.Candidates = """
            {"candidates":[{"id":"a/1","givenName":"Vera","familyName":"Intake","email":"vera@example.org","phone":"+353 1 555 0101",
              "role":"Deckhand","site":"Skerry Pier","start":"2027-04-05"},{"id":"a2","familyName":"Other","role":"Nobody"}]}
            """;
        for (var i = 0; i < 2; i++)
            (await PullAsync(orla))["succeeded"]!.GetValue<bool>().ShouldBeTrue();
        var waiting = (await orla.GetAsync("/api/intake"))["candidates"]!.AsArray().Where(c => c!["candidate"]!.Text("id") is "a/1" or "a2").ToList();
        waiting.Count.ShouldBe(2);
        var vera = waiting.Single(c => c!["candidate"]!.Text("id") == "a/1")!;
        (vera.Text("template"), vera.Text("siteCode")).ShouldBe(("deckhand", "skerry"));
        waiting.Single(c => c!["candidate"]!.Text("id") == "a2")!["template"].ShouldBeNull();

        var request = Records.NewHire("Vera", "Intake");
        request["candidate"] = vera.Text("id");
        request["start"] = "2027-04-05";
        request["typed"]!["phone"] = "+353 1 555 0101";
        using var opened = await orla.SendAsync("POST", "/api/hires", request.ToJsonString());
        var hire = await opened.JsonAsync();
        (request["id"], request["typed"]!["given_name"], request["typed"]!["email"]) = (Guid.NewGuid().ToString(), "Zenobia", "zenobia@example.org");
        using (var twice = await orla.SendAsync("POST", "/api/hires", request.ToJsonString()))
            (await twice.ErrorsAsync()).ShouldBe([("/candidate", "not-waiting")]);
        (await feed.HeardAsync(1)).Single().ShouldBe($"a/1 opened {hire["number"]} 2027-04-05");

        feed.Candidates = feed.Candidates.Replace("0101", "0199", StringComparison.Ordinal).Replace("vera@", "vera.intake@", StringComparison.Ordinal);
        (await PullAsync(orla))["changed"]!.GetValue<int>().ShouldBe(1);
        var proposals = await ProposalsAsync();
        proposals.ShouldBe(["email vera@example.org vera.intake@example.org", "phone +353 1 555 0101 +353 1 555 0199"]);
        (
            await orla.SendAsync("POST", $"/api/intake/{vera["id"]}/proposals", new { take = new[] { "phone" }, leave = new[] { "email" } })
        ).EnsureSuccessStatusCode();
        var record = await orla.GetAsync($"/api/records/{hire["employmentId"]}");
        (Records.Field(record, "phone").Text("value"), Records.Field(record, "email").Text("value")).ShouldBe(("+353 1 555 0199", "Vera.Intake@example.org"));
        (await ProposalsAsync()).ShouldBeEmpty();
        await PullAsync(orla);
        (await ProposalsAsync()).ShouldBeEmpty();

        var other = waiting.Single(c => c!["candidate"]!.Text("id") == "a2")!.Text("id");
        (await orla.SendAsync("POST", $"/api/intake/{other}/decline", new { why = "Another was chosen" })).EnsureSuccessStatusCode();
        (await feed.HeardAsync(2)).ShouldContain(h => h.StartsWith("a2 declined", StringComparison.Ordinal));

        async Task<string[]> ProposalsAsync() =>
            [
                .. (await orla.GetAsync("/api/intake"))["candidates"]!.AsArray().Single(c => c!.Text("id") == vera.Text("id"))!["proposals"]!
                    .AsArray()
                    .Select(p => $"{p!.Text("field")} {p!.Text("before")} {p!.Text("now")}")
                    .Order(StringComparer.Ordinal),
            ];
    }

    [Fact]
    public async Task What_recruiting_says_is_marked_as_such_and_a_later_start_site_or_role_is_noticed()
    {
        await using var feed = await Feed.StartAsync();
        using var orla = await ConnectedAsync(feed);
        feed.Candidates =
            """{"candidates":[{"id":"m/1","givenName":"Milo","familyName":"Marked","email":"milo@example.org","role":"Deckhand","site":"Skerry """
            + """Pier","start":"2027-04-05"}]}""";
        await PullAsync(orla);
        (await WaitingAsync()).ShouldBe((1, 0));
        var id = (await orla.GetAsync("/api/intake"))["candidates"]!.AsArray().Single(c => c!["candidate"]!.Text("id") == "m/1")!.Text("id");
        var request = Records.NewHire("Milo", "Corrected");
        (request["candidate"], request["start"], request["typed"]!["email"]) = (id, "2027-04-05", "MILO@example.org");
        using var opened = await orla.SendAsync("POST", "/api/hires", request.ToJsonString());
        var hire = await opened.JsonAsync();
        var record = await orla.GetAsync($"/api/records/{hire["employmentId"]}");
        // What was typed over it is the coordinator's.
        new[] { "given_name", "email", "site", "family_name" }
            .Select(f => Records.Field(record, f)["source"]!.Text("kind"))
            .ShouldBe(["recruiting", "recruiting", "recruiting", "typed"]);

        feed.Candidates = feed
            .Candidates.Replace("2027-04-05", "2027-04-19", StringComparison.Ordinal)
            .Replace("Skerry Pier", "The Yard", StringComparison.Ordinal)
            .Replace("Deckhand", "Ticket clerk", StringComparison.Ordinal);
        await PullAsync(orla);
        (await WaitingAsync()).ShouldBe((0, 1));
        (await ProposalsAsync()).ShouldBe([
            "role Deckhand > Ticket clerk by hand",
            "site Skerry Pier > The Yard",
            "start_date 2027-04-05 > 2027-04-19 by hand",
        ]);
        using (var refused = await SettleAsync(take: ["start_date"], leave: []))
            (await refused.ErrorsAsync()).ShouldBe([("/take/start_date", "by-hand")]);
        (await SettleAsync(take: ["site"], leave: ["role"])).EnsureSuccessStatusCode();
        var site = Records.Field(await orla.GetAsync($"/api/records/{hire["employmentId"]}"), "site");
        (site.Text("value"), site["source"]!.Text("kind"), site.Text("since")).ShouldBe(("yard", "recruiting", "2027-04-05"));
        // Moved where recruiting has it, the start asks for nothing more.
        var version = (await orla.GetAsync($"/api/hires/{hire["id"]}")).Text("version");
        (
            await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/start", new { start = "2027-04-19", why = "As recruiting says" }, version)
        ).EnsureSuccessStatusCode();
        (await ProposalsAsync()).ShouldBeEmpty();
        (await WaitingAsync()).ShouldBe((0, 0));
        (await feed.HeardAsync(2)).ShouldBe([$"m/1 opened {hire["number"]} 2027-04-05", $"m/1 startMoved {hire["number"]} 2027-04-19"]);

        Task<HttpResponseMessage> SettleAsync(string[] take, string[] leave) => orla.SendAsync("POST", $"/api/intake/{id}/proposals", new { take, leave });
        async Task<(int, int)> WaitingAsync() =>
            await orla.GetAsync("/api/intake/waiting") is var w ? (await OfHereAsync(w, "waiting"), w["changed"]!.GetValue<int>()) : default;
        // Other tests of this class leave candidates waiting.
        async Task<int> OfHereAsync(JsonNode w, string what) =>
            w[what]!.GetValue<int>()
            - (int)(long)(await firm.Database.AskAsync("select count(*) from intake_candidates where state = 'Waiting' and source_id <> 'm/1'"))!;
        async Task<string[]> ProposalsAsync() =>
            [
                .. (await orla.GetAsync("/api/intake"))["candidates"]!.AsArray().Single(c => c!.Text("id") == id)!["proposals"]!
                    .AsArray()
                    .Select(p => $"{p!.Text("field")} {p!.Text("before")} > {p!.Text("now")}{(p!["takesOver"]!.GetValue<bool>() ? "" : " by hand")}")
                    .Order(StringComparer.Ordinal),
            ];
    }

    [Theory]
    [InlineData("down", 3, "It answered 503.")]
    [InlineData("slow", 3, "It did not answer in time.")]
    [InlineData("html", 1, "The answer is no JSON.")]
    [InlineData("list", 1, "/candidates The answer has no list of candidates.")]
    [InlineData("half", 1, "/candidates/1/id A candidate needs an id.")]
    [InlineData("date", 1, "/candidates/0/start This is to be a date, as 2027-03-01.")]
    [InlineData("flaky", 3, "It answered 500.")]
    public async Task A_feed_that_misbehaves_loses_and_doubles_nothing_and_each_try_is_to_be_seen(string how, int tries, string said)
    {
        await using var feed = await Feed.StartAsync();
        using var orla = await ConnectedAsync(feed);
        feed.Candidates = $$"""{"candidates":[{"id":"kept-{{how}}"}]}""";
        await PullAsync(orla);
        var before = await firm.Database.AskAsync("select count(*) from intake_candidates");
        feed.Mood = how;
        var run = await PullAsync(orla);
        run["succeeded"]!.GetValue<bool>().ShouldBe(how == "flaky");
        run["tries"]!.GetValue<int>().ShouldBe(tries);
        run["trouble"]!.AsArray().Select(t => (string?)t).ShouldContain(said);
        (await firm.Database.AskAsync("select count(*) from intake_candidates")).ShouldBe(before);
        (await orla.GetAsync("/api/intake"))["runs"]![0]!["tries"]!.GetValue<int>().ShouldBe(tries);
    }

    [Fact]
    public async Task What_others_have_to_agree_to_is_not_taken_over_from_recruiting_by_one()
    {
        await using var feed = await Feed.StartAsync();
        using var orla = await ConnectedAsync(feed);
        using var piet = await firm.As("piet");
        feed.Candidates = """
            {"candidates":[{"id":"agreed","givenName":"Runa","familyName":"Feed","email":"runa@home.example","phone":"+353 1 555 0301",
              "role":"Deckhand","site":"Skerry Pier","start":"2027-04-05"}]}
            """;
        await PullAsync(orla);
        var request = Records.NewHire("Runa", "Feed");
        request["candidate"] = (await orla.GetAsync("/api/intake"))["candidates"]!.AsArray().Single(c => c!["candidate"]!.Text("id") == "agreed")!.Text("id");
        using var opened = await orla.SendAsync("POST", "/api/hires", request.ToJsonString());
        var own = (await opened.JsonAsync()).Text("employmentId");
        // What recruiting is told of it is told to this feed, and waits for no other.
        await feed.HeardAsync(1);
        feed.Candidates = feed.Candidates.Replace("0301", "0777", StringComparison.Ordinal).Replace("runa@", "runa.new@", StringComparison.Ordinal);
        await PullAsync(orla);
        await Asking.ApproveByAsync(
            piet,
            """{"id":"phones","label":"Phones","fields":["phone"],"when":"new == '+353 1 555 0777'","by":["role:administrator"]}"""
        );

        using (var both = await SettleAsync("phone", "email"))
            (await both.ErrorsAsync()).ShouldBe([("/take/phone", "needs-approval")]);
        var record = await orla.GetAsync($"/api/records/{own}");
        Records.Field(record, "email").Text("value").ShouldNotContain("runa.new", Case.Insensitive, "of two together neither is taken");
        (await SettleAsync("email")).EnsureSuccessStatusCode();
        // What was asked for and agreed to is what recruiting says: then it can be taken.
        await orla.AskedAsync(own, new { phone = "+353 1 555 0777" });
        await piet.AgreeToTheOneAsync();
        (await SettleAsync("phone")).EnsureSuccessStatusCode();

        Task<HttpResponseMessage> SettleAsync(params string[] take) =>
            orla.SendAsync("POST", $"/api/intake/{request["candidate"]}/proposals", new { take, leave = Array.Empty<string>() });
    }

    private async Task<Caller> ConnectedAsync(Feed feed)
    {
        using var piet = await firm.As("piet");
        using (var wrong = await piet.SendAsync("PUT", "/api/intake/feed", new { address = "file:///etc/passwd" }))
            (await wrong.ErrorsAsync()).ShouldBe([("/address", "bad-value")]);
        (await piet.SendAsync("PUT", "/api/intake/feed", new { address = feed.Address })).EnsureSuccessStatusCode();
        return await firm.As("orla");
    }

    private static async Task<JsonNode> PullAsync(Caller caller)
    {
        using var response = await caller.SendAsync("POST", "/api/intake/pull");
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }
}
