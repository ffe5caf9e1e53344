using System.Net;
using System.Text.Json.Nodes;
using Shouldly;

namespace Fid.Testing;

/// <summary>What tests do with role templates.</summary>
public static class TemplateActs
{
    /// <summary>Saves a template's draft; the answer has its version.</summary>
    public static async Task<JsonNode> DraftAsync(this Caller caller, string code, JsonNode spec, string? version)
    {
        using var response = await caller.SendAsync(
            "PUT",
            $"/api/templates/{code}/draft",
            new JsonObject { ["spec"] = spec.DeepClone() }.ToJsonString(),
            version
        );
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }

    /// <summary>Publishes the draft that was seen in a version; gives the template's new version.</summary>
    public static async Task<int> PublishAsync(this Caller caller, string code, string version)
    {
        using var response = await caller.SendAsync("POST", $"/api/templates/{code}/draft/publish", new { why = "Better" }, version);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return (await response.JsonAsync())["version"]!.GetValue<int>();
    }
}
