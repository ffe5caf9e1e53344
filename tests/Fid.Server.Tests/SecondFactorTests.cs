using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using OtpNet;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>A second factor: added, proved at signing in and again before what is taken out, asked for by role, and cleared where it is lost.</summary>
public sealed class SecondFactorTests : IAsyncLifetime
{
    private const string Factor = "/api/session/second-factor";

    private readonly FirmFixture _firm = new();

    public ValueTask InitializeAsync() => _firm.InitializeAsync();

    public ValueTask DisposeAsync() => _firm.DisposeAsync();

    [Fact]
    public async Task With_a_factor_nothing_is_open_before_it_is_proved_and_each_code_is_taken_once()
    {
        using var first = await _firm.As("ruth");
        var (key, codes, taken) = await AddAsync(first);
        codes.Length.ShouldBe(10);
        codes.Distinct().Count().ShouldBe(10);
        (
            (string)(await _firm.Database.AskAsync("select authenticator_key || array_to_string(recovery_codes, ' ') from users where email like 'ruth@%'"))!
        ).ShouldNotContain(key);

        using var ruth = await Caller.SignedInAsync(_firm.Server.Address, "ruth");
        var session = await ruth.GetAsync("/api/session");
        (session["user"], session.Text("secondFactor")).ShouldBe((null, "prove"));
        foreach (var address in new[] { "/api/people", "/api/sessions", "/api/tasks", "/api/live" })
            (await CodeAsync(ruth, "GET", address)).ShouldBe((HttpStatusCode.Forbidden, "second-factor-needed"), address);
        // Nor can a factor be added before the one there is was proved.
        (await CodeAsync(ruth, "POST", $"{Factor}/authenticator/begin")).ShouldBe((HttpStatusCode.Forbidden, "second-factor-needed"));

        (await ProveAsync(ruth, "000000")).ShouldBe(HttpStatusCode.BadRequest);
        // The code by which it was added was taken then.
        (await ProveAsync(ruth, taken)).ShouldBe(HttpStatusCode.BadRequest);
        (await ProveAsync(ruth, Code(key, 30))).ShouldBe(HttpStatusCode.OK);
        (await ruth.GetAsync("/api/session"))["user"]!.Text("name").ShouldBe("Ruth Abara");
        (await ruth.SendAsync("GET", "/api/people")).StatusCode.ShouldBe(HttpStatusCode.OK);

        // A lost telephone: each recovery code opens once, however it is written.
        using var again = await Caller.SignedInAsync(_firm.Server.Address, "ruth");
        (await ProveAsync(again, codes[3].ToUpperInvariant().Replace("-", " ", StringComparison.Ordinal))).ShouldBe(HttpStatusCode.OK);
        using var third = await Caller.SignedInAsync(_firm.Server.Address, "ruth");
        (await ProveAsync(third, codes[3])).ShouldBe(HttpStatusCode.BadRequest);
        (await again.GetAsync(Factor))["recoveryCodes"]!.GetValue<int>().ShouldBe(9);
        using var piet = await _firm.As("piet");
        (await piet.GetAsync("/api/trail"))["entries"]!
            .AsArray()
            .Select(e => e!.Text("action"))
            .Where(a => a.StartsWith("secondFactor.", StringComparison.Ordinal))
            .ShouldBe(["secondFactor.refused", "secondFactor.recovered", "secondFactor.refused", "secondFactor.refused", "secondFactor.added"]);
    }

    [Fact]
    public async Task Before_exports_reveals_and_changes_of_rights_it_is_asked_again()
    {
        using var piet = await _firm.As("piet");
        var orla = (await Roles.AccountAsync(piet, "orla")).Id;
        (string, string, object?)[] again =
        [
            ("GET", "/api/people/sheet.xlsx", null),
            ("POST", $"/api/records/{Guid.Empty}/fields/bank_account/reveal", new { value = (string?)null }),
            ("POST", "/api/rights/draft/publish", new { why = "x" }),
            ("POST", "/api/fields/draft/publish", new { why = "x", despite = false }),
            (
                "POST",
                $"/api/accounts/{orla}/grants",
                new
                {
                    role = "payroll",
                    from = (string?)null,
                    to = (string?)null,
                    why = "x",
                }
            ),
            ("DELETE", $"/api/accounts/{orla}/grants/{Guid.Empty}", null),
            ("POST", $"/api/accounts/{orla}/link", null),
            ("DELETE", $"/api/accounts/{orla}/second-factor", null),
            ("POST", $"{Factor}/recovery-codes", null),
            ("DELETE", $"{Factor}/authenticator", null),
            ("POST", $"{Factor}/authenticator/begin", null),
            ("POST", $"{Factor}/again", null),
        ];
        foreach (var (method, address, body) in again[..8])
            (await CodeAsync(piet, method, address, body)).Code.ShouldNotBe("prove-again", $"without a factor nobody is asked: {address}");
        var (key, _, _) = await AddAsync(piet);
        foreach (var (method, address, body) in again[..8])
            (await CodeAsync(piet, method, address, body)).Code.ShouldNotBe("prove-again", $"it was proved just now: {address}");

        await _firm.Database.AskAsync("update user_sessions set proved_at = proved_at - interval '11 minutes' where proved_at is not null returning 1");
        foreach (var (method, address, body) in again)
            (await CodeAsync(piet, method, address, body)).ShouldBe((HttpStatusCode.Forbidden, "prove-again"), address);
        (await piet.SendAsync("GET", "/api/people")).StatusCode.ShouldBe(HttpStatusCode.OK, "all else goes on");
        (await ProveAsync(piet, Code(key, 30))).ShouldBe(HttpStatusCode.OK);
        (await CodeAsync(piet, "POST", $"{Factor}/again")).Status.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task A_role_can_ask_for_one_and_to_ask_no_longer_takes_two()
    {
        using var piet = await _firm.As("piet");
        using var orla = await _firm.As("orla");
        using var ruth = await _firm.As("ruth");
        await Roles.MakeLiveAsync(piet, Asking("payroll"));
        // Whoever is signed in is asked with the next request.
        (await CodeAsync(ruth, "GET", "/api/people")).ShouldBe((HttpStatusCode.Forbidden, "second-factor-needed"));
        var session = await ruth.GetAsync("/api/session");
        (session["user"], session.Text("secondFactor")).ShouldBe((null, "add"));
        await AddAsync(ruth);
        (await ruth.GetAsync("/api/session"))["user"]!.Text("name").ShouldBe("Ruth Abara");
        (await ruth.SendAsync("GET", "/api/people")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await orla.SendAsync("GET", "/api/people")).StatusCode.ShouldBe(HttpStatusCode.OK, "of other roles nothing is asked");

        await Roles.SaveAsync(piet, Asking());
        using (var review = await piet.SendAsync("POST", "/api/rights/draft/review", new { configuration = Asking() }))
        {
            var would = await review.JsonAsync();
            ((bool)would["needsSecond"]!, (string)would["noLongerProved"]![0]!).ShouldBe((true, "payroll"));
        }
        using (var wrong = await piet.SendAsync("POST", "/api/rights/draft/review", new { configuration = Asking("pilots") }))
            (await wrong.JsonAsync())["problems"]![0]!.Text("pointer").ShouldBe("/configuration/secondFactor/0");
    }

    [Fact]
    public async Task An_administrator_clears_what_somebody_lost_and_nobody_their_own()
    {
        using var piet = await _firm.As("piet");
        using var ruth = await _firm.As("ruth");
        await AddAsync(ruth);
        var (id, detail) = await Roles.AccountAsync(piet, "ruth");
        detail["secondFactorSince"].ShouldNotBeNull();
        (await CodeAsync(piet, "DELETE", $"/api/accounts/{(await Roles.AccountAsync(piet, "piet")).Id}/second-factor")).Code.ShouldBe("own-account");
        (await CodeAsync(piet, "DELETE", $"/api/accounts/{id}/second-factor")).Status.ShouldBe(HttpStatusCode.NoContent);
        (await CodeAsync(piet, "DELETE", $"/api/accounts/{id}/second-factor")).Code.ShouldBe("no-second-factor");
        (await ruth.GetAsync("/api/session"))["user"].ShouldBeNull("their sessions ended");
        using var anew = await Caller.SignedInAsync(_firm.Server.Address, "ruth");
        (await anew.GetAsync("/api/session"))["user"]!.Text("name").ShouldBe("Ruth Abara");
    }

    [Fact]
    public async Task One_s_own_factor_is_renewed_and_taken_away_again()
    {
        using var ruth = await _firm.As("ruth");
        var (_, codes, _) = await AddAsync(ruth);
        using (var renewed = await ruth.SendAsync("POST", $"{Factor}/recovery-codes"))
            (await renewed.JsonAsync())["recoveryCodes"]!.AsArray().Select(c => (string)c!).Intersect(codes).ShouldBeEmpty();
        using var other = await Caller.SignedInAsync(_firm.Server.Address, "ruth");
        (await ProveAsync(other, codes[0])).ShouldBe(HttpStatusCode.BadRequest, "the old ones open nothing");
        (await CodeAsync(ruth, "DELETE", $"{Factor}/passkeys/AAAA")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await CodeAsync(ruth, "DELETE", $"{Factor}/passkeys/*")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await CodeAsync(ruth, "DELETE", $"{Factor}/authenticator")).Status.ShouldBe(HttpStatusCode.NoContent);
        var left = await ruth.GetAsync(Factor);
        (left["since"], (bool)left["authenticator"]!, left["recoveryCodes"]!.GetValue<int>()).ShouldBe((null, false, 0));
        using var free = await Caller.SignedInAsync(_firm.Server.Address, "ruth");
        (await free.GetAsync("/api/session"))["user"]!.Text("name").ShouldBe("Ruth Abara");
    }

    [Theory]
    [InlineData("authenticator", """{"code":"123456"}""", "not-begun")]
    [InlineData("passkeys", """{"name":"Key","answer":{}}""", "not-begun")]
    [InlineData("prove", """{"code":"123456"}""", "not-found")]
    [InlineData("passkeys/proof", "{}", "not-found")]
    [InlineData("passkeys/prove", """{"answer":{}}""", "invalid")]
    [InlineData("recovery-codes", "{}", "not-found")]
    public async Task What_was_not_begun_comes_to_nothing(string what, string body, string code)
    {
        using var ruth = await _firm.As("ruth");
        (await CodeAsync(ruth, "POST", $"{Factor}/{what}", body)).Code.ShouldBe(code);
        (await ruth.GetAsync(Factor))["since"].ShouldBeNull();
    }

    [Theory]
    [InlineData("{}")]
    [InlineData("""{"id":"AAAA","rawId":"AAAA","type":"public-key","response":{"attestationObject":"AAAA","clientDataJSON":"AAAA"}}""")]
    [InlineData("""{"id":7,"response":null}""")]
    public async Task A_passkey_that_is_none_is_refused(string answer)
    {
        using var ruth = await _firm.As("ruth");
        using (var begun = await ruth.SendAsync("POST", $"{Factor}/passkeys/begin"))
            (await begun.JsonAsync())["rp"]!.Text("id").ShouldBe(_firm.Server.Address.Host);
        using var added = await ruth.SendAsync("POST", $"{Factor}/passkeys", $$"""{"name":"Key","answer":{{answer}}}""");
        (await added.ErrorsAsync()).ShouldBe([("/answer", "wrong-passkey")]);
    }

    [Fact]
    public async Task Whoever_tries_codes_one_after_the_other_is_slowed_down()
    {
        using var ruth = await _firm.As("ruth");
        var (key, _, _) = await AddAsync(ruth);
        using var other = await Caller.SignedInAsync(_firm.Server.Address, "ruth");
        var tries = new List<HttpStatusCode>();
        for (var i = 0; i < 6; i++)
            tries.Add(await ProveAsync(other, $"{i:000000}"));
        tries[^1].ShouldBe(HttpStatusCode.TooManyRequests);
        (await ProveAsync(other, Code(key, 30))).ShouldBe(HttpStatusCode.TooManyRequests, "the right one as well");
    }

    private static JsonObject Asking(params string[] roles) =>
        new()
        {
            ["roles"] = new JsonArray(),
            ["groups"] = new JsonArray(),
            ["secondFactor"] = new JsonArray([.. roles.Select(r => JsonValue.Create(r))]),
        };

    // Adds an authenticator: its key, the recovery codes, and the code by which it was added.
    private static async Task<(string Key, string[] Codes, string Taken)> AddAsync(Caller caller)
    {
        using var begun = await caller.SendAsync("POST", $"{Factor}/authenticator/begin");
        var said = await begun.JsonAsync();
        var key = said.Text("key");
        said.Text("address").ShouldStartWith("otpauth://totp/");
        using (var wrong = await caller.SendAsync("POST", $"{Factor}/authenticator", new { code = "000000" }))
            (await wrong.ErrorsAsync()).ShouldBe([("/code", "wrong-code")]);
        var taken = Code(key);
        using var added = await caller.SendAsync("POST", $"{Factor}/authenticator", new { code = taken });
        added.StatusCode.ShouldBe(HttpStatusCode.OK, await added.Content.ReadAsStringAsync());
        return (key, [.. (await added.JsonAsync())["recoveryCodes"]!.AsArray().Select(c => (string)c!)], taken);
    }

    private static string Code(string key, int ahead = 0) => new Totp(Base32Encoding.ToBytes(key)).ComputeTotp(DateTime.UtcNow.AddSeconds(ahead));

    private static async Task<HttpStatusCode> ProveAsync(Caller caller, string code)
    {
        using var proved = await caller.SendAsync("POST", $"{Factor}/prove", new { code });
        return proved.StatusCode;
    }

    private static async Task<(HttpStatusCode Status, string? Code)> CodeAsync(Caller caller, string method, string address, object? body = null)
    {
        using var answer = await caller.SendAsync(method, address, body ?? (method == "POST" ? "{}" : null));
        return (
            answer.StatusCode,
            answer.Content.Headers.ContentType?.MediaType == "application/problem+json" ? (await answer.JsonAsync()).Text("code") : null
        );
    }
}
