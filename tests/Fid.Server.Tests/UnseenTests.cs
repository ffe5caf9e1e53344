using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Acts.Exchange;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What a role may not see of a record shows nowhere: not as a value, a name, an order, a count, a match or a refusal.</summary>
public class UnseenTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    // Everything but the day somebody starts, by which hires are planned.
    private const string Start = "start_date";

    private static readonly string[] Roles = ["payroll", "manager", "owner", "newcomer"];

    [Fact]
    public async Task Nothing_of_a_record_is_told_to_a_role_that_may_see_none_of_its_fields()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        var hire = (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray().First(h => h!.Text("job") == "Deckhand")!;
        var id = hire.Text("employmentId");
        var markers = await MarkAsync(orla, id);
        await HideAsync(piet);
        // For whoever sees it all, every marker shows: the test would notice a marker that is stored nowhere.
        var whole = (await orla.GetAsync($"/api/records/{id}")).ToJsonString();
        foreach (var marker in markers)
            whole.ShouldContain(marker);

        foreach (var who in new[] { "ruth", "callum", "nils", "ines" })
        {
            using var caller = await firm.As(who);
            foreach (var path in Paths(id, hire.Text("id"), hire.Text("familyName")))
            {
                using var response = await caller.SendAsync("GET", path);
                await ShowsNothingAsync(response, $"{who} {path}", [.. markers, "Skerry Pier", hire.Text("familyName")], path);
            }
            using (var sheet = await caller.SendAsync("GET", "/api/people/sheet.xlsx"))
            {
                var file = await sheet.Content.ReadAsByteArrayAsync();
                var cells = sheet.StatusCode == HttpStatusCode.OK ? SheetFile.Rows(() => new MemoryStream(file)).SelectMany(r => r).ToHashSet() : [];
                cells.Intersect([.. markers, hire.Text("familyName")]).ShouldBeEmpty(who);
            }
            using var readings = await caller.SendAsync(
                "POST",
                $"/api/records/{id}/readings",
                """{"changes":{"pay_rate":20,"badge":"004576","town":"marker-town"}}"""
            );
            await ShowsNothingAsync(readings, $"{who} readings", markers, "");
            // What may not be seen is refused as what is not there, whether another record has it or not.
            foreach (var (key, value) in new[] { ("badge", "004576"), ("email", markers[0]), ("nothing_like_it", "1") })
            {
                using var refused = await caller.SendAsync(
                    "PUT",
                    $"/api/records/{id}",
                    new
                    {
                        changes = new Dictionary<string, string> { [key] = value },
                        from = (string?)null,
                        why = (string?)null,
                    },
                    "\"1\""
                );
                if (refused.StatusCode is HttpStatusCode.Forbidden or HttpStatusCode.NotFound)
                    continue;
                (await refused.ErrorsAsync()).ShouldBe([($"/changes/{key}", "unknown-field")], who);
            }
        }
    }

    [Fact]
    public async Task Who_may_not_see_names_gets_no_order_by_names()
    {
        using var piet = await firm.As("piet");
        await HideAsync(piet);
        using var ruth = await firm.As("ruth");
        var numbers = new List<string>();
        string? after = null;
        do
        {
            var page = await ruth.GetAsync($"/api/people{(after is null ? "" : $"?after={after}")}");
            numbers.AddRange(page["people"]!.AsArray().Select(p => p!.Text("number")));
            // Her own she sees as everybody here does.
            page["people"]!.AsArray().ShouldAllBe(p => p!.Text("familyName") == (p!.Text("givenName") == "Ruth" ? "Abara" : p!.Text("number")));
            after = (string?)page["next"];
        } while (after is not null);
        numbers.ShouldBe(numbers.Distinct().Order(StringComparer.Ordinal));
        numbers.Count.ShouldBeGreaterThan(200);
        (await ruth.GetAsync("/api/people?q=Prys"))["people"]!.AsArray().ShouldBeEmpty();
        (await ruth.GetAsync($"/api/people?q={numbers[7]}"))["people"]!.AsArray().Count.ShouldBe(1);
    }

    private static string[] Paths(string id, string hire, string family) =>
        [
            "/api/arrivals",
            "/api/people",
            $"/api/people?q={family}",
            $"/api/goto?q={family}",
            "/api/goto?q=",
            "/api/tasks",
            $"/api/hires/{hire}",
            $"/api/hires/{hire}/start-change?start=2027-06-01",
            $"/api/records/{id}",
            $"/api/records/{id}/history",
            $"/api/records/{id}/compare?on=2020-01-01&with=2030-01-01",
            "/api/fields/labels",
            "/api/fields/town/coverage",
            "/api/lists/employmentKinds/entries/permanent/users",
            "/api/lists/shiftPatterns/entries/deck-a/users",
        ];

    private static async Task ShowsNothingAsync(HttpResponseMessage response, string what, IEnumerable<string> unseen, string path)
    {
        var text = WebUtility.UrlDecode(await response.Content.ReadAsStringAsync());
        foreach (var word in unseen)
        {
            // What was asked for may be said back; lists are the firm's own, and belong to no record.
            if (path.Contains(word, StringComparison.Ordinal))
                continue;
            text.Contains(word, StringComparison.Ordinal).ShouldBeFalse($"{what} tells {word}: {text[..Math.Min(400, text.Length)]}");
        }
    }

    // Fills every text of a record with a word of its own.
    private static async Task<string[]> MarkAsync(Caller orla, string id)
    {
        var record = await orla.GetAsync($"/api/records/{id}");
        var texts = record["sections"]!
            .AsArray()
            .SelectMany(s => s!["fields"]!.AsArray())
            .Where(f =>
                f!.Text("type") is "text" or "longText"
                && f!["options"] is null
                && !f["sensitive"]!.GetValue<bool>()
                && f.Text("access") == "edit"
                && f.Text("key") is not ("badge" or "given_name" or "family_name")
            )
            .Select(f => f!.Text("key"))
            .ToArray();
        var changes = texts.ToDictionary(k => k, k => JsonSerializer.SerializeToElement($"marker-{k}"));
        changes["email"] = JsonSerializer.SerializeToElement("marker-email@example.org");
        using var saved = await orla.SendAsync(
            "PUT",
            $"/api/records/{id}",
            new
            {
                changes,
                from = (string?)null,
                why = (string?)null,
            },
            record.Text("version")
        );
        if (saved.StatusCode != HttpStatusCode.OK)
        {
            // Fields with a pattern of their own keep what they have.
            var wrong = (await saved.ErrorsAsync()).Select(e => e.Pointer.Split('/')[^1]).ToHashSet();
            foreach (var key in wrong)
                changes.Remove(key);
            (
                await orla.SendAsync(
                    "PUT",
                    $"/api/records/{id}",
                    new
                    {
                        changes,
                        from = (string?)null,
                        why = (string?)null,
                    },
                    record.Text("version")
                )
            ).EnsureSuccessStatusCode();
        }
        changes.Count.ShouldBeGreaterThan(20);
        return [.. changes.Values.Select(v => v.GetString()!)];
    }

    private static async Task HideAsync(Caller piet)
    {
        var fields = await piet.GetAsync("/api/fields");
        var configuration = fields["configuration"]!.AsObject();
        foreach (var field in configuration["fields"]!.AsArray())
            if (field!.Text("key") != Start)
                foreach (var role in Roles)
                    field!["access"]?.AsObject().Remove(role);
        var body = new JsonObject { ["configuration"] = configuration.DeepClone() }.ToJsonString();
        var draft = await (await piet.SendAsync("PUT", "/api/fields/draft", body, (string?)fields["draft"]?["version"])).JsonAsync();
        using var published = await piet.SendAsync("POST", "/api/fields/draft/publish", new { why = (string?)null, despite = true }, draft.Text("version"));
        published.StatusCode.ShouldBe(HttpStatusCode.OK, await published.Content.ReadAsStringAsync());
    }
}
