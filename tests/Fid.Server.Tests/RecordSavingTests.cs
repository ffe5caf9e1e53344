using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Data.Intake;
using Fid.Testing;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Whichever way a value comes into a record, its rules follow, and what only one may have stays one's own.</summary>
public class RecordSavingTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task What_recruiting_says_and_what_a_moved_entry_and_a_merge_set_is_followed_by_the_rules_of_their_fields()
    {
        using var orla = await firm.As("orla");
        await ConfigureAsync(orla, fields =>
        {
            Field(fields, "phone")["onChange"] = new JsonArray(new JsonObject { ["set"] = "town", ["formula"] = "phone" });
            Field(fields, "site")["onChange"] = new JsonArray(new JsonObject { ["set"] = "room", ["formula"] = "site" });
        });
        var okafor = await FirmFixture.HireAsync(orla, "Okafor");
        var id = await ChangedCandidateAsync(Guid.Parse(okafor.Text("id")));
        (
            await orla.SendAsync("POST", $"/api/intake/{id}/proposals", new { take = new[] { "phone" }, leave = Array.Empty<string>() })
        ).EnsureSuccessStatusCode();
        (await ValueAsync(orla, okafor.Text("employmentId"), "town")).ShouldBe("+353 1 555 0177");

        var varga = await FirmFixture.HireAsync(orla, "Varga");
        (
            await orla.SendAsync(
                "POST",
                "/api/lists/sites/entries/skerry/retire",
                new
                {
                    moveTo = "hallan",
                    from = (string?)null,
                    why = (string?)null,
                }
            )
        ).EnsureSuccessStatusCode();
        (await ValueAsync(orla, varga.Text("employmentId"), "room")).ShouldBe("hallan");
        await orla.SendAsync("POST", "/api/lists/sites/entries/skerry/restore");

        var ferreira = await FirmFixture.HireAsync(orla, "Ferreira");
        await orla.SaveAsync(ferreira.Text("employmentId"), "phone", "+353 1 555 0188");
        using var merged = await orla.SendAsync(
            "POST",
            $"/api/people/{okafor["employmentId"]}/merge",
            new
            {
                with = ferreira.Text("employmentId"),
                take = new[] { "phone" },
                why = (string?)null,
            }
        );
        merged.StatusCode.ShouldBe(HttpStatusCode.OK, await merged.Content.ReadAsStringAsync());
        (await ValueAsync(orla, okafor.Text("employmentId"), "town")).ShouldBe("+353 1 555 0188");
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task What_only_one_may_have_goes_along_in_a_merge_and_is_nobody_elses_after_it()
    {
        using var orla = await firm.As("orla");
        await ConfigureAsync(orla, fields => Field(fields, "phone")["unique"] = true);
        var (kept, other) = (
            (await FirmFixture.HireAsync(orla, "Brandt")).Text("employmentId"),
            (await FirmFixture.HireAsync(orla, "Nakamura")).Text("employmentId")
        );
        var third = (await FirmFixture.HireAsync(orla, "Demirci")).Text("employmentId");
        await orla.SaveAsync(kept, "phone", "+353 1 555 0201");
        await orla.SaveAsync(third, "phone", "+353 1 555 0203");
        await orla.SaveAsync(other, "phone", "+353 1 555 0202");
        using (
            var merged = await orla.SendAsync(
                "POST",
                $"/api/people/{kept}/merge",
                new
                {
                    with = other,
                    take = new[] { "phone" },
                    why = (string?)null,
                }
            )
        )
            merged.StatusCode.ShouldBe(HttpStatusCode.OK, await merged.Content.ReadAsStringAsync());
        // Either's number is the one person's to have; nobody else may.
        await orla.SaveAsync(kept, "phone", "+353 1 555 0201");
        await orla.SaveAsync(kept, "phone", "+353 1 555 0202");
        using (var taken = await orla.ChangeAsync(third, "phone", "+353 1 555 0202"))
            (await taken.ErrorsAsync()).ShouldBe([("/changes/phone", "not-unique")]);
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task A_change_is_not_taken_back_into_a_value_that_somebody_else_has_by_now()
    {
        using var orla = await firm.As("orla");
        await ConfigureAsync(orla, fields => Field(fields, "work_phone")["unique"] = true);
        var (one, two) = ((await FirmFixture.HireAsync(orla, "Keel")).Text("employmentId"), (await FirmFixture.HireAsync(orla, "Lind")).Text("employmentId"));
        await orla.SaveAsync(one, "work_phone", "+353 1 555 0301");
        await orla.SaveAsync(one, "work_phone", "+353 1 555 0302");
        await orla.SaveAsync(two, "work_phone", "+353 1 555 0301");
        var change = (await orla.GetAsync($"/api/records/{one}/history"))["changes"]![0]!.Text("id");
        using (var refused = await orla.SendAsync("POST", $"/api/records/{one}/changes/{change}/take-back", new { why = "x" }))
            (refused.StatusCode, (await refused.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "taken-since"));
        await orla.SaveAsync(two, "work_phone", "+353 1 555 0303");
        (await orla.SendAsync("POST", $"/api/records/{one}/changes/{change}/take-back", new { why = "x" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ValueAsync(orla, one, "work_phone")).ShouldBe("+353 1 555 0301");
        await firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task Two_hires_of_one_grid_do_not_get_what_only_one_may_have()
    {
        using var orla = await firm.As("orla");
        await ConfigureAsync(orla, fields => Field(fields, "badge")["unique"] = true);
        var (one, two) = (Records.NewHire("Anselm", "Gridley"), Records.NewHire("Brunhild", "Tegner"));
        (one["typed"]!["badge"], two["typed"]!["badge"]) = ("880001", "880001");
        using (
            var refused = await orla.SendAsync(
                "POST",
                "/api/hires/many",
                new JsonObject { ["hires"] = new JsonArray(one.DeepClone(), two.DeepClone()) }.ToJsonString()
            )
        )
            (await refused.ErrorsAsync()).ShouldBe([("/hires/1/typed/badge", "not-unique")]);
        // The next free one is offered past what the grid itself takes.
        two["typed"]!.AsObject().Remove("badge");
        using var opened = await orla.SendAsync(
            "POST",
            "/api/hires/many",
            new JsonObject { ["hires"] = new JsonArray(one.DeepClone(), two.DeepClone()) }.ToJsonString()
        );
        opened.StatusCode.ShouldBe(HttpStatusCode.OK, await opened.Content.ReadAsStringAsync());
        var hires = (await opened.JsonAsync()).AsArray();
        (await ValueAsync(orla, hires[1]!.Text("employmentId"), "badge")).ShouldNotBe("880001");
    }

    private async Task ConfigureAsync(Caller orla, Action<JsonArray> change)
    {
        using var piet = await firm.As("piet");
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.AsObject();
        change(configuration["fields"]!.AsArray());
        await Markers.PublishAsync(piet, orla, configuration);
    }

    private static JsonNode Field(JsonArray fields, string key) => fields.Single(f => f!.Text("key") == key)!;

    private static async Task<string?> ValueAsync(Caller caller, string record, string field) =>
        (string?)Records.Field(await caller.GetAsync($"/api/records/{record}"), field)["value"];

    // A candidate whose hire was opened, and of whom recruiting has come to say another number.
    private async Task<Guid> ChangedCandidateAsync(Guid hire)
    {
        await using var acts = new ActCaller(firm.Server);
        var said = new FeedCandidate(
            $"rule/{hire}",
            "Adaeze",
            "Okafor",
            null,
            "adaeze@example.org",
            "+353 1 555 0100",
            "Ticket clerk",
            "hallan",
            new LocalDate(2027, 3, 15)
        );
        var at = acts.Get<FirmClock>().Now;
        var candidate = new IntakeCandidate
        {
            SourceId = said.Id,
            Now = said with { Phone = "+353 1 555 0177" },
            ArrivedAt = at,
            ChangedAt = at,
            State = IntakeState.Taken,
            HireId = hire,
            Settled = said,
        };
        acts.Db.Add(candidate);
        await acts.Db.SaveChangesAsync();
        return candidate.Id;
    }
}
