using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Role templates: drafted, looked through, published, and brought to the hires under way.</summary>
public class TemplateTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task What_a_hire_would_get_says_which_layer_gave_it_and_what_it_displaced()
    {
        using var orla = await firm.As("orla");
        var spec = (await orla.GetAsync("/api/templates/galley-cook"))["live"]!;
        var example = await ExampleAsync(orla, "galley-cook", spec, new JsonObject { ["site"] = "skerry", ["kind"] = "seasonal" });
        example["layers"]!
            .AsArray()
            .Select(l => l!.Text("id"))
            .ShouldBe(["template:crew-basics@2", "template:galley-cook@4", "addOn:skerry@1", "addOn:seasonal@3"]);
        Value(example, "pay_rate")["displaced"]!.ToJsonString().ShouldBe("""[{"from":"template:crew-basics@2","value":16.1,"display":null}]""");
        (Value(example, "end_date").Text("value"), Value(example, "end_date").Text("formula")).ShouldBe(("2027-12-14", "addMonths(start_date, 7)"));
        example["dropped"]!
            .AsArray()
            .Select(d => $"{d!.Text("list")} {d!.Text("key")} {d!.Text("by")}")
            .ShouldBe(["tasks payslip addOn:seasonal@3", "tasks confirm-talk addOn:seasonal@3"], ignoreOrder: true);
        // The galley has no lockers; on the pier there is one for everybody.
        example["entries"]!.AsArray().Single(e => e!.Text("key") == "LOCKER")!["properties"]!["note"]!.Text("from").ShouldBe("addOn:skerry@1");
        example["plan"]!["feasible"]!.GetValue<bool>().ShouldBeTrue();
    }

    [Theory]
    [InlineData("values", "pay_rate", null, "out-of-range")]
    [InlineData("values", "job", null, "unknown-entry")]
    [InlineData("values", "badge", null, "not-by-template")]
    [InlineData("values", "end_date", null, "formula-error")]
    [InlineData("values", "room", null, "unknown-field")]
    [InlineData("tasks", "food-handling", "stage", "unknown-stage")]
    [InlineData("tasks", "food-handling", "owner", "unknown-owner")]
    [InlineData("tasks", "food-handling", "work", "out-of-range")]
    [InlineData("tasks", "food-handling", "kind", "bad-value")]
    [InlineData("tasks", "food-handling", "about", "bad-value")]
    [InlineData("tasks", "food-handling", "after", "dependency-loop")]
    [InlineData("items", "NOTHING", null, "unknown-entry")]
    [InlineData("welcome", "hello", "days", "out-of-range")]
    [InlineData("buildsOn", null, null, "builds-on-loop")]
    [InlineData("name", null, null, "not-unique")]
    public async Task What_would_trip_somebody_up_is_said_at_its_place_and_keeps_it_from_being_published(
        string part,
        string? key,
        string? property,
        string code
    )
    {
        using var orla = await firm.As("orla");
        var spec = (await orla.GetAsync("/api/templates/galley-cook"))["live"]!.AsObject();
        var (values, tasks) = (spec["values"]!, spec["lists"]!["tasks"]!.AsArray());
        switch ((part, key))
        {
            case ("values", "pay_rate"):
                values["pay_rate"] = -1;
                break;
            case ("values", "job"):
                values["job"] = "XX-9";
                break;
            case ("values", "badge"):
                values["badge"] = "004711";
                break;
            case ("values", "end_date"):
                values["end_date"] = new JsonObject { ["formula"] = "addMonths(start_date" };
                break;
            case ("values", "room"):
                values["room"] = new JsonObject { ["formula"] = "nobody_knows" };
                break;
            case ("tasks", _) when property != "after":
                tasks.First(t => t!.Text("key") == key)!["properties"]![property!] = property == "work" ? 4000 : "nowhere";
                break;
            case ("tasks", _):
                tasks.First(t => t!.Text("key") == "sea-survival")!["properties"]!["after"] = new JsonArray("food-handling");
                tasks.First(t => t!.Text("key") == "food-handling")!["properties"]!["after"] = new JsonArray("sea-survival");
                break;
            case ("items", _):
                spec["lists"]!["items"] = new JsonArray(Entry("NOTHING"));
                break;
            case ("welcome", _):
                spec["lists"]!["welcome"] = new JsonArray(Entry("hello", ("days", -3)));
                break;
            case ("buildsOn", _):
                spec["buildsOn"] = "galley-cook";
                break;
            default:
                spec["name"] = "Deckhand";
                break;
        }
        (await ExampleAsync(orla, "galley-cook", spec, []))["findings"]!
            .AsArray()
            .ShouldContain(f => f!.Text("part") == part && (string?)f!["key"] == key && f!.Text("code") == code && f!["blocks"]!.GetValue<bool>());
        var draft = await orla.DraftAsync("galley-cook", spec, null);
        using (var refused = await orla.SendAsync("POST", "/api/templates/galley-cook/draft/publish", new { why = (string?)null }, draft.Text("version")))
            (await refused.ErrorsAsync()).ShouldContain(e => e.Code == code);
        (await orla.SendAsync("DELETE", "/api/templates/galley-cook/draft", ifMatch: draft.Text("version"))).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task The_second_to_save_a_draft_is_told_of_the_first_and_a_new_template_opens_hires_once_it_is_published()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var spec = new JsonObject
        {
            ["name"] = "Rigger",
            ["addOn"] = false,
            ["buildsOn"] = "shipwright",
            ["when"] = null,
            ["order"] = 0,
            ["opens"] = true,
            ["values"] = new JsonObject { ["department"] = "rigging" },
            ["lists"] = new JsonObject(),
        };
        var first = await orla.DraftAsync("rigger", spec, null);
        using (var unseen = await piet.SendAsync("PUT", "/api/templates/rigger/draft", new JsonObject { ["spec"] = spec.DeepClone() }.ToJsonString()))
        {
            unseen.StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
            (await unseen.JsonAsync())["current"]!.Text("byName").ShouldBe("Orla Dunmore");
        }
        // Of what somebody else did meanwhile nothing is thrown away, and nothing that was ended comes to life again.
        var second = await orla.DraftAsync("rigger", spec, first.Text("version"));
        using (var stale = await piet.SendAsync("DELETE", "/api/templates/rigger/draft", ifMatch: first.Text("version")))
        {
            stale.StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
            (await stale.JsonAsync())["current"]!.Text("version").ShouldBe(second.Text("version"));
        }
        (await orla.SendAsync("DELETE", "/api/templates/rigger/draft", ifMatch: second.Text("version"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        using (
            var revived = await piet.SendAsync(
                "PUT",
                "/api/templates/rigger/draft",
                new JsonObject { ["spec"] = spec.DeepClone() }.ToJsonString(),
                second.Text("version")
            )
        )
            (revived.StatusCode, (await revived.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "draft-gone"));
        first = await orla.DraftAsync("rigger", spec, null);
        using (var early = await orla.SendAsync("POST", "/api/hires/preview", Hire("rigger").ToJsonString()))
            (await early.ErrorsAsync()).ShouldBe([("/template", "unknown-template")]);
        (await orla.PublishAsync("rigger", first.Text("version"))).ShouldBe(1);
        using var preview = await orla.SendAsync("POST", "/api/hires/preview", Hire("rigger").ToJsonString());
        (await preview.JsonAsync())["values"]!.AsArray().Single(v => v!.Text("field") == "department")!["source"]!.Text("name").ShouldBe("Rigger");

        using (var refused = await orla.SendAsync("PUT", "/api/templates/shipwright/retired", new { retired = true }))
            (await refused.JsonAsync()).Text("code").ShouldBe("built-on");
        (await orla.SendAsync("PUT", "/api/templates/rigger/retired", new { retired = true })).EnsureSuccessStatusCode();
        using var late = await orla.SendAsync("POST", "/api/hires/preview", Hire("rigger").ToJsonString());
        (await late.ErrorsAsync()).ShouldBe([("/template", "unknown-template")]);
    }

    [Fact]
    public async Task A_new_version_reaches_hires_under_way_as_each_decides_and_all_of_it_can_be_taken_back()
    {
        using var orla = await firm.As("orla");
        // Of the hires on it one had its rate typed, and one has ordered the radio.
        var (own, ordered) = (await FirmFixture.HireAsync(orla, "Brandt"), await FirmFixture.HireAsync(orla, "Varga"));
        await orla.SaveAsync(
            own.Text("employmentId"),
            new
            {
                changes = new { pay_rate = 19.5 },
                from = (string?)null,
                why = "Agreed",
            }
        );
        var spec = (await orla.GetAsync("/api/templates/deckhand"))["live"]!;
        spec["values"]!["pay_rate"] = 18.25;
        var tasks = spec["lists"]!["tasks"]!.AsArray();
        tasks.Single(t => t!.Text("key") == "radio-order")!["properties"]!["work"] = 6;
        tasks.Remove(tasks.Single(t => t!.Text("key") == "radio-certificate"));
        tasks.Add(Entry("knots", ("name", "Show the knots"), ("stage", "arrive"), ("owner", "buddy")));
        var before = await firm.Database.AskAsync(Snapshot);
        await orla.PublishAsync("deckhand", (await orla.DraftAsync("deckhand", spec, null)).Text("version"));

        var found = (await orla.GetAsync("/api/templates/deckhand/updates")).AsArray();
        found.Count.ShouldBe(8);
        string[] Fates(JsonNode hire) =>
            [
                .. found.Single(f => f!.Text("id") == hire.Text("id"))!["facts"]!
                    .AsArray()
                    .Select(f => $"{f!.Text("fact")} {f!.Text("fate")}")
                    .Order(StringComparer.Ordinal),
            ];
        Fates(ordered).ShouldBe(["tasks/knots take", "tasks/radio-certificate take", "values/pay_rate take"], ignoreOrder: true);
        Fates(own)
            .ShouldBe(
                ["tasks/knots take", "tasks/radio-certificate take", "tasks/radio-order/work take", "values/kind keep", "values/pay_rate conflict"],
                ignoreOrder: true
            );

        var decided = found
            .Select(f => new { id = f!.Text("id"), take = f!["facts"]!.AsArray().Where(x => x!.Text("fate") == "take").Select(x => x!.Text("fact")).ToArray() })
            .ToArray();
        using var applied = await orla.SendAsync("POST", "/api/templates/updates", new { hires = decided });
        var run = await applied.JsonAsync();
        run["hires"]!.GetValue<int>().ShouldBe(8);
        // Nothing typed is lost, what is done stays done, and nobody is asked twice.
        (await RateAsync(own)).ShouldBe(19.5m);
        (await RateAsync(ordered)).ShouldBe(18.25m);
        (
            await firm.Database.AskAsync($"select work::text || (done is not null) from hire_tasks where key = 'radio-order' and hire_id = '{ordered["id"]}'")
        ).ShouldBe("8true");
        (await firm.Database.AskAsync("select count(*) from hire_tasks where key = 'knots' and owner = 'buddy'")).ShouldBe(8L);
        (await orla.GetAsync("/api/templates/deckhand/updates")).AsArray().ShouldBeEmpty();

        (await orla.SendAsync("PUT", $"/api/hires/{own["id"]}/tasks/knots/done", new { done = (string?)null })).EnsureSuccessStatusCode();
        using var undone = await orla.SendAsync("POST", $"/api/templates/updates/{run["id"]}/undo");
        (await undone.JsonAsync())["left"]!.AsArray().ShouldBeEmpty();
        (await firm.Database.AskAsync("select count(*) from hire_tasks where key = 'knots'")).ShouldBe(1L, "what was done since stays");
        (await firm.Database.AskAsync($"delete from hire_tasks where key = 'knots'; {Snapshot}")).ShouldBe(before);
        await firm.EveryProjectionFollowsAsync();

        async Task<decimal> RateAsync(JsonNode hire) =>
            Records.Field(await orla.GetAsync($"/api/records/{hire["employmentId"]}"), "pay_rate")["value"]!.GetValue<decimal>();
    }

    // What hires of the demonstration are made of: rates, tasks, layers.
    private const string Snapshot = """
        select string_agg(md5(h.layers::text || (select string_agg(t::text, ' ' order by t.key)
          from (select key, name, stage_key, owner, work, after, lags, required, day_one, done from hire_tasks where hire_id = h.id) t)
          || (select string_agg(e::text, ' ' order by e.list, e.key) from hire_entries e where hire_id = h.id)
          || (select string_agg(field || value::text, ' ' order by field, row_id) from record_values where owner_id = h.employment_id
            and upper_inf(known))), ' ' order by h.id)
        from hires h where template_code = 'deckhand'
        """;

    [Fact]
    public async Task A_shared_task_changes_in_every_template_that_has_it_but_for_what_one_says_for_itself()
    {
        using var orla = await firm.As("orla");
        var task = new
        {
            name = "Walk the fire exits",
            stage = "arrive",
            owner = "buddy",
            work = 1,
        };
        using var saved = await orla.SendAsync("PUT", "/api/shared-tasks/fire-walk", new { properties = task, why = (string?)null });
        var version = (await saved.JsonAsync()).Text("version");
        foreach (var code in new[] { "payroll-clerk", "it-technician" })
        {
            var spec = (await orla.GetAsync($"/api/templates/{code}"))["live"]!;
            var entry = Entry(
                "fire-walk",
                ("name", task.name),
                ("stage", task.stage),
                ("owner", code == "it-technician" ? "manager" : task.owner),
                ("work", 1)
            );
            entry["shared"] = "fire-walk";
            spec["lists"]!["tasks"]!.AsArray().Add(entry);
            await orla.PublishAsync(code, (await orla.DraftAsync(code, spec, null)).Text("version"));
        }
        using (
            var wrong = await orla.SendAsync(
                "PUT",
                "/api/shared-tasks/fire-walk",
                new { properties = new { name = "", owner = "team:nobody" }, why = (string?)null },
                version
            )
        )
            (await wrong.ErrorsAsync()).ShouldBe([("/properties/name", "missing"), ("/properties/owner", "unknown-owner")]);
        using var changed = await orla.SendAsync(
            "PUT",
            "/api/shared-tasks/fire-walk",
            new { properties = task with { owner = "team:safety", work = 2 }, why = "Safety does it" },
            version
        );
        (await changed.JsonAsync())["templates"]!.AsArray().Select(t => (string?)t).ShouldBe(["IT technician", "Payroll clerk"]);
        async Task<string> Said(string code)
        {
            var entry = (await orla.GetAsync($"/api/templates/{code}"))["live"]!["lists"]!["tasks"]!.AsArray().Single(t => t!.Text("key") == "fire-walk")![
                "properties"
            ]!;
            return $"{entry["owner"]} {entry["work"]}";
        }

        (await Said("payroll-clerk")).ShouldBe("team:safety 2");
        (await Said("it-technician")).ShouldBe("manager 2");
        using var used = await orla.SendAsync("DELETE", "/api/shared-tasks/fire-walk");
        (await used.JsonAsync()).Text("code").ShouldBe("in-use");
    }

    [Fact]
    public async Task A_template_goes_out_with_all_it_needs_and_comes_in_as_drafts_with_what_is_missing_made_or_replaced()
    {
        using var orla = await firm.As("orla");
        var file = await orla.GetAsync("/api/templates/ticket-clerk/file");
        file["entries"]!.AsArray().Select(e => $"{e!.Text("list")} {e!.Text("code")}").ShouldContain("shiftPatterns hall-early");
        var text = file.ToJsonString().Replace("hall-early", "dawn", StringComparison.Ordinal).Replace("\"510\"", "\"777\"", StringComparison.Ordinal);
        using var check = await orla.SendAsync("POST", "/api/templates/import/check", text);
        (await check.JsonAsync())["missing"]!
            .AsArray()
            .Select(m => $"{m!.Text("list")} {m!.Text("code")}")
            .ShouldBe(["costCentres 777", "shiftPatterns dawn"], ignoreOrder: true);
        using var imported = await orla.SendAsync(
            "POST",
            "/api/templates/import",
            $$"""{"file":{{text}},"instead":[{"list":"costCentres","code":"777","to":"420"}]}"""
        );
        (await imported.JsonAsync())["codes"]!.AsArray().Select(c => (string?)c).ShouldBe(["ticket-clerk-2"]);
        var draft = (await orla.GetAsync("/api/templates/ticket-clerk-2"))["draft"]!;
        (draft["spec"]!["values"]!.Text("shift_pattern"), draft["spec"]!["values"]!.Text("cost_centre"), draft["spec"]!.Text("name")).ShouldBe(
            ("dawn", "420", "Ticket clerk (2)")
        );
        (await orla.GetAsync("/api/lists/shiftPatterns/entries/dawn")).Text("code").ShouldBe("dawn");
        await orla.PublishAsync("ticket-clerk-2", draft.Text("version"));

        using var rubbish = await orla.SendAsync("POST", "/api/templates/import/check", """{"fid":"something","templates":[],"sharedTasks":{},"entries":[]}""");
        (await rubbish.ErrorsAsync()).ShouldBe([("/fid", "bad-file")]);
    }

    private static JsonNode Value(JsonNode example, string field) => example["values"]!.AsArray().Single(v => v!.Text("field") == field)!;

    private static JsonObject Entry(string key, params (string Name, JsonNode Value)[] properties) =>
        new()
        {
            ["key"] = key,
            ["properties"] = new JsonObject(properties.Select(p => KeyValuePair.Create(p.Name, (JsonNode?)p.Value))),
            ["drop"] = false,
            ["shared"] = null,
        };

    private static JsonObject Hire(string template) =>
        new()
        {
            ["id"] = Guid.NewGuid().ToString(),
            ["template"] = template,
            ["start"] = "2027-04-05",
            ["typed"] = new JsonObject { ["site"] = "yard" },
        };

    private static async Task<JsonNode> ExampleAsync(Caller caller, string code, JsonNode spec, JsonObject facts)
    {
        using var response = await caller.SendAsync(
            "POST",
            $"/api/templates/{code}/example",
            new JsonObject
            {
                ["spec"] = spec.DeepClone(),
                ["use"] = null,
                ["facts"] = facts,
                ["start"] = "2027-05-14",
            }.ToJsonString()
        );
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }
}
