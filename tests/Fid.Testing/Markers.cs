using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using Fid.Acts.Exchange;
using Fid.Core.Texts;
using Shouldly;

namespace Fid.Testing;

/// <summary>Fills a record with values that stand nowhere else, so that it shows wherever one of them comes out.</summary>
public static class Markers
{
    /// <summary>Fills every field that can hold a telling value, and answers what was put where.</summary>
    public static async Task<Dictionary<string, string>> PutAsync(Caller caller, string employment)
    {
        var record = await caller.GetAsync($"/api/records/{employment}");
        var marked = new Dictionary<string, string>();
        var place = 0;
        foreach (var field in record["sections"]!.AsArray().SelectMany(s => s!["fields"]!.AsArray()).SelectMany(Cells))
        {
            place++;
            if (field!.Text("access") != "edit" || field!.Text("key") is "badge" or "end_date")
                continue;
            var key = field!.Text("key").Split('@')[0];
            foreach (var candidate in Candidates(key, field!.Text("type"), place))
            {
                var changes = new JsonObject { [field!.Text("key")] = candidate.DeepClone() };
                using var saved = await caller.ChangeAsync(
                    employment,
                    new JsonObject
                    {
                        ["changes"] = changes,
                        ["from"] = null,
                        ["why"] = null,
                    }.ToJsonString()
                );
                if (saved.StatusCode != HttpStatusCode.OK)
                    continue;
                marked[key] = candidate.GetValueKind() == System.Text.Json.JsonValueKind.String ? (string)candidate! : candidate.ToJsonString();
                break;
            }
        }
        return marked;
    }

    /// <summary>The request that asks for all of what is marked.</summary>
    public static Guid Request { get; } = new("0190a1b2-0000-7000-8000-000000000001");

    /// <summary>Has the same values asked for as well, each by itself of several, and all together: Nils asks, who sees little of them.</summary>
    public static async Task AskAsync(TestDatabase database, string employment, Dictionary<string, string> markers)
    {
        var fields = markers.Where(m => !m.Key.Contains('.', StringComparison.Ordinal)).ToDictionary();
        foreach (var by in new[] { "manager", "role:payroll", "role:coordinator", "role::change" })
        foreach (var some in fields.Select(f => new[] { f }).Append([.. fields]))
        {
            var changes = new JsonArray([
                .. some.Select(f => new JsonObject
                {
                    ["field"] = f.Key,
                    ["owner"] = employment,
                    ["old"] = f.Value,
                    ["new"] = f.Value,
                    ["before"] = f.Value,
                }),
            ]);
            var steps = new JsonArray(
                new JsonObject
                {
                    ["rule"] = "",
                    ["by"] = by,
                    ["fields"] = new JsonArray([.. some.Select(f => JsonValue.Create(f.Key))]),
                }
            );
            var id = some.Length > 1 && by == "role:coordinator" ? Request : Guid.NewGuid();
            await database.AskAsync(
                "insert into record_requests (id, employment_id, asked_by_id, asked_by_name, asked_at, why, changes, steps, state) "
                    + $"select '{id}', '{employment}', u.id, 'Nils', now(), 'x', '{changes.ToJsonString()}', '{steps.ToJsonString()}', 'Waiting' "
                    + "from users u where u.email = 'nils@halyard.example' returning 1"
            );
        }
    }

    // A field itself; of rows, the columns of the first.
    private static IEnumerable<JsonNode> Cells(JsonNode? field)
    {
        if (field!["rows"] is not JsonObject rows)
            return [field];
        return rows["rows"]!.AsArray() is [var first, ..]
            ? rows["columns"]!
                .AsArray()
                .Select(c => new JsonObject
                {
                    ["key"] = $"{c!.Text("key")}@{first!.Text("id")}",
                    ["type"] = c!.Text("type"),
                    ["access"] = c!.Text("access"),
                })
            : [];
    }

    private static IEnumerable<JsonNode> Candidates(string key, string type, int place) =>
        type switch
        {
            "text" or "longText" => [$"Mk{place}x{string.Concat(key.Where(char.IsLetterOrDigit))}"],
            "identifier" => [string.Create(CultureInfo.InvariantCulture, $"IE29AIBK9311{place:00000000}"), $"MKID{place}Q"],
            "iban" => [Iban.Of("IE", string.Create(CultureInfo.InvariantCulture, $"AIBK9311{place:0000000000}"))],
            "email" => [$"mk{place}x@marked.example"],
            "phone" => [string.Create(CultureInfo.InvariantCulture, $"+353 86 7{place:000000}")],
            "date" => [new DateTime(2131, 1, 1, 0, 0, 0, DateTimeKind.Utc).AddDays(place).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)],
            // With more digits than a moment has: the trail tells many, and one of them would say the same some day.
            "number" or "money" => [7000.1337m + place, 61.0137m + place, 2.01370047m + place / 1000m],
            _ => [],
        };

    /// <summary>What an answer says, those that are workbooks unpacked.</summary>
    public static async Task<string> SaidAsync(HttpResponseMessage response)
    {
        var bytes = await response.Content.ReadAsByteArrayAsync();
        if (response.Content.Headers.ContentType?.MediaType?.Contains("spreadsheet", StringComparison.Ordinal) != true)
            return System.Text.Encoding.UTF8.GetString(bytes);
        return string.Join('\n', SheetFile.Rows(() => new MemoryStream(bytes)).Select(r => string.Join('\t', r)));
    }

    /// <summary>Hides a field from a role.</summary>
    public static async Task HideAsync(Caller piet, Caller orla, string role, string field)
    {
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.AsObject();
        configuration["fields"]!.AsArray().Single(f => f!.Text("key") == field)!["access"]!.AsObject().Remove(role);
        await PublishAsync(piet, orla, configuration);
    }

    /// <summary>Makes a configuration live; where somebody else has to agree, Orla does.</summary>
    public static async Task PublishAsync(Caller piet, Caller orla, JsonObject configuration)
    {
        var there = await piet.GetAsync("/api/fields");
        var saved = await piet.SendAsync(
            "PUT",
            "/api/fields/draft",
            new JsonObject { ["configuration"] = configuration.DeepClone() }.ToJsonString(),
            (string?)there["draft"]?["version"]
        );
        saved.StatusCode.ShouldBe(HttpStatusCode.OK, await saved.Content.ReadAsStringAsync());
        var draft = await saved.JsonAsync();
        using var published = await piet.SendAsync("POST", "/api/fields/draft/publish", new { why = (string?)null, despite = true }, draft.Text("version"));
        published.StatusCode.ShouldBe(HttpStatusCode.OK, await published.Content.ReadAsStringAsync());
        if ((await published.JsonAsync())["version"] is not null)
            return;
        using var agreed = await orla.SendAsync(
            "POST",
            "/api/fields/draft/publish",
            new { why = (string?)null, despite = true },
            (await orla.GetAsync("/api/fields"))["draft"]!.Text("version")
        );
        agreed.StatusCode.ShouldBe(HttpStatusCode.OK, await agreed.Content.ReadAsStringAsync());
        (await agreed.JsonAsync())["version"].ShouldNotBeNull();
    }
}
