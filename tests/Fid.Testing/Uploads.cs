using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Shouldly;

namespace Fid.Testing;

/// <summary>Sends sheets into lists as a browser does, and waits for what becomes of them.</summary>
public static class Uploads
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    public static Task<JsonNode> ImportAsync(this Caller caller, string list, string text, string name = "sheet.csv") =>
        caller.ImportAsync(list, Encoding.UTF8.GetBytes(text), name);

    /// <summary>The import once it has been read.</summary>
    public static async Task<JsonNode> ImportAsync(this Caller caller, string list, byte[] file, string name = "sheet.csv")
    {
        using var response = await caller.SendFileAsync($"/api/imports?list={list}&fileName={Uri.EscapeDataString(name)}", file);
        response.StatusCode.ShouldBe(HttpStatusCode.Created);
        return await caller.SettledAsync((await response.JsonAsync()).Text("id"));
    }

    /// <summary>Does something with an import and waits until that is done.</summary>
    public static async Task<JsonNode> OnAsync(this Caller caller, JsonNode run, string method, string what, object? body = null)
    {
        using var response = await caller.SendAsync(method, $"/api/imports/{run.Text("id")}/{what}", body);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await caller.SettledAsync(run.Text("id"));
    }

    public static async Task<JsonNode[]> RowsAsync(this Caller caller, JsonNode run, string only = "") =>
        [.. (await caller.GetAsync($"/api/imports/{run.Text("id")}/rows?only={only}"))["rows"]!.AsArray().Select(r => r!)];

    /// <summary>New, changed, same, wrong, ignored.</summary>
    public static int[] Counts(this JsonNode run) => [.. new[] { "new", "changed", "same", "wrong", "ignored" }.Select(k => run[k]!.GetValue<int>())];

    public static async Task<JsonNode> SettledAsync(this Caller caller, string id)
    {
        using var patience = new CancellationTokenSource(Patience);
        while (true)
        {
            var run = await caller.GetAsync($"/api/imports/{id}");
            if (run.Text("state") is not ("reading" or "checking" or "committing" or "undoing"))
                return run;
            patience.Token.ThrowIfCancellationRequested();
            await Task.Yield();
        }
    }
}
