using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Where work stalls, over the year of newcomers who have settled. The firm's today is 1 March 2027.</summary>
public sealed class StallTests : IAsyncLifetime
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
    public async Task Ordering_a_radio_holds_up_most_starts_and_takes_longer_than_its_template_says()
    {
        var stalls = await _orla.GetAsync("/api/stalls");
        (stalls.Text("from"), stalls.Text("to")).ShouldBe(("2026-03-02", "2027-03-01"));
        var tasks = stalls["tasks"]!.AsArray();
        var radio = Row(stalls, "tasks", "radio-order");
        radio["count"]!
            .ToString()
            .ShouldBe(
                await CountAsync("t.key = 'radio-order' and t.done between '2026-03-02' and '2027-03-01'"),
                "All that were done in the time count, of those who have settled and of those under way"
            );
        tasks.MaxBy(t => (decimal?)t!["heldUpShare"] ?? 0)!.Text("key").ShouldBe("radio-order");
        ((int)radio["work"]!, (decimal)radio["median"]! > 8, (int)radio["suggestedWork"]! > 8).ShouldBe((8, true, true));
        decimal[] spread = [.. new[] { "p10", "p25", "median", "p75", "p90" }.Select(p => (decimal)radio[p]!)];
        spread.ShouldBe(spread.Order());
        tasks.Select(t => (decimal?)t!["p90"] ?? -1).ShouldBeInOrder(SortDirection.Descending);
        stalls["owners"]!.AsArray().Sum(o => (int)o!["count"]!).ShouldBe(tasks.Sum(t => (int)t!["count"]!));
        stalls["templates"]!.AsArray().Sum(o => (int)o!["count"]!).ShouldBe(tasks.Sum(t => (int)t!["count"]!));
        // What was added to one hire alone says nothing of any template.
        tasks.ShouldNotContain(t => t!.Text("key").StartsWith("own-", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Each_row_opens_the_hires_behind_it_and_those_lead_to_checklists_that_can_be_looked_back_at()
    {
        const string Span = "from=2026-09-01&to=2026-12-31";
        foreach (var (by, part) in new[] { ("task", "tasks"), ("owner", "owners"), ("template", "templates") })
        {
            var row = (await _orla.GetAsync($"/api/stalls?{Span}"))[part]!.AsArray().First(r => (int)r!["count"]! > 0)!;
            var hires = (await _orla.GetAsync($"/api/stalls/hires?by={by}&key={row.Text("key")}&{Span}")).AsArray();
            hires.Count(h => h!["done"] is not null).ShouldBe((int)row["count"]!);
            hires.Count(h => h!["done"] is null).ShouldBe((int)row["open"]!);
            hires
                .Where(h => h!["done"] is not null)
                .ShouldAllBe(h => string.CompareOrdinal(h!.Text("done"), "2026-08-31") > 0 && string.CompareOrdinal(h!.Text("done"), "2027") < 0);
            (hires.Count(h => (bool)h!["heldUp"]! && h["done"] is not null) * 1000 / (decimal)(int)row["count"]!).ShouldBe(
                (decimal)row["heldUpShare"]! * 1000,
                1
            );
            var past = await _orla.GetAsync($"/api/hires/{hires.First(h => h!["done"] is not null)!.Text("hireId")}");
            past["tasks"]!.AsArray().Where(t => (bool)t!["required"]!).ShouldAllBe(t => t!["done"] != null || past["settled"] == null);
        }
    }

    [Fact]
    public async Task What_a_task_really_takes_goes_into_a_draft_and_leaves_what_somebody_drafts_already()
    {
        var trial = await _orla.GetAsync("/api/stalls/tasks/radio-order/trial?work=30");
        trial["templates"]!.AsArray().Select(t => t!.Text("code")).ShouldBe(["deckhand"]);
        var open = await CountAsync("t.key = 'radio-order' and t.done is null and t.skipped_why is null and h.closed is null");
        trial["underWay"]!.ToString().ShouldBe(open);
        ((int)trial["newlyShort"]!).ShouldBeGreaterThan(0);
        ((int)(await _orla.GetAsync("/api/stalls/tasks/radio-order/trial?work=8"))["newlyShort"]!).ShouldBe(0);

        (await DraftAsync("radio-order", 13)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var draft = (await _orla.GetAsync("/api/templates/deckhand"))["draft"]!;
        Work(draft, "radio-order").ShouldBe(13);
        Work(draft, "radio-program").ShouldBe(3);
        // Another task of it goes into the same draft.
        (await DraftAsync("radio-program", 4)).StatusCode.ShouldBe(HttpStatusCode.OK);
        draft = (await _orla.GetAsync("/api/templates/deckhand"))["draft"]!;
        (Work(draft, "radio-order"), Work(draft, "radio-program")).ShouldBe((13, 4));
        Work((await _orla.GetAsync("/api/templates/deckhand"))["live"]!, "radio-order").ShouldBe(8);

        // Where none says how long, it is put where the task comes from; nothing else of it is touched.
        using (var said = await DraftAsync("muster", 3))
            (await said.JsonAsync())["templates"]!.AsArray().Select(c => (string)c!).ShouldBe(["crew-basics"]);
        using (var brought = await DraftAsync("float", 2))
            (await brought.JsonAsync())["templates"]!.AsArray().Select(c => (string)c!).ShouldBe(["ticket-clerk"]);
    }

    [Fact]
    public async Task What_cannot_be_asked_says_what_to_ask_and_who_may_not_draft_templates_does_not()
    {
        await RefusedAsync("/api/stalls?from=2027-02-01&to=2027-01-01", "/to", "not-in-order");
        await RefusedAsync("/api/stalls?to=2027-03-02", "/to", "in-future");
        await RefusedAsync("/api/stalls?from=2001-01-01", "/from", "out-of-range");
        await RefusedAsync("/api/stalls/hires?by=site&key=skerry", "/by", "bad-value");
        await RefusedAsync("/api/stalls/tasks/radio-order/trial?work=-1", "/work", "out-of-range");
        using (var unknown = await _orla.SendAsync("GET", "/api/stalls/tasks/nothing/trial?work=1"))
            unknown.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await DraftAsync("nothing", 3)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await DraftAsync("radio-order", 100_000)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await _orla.GetAsync("/api/stalls?from=2022-06-01&to=2022-06-02"))["tasks"]!.AsArray().ShouldBeEmpty();
        using var nils = await _firm.As("nils");
        using var refused = await nils.SendAsync("GET", "/api/stalls");
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    private Task<HttpResponseMessage> DraftAsync(string key, int work) => _orla.SendAsync("POST", $"/api/stalls/tasks/{key}/drafts", new { work });

    private async Task RefusedAsync(string path, string pointer, string code)
    {
        using var response = await _orla.SendAsync("GET", path);
        (response.StatusCode, (await response.ErrorsAsync()).Single()).ShouldBe((HttpStatusCode.BadRequest, (pointer, code)));
    }

    private async Task<string> CountAsync(string where) =>
        ((long)(await _firm.Database.AskAsync($"select count(*) from hire_tasks t join hires h on h.id = t.hire_id where {where}"))!).ToString(
            CultureInfo.InvariantCulture
        );

    private static JsonNode Row(JsonNode stalls, string part, string key) => stalls[part]!.AsArray().Single(t => t!.Text("key") == key)!;

    private static int Work(JsonNode of, string task) =>
        (int)((of["spec"] ?? of)["lists"]!["tasks"]!.AsArray().Single(t => t!.Text("key") == task)!["properties"]!["work"]!);
}
