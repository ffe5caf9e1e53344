using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Who is away, and who does their tasks and decides in their place. The firm's today is 1 March 2027, a Monday.</summary>
public sealed class AbsenceTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _nils = null!,
        _thandiwe = null!,
        _eoin = null!,
        _piet = null!;

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        // The demonstration's own.
        await _firm.Database.AskAsync("delete from account_absences");
        (_nils, _thandiwe, _eoin, _piet) = (await _firm.As("nils"), await _firm.As("thandiwe"), await _firm.As("eoin"), await _firm.As("piet"));
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var caller in new[] { _nils, _thandiwe, _eoin, _piet })
            caller.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task Whoever_stands_in_does_the_tasks_on_those_days_and_no_longer()
    {
        var mine = await TasksAsync(_nils);
        mine.ShouldNotBeEmpty();
        var before = await TasksAsync(_thandiwe);
        before.Intersect(mine).ShouldBeEmpty();

        await EnterAsync(_nils, "2027-03-01", "2027-03-05", _thandiwe);
        (await TasksAsync(_thandiwe)).ShouldBe(before.Union(mine), ignoreOrder: true);
        // Nils is not kept from his own.
        (await TasksAsync(_nils)).ShouldBe(mine, ignoreOrder: true);
        (await _thandiwe.GetAsync("/api/absences"))["standsInFor"]!
            .AsArray()
            .Select(s => (s!.Text("name"), s!.Text("to")))
            .ShouldBe([("Nils Aakre", "2027-03-05")]);
        var (hire, key) = mine.First();
        (await _thandiwe.SendAsync("PUT", $"/api/hires/{hire}/tasks/{key}/done", new { done = (string?)null })).IsSuccessStatusCode.ShouldBeTrue();
        (await TasksAsync(_nils)).ShouldNotContain(mine.First());

        // Along those who are away themselves.
        await EnterAsync(_thandiwe, "2027-03-01", "2027-03-01", _eoin);
        (await TasksAsync(_eoin)).ShouldContain(mine.Last());
        // They go round: nobody does anything twice, and nobody waits for ever.
        await EnterAsync(_eoin, "2027-03-01", "2027-03-01", _nils);
        (await TasksAsync(_nils)).ShouldContain(mine.Last());

        var absence = (await _nils.GetAsync("/api/absences"))["own"]!.AsArray().ShouldHaveSingleItem()!;
        absence.Text("standIn").ShouldBe("Thandiwe Maseko");
        (await _nils.SendAsync("DELETE", $"/api/absences/{absence.Text("id")}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await TasksAsync(_thandiwe)).Intersect(mine).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("2027-02-22", "2027-02-28")]
    [InlineData("2027-03-02", "2027-03-31")]
    public async Task On_other_days_nobody_does_anything_in_their_place(string from, string to)
    {
        var account = (await Roles.AccountAsync(_piet, "nils")).Id;
        var given = (await Roles.AccountAsync(_piet, "thandiwe")).Id;
        await _firm.Database.AskAsync(
            $"""
            insert into account_absences (id, account_id, "from", "to", stand_in_id, at, by_name)
            values (gen_random_uuid(), '{account}', '{from}', '{to}', '{given}', now(), 'Test')
            """
        );
        (await TasksAsync(_thandiwe)).Intersect(await TasksAsync(_nils)).ShouldBeEmpty();
        (await _thandiwe.GetAsync("/api/absences"))["standsInFor"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public async Task An_approver_who_is_away_gives_way_to_the_stand_in_and_one_without_to_whoever_is_left()
    {
        using var callum = await _firm.As("callum");
        using var ruth = await _firm.As("ruth");
        using var orla = await _firm.As("orla");
        var report = await Asking.ReportOfCallumAsync(_firm.Database);
        await Asking.ApproveByAsync(_piet, """{"id":"job","label":"Jobs","fields":["job_title"],"by":["manager","role:payroll"]}""");
        var asked = await orla.AskedAsync(report, new { job_title = "Bosun" });
        (await WhoAsync()).ShouldBe(["Callum Reyes", "Ruth Abara"]);

        // It is the step that stands in, not the word that was asked for: also what waits already gives way.
        await EnterAsync(callum, "2027-02-22", "2027-03-05", ruth);
        (await WhoAsync()).ShouldBe(["Ruth Abara", "Ruth Abara"]);
        using (var agreed = await ruth.DecideAsync(await SeenAsync(ruth), "agree"))
            agreed.IsSuccessStatusCode.ShouldBeTrue(await agreed.Content.ReadAsStringAsync());
        // Nils may not see the field, and so does not stand in for it: it is left to the administrators.
        await EnterAsync(ruth, "2027-03-01", "2027-03-01", _nils);
        (await WhoAsync())[^1].ShouldBe("Piet Haverkort");
        using (var agreed = await _piet.DecideAsync(await SeenAsync(_piet), "agree"))
            agreed.IsSuccessStatusCode.ShouldBeTrue(await agreed.Content.ReadAsStringAsync());
        Records.Field(await orla.GetAsync($"/api/records/{report}"), "job_title").Text("value").ShouldBe("Bosun");

        async Task<JsonNode> SeenAsync(Caller caller) => (await caller.ToDecideAsync()).Single(r => r.Text("id") == asked.Text("id"));

        async Task<string[]> WhoAsync() =>
            [
                .. (await orla.AskedForAsync()).Single(r => r.Text("id") == asked.Text("id"))["steps"]!
                    .AsArray()
                    .Select(s => string.Join(", ", s!["who"]!.AsArray())),
            ];
    }

    [Fact]
    public async Task What_is_wrong_is_said_at_its_field_and_nobody_changes_the_absences_of_others()
    {
        var (own, other) = (await PersonAsync(_nils), await PersonAsync(_eoin));
        (await ErrorsAsync(null, null, null)).ShouldBe([("/from", "missing"), ("/to", "missing")]);
        (await ErrorsAsync("2027-03-05", "2027-03-04", null)).ShouldBe([("/to", "not-in-order")]);
        (await ErrorsAsync("2027-02-01", "2027-02-28", null)).ShouldBe([("/to", "past")]);
        (await ErrorsAsync("0001-01-01", "9999-12-31", null)).ShouldBe([("/from", "bad-date"), ("/to", "bad-date")]);
        (await ErrorsAsync("2027-03-05", "2027-03-05", own)).ShouldBe([("/standIn", "stands-in-for-self")]);
        (await ErrorsAsync("2027-03-05", "2027-03-05", Guid.NewGuid().ToString())).ShouldBe([("/standIn", "cannot-sign-in")]);
        (await ErrorsAsync("2027-03-05", "2027-03-05", await Asking.ReportOfCallumAsync(_firm.Database))).ShouldBe([("/standIn", "cannot-sign-in")]);
        await EnterAsync(_nils, "2027-03-05", "2027-03-09", null);
        (await ErrorsAsync("2027-03-09", "2027-03-12", other)).ShouldBe([("/from", "away-already")]);
        await EnterAsync(_nils, "2027-03-10", "2027-03-12", null);

        var mine = (await _nils.GetAsync("/api/absences"))["own"]!.AsArray();
        mine.Count.ShouldBe(2);
        (await _eoin.SendAsync("DELETE", $"/api/absences/{mine[0]!.Text("id")}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var (account, _) = await Roles.AccountAsync(_piet, "nils");
        using (var others = await SendAsync(_eoin, "2027-04-01", "2027-04-02", null, account))
            others.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        using (var others = await SendAsync(_piet, "2027-04-01", "2027-04-02", null, account))
            others.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await _nils.GetAsync("/api/absences"))["own"]!.AsArray().Count.ShouldBe(3);
        (await _firm.Database.AskAsync("select string_agg(by_name, ', ' order by id) from changes where action = 'absence.entered'")).ShouldBe(
            "Nils Aakre, Nils Aakre, Piet Haverkort"
        );

        async Task<IEnumerable<(string, string)>> ErrorsAsync(string? from, string? to, string? standIn)
        {
            using var refused = await SendAsync(_nils, from, to, standIn);
            refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            return [.. (await refused.ErrorsAsync()).Select(e => (e.Pointer, e.Code))];
        }
    }

    [Fact]
    public async Task Entered_twice_under_one_key_or_at_once_it_is_there_once()
    {
        var key = Guid.NewGuid();
        var ids = new List<string>();
        for (var i = 0; i < 2; i++)
        {
            using var entered = await SendAsync(_nils, "2027-03-05", "2027-03-09", null, key: key);
            ids.Add((await entered.JsonAsync()).Text("id"));
        }
        ids.Distinct().Count().ShouldBe(1);
        var answers = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => SendAsync(_nils, "2027-04-05", "2027-04-09", null)));
        answers
            .Select(a => a.StatusCode)
            .Order()
            .ShouldBe([HttpStatusCode.OK, HttpStatusCode.BadRequest, HttpStatusCode.BadRequest, HttpStatusCode.BadRequest]);
        foreach (var answer in answers)
            answer.Dispose();
        (await _nils.GetAsync("/api/absences"))["own"]!.AsArray().Count.ShouldBe(2);
    }

    private static async Task<HashSet<(string Hire, string Key)>> TasksAsync(Caller caller) =>
        [.. (await caller.GetAsync("/api/tasks"))["tasks"]!.AsArray().Select(t => (t!.Text("hireId"), t!.Text("key")))];

    private static async Task<string> PersonAsync(Caller caller) => (await caller.GetAsync("/api/session"))["user"]!.Text("ownRecord");

    private static async Task EnterAsync(Caller caller, string from, string to, Caller? standIn)
    {
        using var entered = await SendAsync(caller, from, to, standIn is null ? null : await PersonAsync(standIn));
        entered.IsSuccessStatusCode.ShouldBeTrue(await entered.Content.ReadAsStringAsync());
    }

    private static Task<HttpResponseMessage> SendAsync(Caller caller, string? from, string? to, string? standIn, string? account = null, Guid? key = null) =>
        caller.SendAsync(
            "POST",
            "/api/absences",
            new
            {
                account,
                from,
                to,
                standIn,
            },
            key: key
        );
}
