using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Files of records.</summary>
public class FileTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private static readonly byte[] Picture = [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 1, 2, 3];

    [Fact]
    public async Task A_file_is_given_named_by_a_field_and_seen_by_whoever_may_see_the_field()
    {
        using var orla = await firm.As("orla");
        using var ruth = await firm.As("ruth");
        var id = await orla.PersonAsync("Moutinho");
        var given = await GiveAsync(orla, "../Beatriz, passport.png", Picture);
        (given.Text("name"), given.Text("mediaType"), given["size"]!.GetValue<int>()).ShouldBe(("Beatriz, passport.png", "image/png", 11));
        var path = $"/api/records/{id}/fields/photo/file?file={given.Text("id")}";
        (await orla.SendAsync("GET", path)).StatusCode.ShouldBe(HttpStatusCode.NotFound, "No record names it yet.");
        await orla.SaveAsync(id, "photo", given.Text("id"));
        var field = (await ruth.GetAsync($"/api/records/{id}"))["sections"]!.AsArray().SelectMany(s => s!["fields"]!.AsArray()).Single(f => f!.Text("key") == "photo")!;
        field.Text("display").ShouldBe("Beatriz, passport.png");
        using (var shown = await ruth.SendAsync("GET", path))
        {
            (shown.StatusCode, shown.Content.Headers.ContentType!.MediaType).ShouldBe((HttpStatusCode.OK, "image/png"));
            shown.Headers.GetValues("Content-Security-Policy").Single().ShouldContain("sandbox");
            shown.Headers.CacheControl!.NoStore.ShouldBeTrue();
            (await shown.Content.ReadAsByteArrayAsync()).ShouldBe(Picture);
        }
        // Once taken away it is still in the history.
        await orla.SaveAsync(id, "photo", null);
        (await ruth.SendAsync("GET", path)).StatusCode.ShouldBe(HttpStatusCode.OK);
        // By another field, or by another record, nobody gets at it.
        (await ruth.SendAsync("GET", path.Replace("photo", "contract_file", StringComparison.Ordinal))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var other = await orla.PersonAsync("Prys");
        (await (await orla.ChangeAsync(other, "photo", given.Text("id"))).ErrorsAsync()).ShouldBe([("/changes/photo", "unknown-file")]);
        (await (await orla.ChangeAsync(other, "photo", Guid.NewGuid().ToString())).ErrorsAsync()).ShouldBe([("/changes/photo", "unknown-file")]);
    }

    [Fact]
    public async Task What_a_browser_might_run_is_only_ever_downloaded()
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Bondar");
        var given = await GiveAsync(orla, "contract.html", Encoding.UTF8.GetBytes("<script>alert(1)</script>"));
        await orla.SaveAsync(id, "contract_file", given.Text("id"));
        using var shown = await orla.SendAsync("GET", $"/api/records/{id}/fields/contract_file/file?file={given.Text("id")}");
        (shown.Content.Headers.ContentType!.MediaType, shown.Content.Headers.ContentDisposition!.DispositionType).ShouldBe(("application/octet-stream", "attachment"));
    }

    [Fact]
    public async Task A_file_that_goes_with_a_task_is_for_whoever_does_it_and_outlives_those_that_nothing_names()
    {
        using var orla = await firm.As("orla");
        var (wanted, forgotten) = (await GiveAsync(orla, "Muster list.png", Picture), await GiveAsync(orla, "forgotten.png", Picture));
        var spec = (await orla.GetAsync("/api/templates/ticket-clerk"))["live"]!;
        spec["lists"]!["tasks"]!.AsArray().Add(new JsonObject
        {
            ["key"] = "muster-list",
            ["drop"] = false,
            ["properties"] = new JsonObject { ["name"] = "Hang up the muster list", ["stage"] = "prepare", ["owner"] = "team:stores", ["attachments"] = new JsonArray(wanted.Text("id")) },
        });
        using var saved = await orla.SendAsync("PUT", "/api/templates/ticket-clerk/draft", new JsonObject { ["spec"] = spec.DeepClone() }.ToJsonString());
        using var published = await orla.SendAsync("POST", "/api/templates/ticket-clerk/draft/publish", new { why = (string?)null }, (await saved.JsonAsync()).Text("version"));
        published.StatusCode.ShouldBe(HttpStatusCode.OK, await published.Content.ReadAsStringAsync());
        var request = HirePathTests.NewHire("Muster", "Reader");
        request["template"] = "ticket-clerk";
        using var opened = await orla.SendAsync("POST", "/api/hires", request.ToJsonString());
        opened.StatusCode.ShouldBe(HttpStatusCode.Created, await opened.Content.ReadAsStringAsync());
        var path = $"/api/hires/{(await opened.JsonAsync()).Text("id")}/tasks/muster-list/files/{wanted.Text("id")}";

        using var nils = await firm.As("nils");
        (await nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().Single(t => t!.Text("key") == "muster-list")!["attachments"]!.AsArray().Single()!.Text("name").ShouldBe("Muster list.png");
        using (var shown = await nils.SendAsync("GET", path)) (await shown.Content.ReadAsByteArrayAsync()).ShouldBe(Picture);
        using var ines = await firm.As("ines");
        (await ines.SendAsync("GET", path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await nils.SendAsync("GET", path.Replace(wanted.Text("id"), forgotten.Text("id"), StringComparison.Ordinal))).StatusCode.ShouldBe(HttpStatusCode.NotFound, "The task does not name it.");

        await firm.Database.AskAsync("update stored_files set at = now() - interval '2 days'");
        await using var next = new FidInstance(firm.Database.Connection);
        await UntilGoneAsync(forgotten);
        (await nils.SendAsync("GET", path)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Empty_and_too_large_files_are_refused_and_what_no_record_names_is_dropped()
    {
        using var orla = await firm.As("orla");
        (await orla.SendFileAsync("/api/files?fileName=a.png", [])).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await orla.SendFileAsync("/api/files?fileName=a.png", new byte[10_000_001])).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        var given = await GiveAsync(orla, "forgotten.png", Picture);
        await firm.Database.AskAsync($"update stored_files set at = now() - interval '2 days' where id = '{given.Text("id")}'");
        await using var next = new FidInstance(firm.Database.Connection);
        await UntilGoneAsync(given);
    }

    // A server that starts clears away what nothing names.
    private async Task UntilGoneAsync(JsonNode file)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        while (!0L.Equals(await firm.Database.AskAsync($"select count(*) from stored_files where id = '{file.Text("id")}'"))) patience.Token.ThrowIfCancellationRequested();
    }

    private static async Task<JsonNode> GiveAsync(Caller caller, string name, byte[] content)
    {
        using var response = await caller.SendFileAsync($"/api/files?fileName={Uri.EscapeDataString(name)}", content);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }
}
