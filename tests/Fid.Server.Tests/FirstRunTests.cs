using System.Net;
using System.Security.Cryptography;
using System.Text;
using Fid.Core.Rights;
using Fid.Testing;
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
        using var empty = await visitor.SendAsync(
            "POST",
            "/api/first-run",
            new
            {
                token = "",
                firmName = " ",
                currency = "euro",
                timeZone = "Moon",
                name = "",
                email = "nobody",
                password = "short",
            }
        );
        (await empty.ErrorsAsync()).Select(e => e.Pointer).ShouldBe(["/token", "/firmName", "/currency", "/timeZone", "/name", "/email", "/password"]);

        // The console shows the token; the database only knows its hash, so the test puts one there that it knows.
        await database.AskAsync(
            "insert into setup_tokens (id, hash, created_at) values (gen_random_uuid(), "
                + $"'{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes("known")))}', now())"
        );
        (await visitor.SendAsync("POST", "/api/first-run", Form("known"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await visitor.SendAsync("POST", "/api/first-run", Form("known"))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await database.AskAsync("select count(*) from setup_tokens")).ShouldBe(0L);

        var session = await (await visitor.SendAsync("POST", "/api/session", new { email = "ada@example.org", password = "a long enough one" })).JsonAsync();
        session["user"]!["rights"]!.AsArray().Select(r => (string)r!).ShouldBe(Things.Rights.Select(r => $"{r.Action} {r.Thing}"), ignoreOrder: true);
        (await visitor.GetAsync("/api/arrivals"))["hires"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public async Task What_a_firm_can_begin_with_can_be_ready_in_ten_working_days_from_any_day()
    {
        await using var database = await TestDatabase.EmptyAsync();
        var monday = new NodaTime.LocalDate(2027, 6, 7);
        await using (var server = new FidInstance(database.Connection, today: monday))
        {
            using var ada = await FirstAsync(database, server);
            // In the order in which lists name each other.
            foreach (
                var list in new[]
                {
                    "calendars",
                    "costCentres",
                    "grades",
                    "departments",
                    "sites",
                    "jobs",
                    "employmentKinds",
                    "teams",
                    "payGroups",
                    "shiftPatterns",
                    "clockRules",
                    "deviceGroups",
                    "clockDevices",
                    "items",
                    "documentKinds",
                    "certificates",
                    "reasons",
                    "payComponents",
                    "templates",
                }
            )
            {
                var rows = (await ada.GetAsync("/api/setup"))["lists"]!.AsArray().Single(l => l!.Text("key") == list)!["starter"]!;
                using var taken = await ada.SendAsync(
                    "POST",
                    $"/api/setup/starters/{list}",
                    new System.Text.Json.Nodes.JsonObject { ["rows"] = rows.DeepClone() }.ToJsonString()
                );
                taken.StatusCode.ShouldBe(HttpStatusCode.NoContent, $"{list}: {await taken.Content.ReadAsStringAsync()}");
            }
            var setup = await ada.GetAsync("/api/setup");
            setup["missing"]!.AsArray().ShouldBeEmpty();
            (setup.Text("country"), (await ada.GetAsync("/api/lists/calendars/entries/weekdays"))["values"]!.ToJsonString()).ShouldSatisfyAllConditions(
                s => s.Item1.ShouldBe("IE"),
                s => s.Item2.ShouldContain("--03-17")
            );
        }
        for (var day = 0; day < 7; day++)
        {
            await using var server = new FidInstance(database.Connection, today: monday.PlusDays(day));
            using var ada = await SignedInAsync(server);
            // Ten working days on: a fortnight, and from a weekend the Friday that ends it.
            var start = monday.PlusDays(day < 5 ? day + 14 : 18).ToString("uuuu-MM-dd", null);
            foreach (var template in (await ada.GetAsync("/api/templates")).AsArray().Where(t => t!["opens"]!.GetValue<bool>()))
            {
                using var example = await ada.SendAsync(
                    "POST",
                    $"/api/templates/{template!.Text("code")}/example",
                    new
                    {
                        spec = (object?)null,
                        use = (string?)null,
                        facts = new { },
                        start,
                    }
                );
                var plan = (await example.JsonAsync())["plan"]!;
                plan["feasible"]!.GetValue<bool>().ShouldBeTrue($"{template!.Text("code")} on {monday.PlusDays(day)} for {start}");
            }
        }
    }

    [Fact]
    public async Task A_starter_entry_that_is_not_right_is_named_by_its_row_and_nothing_is_taken()
    {
        await using var database = await TestDatabase.EmptyAsync();
        await using var server = new FidInstance(database.Connection);
        using var ada = await FirstAsync(database, server);
        using var sites = await ada.SendAsync(
            "POST",
            "/api/setup/starters/sites",
            new
            {
                rows = new[]
                {
                    new
                    {
                        code = "quay",
                        name = "Quay",
                        time_zone = "Europe/Dublin",
                    },
                    new
                    {
                        code = "moon",
                        name = "",
                        time_zone = "Moon",
                    },
                },
            }
        );
        (await sites.ErrorsAsync())
            .Select(e => e.Pointer)
            .ShouldBe(["/rows/0/calendar", "/rows/1/name", "/rows/1/time_zone", "/rows/1/calendar"], ignoreOrder: true);
        using var templates = await ada.SendAsync(
            "POST",
            "/api/setup/starters/templates",
            new { rows = new[] { new { code = "other", name = "Other" }, new { code = "staff", name = " " } } }
        );
        (await templates.ErrorsAsync()).ShouldBe([("/rows/1/name", "missing")]);
        (await database.AskAsync("select (select count(*) from list_entries) + (select count(*) from role_templates)")).ShouldBe(0L);
        using var country = await ada.SendAsync("GET", "/api/setup/starters/calendars?country=XX");
        (await country.ErrorsAsync()).ShouldBe([("/country", "unknown-country")]);
        (await ada.GetAsync("/api/setup/starters/calendars?country=DE"))[0]!.Text("holidays").ShouldContain("--10-03");
        (await ada.GetAsync("/api/setup/starters/calendars"))[0]!.Text("holidays").ShouldBe("");
    }

    private static async Task<Caller> FirstAsync(TestDatabase database, FidInstance server)
    {
        await database.AskAsync(
            "insert into setup_tokens (id, hash, created_at) values (gen_random_uuid(), "
                + $"'{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes("known")))}', now())"
        );
        using (var visitor = new Caller(server.Address))
        {
            await visitor.GetAsync("/api/session");
            (await visitor.SendAsync("POST", "/api/first-run", Form("known"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }
        return await SignedInAsync(server);
    }

    private static async Task<Caller> SignedInAsync(FidInstance server)
    {
        var ada = new Caller(server.Address);
        await ada.GetAsync("/api/session");
        (await ada.SendAsync("POST", "/api/session", new { email = "ada@example.org", password = "a long enough one" })).EnsureSuccessStatusCode();
        return ada;
    }

    private static object Form(string token) =>
        new
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
