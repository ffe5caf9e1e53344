using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Who publishes what fields are seen by whom.</summary>
public class WideningTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Nobody_grants_themselves_what_is_guarded_a_second_person_agrees()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var draft = await DraftAsync(orla, fields => Field(fields, "bank_account")["access"]!["manager"] = "view");
        using (var asked = await PublishAsync(orla, draft))
        {
            asked.StatusCode.ShouldBe(HttpStatusCode.OK);
            (await asked.JsonAsync())["version"].ShouldBeNull();
        }
        var waiting = (await orla.GetAsync("/api/fields"))["draft"]!;
        waiting.Text("askedBy").ShouldBe("Orla Dunmore");
        using (var again = await PublishAsync(orla, waiting))
            (again.StatusCode, (await again.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "second-person-needed"));
        // Whoever changes the draft begins anew: nobody agrees to what they did not see.
        var changed = await DraftAsync(piet, fields => Field(fields, "bank_account")["access"]!["owner"] = "view");
        (await piet.GetAsync("/api/fields"))["draft"]!["askedBy"].ShouldBeNull();
        (await (await PublishAsync(piet, changed)).JsonAsync())["version"].ShouldBeNull();
        var before = (await orla.GetAsync("/api/fields"))["version"]!.GetValue<int>();
        using (var agreed = await PublishAsync(orla, (await orla.GetAsync("/api/fields"))["draft"]!))
            (await agreed.JsonAsync())["version"]!.GetValue<int>().ShouldBe(before + 1);
        (await piet.GetAsync("/api/trail?action=fields.widenAsked"))["entries"]!.AsArray()[0]!.Text("details").ShouldContain("bank_account");
    }

    [Theory]
    [InlineData("narrower", false)]
    [InlineData("label", false)]
    [InlineData("unguarded", false)]
    [InlineData("pay", true)]
    [InlineData("edit", true)]
    [InlineData("rule", true)] // a rule that copies pay into what managers see
    [InlineData("default", true)]
    public async Task Only_what_opens_what_is_guarded_needs_a_second_person(string change, bool needed)
    {
        using var piet = await firm.As("piet");
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.DeepClone().AsObject();
        var fields = configuration["fields"]!.AsArray();
        switch (change)
        {
            case "narrower":
                Field(fields, "pay_rate")["access"]!.AsObject().Remove("manager");
                break;
            case "label":
                Field(fields, "pay_rate")["label"]!["en"] = "Rate of pay";
                break;
            case "unguarded":
                Field(fields, "street")["access"]!["manager"] = "view";
                break;
            case "pay":
                Field(fields, "pay_elements")["access"]!["manager"] = "view";
                break;
            case "edit":
                Field(fields, "pay_rate")["access"]!["manager"] = "edit";
                break;
            case "rule":
                Field(fields, "pension_percent")["onChange"] = new JsonArray(new JsonObject { ["set"] = "roster_note", ["formula"] = "pay_note" });
                break;
            case "default":
                Field(fields, "roster_note")["default"] = new JsonObject { ["formula"] = "pay_note" };
                break;
        }
        using var review = await piet.SendAsync("POST", "/api/fields/draft/review", new JsonObject { ["configuration"] = configuration }.ToJsonString());
        ((await review.JsonAsync())["widened"]!.AsArray().Count > 0).ShouldBe(needed);
    }

    private static JsonNode Field(JsonArray fields, string key) => fields.Single(f => f!.Text("key") == key)!;

    private static async Task<JsonNode> DraftAsync(Caller caller, Action<JsonArray> change)
    {
        var there = await caller.GetAsync("/api/fields");
        var configuration = (there["draft"]?["configuration"] ?? there["configuration"]!).DeepClone().AsObject();
        change(configuration["fields"]!.AsArray());
        using var saved = await caller.SendAsync(
            "PUT",
            "/api/fields/draft",
            new JsonObject { ["configuration"] = configuration }.ToJsonString(),
            (string?)there["draft"]?["version"]
        );
        saved.StatusCode.ShouldBe(HttpStatusCode.OK, await saved.Content.ReadAsStringAsync());
        return await saved.JsonAsync();
    }

    private static Task<HttpResponseMessage> PublishAsync(Caller caller, JsonNode draft) =>
        caller.SendAsync("POST", "/api/fields/draft/publish", new { why = (string?)null, despite = true }, draft.Text("version"));
}
