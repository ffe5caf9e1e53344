using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>A pay component before and after a change: example people, and everybody whose pay it touches.</summary>
public class ComponentEffectTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_supplement_of_the_crews_touches_the_crews_and_says_by_how_much()
    {
        using var orla = await firm.As("orla");
        var effects = await CompareAsync(orla, Isle(percent: 5));
        var people = effects["people"]!;
        var crew = (long)(await firm.Database.AskAsync(PaidInGroup("crew")))!;
        ((long)people["touched"]!, (int)people["notWorkedOut"]!).ShouldBe((crew, 0));
        ((long)people["considered"]!).ShouldBeGreaterThan(crew);
        var first = people["first"]!.AsArray();
        first.Count.ShouldBe((int)Math.Min(crew, 200));
        first.ShouldAllBe(p => p!.Text("payGroup").StartsWith("Crew", StringComparison.Ordinal));
        // One percent of base pay more: before anything is taken off, and with the employer's part of it.
        foreach (var person in first.Select(p => p!))
        {
            var more = person["after"]!.Amount("gross") - person["before"]!.Amount("gross");
            more.ShouldBeGreaterThan(0);
            (person["after"]!.Amount("employerCost") - person["before"]!.Amount("employerCost")).ShouldBeGreaterThan(more);
            person["after"]!.Amount("net").ShouldBeInRange(person["before"]!.Amount("net"), person["before"]!.Amount("net") + more);
        }
        first.Select(p => p!["after"]!.Amount("net") - p["before"]!.Amount("net")).ShouldBeInOrder(SortDirection.Descending);
        if (crew <= 200)
            people.Amount("annualNet").ShouldBe(first.Sum(p => (p!["after"]!.Amount("net") - p["before"]!.Amount("net")) * 26));
        // The example people of other groups stay as they are; a period is what ./fid compute makes of it.
        foreach (var sample in effects["samples"]!.AsArray().Select(s => s!))
        {
            var isCrew = sample.Text("payGroup").StartsWith("Crew", StringComparison.Ordinal);
            (sample["before"]!.ToJsonString() != sample["after"]!.ToJsonString()).ShouldBe(isCrew, sample.ToJsonString());
            sample["before"]!.Amount("net").ShouldBe(ComputedPay.Preview(sample.Text("every"), sample.Amount("amount")).Amount("net"));
        }
        // Nothing of it is saved.
        (await firm.Database.AskAsync("select values->>'percent' from list_entries where list = 'payComponents' and code = 'ISLE'")).ShouldBe("4");
    }

    [Fact]
    public async Task What_changes_nothing_or_not_yet_touches_nobody()
    {
        using var orla = await firm.As("orla");
        (await TouchedAsync(orla, Isle(percent: 4))).ShouldBe(0);
        (await TouchedAsync(orla, Isle(percent: 5, from: "2027-05-01"), "2027-04-30")).ShouldBeGreaterThan(0, "it would not be paid until then");
        var later = Isle(percent: 4, from: "2027-01-01");
        (await TouchedAsync(orla, later)).ShouldBe(0);
        // Without anything that stands for base pay nobody's pay can be worked out.
        var none = await CompareAsync(orla, Entry("BASE", new JsonObject { ["kind"] = "earning", ["amount"] = 1250 }));
        ((int)none["people"]!["notWorkedOut"]!).ShouldBe((int)none["people"]!["considered"]!);
    }

    [Fact]
    public async Task What_is_wrong_with_a_component_is_told_at_its_column_and_a_day_that_is_none_at_the_day()
    {
        using var orla = await firm.As("orla");
        (
            await WrongAsync(
                orla,
                Entry(
                    "ISLE",
                    new JsonObject
                    {
                        ["kind"] = "earning",
                        ["percent"] = 5,
                        ["of"] = new JsonArray("GONE"),
                    }
                ),
                null
            )
        ).ShouldContain(p => p.EndsWith("/of", StringComparison.Ordinal));
        (await WrongAsync(orla, Entry("BASE", new JsonObject { ["kind"] = "earning", ["formula"] = "LEVY * 2" }), null)).ShouldNotBeEmpty();
        (await WrongAsync(orla, Isle(percent: 5), "1200-01-01")).ShouldBe(["/on"]);
    }

    [Fact]
    public async Task Whoever_does_not_see_pay_sees_example_people_only()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        using var ruth = await firm.As("ruth");
        ((int)(await CompareAsync(ruth, Isle(percent: 5)))["people"]!["touched"]!).ShouldBeGreaterThan(0);
        await Markers.HideAsync(piet, orla, "payroll", "pay_rate");
        var hidden = await CompareAsync(ruth, Isle(percent: 5));
        // Her own she does.
        ((int)hidden["people"]!["considered"]!, hidden["people"]!["first"]!.AsArray().Count).ShouldBe((1, 0));
        hidden["samples"]!.AsArray().ShouldNotBeEmpty();
        using var nils = await firm.As("nils");
        using var refused = await nils.SendAsync("POST", "/api/lists/payComponents/effects", new { entry = Isle(percent: 5) });
        refused.StatusCode.ShouldBeOneOf(HttpStatusCode.Forbidden, HttpStatusCode.OK);
        if (refused.IsSuccessStatusCode)
            (await refused.JsonAsync())["people"].ShouldBeNull();
    }

    private static string PaidInGroup(string group) =>
        $"""
            select count(*) from employments e where e.start <= '2027-03-01' and (e."end" is null or e."end" >= '2027-03-01')
              and exists (select from record_values v where v.owner_id = e.id and v.field = 'pay_group' and v.value = '"{group}"' and upper_inf(v.known)
                and v.effective @> date '2027-03-01')
              and exists (select from record_values v where v.owner_id = e.id and v.field = 'pay_rate' and upper_inf(v.known)
                and v.effective @> date '2027-03-01')
            """;

    private static JsonObject Isle(decimal percent, string? from = null)
    {
        var values = new JsonObject
        {
            ["kind"] = "earning",
            ["percent"] = percent,
            ["of"] = new JsonArray("BASE"),
            ["groups"] = new JsonArray("crew"),
        };
        if (from is not null)
            values["paid_from"] = from;
        return Entry("ISLE", values);
    }

    private static JsonObject Entry(string code, JsonObject values) =>
        new()
        {
            ["code"] = code,
            ["name"] = code,
            ["values"] = values,
        };

    private static async Task<JsonNode> CompareAsync(Caller caller, JsonObject entry, string? on = null)
    {
        using var answer = await caller.SendAsync("POST", "/api/lists/payComponents/effects", new { entry, on });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return await answer.JsonAsync();
    }

    private static async Task<int> TouchedAsync(Caller caller, JsonObject entry, string? on = null) =>
        (int)(await CompareAsync(caller, entry, on))["people"]!["touched"]!;

    private static async Task<string[]> WrongAsync(Caller caller, JsonObject entry, string? on)
    {
        using var answer = await caller.SendAsync("POST", "/api/lists/payComponents/effects", new { entry, on });
        return [.. (await answer.ErrorsAsync()).Select(e => e.Item1)];
    }
}
