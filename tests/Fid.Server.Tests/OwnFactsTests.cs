using System.Net;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Everybody who works here sees their own record and asks for facts of their own, whatever else their roles give. Nils, of the stores,
/// has a role that gives only what his tasks need.</summary>
public class OwnFactsTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Everybody_here_opens_their_own_record_and_asks_for_what_they_may_not_change_there()
    {
        using var nils = await firm.As("nils");
        using var orla = await firm.As("orla");
        var own = (await nils.GetAsync("/api/session"))["user"]!.Text("ownRecord");
        var record = await nils.GetAsync($"/api/records/{own}");
        (Records.Field(record, "family_name").Text("access"), Records.Field(record, "phone").Text("access")).ShouldBe(("ask", "edit"));
        Records.Field(record, "pay_rate").Text("access").ShouldBe("view");
        var others = await Asking.ReportOfCallumAsync(firm.Database);
        foreach (var what in new[] { "", "/history" })
            (await nils.SendAsync("GET", $"/api/records/{others}{what}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await nils.AskAsync(own, new { pay_rate = 99 })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);

        var asked = await nils.AskedAsync(own, new { family_name = "Aakre-Lund" });
        asked.Text("state").ShouldBe("waiting");
        (await nils.ToDecideAsync()).ShouldBeEmpty();
        using (var agreed = await orla.DecideAsync((await orla.ToDecideAsync()).Single(r => r.Text("id") == asked.Text("id")), "agree"))
            agreed.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Records.Field(await nils.GetAsync($"/api/records/{own}"), "family_name").Text("value").ShouldBe("Aakre-Lund");
        (await orla.GetAsync($"/api/records/{own}/history"))["changes"]![0]!.Text("by").ShouldBe("Nils Aakre");
    }

    [Fact]
    public async Task The_role_is_held_by_rule_from_the_first_day_to_the_last_and_granted_to_nobody()
    {
        using var piet = await firm.As("piet");
        using var thandiwe = await firm.As("thandiwe");
        var own = (await thandiwe.GetAsync("/api/session"))["user"]!.Text("ownRecord");
        var (account, detail) = await Roles.AccountAsync(piet, "thandiwe");
        detail["ruled"]!.AsArray().Select(r => (r!.Text("role"), (string?)r!["group"])).ShouldBe([("staff", null)]);
        (await BecauseAsync()).ShouldBe([("staff", "self", true, null)]);

        using (
            var granted = await piet.SendAsync(
                "POST",
                $"/api/accounts/{account}/grants",
                new
                {
                    role = "staff",
                    from = "2027-03-01",
                    to = (string?)null,
                    why = (string?)null,
                }
            )
        )
            (await granted.ErrorsAsync()).ShouldBe([("/role", "by-rule-alone")]);

        await firm.Database.AskAsync($"update employments set \"end\" = '2027-02-28' where id = '{own}'");
        (await thandiwe.GetAsync("/api/session"))["user"]!["ownRecord"].ShouldBeNull();
        (await thandiwe.SendAsync("GET", $"/api/records/{own}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await BecauseAsync()).ShouldBeEmpty();
        (await thandiwe.SendAsync("GET", "/api/tasks")).StatusCode.ShouldBe(HttpStatusCode.OK);

        async Task<(string Role, string Reach, bool ByRule, string? Group)[]> BecauseAsync() =>
            [
                .. (await piet.GetAsync($"/api/rights/explained?person={own}&field=birth_date"))["people"]!
                    .AsArray()
                    .Where(p => p!.Text("account") == account)
                    .SelectMany(p => p!["because"]!.AsArray())
                    .Select(b => (b!.Text("role"), b!["right"]!["reach"]!.Text("kind"), b!["rule"] is not null, (string?)b!["rule"]?["group"])),
            ];
    }
}
