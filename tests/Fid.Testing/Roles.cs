using System.Text.Json.Nodes;
using Shouldly;

namespace Fid.Testing;

/// <summary>The firm's own roles, as tests make and grant them.</summary>
public static class Roles
{
    /// <summary>A configuration of one role, with rights and groups as JSON.</summary>
    public static JsonObject Of(string id, string rights, string groups = "") =>
        JsonNode.Parse($$"""{"roles":[{"id":"{{id}}","label":"{{id}}","fields":[],"rights":[{{rights}}]}],"groups":[{{groups}}]}""")!.AsObject();

    /// <summary>A role that sees the people of a site: who they are and what they do, and nothing of their pay.</summary>
    public static JsonObject OfSite(string id, string site) =>
        Of(
            id,
            string.Join(
                ',',
                new[] { "record", "hire", "section:person", "section:work" }
                    .Select(on => $$"""{"do":"see","on":"{{on}}","reach":{"site":"{{site}}"} }""")
                    .Append("""{"do":"see","on":"people","reach":"all"}""")
            )
        );

    /// <summary>Saves a draft over whichever there is, and gives its version.</summary>
    public static async Task<string> SaveAsync(Caller caller, JsonObject configuration)
    {
        var there = (await caller.GetAsync("/api/rights"))["draft"]?.Text("version");
        using var saved = await caller.SendAsync("PUT", "/api/rights/draft", new { configuration = configuration.DeepClone() }, ifMatch: there);
        saved.IsSuccessStatusCode.ShouldBeTrue(await saved.Content.ReadAsStringAsync());
        return (await saved.JsonAsync()).Text("version");
    }

    /// <summary>Makes a configuration live; where a second person has to agree, that one does.</summary>
    public static async Task MakeLiveAsync(Caller caller, JsonObject configuration, Caller? second = null)
    {
        var draft = await SaveAsync(caller, configuration);
        using var published = await caller.SendAsync("POST", "/api/rights/draft/publish", new { why = "A test" }, ifMatch: draft);
        published.IsSuccessStatusCode.ShouldBeTrue(await published.Content.ReadAsStringAsync());
        if ((await published.JsonAsync())["version"] is not null)
            return;
        draft = (await caller.GetAsync("/api/rights"))["draft"]!.Text("version");
        using var agreed = await second
            .ShouldNotBeNull("somebody has to agree")
            .SendAsync("POST", "/api/rights/draft/publish", new { why = (string?)null }, ifMatch: draft);
        (await agreed.JsonAsync())["version"].ShouldNotBeNull();
    }

    /// <summary>Gives a role to somebody of the demonstration, by given name.</summary>
    public static async Task GrantAsync(Caller caller, string who, string role, string? from = null, string? to = null)
    {
        var (id, _) = await AccountAsync(caller, who);
        using var granted = await caller.SendAsync(
            "POST",
            $"/api/accounts/{id}/grants",
            new
            {
                role,
                from,
                to,
                why = (string?)null,
            }
        );
        granted.IsSuccessStatusCode.ShouldBeTrue(await granted.Content.ReadAsStringAsync());
    }

    /// <summary>The account of somebody of the demonstration, by given name.</summary>
    public static async Task<(string Id, JsonNode Detail)> AccountAsync(Caller caller, string who)
    {
        var id = (await caller.GetAsync($"/api/accounts?q={who}%40halyard"))["accounts"]!.AsArray().Single()!.Text("id");
        return (id, await caller.GetAsync($"/api/accounts/{id}"));
    }
}
