using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts.Invitations;
using Fid.Testing;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Invitations to tasks that have a time and a place, as the mail server and a calendar see them. The firm's today is 1 March 2027, a Monday, and
/// the firm is in Dublin.</summary>
public sealed class InvitationMailTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private readonly StandInMail _mail = new();
    private FidInstance _server = null!;
    private Caller _orla = null!;
    private string _hire = "",
        _task = "";

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        // Reminders are not what is looked at here.
        await _firm.Database.AskAsync("update firms set reminded_on = '2027-03-01', reminders_paused = true");
        _orla = await _firm.As("orla");
        _hire = (await FirmFixture.HireAsync(_orla, "Varga")).Text("id");
        _task = (await TasksAsync()).First(t => (string?)t["done"] is null && t.Text("owner") == "team:stores" && (string?)t["skippedWhy"] is null).Text("key");
        await _firm.Database.AskAsync($"update hire_tasks set kind = 'Attend', pinned = '2027-03-30' where hire_id = '{_hire}' and key = '{_task}'");
        _server = new FidInstance(_firm.Database.Connection, settings: _mail.Settings);
    }

    public async ValueTask DisposeAsync()
    {
        await _server.DisposeAsync();
        _orla.Dispose();
        await _firm.DisposeAsync();
        await _mail.DisposeAsync();
    }

    [Fact]
    public async Task Who_meets_is_invited_once_told_of_what_changes_and_that_it_is_off()
    {
        await ArrangeAsync("09:30", 90, "Harbour office");
        var invited = await EventsAsync(2);
        invited.Select(e => e.To).ShouldBe(["ines@halyard.example", "nils@halyard.example"]);
        // Since the Sunday before, clocks are an hour on in Dublin.
        foreach (var (to, method, meeting) in invited)
        {
            (method, meeting.Sequence, meeting.Location).ShouldBe(("REQUEST", 0, "Harbour office"));
            meeting.Start!.AsUtc.ShouldBe(new DateTime(2027, 3, 30, 8, 30, 0, DateTimeKind.Utc));
            meeting.End!.AsUtc.ShouldBe(new DateTime(2027, 3, 30, 10, 0, 0, DateTimeKind.Utc));
            // It names nobody but whoever gets it.
            meeting.Attendees.Select(a => a.Value!.ToString()).ShouldBe([$"mailto:{to}"]);
        }
        invited[0].Event.Summary!.ShouldNotContain("Varga");
        invited[1].Event.Summary!.ShouldEndWith(", Ines Varga");
        invited.Select(e => e.Event.Uid).ShouldBeUnique();

        // Looked at again, nothing is said again.
        (await SendAsync()).ShouldBe(0);
        await ArrangeAsync("09:30", 90, "Loft");
        var changed = (await EventsAsync(4)).Where(e => e.Event.Sequence == 1).ToList();
        changed
            .Select(e => (e.To, e.Method, e.Event.Location))
            .ShouldBe([("ines@halyard.example", "REQUEST", "Loft"), ("nils@halyard.example", "REQUEST", "Loft")]);
        changed.Select(e => e.Event.Uid).ShouldBe(invited.Select(e => e.Event.Uid));

        await SentAsync("/api/tasks/skipped", new { tasks = Tasks, why = "Knows the place" });
        var off = (await EventsAsync(6)).Where(e => e.Method == "CANCEL").ToList();
        off.Select(e => (e.Event.Uid, e.Event.Sequence, e.Event.Status)).ShouldBe(invited.Select(e => (e.Event.Uid, 2, (string?)EventStatus.Cancelled)));

        await SentAsync("/api/tasks/unskipped", new { tasks = Tasks });
        (await EventsAsync(8)).Count(e => e.Method == "REQUEST" && e.Event.Sequence == 3).ShouldBe(2);
    }

    [Fact]
    public async Task With_another_owner_the_one_is_told_it_is_off_and_the_other_invited_and_what_is_done_is_told_to_nobody()
    {
        await ArrangeAsync("9:00", null, null);
        (await EventsAsync(2)).ShouldAllBe(e => e.Event.End!.AsUtc - e.Event.Start!.AsUtc == TimeSpan.FromHours(1));
        await SentAsync("/api/tasks/owner", new { tasks = Tasks, owner = "team:safety" });
        (await EventsAsync(4))
            .Skip(0)
            .Select(e => (e.To, e.Method))
            .ShouldBe([
                ("eoin@halyard.example", "REQUEST"),
                ("ines@halyard.example", "REQUEST"),
                ("nils@halyard.example", "REQUEST"),
                ("nils@halyard.example", "CANCEL"),
            ]);
        await SentAsync("/api/tasks/done", new { tasks = Tasks, done = "2027-03-01" });
        (await SendAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task A_newcomer_whose_account_still_sleeps_is_expected_all_the_same()
    {
        await _firm.Database.AskAsync("update users set password_hash = null where email = 'ines@halyard.example'");
        await ArrangeAsync("14:00", 30, "Loft");
        (await EventsAsync(2)).Select(e => e.To).ShouldBe(["ines@halyard.example", "nils@halyard.example"]);
        // Also where nobody who signs in does it.
        await SentAsync("/api/tasks/owner", new { tasks = Tasks, owner = "newcomer" });
        (await EventsAsync(3)).Where(e => e.Method == "CANCEL").Select(e => e.To).ShouldBe(["nils@halyard.example"]);
        await _firm.Database.AskAsync("update users set disabled_at = now() where email = 'ines@halyard.example'");
        await ArrangeAsync("15:00", 30, "Loft");
        (await EventsAsync(3)).ShouldNotContain(e => e.Method == "REQUEST" && e.Event.Sequence > 0);
    }

    [Fact]
    public async Task A_hire_that_comes_to_nothing_has_its_meetings_off()
    {
        await ArrangeAsync("14:00", 30, "Loft");
        await EventsAsync(2);
        using (var closed = await _orla.SendAsync("PUT", $"/api/hires/{_hire}/outcome", new { outcome = "withdrawn", why = "Stays where she is" }))
            closed.IsSuccessStatusCode.ShouldBeTrue(await closed.Content.ReadAsStringAsync());
        (await EventsAsync(4)).Count(e => e.Method == "CANCEL").ShouldBe(2);
    }

    [Theory]
    [InlineData("9.30", 60, "x", "/at bad-time")]
    [InlineData("25:00", 60, "x", "/at bad-time")]
    [InlineData("09:30", 4, "x", "/minutes out-of-range")]
    [InlineData("09:30", 721, "x", "/minutes out-of-range")]
    [InlineData("09:30", 60, "x\u0000", "/place bad-characters")]
    public async Task What_is_no_time_or_place_is_refused_at_its_field(string at, int minutes, string place, string problem)
    {
        using var answer = await _orla.SendAsync(
            "POST",
            "/api/tasks/meeting",
            new
            {
                tasks = Tasks,
                at,
                minutes,
                place,
            }
        );
        var first = (await answer.JsonAsync())["errors"]![0]!;
        $"{first.Text("pointer")} {first.Text("code")}".ShouldBe(problem);
    }

    [Fact]
    public async Task Only_what_one_attends_has_a_time_and_only_those_who_may_change_tasks_say_so()
    {
        var other = (await TasksAsync()).First(t => t.Text("kind") == "toDo").Text("key");
        object body = new
        {
            tasks = new[] { new { hire = _hire, key = other } },
            at = "09:30",
            minutes = (int?)null,
            place = (string?)null,
        };
        using (var refused = await _orla.SendAsync("POST", "/api/tasks/meeting", body))
            (await refused.JsonAsync()).Text("code").ShouldBe("no-meeting");
        using var nils = await _firm.As("nils");
        using var forbidden = await nils.SendAsync("POST", "/api/tasks/meeting", body);
        forbidden.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    private object Tasks => new[] { new { hire = _hire, key = _task } };

    private Task ArrangeAsync(string at, int? minutes, string? place) =>
        SentAsync(
            "/api/tasks/meeting",
            new
            {
                tasks = Tasks,
                at,
                minutes,
                place,
            }
        );

    private async Task SentAsync(string path, object body)
    {
        using var answer = await _orla.SendAsync("POST", path, body);
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
        await SendAsync();
    }

    // As the job does it; the servers here may come first.
    private async Task<int> SendAsync()
    {
        await using var acts = new ActCaller(_server);
        var act = acts.Get<SendInvitations>();
        return (await act.DoAsync(new SendInvitationsRequest([Guid.Parse(_hire)]), await acts.AsFidAsync("test"), default)).Answer;
    }

    private async Task<List<(string To, string Method, CalendarEvent Event)>> EventsAsync(int messages) =>
        [
            .. (await _mail.InvitationsAsync(messages)).Select(i =>
            {
                var calendar = Calendar.Load(i.Calendar)!;
                return (i.To, calendar.Method!, calendar.Events.Single());
            }),
        ];

    private async Task<List<JsonNode>> TasksAsync() => [.. (await _orla.GetAsync($"/api/hires/{_hire}"))["tasks"]!.AsArray().Select(t => t!)];
}
