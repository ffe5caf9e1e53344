using System.Net;
using System.Text;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Files that are put to a task of a hire alone.</summary>
public sealed class TaskFileTests : IAsyncLifetime
{
    private static readonly byte[] Note = Encoding.UTF8.GetBytes("Locker 14, second deck");

    private readonly FirmFixture _firm = new();
    private Caller _orla = null!,
        _nils = null!;
    private string _hire = "";

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        await _firm.Database.AskAsync("delete from account_absences");
        (_orla, _nils) = (await _firm.As("orla"), await _firm.As("nils"));
        _hire = (await FirmFixture.HireAsync(_orla, "Dlamini")).Text("id");
    }

    public async ValueTask DisposeAsync()
    {
        _orla.Dispose();
        _nils.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task An_owner_puts_a_file_to_a_task_others_read_it_there_and_it_goes_by_undo_or_by_name()
    {
        var file = await GiveAsync(_nils, "locker.txt");
        using var attached = await AttachAsync(_nils, "kit", [file]);
        attached.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await FilesAsync("kit")).ShouldBe(["locker.txt"]);
        (await _orla.BytesAsync($"/api/hires/{_hire}/tasks/kit/files/{file}")).ShouldBe(Note);
        // Once more is nothing new.
        using var twice = await AttachAsync(_nils, "kit", [file]);
        (await twice.JsonAsync())["changes"]!.AsArray().ShouldBeEmpty();

        var changes = (await attached.JsonAsync())["changes"];
        (await _nils.SendAsync("POST", "/api/tasks/taken-back", new { changes })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await FilesAsync("kit")).ShouldBeEmpty();
        using var gone = await _orla.SendAsync("GET", $"/api/hires/{_hire}/tasks/kit/files/{file}");
        gone.StatusCode.ShouldBe(HttpStatusCode.NotFound);

        (await AttachAsync(_orla, "kit", [file, await GiveAsync(_orla, "other.txt")])).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await AttachAsync(_orla, "kit", null, [file])).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await FilesAsync("kit")).ShouldBe(["other.txt"]);
        (
            await _firm.Database.AskAsync($"select string_agg(by_name, ',' order by at) from changes where subject_id = '{_hire}' and action = 'task.attached'")
        ).ShouldBe("Nils Aakre,Orla Dunmore,Orla Dunmore");
    }

    [Fact]
    public async Task Nobody_reads_a_file_of_somebody_else_by_putting_it_to_a_task()
    {
        var person = await _orla.PersonAsync("Okafor");
        var papers = await GiveAsync(_orla, "passport.txt");
        await _firm.Database.AskAsync(
            $"update record_values set value = to_jsonb('{papers}'::text) where owner_id = '{person}' and field = 'cost_centre' and upper_inf(known)"
        );
        (await RefusedAsync(await AttachAsync(_nils, "kit", [papers]))).ShouldBe(("/attach", "unknown-file"));
        // What goes with another hire's task neither.
        var theirs = await GiveAsync(_orla, "theirs.txt");
        var other = (await FirmFixture.HireAsync(_orla, "Kerbrat")).Text("id");
        (await AttachAsync(_orla, "kit", [theirs], hire: other)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await RefusedAsync(await AttachAsync(_nils, "kit", [theirs]))).ShouldBe(("/attach", "unknown-file"));
        // Nor by naming that hire beside one's own.
        (
            await _nils.SendAsync(
                "POST",
                "/api/tasks/files",
                new { tasks = new[] { new { hire = other, key = "account" }, new { hire = _hire, key = "kit" } }, attach = new[] { theirs } }
            )
        ).StatusCode.ShouldNotBe(HttpStatusCode.OK);
        (await RefusedAsync(await AttachAsync(_nils, "kit", [Guid.NewGuid().ToString()]))).ShouldBe(("/attach", "unknown-file"));
        (await RefusedAsync(await AttachAsync(_nils, "kit", []))).ShouldBe(("/attach", "missing"));
        (await FilesAsync("kit")).ShouldBeEmpty();
    }

    [Fact]
    public async Task Whose_task_it_is_not_puts_nothing_there_and_there_is_an_end_to_it()
    {
        var file = await GiveAsync(_nils, "locker.txt");
        using var foreign = await AttachAsync(_nils, "account", [file]);
        foreign.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await _firm.Database.AskAsync(
            $"update hire_tasks set attachments = array(select gen_random_uuid() from generate_series(1, 20)) where hire_id = '{_hire}' and key = 'kit'"
        );
        using var full = await AttachAsync(_nils, "kit", [file]);
        (full.StatusCode, (await full.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "too-many-files"));
    }

    private static async Task<string> GiveAsync(Caller caller, string name)
    {
        using var given = await caller.SendFileAsync($"/api/files?fileName={name}", Note);
        given.StatusCode.ShouldBe(HttpStatusCode.OK);
        return (await given.JsonAsync()).Text("id");
    }

    private Task<HttpResponseMessage> AttachAsync(Caller caller, string task, string[]? attach, string[]? detach = null, string? hire = null) =>
        caller.SendAsync(
            "POST",
            "/api/tasks/files",
            new
            {
                tasks = new[] { new { hire = hire ?? _hire, key = task } },
                attach,
                detach,
            }
        );

    private static async Task<(string, string)> RefusedAsync(HttpResponseMessage response)
    {
        using (response)
            return (await response.ErrorsAsync())[0];
    }

    private async Task<string[]> FilesAsync(string task) =>
        [
            .. (await _orla.GetAsync($"/api/hires/{_hire}"))["tasks"]!.AsArray().Single(t => t!.Text("key") == task)!["attachments"]!
                .AsArray()
                .Select(f => f!.Text("name")),
        ];
}
