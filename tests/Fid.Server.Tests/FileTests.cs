using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Fid.Testing;
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
        var field = (await ruth.GetAsync($"/api/records/{id}"))["sections"]!
            .AsArray()
            .SelectMany(s => s!["fields"]!.AsArray())
            .Single(f => f!.Text("key") == "photo")!;
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
        using var archive = new MemoryStream();
        using (var parts = new ZipArchive(archive, ZipArchiveMode.Create, leaveOpen: true))
            parts.CreateEntry("[Content_Types].xml");
        var given = await GiveAsync(orla, "contract.html", archive.ToArray());
        await orla.SaveAsync(id, "contract_file", given.Text("id"));
        using var shown = await orla.SendAsync("GET", $"/api/records/{id}/fields/contract_file/file?file={given.Text("id")}");
        (shown.Content.Headers.ContentType!.MediaType, shown.Content.Headers.ContentDisposition!.DispositionType).ShouldBe(
            ("application/octet-stream", "attachment")
        );
    }

    [Fact]
    public async Task A_field_takes_its_kinds_up_to_its_size_told_by_what_is_in_the_file()
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Llewelyn");
        var page = Encoding.UTF8.GetBytes("<script>alert(1)</script>");
        // Refused as it is given for the field; and given for nothing, as the record is saved.
        using (var refused = await orla.SendFileAsync("/api/files?fileName=me.png&field=photo", page))
            (await refused.ErrorsAsync()).ShouldBe([("", "wrong-kind")]);
        var slipped = await GiveAsync(orla, "me.png", page);
        (await (await orla.ChangeAsync(id, "photo", slipped.Text("id"))).ErrorsAsync()).ShouldBe([("/changes/photo", "wrong-kind")]);
        using (var given = await orla.SendFileAsync("/api/files?fileName=me.txt&field=photo", Picture))
            given.StatusCode.ShouldBe(HttpStatusCode.OK);

        using var piet = await firm.As("piet");
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.DeepClone().AsObject();
        configuration["fields"]!.AsArray().Single(f => f!.Text("key") == "identity_file")!["max"] = 0.00001m;
        await Markers.PublishAsync(piet, orla, configuration);
        using (var large = await orla.SendFileAsync("/api/files?fileName=me.png&field=identity_file", Picture))
            (await large.ErrorsAsync()).ShouldBe([("", "too-large")]);
        var paper = (await orla.GetAsync($"/api/records/{id}"))["sections"]!
            .AsArray()
            .SelectMany(s => s!["fields"]!.AsArray())
            .Single(f => f!.Text("key") == "identity_file")!;
        paper["takes"]!.ToJsonString().ShouldBe("""{"groups":["pdf","picture"],"mostBytes":10}""");
    }

    [Fact]
    public async Task A_scanner_sees_each_file_before_it_is_kept()
    {
        await using var scanner = new StandInScanner();
        await using var server = new FidInstance(
            firm.Database.Connection,
            settings: new() { ["Fid:Scanner"] = scanner.Address, ["Fid:ScannerAnswer"] = "00:00:05" }
        );
        using var orla = await Caller.SignedInAsync(server.Address, "orla");
        var content = new byte[200_000];
        Picture.CopyTo(content, 0);
        await GiveAsync(orla, "clean.png", content);
        scanner.Seen.ShouldBe(content);
        foreach (
            var (says, status, code) in new[]
            {
                ("stream: Made-Up-Signature FOUND", HttpStatusCode.BadRequest, "harmful"),
                ("INSTREAM size limit exceeded. ERROR", HttpStatusCode.ServiceUnavailable, "not-scanned"),
            }
        )
        {
            scanner.Says = says;
            using var response = await orla.SendFileAsync("/api/files?fileName=other.png", Picture);
            response.StatusCode.ShouldBe(status);
            (await response.Content.ReadAsStringAsync()).ShouldContain($"\"{code}\"");
        }
        // One that is not there keeps nothing from being refused either.
        await scanner.DisposeAsync();
        using (var unseen = await orla.SendFileAsync("/api/files?fileName=unseen.png", Picture))
            unseen.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
        (await firm.Database.AskAsync("select count(*) from stored_files where name in ('other.png', 'unseen.png')")).ShouldBe(0L);
    }

    [Fact]
    public async Task A_file_that_goes_with_a_task_is_for_whoever_does_it_and_outlives_those_that_nothing_names()
    {
        using var orla = await firm.As("orla");
        var (wanted, forgotten) = (await GiveAsync(orla, "Muster list.png", Picture), await GiveAsync(orla, "forgotten.png", Picture));
        var spec = (await orla.GetAsync("/api/templates/ticket-clerk"))["live"]!;
        spec["lists"]!["tasks"]!
            .AsArray()
            .Add(
                new JsonObject
                {
                    ["key"] = "muster-list",
                    ["drop"] = false,
                    ["properties"] = new JsonObject
                    {
                        ["name"] = "Hang up the muster list",
                        ["stage"] = "prepare",
                        ["owner"] = "team:stores",
                        ["attachments"] = new JsonArray(wanted.Text("id")),
                    },
                }
            );
        await orla.PublishAsync("ticket-clerk", (await orla.DraftAsync("ticket-clerk", spec, null)).Text("version"));
        var request = Records.NewHire("Muster", "Reader");
        request["template"] = "ticket-clerk";
        using var opened = await orla.SendAsync("POST", "/api/hires", request.ToJsonString());
        opened.StatusCode.ShouldBe(HttpStatusCode.Created, await opened.Content.ReadAsStringAsync());
        var path = $"/api/hires/{(await opened.JsonAsync()).Text("id")}/tasks/muster-list/files/{wanted.Text("id")}";

        using var nils = await firm.As("nils");
        (await nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().Single(t => t!.Text("key") == "muster-list")!["attachments"]!
            .AsArray()
            .Single()!
            .Text("name")
            .ShouldBe("Muster list.png");
        using (var shown = await nils.SendAsync("GET", path))
            (await shown.Content.ReadAsByteArrayAsync()).ShouldBe(Picture);
        using var ines = await firm.As("ines");
        (await ines.SendAsync("GET", path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await nils.SendAsync("GET", path.Replace(wanted.Text("id"), forgotten.Text("id"), StringComparison.Ordinal))).StatusCode.ShouldBe(
            HttpStatusCode.NotFound,
            "The task does not name it."
        );

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
        while (!0L.Equals(await firm.Database.AskAsync($"select count(*) from stored_files where id = '{file.Text("id")}'")))
            patience.Token.ThrowIfCancellationRequested();
    }

    private static async Task<JsonNode> GiveAsync(Caller caller, string name, byte[] content)
    {
        using var response = await caller.SendFileAsync($"/api/files?fileName={Uri.EscapeDataString(name)}", content);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }
}
