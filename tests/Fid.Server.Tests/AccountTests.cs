using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Who may sign in: invited, changed, disabled, and gone when they have left.</summary>
public class AccountTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private const string Password = "ladders rope quietly harbours";

    [Fact]
    public async Task An_administrator_invites_a_task_owner_who_signs_in_and_ticks_a_task_of_their_team()
    {
        using var piet = await firm.As("piet");
        var link = await InviteAsync(piet, "Tove Lindqvist", "tove@halyard.example", ["owner"], ["stores"]);
        using var tove = new Caller(firm.Server.Address);
        await tove.GetAsync("/api/session");
        var shown = await (await tove.SendAsync("POST", "/api/invitations/look", new { token = link })).JsonAsync();
        (shown.Text("firm"), shown.Text("name"), shown.Text("email"), shown["isNew"]!.GetValue<bool>()).ShouldBe(
            ("Halyard Sound Ferries", "Tove Lindqvist", "tove@halyard.example", true)
        );
        (await (await tove.SendAsync("POST", "/api/invitations/password", new { token = link, password = "short" })).ErrorsAsync()).ShouldBe([
            ("/password", "too-short"),
        ]);
        (await (await tove.SendAsync("POST", "/api/invitations/password", new { token = link, password = "password1234" })).ErrorsAsync()).ShouldBe([
            ("/password", "bad-value"),
        ]);
        (await SetAsync(tove, link)).ShouldBe(HttpStatusCode.NoContent);
        await SignInAsync(tove, "tove@halyard.example");
        var task = (await tove.GetAsync("/api/tasks"))["tasks"]!.AsArray().First(t => t!.Text("owner") == "team:stores" && t!["canStart"]!.GetValue<bool>())!;
        (await tove.SendAsync("PUT", $"/api/hires/{task.Text("hireId")}/tasks/{task.Text("key")}/done", new { done = (string?)null })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await firm.Database.AskAsync($"select done_by from hire_tasks where hire_id = '{task.Text("hireId")}' and key = '{task.Text("key")}'")).ShouldBe(
            "Tove Lindqvist"
        );
        var listed = (await piet.GetAsync("/api/accounts?q=tove lind"))["accounts"]!.AsArray().ShouldHaveSingleItem()!;
        listed.Text("state").ShouldBe("active");
        listed["lastSignInAt"].ShouldNotBeNull();
        (await piet.GetAsync("/api/trail"))["entries"]!
            .AsArray()
            .Where(e => e!.Text("part") == "Tove Lindqvist")
            .Select(e => e!.Text("action"))
            .ShouldBe(["account.accepted", "account.invited"]);
    }

    [Fact]
    public async Task A_link_opens_nothing_once_it_was_used_replaced_has_run_out_or_its_account_was_disabled()
    {
        using var piet = await firm.As("piet");
        using var guest = new Caller(firm.Server.Address);
        await guest.GetAsync("/api/session");
        var first = await InviteAsync(piet, "Ama Boateng", "ama@halyard.example", ["owner"], []);
        var account = (await piet.GetAsync("/api/accounts?q=ama@"))["accounts"]![0]!.Text("id");
        var second = await LinkAsync(piet, account);
        (await SetAsync(guest, first)).ShouldBe(HttpStatusCode.NotFound);
        await firm.Database.AskAsync($"update account_links set ends_at = now() - interval '1 second' where user_id = '{account}'");
        (await SetAsync(guest, second)).ShouldBe(HttpStatusCode.NotFound);
        (await piet.GetAsync($"/api/accounts/{account}"))["account"]!["linkEndsAt"].ShouldBeNull();
        var third = await LinkAsync(piet, account);
        (await SetAsync(guest, third)).ShouldBe(HttpStatusCode.NoContent);
        (await SetAsync(guest, third)).ShouldBe(HttpStatusCode.NotFound);
        var fourth = await LinkAsync(piet, account);
        (await piet.SendAsync("PUT", $"/api/accounts/{account}/disabled")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await SetAsync(guest, fourth)).ShouldBe(HttpStatusCode.NotFound);
        (await (await piet.SendAsync("POST", $"/api/accounts/{account}/link")).JsonAsync()).Text("code").ShouldBe("account-disabled");
        (await SetAsync(guest, "")).ShouldBe(HttpStatusCode.NotFound);
        (await SetAsync(guest, new string('a', 5000))).ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_link_is_used_by_one_of_two_who_have_it()
    {
        using var piet = await firm.As("piet");
        var link = await InviteAsync(piet, "Kofi Two", "kofi@halyard.example", ["owner"], []);
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(async _ =>
                {
                    using var guest = new Caller(firm.Server.Address);
                    await guest.GetAsync("/api/session");
                    return await SetAsync(guest, link);
                })
        );
        answers.Count(a => a == HttpStatusCode.NoContent).ShouldBe(1);
        answers.Count(a => a == HttpStatusCode.NotFound).ShouldBe(3);
    }

    [Fact]
    public async Task What_is_wrong_with_an_invitation_is_said_at_its_field()
    {
        using var piet = await firm.As("piet");
        var person = await firm.Database.AskAsync(
            "select e.id from employments e join users u on u.person_id = e.person_id where u.email = 'nils@halyard.example'"
        );
        async Task<(string, string)[]> TryAsync(object body) => await (await piet.SendAsync("POST", "/api/accounts", body)).ErrorsAsync();
        (
            await TryAsync(
                new
                {
                    name = " ",
                    email = "no address",
                    roles = Array.Empty<string>(),
                    teams = Array.Empty<string>(),
                    employment = (string?)null,
                    language = "fr",
                }
            )
        ).ShouldBe([("/name", "missing"), ("/email", "bad-value"), ("/roles", "missing"), ("/language", "bad-value")]);
        (
            await TryAsync(
                new
                {
                    name = "N",
                    email = "NILS@halyard.example",
                    roles = new[] { "captain", "owner" },
                    teams = Array.Empty<string>(),
                    employment = (string?)null,
                    language = "en",
                }
            )
        ).ShouldBe([("/roles/0", "unknown-role"), ("/email", "taken")]);
        (
            await TryAsync(
                new
                {
                    name = "N",
                    email = "NILS@halyard.example",
                    roles = new[] { "owner" },
                    teams = new[] { "stores", "moon" },
                    employment = person,
                    language = "en",
                }
            )
        ).ShouldBe([("/email", "taken"), ("/teams/1", "unknown-entry"), ("/employment", "taken")]);
        (
            await TryAsync(
                new
                {
                    name = "N",
                    email = "n@halyard.example",
                    roles = new[] { "owner" },
                    teams = Array.Empty<string>(),
                    employment = Guid.NewGuid(),
                    language = "en",
                }
            )
        ).ShouldBe([("/employment", "unknown-person")]);
    }

    [Fact]
    public async Task What_a_user_may_changes_at_once_where_they_are_signed_in()
    {
        using var piet = await firm.As("piet");
        using var eoin = await firm.As("eoin");
        (await eoin.SendAsync("GET", "/api/arrivals")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var (id, version, body) = await DetailAsync(piet, "eoin@");
        // That somebody signs in meanwhile changes nothing of what was looked at.
        using var elsewhere = await firm.As("eoin");
        body["roles"] = new JsonArray("owner", "coordinator");
        (await piet.SendAsync("PUT", $"/api/accounts/{id}", body)).StatusCode.ShouldBe(HttpStatusCode.PreconditionRequired);
        (await piet.SendAsync("PUT", $"/api/accounts/{id}", body, ifMatch: version)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await eoin.SendAsync("GET", "/api/arrivals")).StatusCode.ShouldBe(HttpStatusCode.OK);
        // Who looked before has looked at something else, though only the roles have changed.
        (await piet.SendAsync("PUT", $"/api/accounts/{id}", body, ifMatch: version)).StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        body["roles"] = new JsonArray("owner");
        (await piet.SendAsync("PUT", $"/api/accounts/{id}", body, ifMatch: (await DetailAsync(piet, "eoin@")).Version)).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await eoin.SendAsync("GET", "/api/arrivals")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var change = JsonNode.Parse((await piet.GetAsync("/api/trail?action=account.changed"))["entries"]![0]!.Text("details"))!;
        (change["was"]!["roles"]!.ToJsonString(), change["now"]!["roles"]!.ToJsonString()).ShouldBe(("[\"coordinator\",\"owner\"]", "[\"owner\"]"));
    }

    [Fact]
    public async Task A_disabled_account_is_out_at_once_and_in_again_when_it_is_enabled()
    {
        using var piet = await firm.As("piet");
        using var mirela = await firm.As("mirela");
        var (id, _, _) = await DetailAsync(piet, "mirela@");
        (await piet.SendAsync("PUT", $"/api/accounts/{id}/disabled")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await mirela.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        using var again = new Caller(firm.Server.Address);
        await again.GetAsync("/api/session");
        (await (await again.SendAsync("POST", "/api/session", new { email = "mirela@halyard.example", password = Caller.Password })).JsonAsync())
            .Text("code")
            .ShouldBe("account-disabled");
        (await piet.GetAsync("/api/accounts?only=disabled"))["accounts"]!.AsArray().Select(a => a!.Text("email")).ShouldContain("mirela@halyard.example");
        // The team she was alone in says so.
        (await piet.GetAsync("/api/accounts"))["emptyTeams"]!.AsArray().Select(t => (string)t!).ShouldContain("training");
        (await piet.SendAsync("DELETE", $"/api/accounts/{id}/disabled")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await piet.GetAsync("/api/accounts"))["emptyTeams"]!.AsArray().Select(t => (string)t!).ShouldNotContain("training");
        (await mirela.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        using var back = await firm.As("mirela");
        (await piet.SendAsync("DELETE", $"/api/accounts/{id}/sessions")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await back.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task The_last_administrator_stays_also_when_two_disable_each_other_at_once()
    {
        await using var database = await TestDatabase.CloneAsync();
        await using var server = new FidInstance(database.Connection);
        using var piet = await Caller.SignedInAsync(server.Address, "piet");
        var (id, version, body) = await DetailAsync(piet, "piet@");
        body["roles"] = new JsonArray("coordinator");
        (await (await piet.SendAsync("PUT", $"/api/accounts/{id}", body, ifMatch: version)).JsonAsync()).Text("code").ShouldBe("last-administrator");
        (await (await piet.SendAsync("PUT", $"/api/accounts/{id}/disabled")).JsonAsync()).Text("code").ShouldBe("own-account");
        // One who was invited and has no password yet is no way back in.
        var (orla, seen, hers) = await DetailAsync(piet, "orla@");
        await InviteAsync(piet, "Not Yet", "notyet@halyard.example", ["administrator"], []);
        (await (await piet.SendAsync("PUT", $"/api/accounts/{id}", body, ifMatch: version)).JsonAsync()).Text("code").ShouldBe("last-administrator");
        hers["roles"] = new JsonArray("administrator", "coordinator");
        (await piet.SendAsync("PUT", $"/api/accounts/{orla}", hers, ifMatch: seen)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        using var second = await Caller.SignedInAsync(server.Address, "orla");
        await Task.WhenAll(piet.SendAsync("PUT", $"/api/accounts/{orla}/disabled"), second.SendAsync("PUT", $"/api/accounts/{id}/disabled"));
        (await database.AskAsync($"select count(*) from users where id in ('{id}', '{orla}') and disabled_at is null")).ShouldBe(1L);
    }

    [Theory]
    [InlineData(-1, true)] // the last day was yesterday
    [InlineData(0, false)] // the last day is today: they are still at work
    [InlineData(1, false)]
    public async Task A_leavers_account_ends_the_day_after_the_last_day(int lastDay, bool ends)
    {
        await using var database = await TestDatabase.CloneAsync();
        await using var server = new FidInstance(database.Connection);
        using var nils = await Caller.SignedInAsync(server.Address, "nils");
        await using var acts = new ActCaller(server);
        var fid = await acts.AsFidAsync("leavers");
        await database.AskAsync(
            $"update employments set \"end\" = '{fid.Today.PlusDays(lastDay):uuuu-MM-dd}' where person_id = (select person_id from users where "
                + "email = 'nils@halyard.example')"
        );
        (await acts.Get<EndAccountsOfLeavers>().DoAsync(new EndAccountsOfLeaversRequest(), fid, default)).Refusal.ShouldBeNull();
        (await nils.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(ends ? HttpStatusCode.Unauthorized : HttpStatusCode.OK);
        (await database.AskAsync("select disabled_why from users where email = 'nils@halyard.example'")).ShouldBe(ends ? "Left" : DBNull.Value);
        using var piet = await Caller.SignedInAsync(server.Address, "piet");
        if (!ends)
            return;
        var (id, _, _) = await DetailAsync(piet, "nils@");
        (await (await piet.SendAsync("DELETE", $"/api/accounts/{id}/disabled")).JsonAsync()).Text("code").ShouldBe("has-left");
    }

    [Fact]
    public async Task The_administrators_account_that_is_left_alone_stays_though_its_user_left()
    {
        await using var database = await TestDatabase.CloneAsync();
        await using var server = new FidInstance(database.Connection);
        await using var acts = new ActCaller(server);
        var fid = await acts.AsFidAsync("leavers");
        await database.AskAsync(
            $"update employments set \"end\" = '{fid.Today.PlusDays(-1):uuuu-MM-dd}' where person_id in (select person_id from users where "
                + "email in ('piet@halyard.example', 'nils@halyard.example'))"
        );
        (await acts.Get<EndAccountsOfLeavers>().DoAsync(new EndAccountsOfLeaversRequest(), fid, default)).Refusal.ShouldBeNull();
        (await acts.Db.Users.Where(u => u.DisabledAt != null).Select(u => u.Email).ToListAsync(TestContext.Current.CancellationToken)).ShouldBe([
            "nils@halyard.example",
        ]);
    }

    [Fact]
    public async Task A_newcomers_account_comes_with_the_hire_sleeps_until_they_are_invited_and_ends_with_it()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var hire = Guid.NewGuid();
        using var opened = await orla.SendAsync(
            "POST",
            "/api/hires",
            new
            {
                id = hire,
                template = "deckhand",
                start = "2027-04-05",
                typed = new
                {
                    given_name = "Sunniva",
                    family_name = "Asleepsen",
                    email = "sunniva@home.example",
                    site = "skerry",
                },
            }
        );
        opened.StatusCode.ShouldBe(HttpStatusCode.Created, await opened.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        var stint = (await firm.Database.AskAsync($"select employment_id from hires where id = '{hire}'"))!.ToString()!;
        var theirs = await piet.GetAsync($"/api/accounts/of/{stint}");
        (theirs["account"]!.Text("state"), theirs.Text("name"), theirs.Text("email")).ShouldBe(("asleep", "Sunniva Asleepsen", "sunniva@home.example"));
        var account = theirs["account"]!.Text("id");
        (await (await piet.SendAsync("POST", $"/api/accounts/{account}/link")).JsonAsync()).Text("code").ShouldBe("no-email");
        var link = await InviteAsync(piet, "Sunniva Asleepsen", "sunniva@home.example", ["newcomer"], [], stint);
        // It is the same account: none is made beside it.
        (await firm.Database.AskAsync("select count(*) from users where display_name = 'Sunniva Asleepsen'")).ShouldBe(1L);
        using var sunniva = new Caller(firm.Server.Address);
        await sunniva.GetAsync("/api/session");
        (await SetAsync(sunniva, link)).ShouldBe(HttpStatusCode.NoContent);
        await SignInAsync(sunniva, "sunniva@home.example");
        (await sunniva.GetAsync("/api/tasks"))["tasks"]!.AsArray().ShouldContain(t => t!.Text("owner") == "newcomer");

        (await orla.SendAsync("PUT", $"/api/hires/{hire}/outcome", new { outcome = "withdrawn", why = "Another offer" })).EnsureSuccessStatusCode();
        await EndLeaversAsync();
        (await sunniva.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await orla.SendAsync("DELETE", $"/api/hires/{hire}/outcome")).EnsureSuccessStatusCode();
        await EndLeaversAsync();
        (await piet.GetAsync($"/api/accounts/of/{stint}"))["account"]!.Text("state").ShouldBe("active");
    }

    [Fact]
    public async Task Somebody_who_comes_back_gets_a_newcomers_rights_and_has_to_be_invited()
    {
        await using var acts = new ActCaller(firm.Server);
        var callum = await acts.Db.Users.SingleAsync(u => u.Email == "callum@halyard.example", TestContext.Current.CancellationToken);
        (callum.DisabledAt, callum.DisabledWhy) = (acts.Get<FirmClock>().Now, AccountEnd.Left);
        await new NewcomerAccounts(acts.Db).AddOrWakeAsync(
            callum.PersonId!.Value,
            "Callum Reyes",
            new Author(null, "Fid", callum.DisabledAt.Value, "test"),
            default
        );
        await acts.Db.SaveChangesAsync(TestContext.Current.CancellationToken);
        using var piet = await firm.As("piet");
        var account = (await DetailAsync(piet, "callum@")).Body;
        account["roles"]!.AsArray().Select(r => (string)r!).ShouldBe(["newcomer"]);
        (await firm.Database.AskAsync("select password_hash is null and disabled_at is null from users where email = 'callum@halyard.example'")).ShouldBe(true);
    }

    [Fact]
    public async Task An_invitation_that_is_sent_twice_under_one_key_makes_one_account_and_leaves_one_link()
    {
        using var piet = await firm.As("piet");
        var (key, body) = (Guid.NewGuid(), Facts("Twice Over", "twice@halyard.example", ["owner"], []));
        var first = Token(await (await piet.SendAsync("POST", "/api/accounts", body, key: key)).JsonAsync());
        var second = Token(await (await piet.SendAsync("POST", "/api/accounts", body, key: key)).JsonAsync());
        using var guest = new Caller(firm.Server.Address);
        await guest.GetAsync("/api/session");
        ((await SetAsync(guest, first)), await SetAsync(guest, second)).ShouldBe((HttpStatusCode.NotFound, HttpStatusCode.NoContent));
        (await firm.Database.AskAsync("select count(*) from users where email = 'twice@halyard.example'")).ShouldBe(1L);
    }

    [Fact]
    public async Task Accounts_come_page_by_page_each_once()
    {
        await using var database = await TestDatabase.CloneAsync();
        await using var server = new FidInstance(database.Connection);
        await database.AskAsync(
            """
            insert into users (id, display_name, language, teams, made_at, email_confirmed, phone_number_confirmed, two_factor_enabled, lockout_enabled,
              access_failed_count)
            select gen_random_uuid(), 'Same Name', 'en', '{}', now(), false, false, false, false, 0 from generate_series(1, 250)
            """
        );
        using var piet = await Caller.SignedInAsync(server.Address, "piet");
        var seen = new List<string>();
        string? next = null;
        do
        {
            var page = await piet.GetAsync($"/api/accounts{(next is null ? "" : $"?after={next}")}");
            seen.AddRange(page["accounts"]!.AsArray().Select(a => a!.Text("id")));
            next = (string?)page["next"];
        } while (next is not null);
        seen.Distinct().Count().ShouldBe(seen.Count);
        seen.Count.ToString(System.Globalization.CultureInfo.InvariantCulture)
            .ShouldBe((await database.AskAsync("select count(*)::text from users"))!.ToString());
    }

    private async Task EndLeaversAsync()
    {
        await using var acts = new ActCaller(firm.Server);
        (await acts.Get<EndAccountsOfLeavers>().DoAsync(new EndAccountsOfLeaversRequest(), await acts.AsFidAsync("leavers"), default)).Refusal.ShouldBeNull();
    }

    private static object Facts(string name, string email, string[] roles, string[] teams, string? employment = null) =>
        new
        {
            name,
            email,
            roles,
            teams,
            employment,
            language = "en",
        };

    private static async Task<string> InviteAsync(Caller admin, string name, string email, string[] roles, string[] teams, string? employment = null)
    {
        using var answer = await admin.SendAsync("POST", "/api/accounts", Facts(name, email, roles, teams, employment));
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return Token(await answer.JsonAsync());
    }

    private static async Task<string> LinkAsync(Caller admin, string account) =>
        Token(await (await admin.SendAsync("POST", $"/api/accounts/{account}/link")).JsonAsync());

    private static string Token(JsonNode answer) => answer.Text("link").Split('#')[1];

    private static async Task<HttpStatusCode> SetAsync(Caller guest, string token) =>
        (await guest.SendAsync("POST", "/api/invitations/password", new { token, password = Password })).StatusCode;

    private static async Task SignInAsync(Caller guest, string email) =>
        (await guest.SendAsync("POST", "/api/session", new { email, password = Password })).EnsureSuccessStatusCode();

    private static async Task<(string Id, string Version, JsonObject Body)> DetailAsync(Caller admin, string search)
    {
        var id = (await admin.GetAsync($"/api/accounts?q={search}"))["accounts"]!.AsArray().ShouldHaveSingleItem()!.Text("id");
        var detail = await admin.GetAsync($"/api/accounts/{id}");
        var account = detail["account"]!;
        var body = new JsonObject();
        foreach (var property in new[] { "name", "email", "roles", "teams", "employment", "language" })
            body[property] = account[property]?.DeepClone();
        return (id, detail.Text("version"), body);
    }
}
