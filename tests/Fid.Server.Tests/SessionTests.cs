using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Signing in, staying signed in, and ending it.</summary>
public class SessionTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task An_old_cookie_opens_nothing_once_its_session_has_ended()
    {
        using var orla = await Caller.SignedInAsync(firm.Server.Address, "orla");
        using var kept = orla.CopyOfCookies();
        await kept.GetAsync("/api/arrivals");
        (await orla.SendAsync("DELETE", "/api/session")).EnsureSuccessStatusCode();
        (await kept.SendAsync("GET", "/api/arrivals")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task An_open_stream_ends_with_the_session()
    {
        using var callum = await Caller.SignedInAsync(firm.Server.Address, "callum");
        using var stream = await callum.SendAsync("GET", "/api/live");
        using var lines = new StreamReader(await stream.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken));
        (await lines.ReadLineAsync(TestContext.Current.CancellationToken)).ShouldNotBeNull();
        using var other = callum.CopyOfCookies();
        (await other.SendAsync("DELETE", "/api/session")).EnsureSuccessStatusCode();
        // It ends: the user who reads on comes to the end, and hears nothing of what happens afterwards.
        var heard = await lines.ReadToEndAsync(TestContext.Current.CancellationToken);
        heard.ShouldNotContain("hire:");
    }

    [Fact]
    public async Task All_sessions_can_be_seen_and_ended_at_once_and_one_by_one()
    {
        using var first = await Caller.SignedInAsync(firm.Server.Address, "eoin");
        using var second = await Caller.SignedInAsync(firm.Server.Address, "eoin");
        using var third = await Caller.SignedInAsync(firm.Server.Address, "eoin");
        var sessions = (await first.GetAsync("/api/sessions")).AsArray();
        sessions.Count.ShouldBe(3);
        sessions.Count(s => s!["here"]!.GetValue<bool>()).ShouldBe(1);
        var another = (await second.GetAsync("/api/sessions")).AsArray().Single(s => s!["here"]!.GetValue<bool>())!.Text("id");
        (await first.SendAsync("DELETE", $"/api/sessions/{another}")).EnsureSuccessStatusCode();
        (await second.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        using var thandiwe = await Caller.SignedInAsync(firm.Server.Address, "thandiwe");
        var foreign = (await thandiwe.GetAsync("/api/sessions")).AsArray()[0]!.Text("id");
        (await first.SendAsync("DELETE", $"/api/sessions/{foreign}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await first.SendAsync("DELETE", "/api/sessions")).EnsureSuccessStatusCode();
        (await third.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await thandiwe.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_session_ends_in_any_case_after_a_working_day()
    {
        using var ines = await Caller.SignedInAsync(firm.Server.Address, "ines");
        await firm.Database.AskAsync(
            "update user_sessions set ends_at = now() - interval '1 second' where user_id = (select id from users where email = 'ines@halyard.example')"
        );
        (await ines.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Changing_the_password_ends_all_sessions_but_the_one_it_is_changed_in()
    {
        const string Next = "ladders rope quietly harbours";
        using var mirela = await Caller.SignedInAsync(firm.Server.Address, "mirela");
        using var elsewhere = await Caller.SignedInAsync(firm.Server.Address, "mirela");
        async Task<(string Pointer, string Code)[]> TryAsync(string current, string next) =>
            await (await mirela.SendAsync("PUT", "/api/session/password", new { current, @new = next })).ErrorsAsync();
        (await TryAsync("not hers at all", Next)).ShouldBe([("/current", "wrong-password")]);
        (await TryAsync(Caller.Password, "short")).ShouldBe([("/new", "too-short")]);
        foreach (var common in new[] { "password1234", "123456789012", "qwertyuiop123", "mirela@halyard.example", "aaaaaaaaaaaaaa", "iloveyou2024!" })
            (await TryAsync(Caller.Password, common)).ShouldBe([("/new", "bad-value")], common);
        (await mirela.SendAsync("PUT", "/api/session/password", new { current = Caller.Password, @new = Next })).EnsureSuccessStatusCode();
        (await elsewhere.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await mirela.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await SignInAsync("mirela@halyard.example", Caller.Password)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await SignInAsync("mirela@halyard.example", Next)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Theory]
    [InlineData("nils@halyard.example")]
    [InlineData("nobody@halyard.example")] // whether there is such an account does not show
    public async Task Whoever_guesses_is_slowed_down_and_nobody_is_shut_out(string email)
    {
        for (var i = 0; i < 5; i++)
        {
            using var wrong = await SignInAsync(email, $"wrong {i}");
            (wrong.StatusCode, (await wrong.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.BadRequest, "wrong-sign-in"));
        }
        using (var slowed = await SignInAsync(email, Caller.Password))
        {
            slowed.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
            slowed.Headers.RetryAfter!.Delta!.Value.ShouldBeInRange(TimeSpan.FromSeconds(1), TimeSpan.FromMinutes(15));
        }
        // From somewhere else it is looked at as ever.
        await using var behind = new FidInstance(firm.Database.Connection, settings: new() { ["Fid:Proxies"] = "127.0.0.1 ::1" });
        using var elsewhere = await SignInAsync(email, Caller.Password, behind.Address, "203.0.113.9");
        elsewhere.StatusCode.ShouldBe(email.StartsWith("nils", StringComparison.Ordinal) ? HttpStatusCode.OK : HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task A_proxy_is_believed_where_it_is_configured_and_nowhere_else()
    {
        using (var open = await SignInAsync("orla@halyard.example", Caller.Password, firm.Server.Address, "203.0.113.7", "https"))
        {
            open.Headers.Contains("Strict-Transport-Security").ShouldBeFalse();
            open.Headers.GetValues("Set-Cookie").ShouldAllBe(c => !c.Contains("secure", StringComparison.OrdinalIgnoreCase));
        }
        await using var behind = new FidInstance(firm.Database.Connection, settings: new() { ["Fid:Proxies"] = "127.0.0.0/8 ::1" });
        using var secure = await SignInAsync("orla@halyard.example", Caller.Password, behind.Address, "203.0.113.8", "https");
        secure.Headers.GetValues("Strict-Transport-Security").Single().ShouldStartWith("max-age=31536000");
        secure
            .Headers.GetValues("Set-Cookie")
            .Where(c => c.StartsWith("fid-", StringComparison.Ordinal) && !c.Contains("1970", StringComparison.Ordinal))
            .ShouldAllBe(c => c.Contains("secure", StringComparison.OrdinalIgnoreCase));
        (await firm.Database.AskAsync("select count(*) from user_sessions where address = '203.0.113.8'")).ShouldBe(1L);
        (await firm.Database.AskAsync("select count(*) from user_sessions where address = '203.0.113.7'")).ShouldBe(0L);
    }

    [Fact]
    public async Task What_concerns_security_stands_in_the_chained_trail_for_the_administrator_alone()
    {
        using var piet = await Caller.SignedInAsync(firm.Server.Address, "piet");
        using var orla = await Caller.SignedInAsync(firm.Server.Address, "orla");
        await SignInAsync("ruth@halyard.example", "wrong");
        await SignInAsync("who@halyard.example", "wrong");
        (await orla.SendAsync("PUT", "/api/intake/feed", new { address = (string?)null })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await orla.SendAsync("GET", "/api/people/sheet.xlsx")).EnsureSuccessStatusCode();
        (await orla.SendAsync("GET", "/api/trail")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var entries = (await piet.GetAsync("/api/trail"))["entries"]!.AsArray();
        JsonNode Entry(string action, string by) => entries.First(e => e!.Text("action") == action && e!.Text("by") == by)!;
        Entry("session.begun", "Orla Dunmore").Text("details").ShouldContain("127.0.0.1");
        Entry("session.refused", "Ruth Abara");
        Entry("session.refused", "");
        entries
            .Where(e => e!.Text("action") == "access.refused" && e!.Text("by") == "Orla Dunmore")
            .Select(e => e!.Text("part"))
            .ShouldBe(["GET /api/trail", "PUT /api/intake/feed"]);
        Entry("data.exported", "Orla Dunmore").Text("part").ShouldBe("people");
        entries.Select(e => e!["position"]!.GetValue<long>()).ShouldBeInOrder(SortDirection.Descending);
        (await piet.GetAsync("/api/trail?action=data.exported"))["entries"]!.AsArray().ShouldAllBe(e => e!.Text("action") == "data.exported");
    }

    [Theory]
    [InlineData("/nowhere", HttpStatusCode.NotFound)]
    [InlineData("/api/nowhere", HttpStatusCode.NotFound)]
    [InlineData("/.env", HttpStatusCode.NotFound)]
    [InlineData("/health/live", HttpStatusCode.OK)]
    [InlineData("/health/ready", HttpStatusCode.OK)]
    public async Task Only_what_there_is_is_found(string path, HttpStatusCode status)
    {
        using var nobody = new Caller(firm.Server.Address);
        (await nobody.SendAsync("GET", path)).StatusCode.ShouldBe(status);
    }

    [Fact]
    public async Task What_takes_much_is_limited_by_the_account_and_says_when_to_come_again()
    {
        await using var strict = new FidInstance(firm.Database.Connection, settings: new() { ["Fid:CostlyAtOnce"] = "2" });
        using var orla = await Caller.SignedInAsync(strict.Address, "orla");
        using var piet = await Caller.SignedInAsync(strict.Address, "piet");
        var answers = new List<HttpResponseMessage>();
        for (var i = 0; i < 12; i++)
            answers.Add(await orla.SendAsync("POST", "/api/templates/people", new { when = "site == 'skerry'" }));
        var limited = answers.First(a => a.StatusCode == HttpStatusCode.TooManyRequests);
        limited.Headers.RetryAfter!.Delta!.Value.ShouldBeGreaterThan(TimeSpan.Zero);
        (await limited.JsonAsync()).Text("code").ShouldBe("too-many");
        (await piet.SendAsync("POST", "/api/templates/people", new { when = "site == 'skerry'" })).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private Task<HttpResponseMessage> SignInAsync(string email, string password) => SignInAsync(email, password, firm.Server.Address, null);

    private static async Task<HttpResponseMessage> SignInAsync(string email, string password, Uri address, string? forwardedFor, string? proto = null)
    {
        using var caller = new Caller(address);
        if (forwardedFor is not null)
            caller.Forwarded = (forwardedFor, proto ?? "http");
        await caller.SendAsync("GET", "/api/session");
        return await caller.SendAsync("POST", "/api/session", new { email, password });
    }
}
