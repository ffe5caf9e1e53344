using System.Net;
using System.Text.Json.Nodes;
using Fid.Core.Rights;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Whoever may everything, but of some people only, learns nothing of the others and does nothing to them: for each way in which rights
/// reach, every endpoint is read and every act tried with somebody who is out of reach.</summary>
public class ReachTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private static readonly string[] Reaches =
    [
        "\"self\"",
        "\"direct\"",
        "\"reports\"",
        "\"tasks\"",
        """{"site":"SITE"}""",
        """{"department":"DEPARTMENT"}""",
        """{"group":"others"}""",
    ];

    [Fact]
    public async Task Of_somebody_out_of_reach_nothing_is_told_and_nothing_can_be_done()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        using var thandiwe = await firm.As("thandiwe");
        // Somebody whose manager, team and place are not those of the user who will try.
        var marked = (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().First(h => h!.Text("job") == "Deckhand")!;
        var (hire, employment) = (marked.Text("id"), marked.Text("employmentId"));
        var task = (await orla.GetAsync($"/api/hires/{hire}"))["tasks"]!.AsArray().First(t => t!["done"] is null)!.Text("key");
        var markers = await Markers.PutAsync(piet, employment);
        await Markers.AskAsync(firm.Database, employment, markers);
        var document = await piet.GetAsync("/api/openapi.json");
        var person = (string)(await firm.Database.AskAsync($"select person_id::text from employments where id = '{employment}'"))!;
        var number = (string)(await firm.Database.AskAsync($"select number from employments where id = '{employment}'"))!;
        await firm.Database.AskAsync($"update hire_tasks set owner = 'coordinator' where hire_id = '{hire}' returning 1");
        var (site, department) = (
            (string)
                (
                    await firm.Database.AskAsync(
                        "select code from list_entries where list = 'sites' "
                            + $"and code <> (select site_code from records_now where employment_id = '{employment}') limit 1"
                    )
                )!,
            (string)
                (
                    await firm.Database.AskAsync(
                        "select code from list_entries where list = 'departments' and values->>'parent' is not null order by code desc limit 1"
                    )
                )!
        );
        await Roles.GrantAsync(piet, "orla", "administrator", to: "2027-12-31");
        var keys = markers.Keys.Where(k => !k.Contains('.')).ToArray();
        var told = new List<string>();
        var isFirst = true;
        foreach (var reach in Reaches.Select(r => r.Replace("SITE", site).Replace("DEPARTMENT", department)))
        {
            await Roles.MakeLiveAsync(piet, EverythingOf(reach), second: orla);
            if (isFirst)
                await Roles.GrantAsync(piet, "thandiwe", "some", to: "2027-12-31");
            isFirst = false;
            foreach (var part in keys.Chunk(40))
            await foreach (var (address, said) in EveryReading.OfAsync(thandiwe, document, hire, employment, person, markers, [.. part]))
                told.AddRange(markers.Where(m => said.Contains(m.Value, StringComparison.Ordinal)).Select(m => $"by {reach}, {m.Key} comes from {address}"));
            told.AddRange(await TryAsync(thandiwe, reach, hire, employment, task, number));
        }
        told.Distinct().ShouldBeEmpty();
        // The test would notice: with a reach to all, everything is told.
        await Roles.MakeLiveAsync(piet, EverythingOf("\"all\""), second: orla);
        (await thandiwe.GetAsync($"/api/records/{employment}")).ToJsonString().ShouldContain(markers["town"]);
        (await TryAsync(thandiwe, "all", hire, employment, task, number)).Count.ShouldBeGreaterThan(12);
    }

    // A role that may all there is to be done: with things of people, and with fields, of those whom a reach reaches.
    private static JsonObject EverythingOf(string reach) =>
        Roles.Of(
            "some",
            string.Join(
                ',',
                Things
                    .Rights.Where(r => r.Thing is not (Things.Role or Things.Trail))
                    .Select(r => $$"""{"do":"{{r.Action}}","on":"{{r.Thing}}","reach":{{(r.OfPeople ? reach : "\"all\"")}} }""")
                    .Concat(
                        new[] { "person", "contact", "work", "pay", "clock", "certificates", "items", "papers" }.Select(section =>
                            $$"""{"do":"edit","on":"section:{{section}}","reach":{{reach}} }"""
                        )
                    )
            ),
            """{"id":"others","label":"Others","when":"family_name == 'Nobody at all'"}"""
        );

    // Every act on the record or the hire: each that is not refused is told.
    private static async Task<List<string>> TryAsync(Caller caller, string reach, string hire, string employment, string task, string number)
    {
        var (done, zero) = (new List<string>(), Guid.Empty);
        var tasks = new[] { new { hire, key = task } };
        foreach (
            var (method, address, body) in new (string, string, object?)[]
            {
                ("PUT", $"/api/hires/{hire}/tasks/{task}/skipped", new { why = "tried" }),
                ("DELETE", $"/api/hires/{hire}/tasks/{task}/skipped", null),
                ("PUT", $"/api/hires/{hire}/tasks/{task}/done", new { done = (string?)null }),
                ("DELETE", $"/api/hires/{hire}/tasks/{task}/done", null),
                ("POST", "/api/tasks/done", new { tasks }),
                ("POST", "/api/tasks/undone", new { tasks }),
                ("POST", "/api/tasks/retried", new { tasks }),
                ("POST", "/api/tasks/skipped", new { tasks, why = "tried" }),
                ("POST", "/api/tasks/unskipped", new { tasks }),
                ("POST", "/api/tasks/note", new { tasks, note = "tried" }),
                ("POST", "/api/tasks/taken", new { tasks, take = true }),
                ("POST", "/api/tasks/owner", new { tasks, owner = "manager" }),
                ("POST", "/api/tasks/day", new { tasks, day = "2027-03-03" }),
                (
                    "POST",
                    "/api/tasks/meeting",
                    new
                    {
                        tasks,
                        at = "09:30",
                        minutes = 30,
                        place = "Loft",
                    }
                ),
                ("POST", "/api/tasks/shape", new { tasks, work = 2 }),
                ("POST", $"/api/hires/{hire}/tasks/{task}/trial", new { work = 2, skip = false }),
                ("GET", $"/api/hires/{hire}/tasks/{task}/history", null),
                ("GET", $"/api/hires/{hire}/start-change?to=2027-07-01", null),
                ("PUT", $"/api/hires/{hire}/start", new { start = "2027-07-01", why = "tried" }),
                ("PUT", $"/api/hires/{hire}/outcome", new { outcome = "withdrawn", why = "tried" }),
                ("DELETE", $"/api/hires/{hire}/outcome", null),
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
                ("POST", $"/api/records/{employment}/readings", new { changes = new { } }),
                ("POST", $"/api/records/{employment}/fields/bank_account/reveal", new { value = (string?)null }),
                ("POST", $"/api/records/{employment}/changes/{zero}/explanations", new { why = "tried" }),
                ("POST", $"/api/records/{employment}/changes/{zero}/take-back", new { why = "tried" }),
                ("GET", $"/api/records/{employment}/history", null),
            }
        )
        {
            using var response = await caller.SendAsync(method, address, body, ifMatch: method == "PUT" ? "\"1\"" : null);
            if (response.StatusCode is not (HttpStatusCode.NotFound or HttpStatusCode.Forbidden))
                done.Add($"by {reach}, {method} {address} is answered {(int)response.StatusCode}");
        }
        using var touched = await caller.SendAsync(
            "POST",
            "/api/templates/deckhand/touches",
            new
            {
                spec = new
                {
                    name = "Deckhand",
                    addOn = false,
                    buildsOn = "crew-basics",
                    when = (string?)null,
                    order = 0,
                    opens = true,
                    values = new { },
                    lists = new { },
                },
            }
        );
        if ((await Markers.SaidAsync(touched)).Contains(hire, StringComparison.Ordinal))
            done.Add($"by {reach}, a template as it is edited names the hire");
        using var updated = await caller.SendAsync("POST", "/api/templates/updates", new { hires = new[] { new { id = hire, take = Array.Empty<string>() } } });
        if (updated.StatusCode != HttpStatusCode.NotFound)
            done.Add($"by {reach}, an update of the hire is answered {(int)updated.StatusCode}");
        using var sheet = await caller.SendFileAsync("/api/fields/town/gap", System.Text.Encoding.UTF8.GetBytes($"Employee number;Town\n{number};Elsewhere\n"));
        var read = await sheet.JsonAsync();
        if (read["values"]?.AsArray().Count > 0)
            done.Add($"by {reach}, a sheet of gaps knows the number");
        return done;
    }
}
