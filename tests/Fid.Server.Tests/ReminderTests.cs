using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts.Chasing;
using Fid.Acts.Mail;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Reminders that go out by mail, as the mail server sees them. The firm's today is 1 March 2027, a Monday.</summary>
public sealed class ReminderTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private readonly StandInMail _mail = new();
    private Caller _orla = null!;

    public async ValueTask InitializeAsync()
    {
        // It has no mail server, and so sends nothing by itself.
        await _firm.InitializeAsync();
        _orla = await _firm.As("orla");
    }

    public async ValueTask DisposeAsync()
    {
        _orla.Dispose();
        await _firm.DisposeAsync();
        await _mail.DisposeAsync();
    }

    [Fact]
    public async Task What_was_shown_before_goes_out_once_one_message_a_person_whichever_of_two_servers_comes_first()
    {
        var shown = await ShownAsync("2027-03-01");
        shown["hasServer"]!.GetValue<bool>().ShouldBeFalse();
        var messages = shown["messages"]!.AsArray();
        messages.Count.ShouldBeGreaterThan(2);
        messages.Select(m => m!.Text("address")).ShouldBeUnique();

        await using (new FidInstance(_firm.Database.Connection, settings: _mail.Settings))
        await using (new FidInstance(_firm.Database.Connection, settings: _mail.Settings))
        {
            var caught = await _mail.CaughtAsync(messages.Count);
            caught.Select(c => (c.To, c.Times)).ShouldBe(messages.Select(m => (m!.Text("address"), 1)).OrderBy(m => m.Item1, StringComparer.Ordinal));
            foreach (var message in messages)
            {
                var (_, subject, text, html, _) = caught.Single(c => c.To == message!.Text("address"));
                foreach (var line in message!["lines"]!.AsArray())
                {
                    text.ShouldContain($"{line!["task"]!.Text("name")}, for {line!["task"]!.Text("hire")}");
                    html.ShouldContain(WebUtility.HtmlEncode(line!["task"]!.Text("name")));
                }
                subject.ShouldBe(
                    message["lines"]!.AsArray() is [var only]
                        ? $"{only!["task"]!.Text("name")}, {only!["task"]!.Text("hire")}"
                        : $"{message["lines"]!.AsArray().Count} tasks to look at"
                );
                text.ShouldContain("http://fid.halyard.example/tasks");
            }
        }
        // Nothing is left of the day, and each reminder is kept with the message that told it.
        // Of what has opened people are told whatever the moments are, unless nothing goes out at all.
        (await ShownAsync("2027-03-01"))["messages"]!.AsArray().SelectMany(m => m!["lines"]!.AsArray()).ShouldAllBe(l => l!.Text("kind") == "opened");
        (await _firm.Database.AskAsync("select count(*) from task_reminders")).ShouldBe((long)messages.Sum(m => m!["lines"]!.AsArray().Count));
        (await _orla.GetAsync("/api/reminders/sent")).AsArray().ShouldAllBe(m => m!["sentAt"] != null && m!["refused"] == null);
        (await _mail.CaughtAsync(messages.Count)).Count.ShouldBe(messages.Count);
    }

    [Fact]
    public async Task A_mail_server_that_is_down_delays_and_one_address_that_it_refuses_keeps_nobody_else_waiting()
    {
        await _firm.Database.AskAsync("update users set email = 'gone.nils@halyard.example' where email = 'nils@halyard.example'");
        var messages = (await ShownAsync("2027-03-01"))["messages"]!.AsArray();
        messages.ShouldContain(m => m!.Text("address") == "gone.nils@halyard.example");
        _mail.Feel("Down");
        await using var server = new FidInstance(_firm.Database.Connection, settings: _mail.Settings);
        JsonArray sent;
        do sent = (await _orla.GetAsync("/api/reminders/sent")).AsArray();
        while (sent.Count < messages.Count || sent.Any(m => (string?)m!["trouble"] is null));
        sent.ShouldAllBe(m => m!["sentAt"] == null && m!["refused"] == null);
        sent.ShouldContain(m => m!.Text("trouble").Contains("closed for now", StringComparison.Ordinal));

        _mail.Feel("Well");
        foreach (var job in (await (await _firm.As("piet")).GetAsync("/api/jobs"))["jobs"]!.AsArray().Where(j => j!.Text("kind") == "mail"))
            using (var piet = await _firm.As("piet"))
                await piet.SendAsync("POST", $"/api/jobs/{job!.Text("id")}/again");
        (await _mail.CaughtAsync(messages.Count - 1)).ShouldAllBe(m => m.Times == 1 && !m.To.StartsWith("gone", StringComparison.Ordinal));
        do sent = (await _orla.GetAsync("/api/reminders/sent")).AsArray();
        while (sent.Any(m => m!["sentAt"] is null && m!["refused"] is null));
        var refused = sent.Where(m => m!["refused"] is not null).ShouldHaveSingleItem()!;
        (refused.Text("address"), refused["sentAt"]).ShouldBe(("gone.nils@halyard.example", null));
        // What was taken or refused is not given again.
        await using var acts = new ActCaller(server);
        foreach (var message in sent)
            (await acts.Get<SendMail>().DoAsync(new SendMailRequest(Guid.Parse(message!.Text("id"))), await acts.AsFidAsync("test"), default)).Answer.ShouldBe(
                0
            );
    }

    [Fact]
    public async Task Who_is_away_is_not_written_to_and_it_says_whose_task_it_is()
    {
        using var nils = await _firm.As("nils");
        using var eoin = await _firm.As("eoin");
        var before = (await ShownAsync("2027-03-01"))["messages"]!.AsArray();
        var his = LinesOf(before, "Nils Aakre");
        his.ShouldNotBeEmpty();
        using (
            var entered = await nils.SendAsync(
                "POST",
                "/api/absences",
                new
                {
                    account = (string?)null,
                    from = "2027-03-01",
                    to = "2027-03-02",
                    standIn = (await eoin.GetAsync("/api/session"))["user"]!.Text("ownRecord"),
                }
            )
        )
            entered.StatusCode.ShouldBe(HttpStatusCode.OK);
        var after = (await ShownAsync("2027-03-01"))["messages"]!.AsArray();
        LinesOf(after, "Nils Aakre").ShouldBeEmpty();
        LinesOf(after, "Eoin Brannigan")
            .Where(l => (string?)l["for"] == "Nils Aakre")
            .Select(l => l["task"]!.ToJsonString())
            .ShouldBe(his.Select(l => l["task"]!.ToJsonString()));
    }

    [Fact]
    public async Task Whoever_is_asked_to_be_reminded_is_at_once_and_it_says_who_asks()
    {
        var hire = (await FirmFixture.HireAsync(_orla, "Brandt")).Text("id");
        object Asked(params string[] keys) => new { tasks = keys.Select(key => new { hire, key }).ToArray() };
        using (var unset = await _orla.SendAsync("POST", "/api/tasks/reminders", Asked("kit")))
            (await unset.JsonAsync()).Text("code").ShouldBe("no-mail");
        // The day's own round is over.
        await _firm.Database.AskAsync("update firms set reminded_on = '2027-03-01'");
        await _firm.Database.AskAsync(
            """
            insert into account_absences (id, account_id, "from", "to", stand_in_id, at, by_name)
              select gen_random_uuid(), n.id, '2027-03-01', '2027-03-01', e.id, now(), 'Nils Aakre'
              from users n, users e where n.email = 'nils@halyard.example' and e.email = 'eoin@halyard.example'
            """
        );
        await using var server = new FidInstance(_firm.Database.Connection, settings: _mail.Settings);
        using var orla = await Caller.SignedInAsync(server.Address, "orla");
        (await orla.SendAsync("PUT", $"/api/hires/{hire}/tasks/account/done", new { done = (string?)null })).EnsureSuccessStatusCode();
        var key = Guid.NewGuid();
        using var sent = await orla.SendAsync("POST", "/api/tasks/reminders", Asked("kit", "radio-order", "contract-sign", "account", "none"), key: key);
        var answer = await sent.JsonAsync();
        answer["changes"]!.AsArray().Count.ShouldBe(2, answer.ToJsonString());
        answer["left"]!
            .AsArray()
            .Select(l => (l!["task"]!.Text("key"), l.Text("code")))
            .ShouldBe([("contract-sign", "done"), ("account", "done"), ("none", "not-found")], ignoreOrder: true);
        // Sent again by a browser that did not hear the answer: nobody is written to twice.
        (
            await orla.SendAsync("POST", "/api/tasks/reminders", Asked("kit", "radio-order", "contract-sign", "account", "none"), key: key)
        ).EnsureSuccessStatusCode();

        // He is away: who stands in is told, of both tasks in one message, and whose they are.
        var (to, _, text, html, times) = (await _mail.CaughtAsync(1)).ShouldHaveSingleItem();
        (to, times).ShouldBe(("eoin@halyard.example", 1));
        text.ShouldContain("Orla Dunmore asks you for this");
        text.ShouldContain("It is Nils Aakre's");
        html.ShouldContain("Order radio");
        var past = (await orla.GetAsync($"/api/hires/{hire}/tasks/kit/history"))["changes"]![0]!;
        (past.Text("by"), past.Text("action")).ShouldBe(("Orla Dunmore", "task.reminded"));
        past["told"]!.AsArray().Select(t => (string)t!).ShouldBe(["Eoin Brannigan"]);
    }

    [Fact]
    public async Task Each_reads_in_their_language_and_no_more_of_a_newcomer_than_they_may_see()
    {
        using var piet = await _firm.As("piet");
        await _firm.Database.AskAsync("update users set language = 'de' where email = 'nils@halyard.example'");
        var fields = await piet.GetAsync("/api/fields");
        var configuration = fields["configuration"]!.DeepClone().AsObject();
        foreach (var field in configuration["fields"]!.AsArray().Where(f => f!.Text("key") is "given_name" or "family_name"))
            field!["access"]!.AsObject().Remove("owner");
        using (var saved = await piet.SendAsync("PUT", "/api/fields/draft", new { configuration }))
        using (
            var published = await piet.SendAsync(
                "POST",
                "/api/fields/draft/publish",
                new { why = "A test", despite = true },
                (await saved.JsonAsync()).Text("version")
            )
        )
            published.IsSuccessStatusCode.ShouldBeTrue(await published.Content.ReadAsStringAsync());
        var lines = LinesOf((await ShownAsync("2027-03-01"))["messages"]!.AsArray(), "Nils Aakre");
        await using var server = new FidInstance(_firm.Database.Connection, settings: _mail.Settings);
        (await _firm.Database.AskAsync("select string_agg(trouble, ' ') from job_runs where kind = 'reminders'")).ShouldBe(DBNull.Value);
        var count = 1;
        IReadOnlyList<(string To, string Subject, string Text, string Html, int Times)> caught;
        do caught = await _mail.CaughtAsync(count++);
        while (!caught.Any(c => c.To == "nils@halyard.example"));
        var (_, _, text, html, _) = caught.Single(c => c.To == "nils@halyard.example");
        text.ShouldStartWith("Guten Morgen Nils");
        html.ShouldContain("lang=\"de\"");
        foreach (var line in lines)
        foreach (var body in new[] { text, html })
            body.ShouldNotContain(line["task"]!.Text("hire").Split(' ')[^1]);
    }

    [Fact]
    public async Task A_firm_says_when_it_reminds_and_a_firm_that_pauses_reminds_nobody()
    {
        var settings = (await ShownAsync("2027-03-02"))["settings"]!.DeepClone().AsObject();
        (settings["before"]!.ToJsonString(), settings.Text("at"), settings["paused"]!.GetValue<bool>()).ShouldBe(("[5,1]", "07:00", false));
        var wrong = settings.DeepClone().AsObject();
        (wrong["before"], wrong["every"], wrong["most"], wrong["escalateAfter"]) = (new JsonArray(5, 0), 0, -1, 251);
        using (var refused = await _orla.SendAsync("PUT", "/api/reminders/settings", wrong))
            (await refused.ErrorsAsync()).Select(e => e.Pointer).ShouldBe(["/before", "/every", "/most", "/escalateAfter"]);
        wrong["at"] = "25:00";
        using (var refused = await _orla.SendAsync("PUT", "/api/reminders/settings", wrong))
            (await refused.ErrorsAsync()).ShouldBe([("/at", "bad-value")]);

        (settings["before"], settings["onDue"], settings["most"], settings["escalateAfter"]) = (new JsonArray(), false, 0, null);
        settings["paused"] = true;
        using (var set = await _orla.SendAsync("PUT", "/api/reminders/settings", settings))
            set.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        // Of what has opened people are told whatever the moments are, unless nothing goes out at all.
        (await ShownAsync("2027-03-01"))["messages"]!.AsArray().SelectMany(m => m!["lines"]!.AsArray()).ShouldAllBe(l => l!.Text("kind") == "opened");
        (await _firm.Database.AskAsync("select by_name from changes where action = 'reminders.set'")).ShouldBe("Orla Dunmore");
        await using var server = new FidInstance(_firm.Database.Connection, settings: _mail.Settings);
        await using var acts = new ActCaller(server);
        (await acts.Get<RemindOwners>().DoAsync(new RemindOwnersRequest(), await acts.AsFidAsync("test"), default)).Answer.ShouldBe(0);
        (await _firm.Database.AskAsync("select reminded_on is null from firms")).ShouldBe(true);
        foreach (var day in new[] { "2027-02-28", "2027-06-01", "tomorrow" })
            (await _orla.SendAsync("GET", $"/api/reminders?on={day}")).StatusCode.ShouldBe(HttpStatusCode.BadRequest, day);
    }

    private async Task<JsonNode> ShownAsync(string day) => await _orla.GetAsync($"/api/reminders?on={day}");

    private static List<JsonNode> LinesOf(JsonArray messages, string name) =>
        [.. messages.Where(m => m!.Text("name") == name).SelectMany(m => m!["lines"]!.AsArray()).Select(l => l!)];
}
