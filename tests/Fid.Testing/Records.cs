using System.Net;
using System.Text.Json.Nodes;
using Shouldly;

namespace Fid.Testing;

/// <summary>Finding, changing and reading a record, as its screen does.</summary>
public static class Records
{
    /// <summary>The employment of the first person with a family name.</summary>
    public static async Task<string> PersonAsync(this Caller caller, string family) =>
        (await caller.GetAsync($"/api/people?q={family}"))["people"]!.AsArray().First(p => p!.Text("familyName") == family)!.Text("employmentId");

    /// <summary>Saves with the version that is there now, and answers whatever comes of it.</summary>
    public static async Task<HttpResponseMessage> ChangeAsync(this Caller caller, string id, object body) =>
        await caller.SendAsync("PUT", $"/api/records/{id}", body, (await caller.GetAsync($"/api/records/{id}")).Text("version"));

    /// <summary>What corrects fields, as it is sent.</summary>
    public static object Fix(object changes, string? why = null) =>
        new
        {
            changes,
            from = (string?)null,
            why,
        };

    /// <summary>Corrects one field, and answers whatever comes of it.</summary>
    public static Task<HttpResponseMessage> ChangeAsync(this Caller caller, string id, string field, string? value) =>
        caller.ChangeAsync(
            id,
            new
            {
                changes = new Dictionary<string, string?> { [field] = value },
                from = (string?)null,
                why = (string?)null,
            }
        );

    /// <summary>A request for a deckhand who starts on 8 March 2027 at the pier.</summary>
    public static JsonObject NewHire(string given, string family) =>
        new()
        {
            ["id"] = Guid.NewGuid().ToString(),
            ["template"] = "deckhand",
            ["start"] = "2027-03-08",
            ["typed"] = new JsonObject
            {
                ["given_name"] = given,
                ["family_name"] = family,
                ["email"] = $"{given}.{family}@example.org".Replace(' ', '.').Replace('\'', '.'),
                ["site"] = "skerry",
            },
        };

    /// <summary>Opens the hire of a deckhand, and answers what was opened.</summary>
    /// <param name="person">Whose new stint it is; null for somebody new.</param>
    public static async Task<JsonNode> OpenAsync(this Caller caller, string family, string? person = null)
    {
        var hire = NewHire("Rhys", family);
        hire["start"] = "2027-06-07";
        hire["person"] = person;
        using var opened = await caller.SendAsync("POST", "/api/hires", hire.ToJsonString());
        opened.StatusCode.ShouldBe(HttpStatusCode.Created, await opened.Content.ReadAsStringAsync());
        return await opened.JsonAsync();
    }

    public static async Task SaveAsync(this Caller caller, string id, object body)
    {
        using var response = await caller.ChangeAsync(id, body);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
    }

    public static async Task SaveAsync(this Caller caller, string id, string field, string? value)
    {
        using var response = await caller.ChangeAsync(id, field, value);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
    }

    /// <summary>The field of a record with a key.</summary>
    public static JsonNode Field(JsonNode record, string key) =>
        record["sections"]!.AsArray().SelectMany(s => s!["fields"]!.AsArray()).Single(f => f!.Text("key") == key)!;
}
