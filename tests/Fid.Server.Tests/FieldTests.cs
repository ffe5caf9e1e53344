using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The configuration of the record's fields, and who sees what of a record.</summary>
public class FieldTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_trap_is_found_before_it_is_published_and_what_is_published_acts_on_the_next_hire()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        var (configuration, field) = await DraftAsync(piet, "recruited_by");
        field["required"] = "always";
        field["access"] = JsonNode.Parse("""{"coordinator":"view","administrator":"view"}""");
        var draft = await SaveAsync(piet, configuration, await VersionOfDraftAsync(piet));
        var review = await SendAsync(piet, "review", new JsonObject { ["configuration"] = configuration.DeepClone() });
        review["findings"]!
            .AsArray()
            .Select(f => (f!.Text("code"), (string)f!["fields"]![0]!, f["blocks"]!.GetValue<bool>()))
            .ShouldBe([("nobody-can-fill", "recruited_by", true)]);
        using (var refused = await piet.SendAsync("POST", "/api/fields/draft/publish", new { why = (string?)null, despite = true }, draft.Text("version")))
            (await refused.ErrorsAsync()).ShouldBe([("/recruited_by", "nobody-can-fill")]);

        field["default"] = JsonNode.Parse("""{"value":"the harbour board"}""");
        draft = await SaveAsync(piet, configuration, draft.Text("version"));
        review = await SendAsync(piet, "review", new JsonObject { ["configuration"] = configuration.DeepClone() });
        review["findings"]!.AsArray().ShouldBeEmpty();
        review["differences"]!.AsArray().Single()!["parts"]!
            .AsArray()
            .Select(p => p!.Text("part"))
            .ShouldBe(["required", "access", "default"], ignoreOrder: true);
        review["touched"]!.AsArray().Single(t => t!.Text("field") == "recruited_by")!["lacking"]!.GetValue<int>().ShouldBeGreaterThan(200);
        var published = await piet.SendAsync(
            "POST",
            "/api/fields/draft/publish",
            new { why = "The board wants to know", despite = false },
            draft.Text("version")
        );
        published.StatusCode.ShouldBe(HttpStatusCode.OK, await published.Content.ReadAsStringAsync());

        var opened = await (await orla.SendAsync("POST", "/api/hires", Records.NewHire("Bela", "Novak").ToJsonString())).JsonAsync();
        var recruited = Field(await orla.GetAsync($"/api/records/{opened.Text("employmentId")}"), "recruited_by")!;
        (recruited.Text("value"), recruited["source"]!.Text("kind"), recruited.Text("access")).ShouldBe(("the harbour board", "default", "view"));
        (
            await firm.Database.AskAsync(
                "select bool_and('recruited_by' = any(missing)) from records_now r join employments e on e.id = r.employment_id where "
                    + "e.\"end\" is null and r.family_name <> 'Novak'"
            )
        ).ShouldBe(true);
        (await piet.GetAsync("/api/fields/versions")).AsArray()[0]!.Text("why").ShouldBe("The board wants to know");
        var version = (await published.JsonAsync())["version"]!.GetValue<int>();
        (await piet.GetAsync($"/api/fields/compare?from={version - 1}&to={version}")).AsArray().Single()!.Text("field").ShouldBe("recruited_by");
    }

    [Fact]
    public async Task Two_who_draft_at_once_are_told_of_each_other_and_what_is_no_configuration_is_refused_at_its_place()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        var (configuration, field) = await DraftAsync(piet, "room");
        field["label"]!["en"] = "Cabin";
        var first = await SaveAsync(piet, configuration, await VersionOfDraftAsync(piet));
        (await orla.SendAsync("PUT", "/api/fields/draft", Body(configuration))).StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        using (var second = await orla.SendAsync("PUT", "/api/fields/draft", Body(configuration), "\"1\""))
            (await second.JsonAsync())["current"]!.Text("byName").ShouldBe("Piet Haverkort");
        field["colour"] = "blue";
        using (var wrong = await piet.SendAsync("PUT", "/api/fields/draft", Body(configuration), first.Text("version")))
            (await wrong.ErrorsAsync())
                .ShouldHaveSingleItem()
                .ShouldBe(($"/configuration/fields/{configuration["fields"]!.AsArray().IndexOf(field)}/colour", "unknown-property"));
        (await piet.SendAsync("DELETE", "/api/fields/draft")).StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        (await piet.SendAsync("DELETE", "/api/fields/draft", null, first.Text("version"))).EnsureSuccessStatusCode();
        // What was thrown away does not come back by a save of somebody who still saw it.
        using var late = await orla.SendAsync("PUT", "/api/fields/draft", Body((await DraftAsync(piet, "room")).Configuration), first.Text("version"));
        (await late.JsonAsync()).Text("code").ShouldBe("draft-gone");
    }

    [Fact]
    public async Task A_field_shows_to_whom_it_may_and_is_changed_by_whom_it_may()
    {
        using var orla = await firm.As("orla");
        using var ruth = await firm.As("ruth"); // payroll
        var id = (await orla.GetAsync("/api/people?q=Moutinho"))["people"]![0]!.Text("employmentId");
        var (all, hers) = (await orla.GetAsync($"/api/records/{id}"), await ruth.GetAsync($"/api/records/{id}"));
        Field(all, "recruited_by").ShouldNotBeNull();
        Field(hers, "pay_note")!.Text("access").ShouldBe("edit");
        Field(hers, "street")!.Text("access").ShouldBe("view");
        (
            await ruth.SendAsync("PUT", $"/api/records/{id}", """{"changes":{"pay_note":"Paid in full"},"from":null,"why":null}""", hers.Text("version"))
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        using var refused = await ruth.SendAsync(
            "PUT",
            $"/api/records/{id}",
            """{"changes":{"street":"1 Pier Road","roster_note":7,"nowhere":"x"},"from":null,"why":null}""",
            hers.Text("version")
        );
        (await refused.ErrorsAsync()).ShouldBe(
            [("/changes/street", "read-only"), ("/changes/roster_note", "read-only"), ("/changes/nowhere", "unknown-field")],
            ignoreOrder: true
        );
    }

    [Fact]
    public async Task What_a_role_may_not_see_shows_nowhere()
    {
        using var piet = await firm.As("piet");
        var (configuration, rate) = await DraftAsync(piet, "pay_rate");
        rate["access"]!.AsObject().Remove("payroll");
        // Nor of her own record.
        rate["access"]!.AsObject().Remove("staff");
        configuration["fields"]!.AsArray().Single(f => f!.Text("key") == "cost_centre")!["access"]!.AsObject().Remove("payroll");
        var published = await piet.SendAsync(
            "POST",
            "/api/fields/draft/publish",
            new { why = (string?)null, despite = true },
            (await SaveAsync(piet, configuration, await VersionOfDraftAsync(piet))).Text("version")
        );
        published.StatusCode.ShouldBe(HttpStatusCode.OK, await published.Content.ReadAsStringAsync());
        using var ruth = await firm.As("ruth");
        var person = (await ruth.GetAsync("/api/people?q=Moutinho"))["people"]![0]!.Text("employmentId");
        var readings = await (await ruth.SendAsync("POST", $"/api/records/{person}/readings", """{"changes":{"pay_rate":20}}""")).JsonAsync();
        foreach (var answer in new[] { await ruth.GetAsync($"/api/records/{person}"), await ruth.GetAsync("/api/fields/labels"), readings })
            answer.ToJsonString().ShouldNotContain("pay_rate");
        readings["rate"].ShouldBeNull();
        readings["band"].ShouldBeNull();

        // Nor is a field named as missing that may not be seen: Saoirse's record lacks a cost centre.
        using var orla = await firm.As("orla");
        (await orla.GetAsync("/api/arrivals")).ToJsonString().ShouldContain("cost_centre");
        (await ruth.GetAsync("/api/arrivals")).ToJsonString().ShouldNotContain("cost_centre");
    }

    [Fact]
    public async Task A_draft_is_tried_on_a_sample_record_as_any_role()
    {
        using var piet = await firm.As("piet");
        var (configuration, site) = await DraftAsync(piet, "site");
        site["onChange"] = JsonNode.Parse("""[{"set":"room","formula":"'Desk at ' + site"}]""");
        JsonObject Ask(string role) =>
            new()
            {
                ["configuration"] = configuration.DeepClone(),
                ["role"] = role,
                ["stage"] = "prepare",
                ["values"] = new JsonObject { ["site"] = "skerry", ["permit_needed"] = true },
                ["changed"] = new JsonArray("site"),
            };
        var tried = (await SendAsync(piet, "try", Ask("coordinator")))["evaluation"]!;
        tried["set"]!.AsArray().Single(s => s!.Text("field") == "room")!.Text("value").ShouldBe("Desk at skerry");
        tried["missingNow"]!.AsArray().Select(m => (string)m!).ShouldContain("permit_until");
        (await SendAsync(piet, "try", Ask("owner")))["sections"]!
            .AsArray()
            .SelectMany(s => s!["fields"]!.AsArray())
            .Select(f => f!.Text("key"))
            .ShouldBe([
                "given_name",
                "family_name",
                "known_as",
                "photo",
                "pronouns",
                "job",
                "job_title",
                "department",
                "site",
                "manager",
                "buddy",
                "kind",
                "start_date",
                "room",
            ]);
    }

    [Fact]
    public async Task Whom_a_draft_touches_follows_from_what_its_fields_read_and_a_new_label_rewrites_no_record()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        var ages = new List<int>();
        foreach (var family in new[] { "Reyes", "Abara", "Tveit", "Haverkort" })
        {
            var id = await orla.PersonAsync(family);
            await orla.SaveAsync(id, "room", "12");
            ages.Add(Field(await orla.GetAsync($"/api/records/{id}"), "age")!["value"]!.GetValue<int>());
        }
        ages.Sort();
        var (configuration, room) = await DraftAsync(piet, "room");
        room["showWhen"] = $"age > {ages[1]}";
        (await TouchedAsync()).ShouldBe([$"room 0 {ages.Count(a => a <= ages[1])}"]);
        await Markers.PublishAsync(piet, orla, configuration);
        // A computed field that the condition reads changes: it is the other whose values would no longer show.
        (configuration, var age) = await DraftAsync(piet, "age");
        age["default"]!["formula"] = "ageOn(birth_date, today()) - 200";
        (await TouchedAsync()).ShouldBe([$"room 0 {ages.Count(a => a > ages[1])}"]);
        (configuration, age) = await DraftAsync(piet, "age");
        age["label"]!["en"] = "Years";
        (await TouchedAsync()).ShouldBeEmpty();
        const string LastWritten = "select max(xmin::text::bigint) from records_now";
        var before = await firm.Database.AskAsync(LastWritten);
        await Markers.PublishAsync(piet, orla, configuration);
        (await firm.Database.AskAsync(LastWritten)).ShouldBe(before);
        (configuration, room) = await DraftAsync(piet, "room");
        room.Remove("showWhen");
        room["required"] = "always";
        await Markers.PublishAsync(piet, orla, configuration);
        // Of those who left too: their records go on being shown.
        (
            await firm.Database.AskAsync(
                "select bool_and('room' = any(missing)) from records_now r join employments e on e.id = r.employment_id where e.\"end\" < '2027-03-01'"
            )
        ).ShouldBe(true);
        (configuration, room) = await DraftAsync(piet, "room");
        room.Remove("required");
        await Markers.PublishAsync(piet, orla, configuration);
        (await firm.Database.AskAsync(LastWritten)).ShouldNotBe(before);
        await firm.EveryProjectionFollowsAsync();

        async Task<string[]> TouchedAsync() =>
            [
                .. (await SendAsync(piet, "review", new JsonObject { ["configuration"] = configuration.DeepClone() }))["touched"]!
                    .AsArray()
                    .Select(t => $"{t!["field"]} {t["lacking"]} {t["hidden"]}"),
            ];
    }

    private static async Task<(JsonObject Configuration, JsonObject Field)> DraftAsync(Caller caller, string key)
    {
        var configuration = (await caller.GetAsync("/api/fields"))["configuration"]!.AsObject();
        return (configuration, configuration["fields"]!.AsArray().Single(f => f!.Text("key") == key)!.AsObject());
    }

    private static async Task<string?> VersionOfDraftAsync(Caller caller) => (string?)(await caller.GetAsync("/api/fields"))["draft"]?["version"];

    private static async Task<JsonNode> SaveAsync(Caller caller, JsonObject configuration, string? version)
    {
        using var response = await caller.SendAsync("PUT", "/api/fields/draft", Body(configuration), version);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }

    private static async Task<JsonNode> SendAsync(Caller caller, string what, JsonObject body)
    {
        using var response = await caller.SendAsync("POST", $"/api/fields/draft/{what}", body.ToJsonString());
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }

    private static string Body(JsonObject configuration) => new JsonObject { ["configuration"] = configuration.DeepClone() }.ToJsonString();

    private static JsonNode? Field(JsonNode record, string key) =>
        record["sections"]!.AsArray().SelectMany(s => s!["fields"]!.AsArray()).SingleOrDefault(f => f!.Text("key") == key);
}
