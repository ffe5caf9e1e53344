using System.Net;
using System.Security.Cryptography;
using System.Text;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>An empty Fid, from the first visit on.</summary>
public class FirstRunTests
{
    [Fact]
    public async Task The_one_time_token_creates_the_firm_and_its_first_administrator_once()
    {
        await using var database = await TestDatabase.EmptyAsync();
        await using var server = new FidInstance(database.Connection);
        using var visitor = new Caller(server.Address);
        (await visitor.GetAsync("/api/session"))["firm"].ShouldBeNull();

        using var guessed = await visitor.SendAsync("POST", "/api/first-run", Form("guess"));
        (await guessed.ErrorsAsync()).ShouldBe([("/token", "wrong-token")]);
        using var empty = await visitor.SendAsync("POST", "/api/first-run", new { token = "", firmName = " ", currency = "euro", timeZone = "Moon", name = "", email = "nobody", password = "short" });
        (await empty.ErrorsAsync()).Select(e => e.Pointer).ShouldBe(["/token", "/firmName", "/currency", "/timeZone", "/name", "/email", "/password"]);

        // The console shows the token; the database only knows its hash, so the test puts one there that it knows.
        await database.AskAsync($"insert into setup_tokens (id, hash, created_at) values (gen_random_uuid(), '{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes("known")))}', now())");
        (await visitor.SendAsync("POST", "/api/first-run", Form("known"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await visitor.SendAsync("POST", "/api/first-run", Form("known"))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await database.AskAsync("select count(*) from setup_tokens")).ShouldBe(0L);

        var session = await (await visitor.SendAsync("POST", "/api/session", new { email = "ada@example.org", password = "a long enough one" })).JsonAsync();
        session["user"]!["roles"]!.AsArray().Select(r => (string)r!).ShouldBe(["administrator", "coordinator"], ignoreOrder: true);
        (await visitor.GetAsync("/api/arrivals"))["hires"]!.AsArray().ShouldBeEmpty();
    }

    private static object Form(string token) => new
    {
        token,
        firmName = "Small Firm",
        currency = "EUR",
        timeZone = "Europe/Dublin",
        name = "Ada Quilty",
        email = "ada@example.org",
        password = "a long enough one",
    };
}
