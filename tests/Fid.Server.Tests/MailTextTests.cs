using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The texts of what goes out by mail, made the firm's own; and messages that came back. The firm's today is 1 March 2027, a Monday.</summary>
public sealed class MailTextTests : IAsyncLifetime
{
    private const string Path = "/api/mail-texts/reminders/en";

    private readonly FirmFixture _firm = new();
    private readonly StandInMail _mail = new();
    private Caller _piet = null!,
        _orla = null!;

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        (_piet, _orla) = (await _firm.As("piet"), await _firm.As("orla"));
    }

    public async ValueTask DisposeAsync()
    {
        _piet.Dispose();
        _orla.Dispose();
        await _firm.DisposeAsync();
        await _mail.DisposeAsync();
    }

    [Fact]
    public async Task A_text_of_the_firms_own_goes_out_in_its_language_until_it_is_given_up()
    {
        await SetAsync("{{ count }} things, {{ name }}", "Look: {{ link }}", "<p>{{ first.hire }} &amp; more</p>", seen: null);
        var text = await TextAsync("en");
        (text["text"]!.Text("subject"), text.Text("by")).ShouldBe(("{{ count }} things, {{ name }}", "Piet Haverkort"));
        (await TextAsync("de"))["version"].ShouldBeNull();
        await using (new FidInstance(_firm.Database.Connection, settings: _mail.Settings))
        {
            var caught = await _mail.CaughtAsync(1);
            caught[0].Subject.ShouldMatch("^\\d+ things, [A-Z][a-z]+$");
            caught[0].Text.ShouldStartWith("Look: http://fid.halyard.example/tasks");
        }

        // Somebody saved in between, or thinks that somebody did.
        (await RefusedAsync("x", "y", "z", seen: null)).ShouldBe("changed-meanwhile");
        var key = Guid.NewGuid();
        for (var i = 0; i < 2; i++)
            using (
                var back = await _piet.SendAsync(
                    "PUT",
                    Path,
                    new
                    {
                        subject = "",
                        text = "",
                        html = "",
                        seen = (uint)text["version"]!,
                        isShipped = true,
                    },
                    key: key
                )
            )
                back.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        text = await TextAsync("en");
        (text["version"], text["text"]!.ToJsonString()).ShouldBe((null, text["shipped"]!.ToJsonString()));
        (await _firm.Database.AskAsync("select count(*) from changes where action like 'mailText.%'")).ShouldBe(2L);
    }

    [Theory]
    [InlineData("{{ name", "y", "z", "/subject unreadable")]
    [InlineData("x", "{% for a in parts %}", "z", "/text unreadable")]
    [InlineData("x", "y", "  ", "/html missing")]
    [InlineData("x\u0007", "y", "z", "/subject bad-characters")]
    [InlineData(null, null, null, "/subject missing")]
    public async Task A_text_that_cannot_be_read_is_refused_at_its_part(string? subject, string? text, string? html, string problem)
    {
        using var answer = await _piet.SendAsync(
            "PUT",
            Path,
            new
            {
                subject,
                text,
                html,
                seen = (uint?)null,
            }
        );
        var first = (await answer.JsonAsync())["errors"]!.AsArray()[0]!;
        $"{first.Text("pointer")} {first.Text("code")}".ShouldBe(problem);
        (await TextAsync("en"))["version"].ShouldBeNull();
    }

    [Fact]
    public async Task In_the_case_of_a_hire_what_is_missing_is_marked_and_what_cannot_be_filled_says_why()
    {
        var hire = (await FirmFixture.HireAsync(_orla, "Brandt")).Text("id");
        var shown = await ShownAsync(
            "{{ first.hire }} {{ nmae }}",
            "{% if first.owner %}{{ first.owner }}{% endif %}{{ first.owner }}",
            "<b>{{ firm }}</b>",
            hire
        );
        (shown.Text("subject"), shown.Text("text"), shown.Text("html")).ShouldBe(("Tomasz Brandt ⟦nmae?⟧", "⟦owner?⟧", "<b>Halyard Sound Ferries</b>"));
        shown["missing"]!.AsArray().Select(m => (string)m!).ShouldBe(["nmae", "owner"]);
        (await ShownAsync("x", "{{ 'a' | nofilter }}", "z", hire, "errors"))["errors"]![0]!.Text("pointer").ShouldBe("/text");
        (await ShownAsync("x", "{% for i in (1..900000) %}{{ i }}{% endfor %}", "z", hire, "errors"))["errors"]![0]!.Text("code").ShouldBe("unreadable");
        (await ShownAsync("x", "y", "z", Guid.NewGuid().ToString(), "errors"))["errors"]![0]!.Text("code").ShouldBe("unknown-hire");
        using (
            var invitation = await _piet.SendAsync(
                "POST",
                Path.Replace("reminders", "invitations", StringComparison.Ordinal) + "/shown",
                new
                {
                    subject = "{{ hire }} {{ time }} to {{ until }}",
                    text = "{% if changed %}new{% else %}at {{ place }}{% endif %}",
                    html = "z",
                    hire,
                }
            )
        )
            (await invitation.JsonAsync()).ToJsonString().ShouldContain("Tomasz Brandt 09:30 to 11:00\",\"text\":\"at Harbour office\"");
        using var owner = await _firm.As("nils");
        using var refused = await owner.SendAsync(
            "POST",
            $"{Path}/shown",
            new
            {
                subject = "x",
                text = "y",
                html = "z",
                hire,
            }
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_text_that_fails_for_one_of_many_keeps_nobody_else_waiting_and_the_one_says_why()
    {
        var messages = (await _orla.GetAsync("/api/reminders?on=2027-03-01"))["messages"]!.AsArray();
        await SetAsync("Yours, {{ name }}", "{% if name == 'Nils' %}{{ 1 | divided_by: 0 }}{% endif %}Well", "<p>x</p>", seen: null);
        await using var server = new FidInstance(_firm.Database.Connection, settings: _mail.Settings);
        (await _mail.CaughtAsync(messages.Count - 1)).ShouldAllBe(m => m.Subject != "Yours, Nils");
        var sent = (await _orla.GetAsync("/api/reminders/sent")).AsArray();
        var nils = sent[0]!;
        (nils.Text("name"), (bool)nils["isBack"]!, (bool)nils["canGoAgain"]!).ShouldBe(("Nils Aakre", true, false));
        nils.Text("refused").ShouldStartWith("The text cannot be filled: ");
        (await SettledAsync(nils.Text("id"), again: true)).ShouldBe("no-text");

        // Of his tasks he was reminded of none: with a better text he is the next day.
        await using var acts = new ActCaller(server);
        (await acts.Db.TaskReminders.CountAsync(r => r.MessageId == Guid.Parse(nils.Text("id")), TestContext.Current.CancellationToken)).ShouldBe(0);
    }

    [Fact]
    public async Task What_came_back_is_sent_again_to_the_corrected_address_or_laid_aside_once()
    {
        await _firm.Database.AskAsync("update users set email = 'gone.nils@halyard.example' where email = 'nils@halyard.example'");
        await using var server = new FidInstance(_firm.Database.Connection, settings: _mail.Settings);
        JsonNode? back;
        do back = (await _orla.GetAsync("/api/reminders/sent")).AsArray().FirstOrDefault(m => (bool)m!["isBack"]!);
        while (back is null);
        var id = back.Text("id");
        using (var eoin = await _firm.As("eoin"))
        using (var refused = await eoin.SendAsync("PUT", $"/api/reminders/sent/{id}", new { again = true }))
            refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await SettledAsync(id, again: true)).ShouldBe("same-address");
        await _firm.Database.AskAsync("update users set email = 'n.aakre@halyard.example' where email = 'gone.nils@halyard.example'");
        var together = await Task.WhenAll(Enumerable.Range(0, 3).Select(_ => SettledAsync(id, again: true)));
        together.Order().ShouldBe(["", "not-back", "not-back"]);
        var count = (await _orla.GetAsync("/api/reminders/sent")).AsArray().Count;
        (await _mail.CaughtAsync(count)).Single(m => m.To == "n.aakre@halyard.example").Times.ShouldBe(1);

        await _firm.Database.AskAsync($"update mail_messages set refused = 'No such box', sent_at = null where id = '{id}'");
        (await SettledAsync(id, again: false)).ShouldBe("");
        (await SettledAsync(id, again: false)).ShouldBe("not-back");
        (await SettledAsync(Guid.NewGuid().ToString(), again: false)).ShouldBe("not-found");
        (await _orla.GetAsync("/api/reminders/sent")).AsArray().ShouldAllBe(m => !(bool)m!["isBack"]!);
    }

    private async Task SetAsync(string subject, string text, string html, uint? seen)
    {
        using var answer = await _piet.SendAsync(
            "PUT",
            Path,
            new
            {
                subject,
                text,
                html,
                seen,
            }
        );
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
    }

    private async Task<string> RefusedAsync(string subject, string text, string html, uint? seen)
    {
        using var answer = await _piet.SendAsync(
            "PUT",
            Path,
            new
            {
                subject,
                text,
                html,
                seen,
            }
        );
        return (await answer.JsonAsync()).Text("code");
    }

    private async Task<string> SettledAsync(string id, bool again)
    {
        using var answer = await _orla.SendAsync("PUT", $"/api/reminders/sent/{id}", new { again });
        return answer.IsSuccessStatusCode ? "" : (await answer.JsonAsync()).Text("code");
    }

    private async Task<JsonNode> ShownAsync(string subject, string text, string html, string hire, string has = "missing")
    {
        using var shown = await _piet.SendAsync(
            "POST",
            $"{Path}/shown",
            new
            {
                subject,
                text,
                html,
                hire,
            }
        );
        var node = await shown.JsonAsync();
        node[has].ShouldNotBeNull(node.ToJsonString());
        return node;
    }

    private async Task<JsonNode> TextAsync(string language) =>
        (await _piet.GetAsync("/api/mail-texts")).AsArray().Single(k => k!.Text("key") == "reminders")!["languages"]!
            .AsArray()
            .Single(l => l!.Text("language") == language)!;
}
