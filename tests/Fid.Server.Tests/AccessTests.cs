using System.Net;
using Fid.Testing;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Who may call what: every endpoint there is, as each role and as nobody.</summary>
public class AccessTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    // One person of each role.
    private static readonly string[] Everybody = ["orla", "piet", "ruth", "callum", "nils", "ines"];
    private static readonly string[] Coordinators = ["orla", "piet"];
    private static readonly string[] Readers = ["orla", "piet", "ruth"];
    private static readonly string[] Arrivals = ["orla", "piet", "ruth", "callum"];

    // Written out, so that a policy that changes by mistake is noticed. Null: nobody need sign in.
    private static readonly Dictionary<string, string[]?> May = new()
    {
        ["GET /api/session"] = null,
        ["POST /api/session"] = null,
        ["DELETE /api/session"] = Everybody,
        ["POST /api/session/as"] = ["piet"],
        ["DELETE /api/session/as"] = Everybody,
        ["PUT /api/session/language"] = Everybody,
        ["PUT /api/session/password"] = Everybody,
        ["GET /api/sessions"] = Everybody,
        ["DELETE /api/sessions"] = Everybody,
        ["DELETE /api/sessions/{id:guid}"] = Everybody,
        ["GET /api/trail"] = ["piet"],
        ["GET /health/live"] = null,
        ["GET /health/ready"] = null,
        ["* /{**path}"] = null,
        ["GET /api/accounts"] = ["piet"],
        ["POST /api/accounts"] = ["piet"],
        ["GET /api/accounts/{id:guid}"] = ["piet"],
        ["GET /api/accounts/of/{id:guid}"] = ["piet"],
        ["PUT /api/accounts/{id:guid}"] = ["piet"],
        ["POST /api/accounts/{id:guid}/link"] = ["piet"],
        ["PUT /api/accounts/{id:guid}/disabled"] = ["piet"],
        ["DELETE /api/accounts/{id:guid}/disabled"] = ["piet"],
        ["DELETE /api/accounts/{id:guid}/sessions"] = ["piet"],
        ["POST /api/accounts/{id:guid}/grants"] = ["piet"],
        ["DELETE /api/accounts/{id:guid}/grants/{grant:guid}"] = ["piet"],
        ["GET /api/rights"] = ["piet"],
        ["GET /api/rights/schema.json"] = null,
        ["GET /api/rights/versions"] = ["piet"],
        ["GET /api/rights/versions/{version:int}"] = ["piet"],
        ["GET /api/rights/explained"] = ["piet"],
        ["PUT /api/rights/draft"] = ["piet"],
        ["DELETE /api/rights/draft"] = ["piet"],
        ["POST /api/rights/draft/review"] = ["piet"],
        ["POST /api/rights/draft/publish"] = ["piet"],
        ["POST /api/invitations/look"] = null,
        ["POST /api/invitations/password"] = null,
        ["GET /api/jobs"] = ["piet"],
        ["POST /api/jobs/{id:guid}/again"] = ["piet"],
        ["GET /api/live"] = Everybody,
        ["POST /api/first-run"] = null,
        ["GET /api/openapi.json"] = null,
        ["GET /api/absences"] = Everybody,
        ["POST /api/absences"] = Everybody,
        ["DELETE /api/absences/{id:guid}"] = Everybody,
        ["GET /api/reminders"] = Coordinators,
        ["GET /api/reminders/sent"] = Coordinators,
        ["PUT /api/reminders/settings"] = Coordinators,
        ["PUT /api/reminders/sent/{id:guid}"] = Coordinators,
        ["GET /api/mail-texts"] = Coordinators,
        ["PUT /api/mail-texts/{kind}/{language}"] = Coordinators,
        ["POST /api/mail-texts/{kind}/{language}/shown"] = Coordinators,
        ["GET /api/arrivals"] = Arrivals,
        ["GET /api/arrivals/calendar-link"] = Arrivals,
        ["GET /api/arrivals/week.pdf"] = Arrivals,
        ["GET /api/arrivals/sheet.xlsx"] = Arrivals,
        ["POST /api/arrivals/calendar-link"] = Arrivals,
        ["DELETE /api/arrivals/calendar-link"] = Everybody,
        ["GET /api/calendars/{token}/arrivals.ics"] = null,
        ["GET /api/hires/{id:guid}/person"] = Arrivals,
        ["GET /api/people/{id:guid}/checklists/offer"] = Coordinators,
        ["POST /api/people/{id:guid}/checklists"] = Coordinators,
        ["POST /api/hires/preview"] = Coordinators,
        ["POST /api/hires"] = Coordinators,
        ["POST /api/hires/many/preview"] = Coordinators,
        ["POST /api/hires/many"] = Coordinators,
        ["POST /api/hires/known"] = Coordinators,
        ["PUT /api/hires/{id:guid}/outcome"] = Coordinators,
        ["DELETE /api/hires/{id:guid}/outcome"] = Coordinators,
        ["GET /api/pay-check"] = Readers,
        ["POST /api/pay-check"] = ["piet", "ruth"],
        ["POST /api/pay-check/checklists"] = ["piet", "ruth"],
        ["DELETE /api/pay-check/checklists/{id:guid}"] = ["piet", "ruth"],
        ["POST /api/pay-check/checklists/{id:guid}/tasks/{key}"] = Everybody,
        ["GET /api/pay-check/{group}/{period}/{employment:guid}"] = Readers,
        ["GET /api/pay-check/{group}/{period}/sheet.xlsx"] = Readers,
        ["GET /api/pay-check/{group}/{period}/sheet.csv"] = Readers,
        ["GET /api/pay-revisions"] = Coordinators,
        ["POST /api/pay-revisions"] = Coordinators,
        ["POST /api/pay-revisions/preview"] = Coordinators,
        ["POST /api/pay-revisions/{id:guid}/undo"] = Coordinators,
        ["GET /api/pay-revisions/sheet.xlsx"] = Coordinators,
        ["GET /api/people/{id:guid}/merge"] = Coordinators,
        ["POST /api/people/{id:guid}/merge"] = Coordinators,
        ["DELETE /api/people/merges/{id:guid}"] = Coordinators,
        ["GET /api/intake"] = Coordinators,
        ["GET /api/intake/waiting"] = Coordinators,
        ["PUT /api/intake/feed"] = ["piet"],
        ["POST /api/intake/pull"] = Coordinators,
        ["POST /api/intake/{id:guid}/decline"] = Coordinators,
        ["POST /api/intake/{id:guid}/proposals"] = Coordinators,
        ["PUT /api/outbox/{id:guid}/told"] = Coordinators,
        ["GET /api/hires/{id:guid}"] = Arrivals,
        ["GET /api/hires/{id:guid}/start-change"] = Coordinators,
        ["PUT /api/hires/{id:guid}/start"] = Coordinators,
        ["PUT /api/hires/{id:guid}/tasks/{key}/done"] = Everybody,
        ["DELETE /api/hires/{id:guid}/tasks/{key}/done"] = Everybody,
        ["GET /api/hires/{id:guid}/tasks/{key}/files/{file:guid}"] = Everybody,
        ["PUT /api/hires/{id:guid}/tasks/{key}/skipped"] = Coordinators,
        ["DELETE /api/hires/{id:guid}/tasks/{key}/skipped"] = Coordinators,
        ["GET /api/records/{id:guid}"] = Everybody,
        ["PUT /api/records/{id:guid}"] = Everybody,
        ["POST /api/records/{id:guid}/readings"] = Everybody,
        ["POST /api/records/{id:guid}/offer"] = Everybody,
        ["POST /api/records/{id:guid}/offer/paper"] = Everybody,
        ["PUT /api/records/{id:guid}/offer/taken"] = Everybody,
        ["POST /api/records/{id:guid}/requests"] = Everybody,
        ["POST /api/records/{id:guid}/requests/route"] = Everybody,
        ["GET /api/people/colleagues"] = Everybody,
        ["GET /api/records/{id:guid}/history"] = Everybody,
        ["GET /api/records/{id:guid}/compare"] = Everybody,
        ["POST /api/records/{id:guid}/changes/{change:guid}/explanations"] = Coordinators,
        ["POST /api/records/{id:guid}/changes/{change:guid}/take-back"] = Coordinators,
        ["GET /api/fields"] = Coordinators,
        ["GET /api/fields/filled"] = Coordinators,
        ["GET /api/fields/labels"] = Everybody,
        ["GET /api/fields/schema.json"] = null,
        ["GET /api/fields/versions"] = Coordinators,
        ["GET /api/fields/versions/{version:int}"] = Coordinators,
        ["GET /api/fields/compare"] = Coordinators,
        ["PUT /api/fields/draft"] = Coordinators,
        ["DELETE /api/fields/draft"] = Coordinators,
        ["POST /api/fields/draft/review"] = Coordinators,
        ["POST /api/fields/draft/try"] = Coordinators,
        ["POST /api/fields/draft/approvals"] = Coordinators,
        ["POST /api/fields/draft/publish"] = Coordinators,
        ["GET /api/fields/{key}/coverage"] = Coordinators,
        ["GET /api/fields/{key}/gap.xlsx"] = Coordinators,
        ["POST /api/fields/{key}/gap"] = Coordinators,
        ["GET /api/people"] = Readers,
        ["GET /api/people/sheet.xlsx"] = Readers,
        ["GET /api/people/rows/{key}/sheet.xlsx"] = Readers,
        ["GET /api/goto"] = Everybody,
        ["GET /api/tasks"] = Everybody,
        ["POST /api/tasks/done"] = Everybody,
        ["POST /api/tasks/undone"] = Everybody,
        ["POST /api/tasks/note"] = Everybody,
        ["POST /api/tasks/files"] = Everybody,
        ["POST /api/tasks/taken"] = Everybody,
        ["POST /api/tasks/taken-back"] = Everybody,
        ["POST /api/tasks/skipped"] = Coordinators,
        ["POST /api/tasks/unskipped"] = Coordinators,
        ["POST /api/tasks/owner"] = Coordinators,
        ["POST /api/tasks/day"] = Coordinators,
        ["POST /api/tasks/meeting"] = Coordinators,
        ["POST /api/tasks/step"] = Everybody,
        ["POST /api/tasks/retried"] = Everybody,
        ["POST /api/tasks/shape"] = Coordinators,
        ["POST /api/tasks/reminders"] = Coordinators,
        ["POST /api/tasks/paused"] = Coordinators,
        ["PUT /api/hires/{id:guid}/reminders"] = Coordinators,
        ["PUT /api/hires/{id:guid}/stages/{key}/passed"] = Coordinators,
        ["PUT /api/hires/{id:guid}/stages/{key}/reopened"] = Coordinators,
        ["GET /api/stalls"] = Coordinators,
        ["GET /api/stalls/hires"] = Coordinators,
        ["GET /api/stalls/tasks/{key}/trial"] = Coordinators,
        ["POST /api/stalls/tasks/{key}/drafts"] = Coordinators,
        ["POST /api/hires/{id:guid}/tasks"] = Coordinators,
        ["POST /api/hires/{id:guid}/tasks/{key}/parts"] = Coordinators,
        ["POST /api/hires/{id:guid}/tasks/{key}/trial"] = Coordinators,
        ["GET /api/hires/{id:guid}/tasks/{key}/history"] = Arrivals,
        ["GET /api/session/ways"] = null,
        ["GET /api/session/openid"] = null,
        ["GET /api/session/second-factor"] = Everybody,
        ["POST /api/session/second-factor/again"] = Everybody,
        ["POST /api/session/second-factor/prove"] = Everybody,
        ["POST /api/session/second-factor/authenticator/begin"] = Everybody,
        ["POST /api/session/second-factor/authenticator"] = Everybody,
        ["DELETE /api/session/second-factor/authenticator"] = Everybody,
        ["POST /api/session/second-factor/recovery-codes"] = Everybody,
        ["POST /api/session/second-factor/passkeys/begin"] = Everybody,
        ["POST /api/session/second-factor/passkeys"] = Everybody,
        ["POST /api/session/second-factor/passkeys/proof"] = Everybody,
        ["POST /api/session/second-factor/passkeys/prove"] = Everybody,
        ["DELETE /api/session/second-factor/passkeys/{id}"] = Everybody,
        ["DELETE /api/accounts/{id:guid}/second-factor"] = ["piet"],
        ["GET /api/requests"] = Everybody,
        ["GET /api/requests/{id:guid}/effects"] = Everybody,
        ["GET /api/requests/{id:guid}/others"] = Everybody,
        ["POST /api/requests/{id:guid}/agree"] = Everybody,
        ["POST /api/requests/{id:guid}/refuse"] = Everybody,
        ["POST /api/requests/{id:guid}/withdraw"] = Everybody,
        ["POST /api/requests/{id:guid}/comment"] = Everybody,
        ["POST /api/requests/{id:guid}/hand-on"] = Everybody,
        ["POST /api/records/{id:guid}/fields/{key}/reveal"] = Everybody,
        ["POST /api/files"] = Everybody,
        ["GET /api/records/{id:guid}/fields/{key}/file"] = Everybody,
        ["GET /api/templates"] = Readers,
        ["GET /api/templates/editing"] = Coordinators,
        ["GET /api/templates/{code}"] = Readers,
        ["GET /api/templates/{code}/versions"] = Readers,
        ["GET /api/templates/{code}/compare"] = Readers,
        ["PUT /api/templates/{code}/retired"] = Coordinators,
        ["PUT /api/templates/{code}/draft"] = Coordinators,
        ["DELETE /api/templates/{code}/draft"] = Coordinators,
        ["POST /api/templates/{code}/draft/publish"] = Coordinators,
        ["POST /api/templates/{code}/example"] = Readers,
        ["POST /api/templates/people"] = Coordinators,
        ["GET /api/templates/updates"] = Coordinators,
        ["POST /api/templates/updates"] = Coordinators,
        ["POST /api/templates/updates/{id:guid}/undo"] = Coordinators,
        ["GET /api/templates/{code}/updates"] = Coordinators,
        ["POST /api/templates/{code}/touches"] = Coordinators,
        ["GET /api/templates/{code}/file"] = Coordinators,
        ["POST /api/templates/import/check"] = Coordinators,
        ["POST /api/templates/import"] = Coordinators,
        ["GET /api/ready-tasks"] = Coordinators,
        ["GET /api/shared-tasks"] = Coordinators,
        ["PUT /api/shared-tasks/{key}"] = Coordinators,
        ["DELETE /api/shared-tasks/{key}"] = Coordinators,
        ["GET /api/options"] = Everybody,
        ["GET /api/options/{list}"] = Everybody,
        ["GET /api/lists"] = Readers,
        ["GET /api/lists/{list}/entries"] = Readers,
        ["POST /api/lists/{list}/entries"] = Coordinators,
        ["GET /api/lists/{list}/entries/{code}"] = Readers,
        ["PUT /api/lists/{list}/entries/{code}"] = Coordinators,
        ["DELETE /api/lists/{list}/entries/{code}"] = Coordinators,
        ["GET /api/lists/{list}/entries/{code}/history"] = Readers,
        ["GET /api/lists/{list}/entries/{code}/users"] = Readers,
        ["POST /api/lists/{list}/entries/{code}/retire"] = Coordinators,
        ["POST /api/lists/{list}/entries/{code}/restore"] = Coordinators,
        ["POST /api/lists/calendars/year"] = Readers,
        ["POST /api/lists/payGroups/periods"] = Readers,
        ["POST /api/lists/shiftPatterns/weeks"] = Readers,
        ["POST /api/lists/payComponents/slip"] = Readers,
        ["POST /api/lists/payComponents/effects"] = Readers,
        ["GET /api/lists/calendars/entries/{code}/calendar.ics"] = Readers,
        ["POST /api/lists/calendars/read-ics"] = Coordinators,
        ["GET /api/lists/{list}/sheet.xlsx"] = Readers,
        ["GET /api/setup"] = Coordinators,
        ["GET /api/setup/starters/calendars"] = Coordinators,
        ["POST /api/setup/starters/{list}"] = Coordinators,
        ["PUT /api/setup/settings"] = Coordinators,
        ["GET /api/setup/number"] = Coordinators,
        ["GET /api/imports"] = Coordinators,
        ["GET /api/imports/targets"] = Coordinators,
        ["POST /api/imports"] = Coordinators,
        ["GET /api/imports/{id:guid}"] = Coordinators,
        ["DELETE /api/imports/{id:guid}"] = Coordinators,
        ["GET /api/imports/{id:guid}/rows"] = Coordinators,
        ["PUT /api/imports/{id:guid}/cells"] = Coordinators,
        ["PUT /api/imports/{id:guid}/matching"] = Coordinators,
        ["POST /api/imports/{id:guid}/commit"] = Coordinators,
        ["POST /api/imports/{id:guid}/undo"] = Coordinators,
        ["GET /api/imports/{id:guid}/rest.xlsx"] = Coordinators,
        ["GET /api/dates"] = Everybody,
        ["* /api/{**rest}"] = null,
    };

    private IEnumerable<(string Name, string Method, string Path)> Endpoints =>
        firm
            .Server.Services.GetServices<EndpointDataSource>()
            .SelectMany(s => s.Endpoints)
            .OfType<RouteEndpoint>()
            .SelectMany(e =>
                (e.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? ["*"]).Select(m => (Method: m, Pattern: e.RoutePattern.RawText!.Trim('/')))
            )
            .Select(e => ($"{e.Method} /{e.Pattern}", e.Method == "*" ? "GET" : e.Method, Path(e.Pattern)));

    [Fact]
    public void Every_endpoint_is_in_the_table_and_the_table_names_no_other() => Endpoints.Select(e => e.Name).Distinct().Order().ShouldBe(May.Keys.Order());

    [Fact]
    public async Task Each_role_may_call_what_the_table_says_and_nothing_else()
    {
        var wrong = new List<string>();
        foreach (var who in Everybody)
        {
            using var caller = await firm.As(who);
            // Signing out comes last: it ends the session the others are called in.
            foreach (var (name, method, path) in Endpoints.OrderBy(e => e.Name is "DELETE /api/session" or "DELETE /api/sessions"))
            {
                using var response = await caller.SendAsync(method, path, method is "GET" or "DELETE" ? null : "{}");
                var may = May[name] is not { } those || those.Contains(who);
                if (response.StatusCode == HttpStatusCode.Forbidden == may)
                    wrong.Add($"{who} {name}: {response.StatusCode}");
                if ((int)response.StatusCode >= 500)
                    wrong.Add($"{who} {name}: {response.StatusCode}");
            }
        }
        wrong.ShouldBeEmpty();
    }

    [Fact]
    public async Task Nobody_may_call_what_needs_signing_in()
    {
        using var nobody = new Caller(firm.Server.Address);
        await nobody.GetAsync("/api/session");
        foreach (var (name, method, path) in Endpoints)
        {
            using var response = await nobody.SendAsync(method, path, method is "GET" or "DELETE" ? null : "{}");
            (response.StatusCode == HttpStatusCode.Unauthorized).ShouldBe(May[name] is not null, name);
        }
    }

    [Fact]
    public async Task A_manager_sees_own_newcomers_only()
    {
        using var callum = await firm.As("callum");
        using var orla = await firm.As("orla");
        (await callum.GetAsync("/api/arrivals"))["hires"]!.AsArray().Select(h => h!.Text("job")).Distinct().ShouldBe(["Deckhand"]);
        var other = await FirmFixture.HireAsync(orla, "Lind");
        (await callum.SendAsync("GET", $"/api/hires/{other["id"]}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await callum.SendAsync("GET", $"/api/records/{other["employmentId"]}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var own = (await callum.GetAsync("/api/arrivals"))["hires"]![0]!.Text("employmentId");
        var sections = (await callum.GetAsync($"/api/records/{own}"))["sections"]!
            .AsArray()
            .SelectMany(x => x!["fields"]!.AsArray())
            .Select(f => f!.Text("key"))
            .ToArray();
        sections.ShouldContain("pay_rate");
        sections.ShouldNotContain("bank_account");
        using var nils = await firm.As("nils");
        (await nils.SendAsync("GET", $"/api/records/{own}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task An_unsafe_call_without_the_antiforgery_token_is_refused()
    {
        using var orla = await firm.As("orla");
        using var response = await orla.SendAsync("POST", "/api/hires/preview", "{}", withToken: false);
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await response.JsonAsync()).Text("code").ShouldBe("stale-page");
    }

    [Fact]
    public async Task Every_answer_carries_the_headers_that_protect_it()
    {
        using var caller = new Caller(firm.Server.Address);
        using var response = await caller.SendAsync("GET", "/api/session");
        var policy = response.Headers.GetValues("Content-Security-Policy").Single();
        policy.ShouldContain("default-src 'none'");
        policy.ShouldContain("frame-ancestors 'none'");
        response.Headers.GetValues("X-Content-Type-Options").ShouldBe(["nosniff"]);
        response.Headers.CacheControl!.NoStore.ShouldBeTrue();
    }

    private static string Path(string pattern) =>
        "/"
        + pattern
            .TrimStart('/')
            .Replace("{id:guid}", "01890000-0000-7000-8000-000000000000", StringComparison.Ordinal)
            .Replace("{employment:guid}", "01890000-0000-7000-8000-000000000000", StringComparison.Ordinal)
            .Replace("{grant:guid}", "01890000-0000-7000-8000-000000000000", StringComparison.Ordinal)
            .Replace("{file:guid}", "01890000-0000-7000-8000-000000000000", StringComparison.Ordinal)
            .Replace("{version:int}", "0", StringComparison.Ordinal)
            .Replace("{change:guid}", "01890000-0000-7000-8000-000000000000", StringComparison.Ordinal)
            .Replace("{key}", "kit", StringComparison.Ordinal)
            .Replace("{code}", "deckhand", StringComparison.Ordinal)
            .Replace("{**rest}", "nowhere", StringComparison.Ordinal)
            .Replace("{**path}", "nowhere", StringComparison.Ordinal);
}
