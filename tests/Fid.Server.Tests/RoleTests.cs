using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The firm's own roles: drafted, agreed to by two, granted for a time and by rule, and gone at the next request.</summary>
public sealed class RoleTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();

    public ValueTask InitializeAsync() => _firm.InitializeAsync();

    public ValueTask DisposeAsync() => _firm.DisposeAsync();

    [Fact]
    public async Task A_role_that_reaches_a_site_shows_that_site_and_nobody_else()
    {
        using var piet = await _firm.As("piet");
        using var nils = await _firm.As("nils");
        (await nils.SendAsync("GET", "/api/people")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var all = await PeopleAsync(await _firm.As("orla"));
        var site = all.GroupBy(p => p.Site).OrderByDescending(g => g.Count()).First(g => g.Count() < all.Count && g.Key is not null).Key!;
        var code = (string)(await _firm.Database.AskAsync($"select code from list_entries where list = 'sites' and name = '{site}'"))!;
        await Roles.MakeLiveAsync(piet, Roles.OfSite("site-lead", code));
        await Roles.GrantAsync(piet, "nils", "site-lead", to: "2027-03-31");

        var seen = await PeopleAsync(nils);
        seen.Select(p => p.Id).ShouldBe(all.Where(p => p.Site == site).Select(p => p.Id), ignoreOrder: true);
        var (own, other) = (all.First(p => p.Site == site).Id, all.First(p => p.Site != site).Id);
        (await nils.SendAsync("GET", $"/api/records/{own}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await nils.SendAsync("GET", $"/api/records/{other}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await nils.SendAsync("GET", $"/api/records/{other}/history")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await nils.GetAsync("/api/arrivals"))["hires"]!.AsArray().ShouldAllBe(h => h!.Text("site") == site);
        // The section of pay was not given.
        var sections = (await nils.GetAsync($"/api/records/{own}"))["sections"]!.AsArray().Select(s => s!.Text("key"));
        sections.ShouldBe(["person", "work"], ignoreOrder: true);
        (await nils.SendAsync("POST", "/api/hires/preview", "{}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_grant_counts_on_its_days_and_is_gone_at_the_next_request()
    {
        using var piet = await _firm.As("piet");
        using var nils = await _firm.As("nils");
        await Roles.MakeLiveAsync(piet, Roles.Of("reader", """{"do":"see","on":"template","reach":"all"}"""));
        // The firm's today is 2027-03-01.
        await Roles.GrantAsync(piet, "nils", "reader", from: "2027-03-02");
        (await nils.SendAsync("GET", "/api/templates")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await Roles.GrantAsync(piet, "nils", "reader", to: "2027-03-01");
        (await nils.GetAsync("/api/session"))["user"]!["rights"]!.AsArray().Select(r => (string)r!).ShouldBe(["see record", "see template"]);
        (await nils.SendAsync("GET", "/api/templates")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var (id, detail) = await Roles.AccountAsync(piet, "nils");
        var grants = detail["grants"]!.AsArray();
        grants
            .Select(g => (g!.Text("role"), (string?)g!["from"], (string?)g["to"]))
            .ShouldBe([("reader", null, "2027-03-01"), ("reader", "2027-03-02", null)], ignoreOrder: true);
        var today = grants.Single(g => (string?)g!["to"] == "2027-03-01")!.Text("id");
        (await piet.SendAsync("DELETE", $"/api/accounts/{id}/grants/{today}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await nils.SendAsync("GET", "/api/templates")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await piet.SendAsync("DELETE", $"/api/accounts/{id}/grants/{today}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        // Who granted what is on the trail.
        (await piet.GetAsync("/api/trail"))["entries"]!
            .AsArray()
            .Select(e => e!.Text("action"))
            .Where(a => a.StartsWith("role.", StringComparison.Ordinal) || a.StartsWith("rights.", StringComparison.Ordinal))
            .ShouldBe(["role.taken", "role.granted", "role.granted", "rights.published"]);
    }

    [Theory]
    [InlineData("nobody", null, "2027-04-01", "unknown-role")]
    [InlineData("payroll", null, null, "missing")]
    [InlineData("payroll", "2027-04-02", "2027-04-01", "not-in-order")]
    [InlineData("payroll", null, "2027-02-28", "past")]
    [InlineData("payroll", "0001-01-01", null, "bad-date")]
    [InlineData("owner", "2027-04-01", "2027-04-02", "granted-already")]
    public async Task A_grant_that_cannot_be_says_why(string role, string? from, string? to, string code)
    {
        using var piet = await _firm.As("piet");
        var (id, _) = await Roles.AccountAsync(piet, "nils");
        var answer = await (
            await piet.SendAsync(
                "POST",
                $"/api/accounts/{id}/grants",
                new
                {
                    role,
                    from,
                    to,
                    why = (string?)null,
                }
            )
        ).JsonAsync();
        answer["errors"]![0]!.Text("code").ShouldBe(code);
    }

    [Fact]
    public async Task Sent_twice_under_one_key_it_is_granted_once()
    {
        using var piet = await _firm.As("piet");
        var (id, _) = await Roles.AccountAsync(piet, "nils");
        var (key, body) = (
            Guid.NewGuid(),
            new
            {
                role = "payroll",
                from = (string?)null,
                to = "2027-06-30",
                why = (string?)null,
            }
        );
        var both = await Task.WhenAll(
            Enumerable.Range(0, 2).Select(async _ => await (await piet.SendAsync("POST", $"/api/accounts/{id}/grants", body, key: key)).JsonAsync())
        );
        both[0].Text("id").ShouldBe(both[1].Text("id"));
        (await _firm.Database.AskAsync($"select count(*) from role_grants where account_id = '{id}' and role = 'payroll'")).ShouldBe(1L);
        (
            await (
                await piet.SendAsync(
                    "POST",
                    $"/api/accounts/{id}/grants",
                    new
                    {
                        role = "payroll",
                        from = (string?)null,
                        to = "2027-05-31",
                        why = (string?)null,
                    }
                )
            ).JsonAsync()
        )["errors"]![0]!.Text("code").ShouldBe("granted-already");
    }

    [Fact]
    public async Task Nobody_gives_themselves_more()
    {
        using var piet = await _firm.As("piet");
        var (id, detail) = await Roles.AccountAsync(piet, "piet");
        (
            await (
                await piet.SendAsync(
                    "POST",
                    $"/api/accounts/{id}/grants",
                    new
                    {
                        role = "payroll",
                        from = (string?)null,
                        to = "2027-06-30",
                        why = (string?)null,
                    }
                )
            ).JsonAsync()
        ).Text("code").ShouldBe("own-rights");
        var account = detail["account"]!;
        var facts = new JsonObject
        {
            ["name"] = account.Text("name"),
            ["email"] = account.Text("email"),
            ["roles"] = new JsonArray("administrator", "payroll"),
            ["teams"] = new JsonArray(),
            ["employment"] = account["employment"]?.DeepClone(),
            ["language"] = "en",
        };
        var answer = await piet.SendAsync("PUT", $"/api/accounts/{id}", facts, ifMatch: detail.Text("version"));
        (await answer.JsonAsync()).Text("code").ShouldBe("own-rights");
    }

    [Fact]
    public async Task What_gives_somebody_more_is_agreed_to_by_a_second_who_does_not_gain_by_it()
    {
        using var piet = await _firm.As("piet");
        using var orla = await _firm.As("orla");
        using var nils = await _firm.As("nils");
        var narrow = Roles.Of("reader", """{"do":"see","on":"template","reach":"all"}""");
        await Roles.MakeLiveAsync(piet, narrow);
        await Roles.GrantAsync(piet, "nils", "reader", to: "2027-12-31");
        await Roles.GrantAsync(piet, "orla", "administrator", to: "2027-12-31");
        var wide = Roles.Of("reader", """{"do":"see","on":"template","reach":"all"},{"do":"see","on":"list","reach":"all"}""");
        var review = await (await piet.SendAsync("POST", "/api/rights/draft/review", new { configuration = wide })).JsonAsync();
        ((bool)review["needsSecond"]!, (bool)review["widensOwn"]!).ShouldBe((true, false));
        var changed = review["holders"]!.AsArray().Single()!;
        changed.Text("name").ShouldBe("Nils Aakre");
        changed["gained"]!.AsArray().Single()!.Text("on").ShouldBe("list");
        changed["lost"]!.AsArray().ShouldBeEmpty();

        var draft = await Roles.SaveAsync(piet, wide);
        var asked = await (await piet.SendAsync("POST", "/api/rights/draft/publish", new { why = "For stores" }, ifMatch: draft)).JsonAsync();
        asked["version"].ShouldBeNull();
        (await nils.SendAsync("GET", "/api/lists")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        draft = (await piet.GetAsync("/api/rights"))["draft"]!.Text("version");
        (await (await piet.SendAsync("POST", "/api/rights/draft/publish", new { why = "" }, ifMatch: draft)).JsonAsync())
            .Text("code")
            .ShouldBe("second-person-needed");
        // Two who agree at once: one does it.
        var both = await Task.WhenAll(
            Enumerable.Range(0, 2).Select(_ => orla.SendAsync("POST", "/api/rights/draft/publish", new { why = (string?)null }, ifMatch: draft))
        );
        both.Select(b => b.StatusCode).Order().ShouldBe([HttpStatusCode.OK, HttpStatusCode.Conflict]);
        (await nils.SendAsync("GET", "/api/lists")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var version = (await piet.GetAsync("/api/rights/versions")).AsArray()[0]!;
        (version.Text("byName"), version.Text("askedBy")).ShouldBe(("Orla Dunmore", "Piet Haverkort"));

        // Who would gain by it cannot be the second.
        await Roles.GrantAsync(piet, "orla", "reader", to: "2027-12-31");
        draft = await Roles.SaveAsync(piet, Roles.Of("reader", """{"do":"see","on":"*","reach":"all"}"""));
        await piet.SendAsync("POST", "/api/rights/draft/publish", new { why = (string?)null }, ifMatch: draft);
        draft = (await piet.GetAsync("/api/rights"))["draft"]!.Text("version");
        (await (await orla.SendAsync("POST", "/api/rights/draft/publish", new { why = (string?)null }, ifMatch: draft)).JsonAsync())
            .Text("code")
            .ShouldBe("own-rights");
    }

    [Fact]
    public async Task By_rule_a_role_is_theirs_whose_record_says_so_and_no_longer_when_it_does_not()
    {
        using var piet = await _firm.As("piet");
        using var orla = await _firm.As("orla");
        using var callum = await _firm.As("callum");
        await Roles.GrantAsync(piet, "orla", "administrator", to: "2027-12-31");
        (await callum.SendAsync("GET", "/api/lists")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await Roles.MakeLiveAsync(
            piet,
            Roles.Of(
                "reader",
                """{"do":"see","on":"list","reach":"all"}""",
                """{"id":"reyes","label":"Reyes","when":"family_name == 'Reyes'","roles":["reader"]}"""
            ),
            second: orla
        );
        (await callum.SendAsync("GET", "/api/lists")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var (_, detail) = await Roles.AccountAsync(piet, "callum");
        detail["ruled"]!.AsArray().Select(r => (r!.Text("role"), (string?)r!["group"])).ShouldBe([("reader", "reyes"), ("staff", null)]);
        var who = (await piet.GetAsync("/api/rights/explained?thing=list&action=see"))["people"]!.AsArray().Single(p => p!.Text("name") == "Callum Reyes")!;
        who["because"]![0]!["rule"]!.Text("group").ShouldBe("reyes");
        var record = await orla.GetAsync($"/api/records/{detail["account"]!.Text("employment")}");
        (
            await orla.SendAsync(
                "PUT",
                $"/api/records/{record.Text("employmentId")}",
                new
                {
                    changes = new { family_name = "Reyes-Moor" },
                    from = (string?)null,
                    why = (string?)null,
                },
                ifMatch: record.Text("version")
            )
        ).EnsureSuccessStatusCode();
        (await callum.SendAsync("GET", "/api/lists")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await _firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task A_role_that_is_taken_away_while_it_is_granted_gives_nothing_and_another_of_its_name_nothing_to_those_who_had_it()
    {
        using var piet = await _firm.As("piet");
        using var nils = await _firm.As("nils");
        var role = Roles.Of("reader", """{"do":"see","on":"template","reach":"all"}""");
        await Roles.MakeLiveAsync(piet, role);
        await Roles.GrantAsync(piet, "nils", "reader", to: "2027-12-31");
        var gone = JsonNode.Parse("""{"roles":[],"groups":[]}""")!.AsObject();
        var review = await (await piet.SendAsync("POST", "/api/rights/draft/review", new { configuration = gone.DeepClone() })).JsonAsync();
        review["holders"]!.AsArray().Single()!["lost"]!.AsArray().Single()!.Text("on").ShouldBe("template");
        ((bool)review["needsSecond"]!).ShouldBeFalse();
        await Roles.MakeLiveAsync(piet, gone);
        (await nils.SendAsync("GET", "/api/templates")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await Roles.MakeLiveAsync(piet, role);
        (await nils.SendAsync("GET", "/api/templates")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task Departments_and_managers_in_a_ring_reach_whom_they_reach_once()
    {
        using var piet = await _firm.As("piet");
        using var orla = await _firm.As("orla");
        using var nils = await _firm.As("nils");
        var departments = (string[])
            (await _firm.Database.AskAsync("select array_agg(code) from (select code from list_entries where list = 'departments' order by code limit 2) d"))!;
        foreach (var (one, other) in new[] { (0, 1), (1, 0) })
            await _firm.Database.AskAsync(
                $"update list_entries set values = jsonb_set(values, '{{parent}}', to_jsonb('{departments[other]}'::text)) "
                    + $"where list = 'departments' and code = '{departments[one]}' returning 1"
            );
        await Roles.MakeLiveAsync(
            piet,
            Roles.Of(
                "ring",
                $$"""
                {"do":"see","on":"record","reach":{"department":"{{departments[0]}}"} },{"do":"see","on":"record","reach":"reports"},
                {"do":"see","on":"section:work","reach":"reports"},{"do":"see","on":"people","reach":"all"}
                """
            )
        );
        await Roles.GrantAsync(piet, "nils", "ring", to: "2027-12-31");
        (await nils.SendAsync("GET", "/api/people")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var (_, detail) = await Roles.AccountAsync(piet, "nils");
        var explained = await piet.GetAsync($"/api/rights/explained?thing=record&person={detail["account"]!["employment"] ?? (await PeopleAsync(orla))[0].Id}");
        explained["people"]!.AsArray().Select(p => p!.Text("name")).ShouldContain("Piet Haverkort");
    }

    [Fact]
    public async Task Whoever_looks_as_somebody_else_sees_what_they_see_changes_nothing_and_is_on_the_trail()
    {
        using var piet = await Caller.SignedInAsync(_firm.Server.Address, "piet");
        using var ruth = await _firm.As("ruth");
        var (callum, _) = await Roles.AccountAsync(piet, "callum");
        (await ruth.SendAsync("POST", "/api/session/as", new { account = callum })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var began = await (await piet.SendAsync("POST", "/api/session/as", new { account = callum })).JsonAsync();
        (began["user"]!.Text("name"), began["user"]!.Text("viewedBy")).ShouldBe(("Callum Reyes", "Piet Haverkort"));
        using var own = await _firm.As("callum");
        (await piet.GetAsync("/api/arrivals")).ToJsonString().ShouldBe((await own.GetAsync("/api/arrivals")).ToJsonString());
        (await piet.GetAsync("/api/tasks")).ToJsonString().ShouldBe((await own.GetAsync("/api/tasks")).ToJsonString());
        (await piet.SendAsync("GET", "/api/accounts")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var employment = (await piet.GetAsync("/api/arrivals"))["hires"]![0]!.Text("employmentId");
        (await piet.SendAsync("POST", $"/api/records/{employment}/readings", new { changes = new { } })).StatusCode.ShouldBe(HttpStatusCode.OK);
        foreach (
            var (method, path, body) in new (string, string, object?)[]
            {
                (
                    "PUT",
                    $"/api/records/{employment}",
                    new
                    {
                        changes = new { town = "Elsewhere" },
                        from = (string?)null,
                        why = (string?)null,
                    }
                ),
                ("POST", $"/api/records/{employment}/fields/bank_account/reveal", new { value = (string?)null }),
                ("PUT", "/api/session/language", new { language = "de" }),
                ("DELETE", "/api/sessions", null),
                ("POST", "/api/session/as", new { account = callum }),
                ("GET", "/api/people/sheet.xlsx", null),
            }
        )
        {
            using var refused = await piet.SendAsync(method, path, body);
            (refused.StatusCode, (await refused.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Forbidden, "view-only"), path);
        }
        (await (await piet.SendAsync("DELETE", "/api/session/as")).JsonAsync())["user"]!.Text("name").ShouldBe("Piet Haverkort");
        var entry = (await piet.GetAsync("/api/trail?action=session.viewedAs"))["entries"]!.AsArray().Single()!;
        (entry.Text("by"), entry.Text("part")).ShouldBe(("Piet Haverkort", "Callum Reyes"));

        // Who sees less than the other cannot look as they do, and is themselves again once they may not any more.
        await Roles.MakeLiveAsync(piet, Roles.Of("desk", """{"do":"view-as","on":"account","reach":"all"},{"do":"see","on":"record","reach":"all"}"""));
        await Roles.GrantAsync(piet, "ruth", "desk", to: "2027-12-31");
        var (orla, _) = await Roles.AccountAsync(piet, "orla");
        (await (await ruth.SendAsync("POST", "/api/session/as", new { account = orla })).JsonAsync()).Text("code").ShouldBe("sees-more");
        var (nils, _) = await Roles.AccountAsync(piet, "nils");
        (await ruth.SendAsync("POST", "/api/session/as", new { account = nils })).StatusCode.ShouldBe(HttpStatusCode.OK);
        await Roles.MakeLiveAsync(piet, Roles.Of("desk", """{"do":"see","on":"record","reach":"all"}"""));
        (await ruth.GetAsync("/api/session"))["user"]!.Text("name").ShouldBe("Ruth Abara");
    }

    private static async Task<List<(string Id, string? Site)>> PeopleAsync(Caller caller)
    {
        var people = new List<(string, string?)>();
        for (string? after = ""; after is not null; )
        {
            var page = await caller.GetAsync($"/api/people{(after.Length > 0 ? $"?after={after}" : "")}");
            people.AddRange(page["people"]!.AsArray().Select(p => (p!.Text("employmentId"), (string?)p!["site"])));
            after = (string?)page["next"];
        }
        return people;
    }
}
