using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Signing in by OpenID Connect, against the issuer that ships: whom it opens which account, and whom none.</summary>
public sealed class OpenIdTests : IAsyncLifetime
{
    private TestDatabase _database = null!;
    private StandInIssuer _issuer = null!;
    private FidInstance _server = null!;

    public async ValueTask InitializeAsync()
    {
        _database = await TestDatabase.CloneAsync();
        _issuer = await StandInIssuer.StartAsync();
        _server = new FidInstance(
            _database.Connection,
            settings: new Dictionary<string, string> { ["Fid:OpenId:Issuer"] = _issuer.Address, ["Fid:OpenId:Name"] = "Halyard" }
        );
    }

    public async ValueTask DisposeAsync()
    {
        await _server.DisposeAsync();
        await _issuer.DisposeAsync();
        await _database.DisposeAsync();
    }

    [Fact]
    public async Task A_verified_address_opens_its_account_and_from_then_on_the_subject_does()
    {
        using var first = new Visitor(_server.Address);
        (await first.Http.GetFromJsonAsync<JsonNode>("/api/session/ways"))!.Text("openId").ShouldBe("Halyard");
        (await first.SignInAsync("Orla@Halyard.example", "orla-1")).ShouldBe("Orla Dunmore");
        // The address is only the first word: whoever is known by their subject may go by another by now.
        using var again = new Visitor(_server.Address);
        (await again.SignInAsync("orla.married@halyard.example", "orla-1")).ShouldBe("Orla Dunmore");
        ((long)(await _database.AskAsync("select count(*) from user_logins"))!).ShouldBe(1);
        ((long)(await _database.AskAsync("select count(*) from changes where action = 'account.issuerLinked' and by_name = 'Orla Dunmore'"))!).ShouldBe(1);
    }

    [Theory]
    [InlineData("nobody@halyard.example", true, "issuer-unknown")]
    [InlineData("ruth@halyard.example", false, "issuer-unverified")]
    [InlineData("", true, "issuer-unverified")]
    public async Task Whom_no_account_fits_nobody_is_signed_in_and_none_is_made(string email, bool verified, string problem)
    {
        var before = await _database.AskAsync("select count(*) from users");
        using var visitor = new Visitor(_server.Address);
        (await visitor.SignInAsync(email, "somebody", verified)).ShouldBe(problem);
        (await _database.AskAsync("select count(*) from users")).ShouldBe(before);
        (await _database.AskAsync("select count(*) from user_logins")).ShouldBe(0L);
        ((long)(await _database.AskAsync($"select count(*) from changes where action = 'session.issuerRefused' and part = '{problem}'"))!).ShouldBe(1);
    }

    [Fact]
    public async Task An_account_of_another_subject_one_that_is_disabled_and_one_that_sleeps_stay_shut()
    {
        using (var first = new Visitor(_server.Address))
            await first.SignInAsync("ruth@halyard.example", "ruth-1");
        using (var other = new Visitor(_server.Address))
            (await other.SignInAsync("ruth@halyard.example", "ruth-2")).ShouldBe("issuer-other");
        await _database.AskAsync("update users set disabled_at = now(), disabled_why = 'ByHand' where email like 'ruth@%' returning 1");
        using (var gone = new Visitor(_server.Address))
            (await gone.SignInAsync("ruth@halyard.example", "ruth-1")).ShouldBe("account-disabled");
        await _database.AskAsync("update users set password_hash = null where email like 'nils@%' returning 1");
        using var asleep = new Visitor(_server.Address);
        (await asleep.SignInAsync("nils@halyard.example", "nils-1")).ShouldBe("issuer-unknown");
    }

    [Fact]
    public async Task Nothing_is_taken_that_was_not_asked_for_and_nobody_is_sent_elsewhere()
    {
        using var visitor = new Visitor(_server.Address);
        foreach (var answer in new[] { "code=x", "code=x&state=y", "error=access_denied", "" })
            (await visitor.ProblemAsync($"/api/session/openid/callback?{answer}")).ShouldBe("issuer-failed", answer);
        foreach (var to in new[] { "https://evil.example/", "//evil.example", "/\\evil.example" })
            (await visitor.SignInAsync("orla@halyard.example", "orla-1", to: to)).ShouldBe("Orla Dunmore", to);
        visitor.Last!.Host.ShouldBe(_server.Address.Host);
        // What one browser began no other ends.
        using var thief = new Visitor(_server.Address);
        var answered = await visitor.AnswerAsync("orla@halyard.example", "orla-1");
        (await thief.ProblemAsync(answered.PathAndQuery)).ShouldBe("issuer-failed");
    }

    [Fact]
    public async Task Without_an_issuer_there_is_no_such_way()
    {
        await using var plain = new FidInstance(_database.Connection);
        using var visitor = new Visitor(plain.Address);
        (await visitor.Http.GetFromJsonAsync<JsonNode>("/api/session/ways"))!["openId"].ShouldBeNull();
        (await visitor.Http.GetAsync(new Uri("/api/session/openid", UriKind.Relative))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await visitor.Http.GetAsync(new Uri("/api/session/openid/callback?code=x", UriKind.Relative))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    /// <summary>A browser that goes wherever it is sent.</summary>
    private sealed class Visitor : IDisposable
    {
        private readonly SocketsHttpHandler _handler = new() { CookieContainer = new CookieContainer(), AllowAutoRedirect = false };

        public Visitor(Uri server) => Http = new HttpClient(_handler) { BaseAddress = server };

        public HttpClient Http { get; }

        public Uri? Last { get; private set; }

        /// <summary>Who is signed in then, or what was the problem.</summary>
        public async Task<string> SignInAsync(string email, string subject, bool verified = true, string to = "/people")
        {
            var problem = await ProblemAsync((await AnswerAsync(email, subject, verified, to)).ToString());
            return problem ?? (await Http.GetFromJsonAsync<JsonNode>("/api/session"))!["user"]!.Text("name");
        }

        /// <summary>Where the issuer sends the browser with its answer.</summary>
        public async Task<Uri> AnswerAsync(string email, string subject, bool verified = true, string to = "/people")
        {
            var asked = (await SentAsync($"/api/session/openid?to={Uri.EscapeDataString(to)}"))!;
            asked.Query.ShouldContain("code_challenge_method=S256");
            var said = $"&email={Uri.EscapeDataString(email)}&subject={subject}{(verified ? "&verified=on" : "")}";
            using var answered = await Http.GetAsync(new Uri(asked + said));
            return answered.Headers.Location.ShouldNotBeNull(await answered.Content.ReadAsStringAsync());
        }

        /// <summary>The problem with which the browser comes back to the page for signing in; null where it goes on elsewhere.</summary>
        public async Task<string?> ProblemAsync(string address)
        {
            Last = (await SentAsync(address)).ShouldNotBeNull();
            Last = new Uri(Http.BaseAddress!, Last);
            return Last.Query.StartsWith("?problem=", StringComparison.Ordinal) ? Last.Query["?problem=".Length..] : null;
        }

        private async Task<Uri?> SentAsync(string address)
        {
            using var response = await Http.GetAsync(new Uri(address, UriKind.RelativeOrAbsolute));
            return response.Headers.Location;
        }

        public void Dispose()
        {
            Http.Dispose();
            _handler.Dispose();
        }
    }
}
