using System.Text.Json.Nodes;
using Fid.Testing;

namespace Fid.Server.Tests;

/// <summary>Everything somebody can read about one record.</summary>
internal static class EveryReading
{
    /// <summary>What is said at every address that is read, with ids that lead to a marked record, by previews, and by searches for its values.</summary>
    /// <param name="markers">A value of each field of the record that is found nowhere else.</param>
    /// <param name="hidden">The fields that are asked for by name, and searched for; none for all of them by name.</param>
    public static async IAsyncEnumerable<(string Address, string Said)> OfAsync(
        Caller reader,
        JsonNode document,
        string hire,
        string employment,
        string person,
        Dictionary<string, string> markers,
        HashSet<string> hidden
    )
    {
        foreach (var (path, operations) in document["paths"]!.AsObject())
        {
            // What the PDF says is what Arrivals says, which is read here too; packed as it is nobody could look for anything in it.
            if (
                operations!["get"] is null
                || path is "/api/arrivals/week.pdf"
                || path is "/api/openapi.json" or "/api/session" or "/api/sessions" or "/api/fields/schema.json" or "/api/rights/schema.json"
            )
                continue;
            var address = path.Replace("/hires/{id}", $"/hires/{hire}", StringComparison.Ordinal)
                .Replace("/records/{id}", $"/records/{employment}", StringComparison.Ordinal)
                .Replace("/people/{id}", $"/people/{employment}", StringComparison.Ordinal)
                .Replace("/requests/{id}", $"/requests/{Markers.Request}", StringComparison.Ordinal)
                .Replace("{id}", Guid.Empty.ToString(), StringComparison.Ordinal)
                .Replace("{version}", "0", StringComparison.Ordinal)
                .Replace("{group}/{period}", "crew/2027-03-08", StringComparison.Ordinal)
                .Replace("{employment}", employment, StringComparison.Ordinal)
                .Replace("{list}", "jobs", StringComparison.Ordinal)
                .Replace("/entries/{code}", "/entries/deckhand", StringComparison.Ordinal)
                .Replace("{code}", "deckhand", StringComparison.Ordinal);
            address += path switch
            {
                "/api/records/{id}/compare" => "?on=2027-02-01&with=2131-12-31",
                "/api/hires/{id}/start-change" => "?to=2027-06-01",
                "/api/people/{id}/merge" => $"?with={employment}",
                "/api/templates/{code}/compare" => "?from=1&to=1",
                "/api/people/{id}/checklists/offer" => "?occasion=leaving",
                "/api/dates" => "?text=mon",
                "/api/pay-revisions/sheet.xlsx" => "?percent=2&from=2027-04-01",
                "/api/fields/compare" => "?from=0&to=0",
                _ => "",
            };
            // Whatever is asked of each field is asked of each hidden one.
            string[] addresses = path.Contains("{key}", StringComparison.Ordinal)
                ? [.. (hidden.Count > 0 ? hidden : markers.Keys.ToHashSet()).Take(6).Select(k => address.Replace("{key}", k, StringComparison.Ordinal))]
                : [address];
            foreach (var one in addresses)
            {
                using var response = await reader.SendAsync("GET", one);
                // The condition this test put into the configuration is no value of anybody.
                yield return ($"GET {one}", System.Text.RegularExpressions.Regex.Replace(await Markers.SaidAsync(response), "\"requiredWhen\":\"[^\"]*\"", ""));
            }
        }
        foreach (
            var (address, body) in new (string, object)[]
            {
                ($"/api/records/{employment}/readings", new { changes = new { } }),
                (
                    "/api/hires/preview",
                    new
                    {
                        id = Guid.NewGuid(),
                        template = "deckhand",
                        start = "2027-06-01",
                        typed = new { },
                        person,
                        reuse = markers.Keys,
                    }
                ),
                (
                    "/api/hires/preview",
                    new
                    {
                        id = Guid.NewGuid(),
                        template = "deckhand",
                        start = "2027-06-01",
                        typed = new { },
                        like = new { employment, parts = new[] { "job", "pay", "clock", "checklist", "items" } },
                    }
                ),
                (
                    "/api/hires/many/preview",
                    new
                    {
                        hires = new[]
                        {
                            new
                            {
                                id = Guid.NewGuid(),
                                template = "deckhand",
                                start = "2027-06-01",
                                typed = new { },
                                person,
                                reuse = markers.Keys,
                            },
                        },
                    }
                ),
                ("/api/templates/people", new { when = (string?)null }),
                (
                    "/api/templates/deckhand/example",
                    new
                    {
                        spec = (object?)null,
                        use = (string?)null,
                        facts = new { },
                        start = (string?)null,
                    }
                ),
            }
        )
        {
            using var response = await reader.SendAsync("POST", address, body);
            yield return ($"POST {address}", await Markers.SaidAsync(response));
        }
        foreach (var key in hidden.Where(markers.ContainsKey).Take(8))
        {
            using var found = await reader.SendAsync("GET", $"/api/people?q={Uri.EscapeDataString(markers[key])}");
            if (found.IsSuccessStatusCode && (await found.JsonAsync())["people"]!.AsArray().Count > 0)
                yield return ($"a search for {key}", markers[key]);
            using var gone = await reader.SendAsync("GET", $"/api/goto?q={Uri.EscapeDataString(markers[key])}");
            if (gone.IsSuccessStatusCode && (await gone.JsonAsync()).AsArray().Any(f => f!.Text("kind") is "hire" or "person"))
                yield return ($"Go to {key}", markers[key]);
        }
    }
}
