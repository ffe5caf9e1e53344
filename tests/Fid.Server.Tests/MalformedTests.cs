using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Bodies and addresses that no browser of ours sends, made from the OpenAPI document for every endpoint in it: each is
/// answered with what is wrong, and none makes the server stumble.</summary>
public class MalformedTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private const string SomeId = "01890000-0000-7000-8000-000000000000";

    // In place of any value.
    private static readonly string[] Nasty =
    [
        "null",
        "true",
        "-1",
        "1e400",
        "99999999999999999999",
        "0.1",
        "\"\"",
        "\"\\u0000\"",
        "\"\\ud800\"",
        "\"x\\ud83d\"",
        "\"sealed:0000000000000000000000000000000000000000000000000000000000000000:x\"",
        "\"9999-12-31\"",
        "\"0001-01-01\"",
        "\"-9998-01-01\"",
        "[]",
        "[null]",
        "[[]]",
        "[{}]",
        "{}",
        "{\"formula\":\"1+\"}",
        "{\"formula\":7}",
        "{\"\":null}",
        "[\"a\",\"a\"]",
    ];

    [Fact]
    public async Task No_body_makes_the_server_stumble_and_what_is_wrong_is_pointed_at()
    {
        using var piet = await firm.As("piet");
        var document = await piet.GetAsync("/api/openapi.json");
        var (tried, wrong) = (0, new List<string>());
        foreach (var (path, operations) in document["paths"]!.AsObject())
        foreach (var (method, operation) in operations!.AsObject())
        {
            if (method is not ("post" or "put" or "delete") || Skipped(path))
                continue;
            if (operation!["requestBody"]?["content"]?["application/json"]?["schema"] is not { } schema)
                continue;
            var sound = Sample(document, schema, 0);
            foreach (var body in Mutations(sound))
            {
                using var response = await piet.SendAsync(method.ToUpperInvariant(), Filled(path), body, "\"1\"");
                tried++;
                var text = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
                if ((int)response.StatusCode >= 500)
                    wrong.Add($"{response.StatusCode} {method} {path} {body}");
                else if (response.StatusCode == HttpStatusCode.BadRequest && JsonNode.Parse(text)?["errors"] is not JsonArray { Count: > 0 })
                    wrong.Add($"points at nothing: {method} {path} {body} {text}");
            }
        }
        tried.ShouldBeGreaterThan(1_000);
        wrong.ShouldBeEmpty();
    }

    [Fact]
    public async Task No_address_makes_the_server_stumble()
    {
        using var piet = await firm.As("piet");
        var document = await piet.GetAsync("/api/openapi.json");
        var wrong = new List<string>();
        foreach (var (path, operations) in document["paths"]!.AsObject())
        {
            if (operations!["get"] is not { } get || Skipped(path))
                continue;
            var names = get["parameters"]?.AsArray().Where(p => p!.Text("in") == "query").Select(p => p!.Text("name")).ToArray() ?? [];
            foreach (
                var nasty in new[]
                {
                    "%00",
                    "a%00b",
                    "%ED%A0%80",
                    "%F0%9F",
                    "-1",
                    "99999999999999999999",
                    "9999-12-31",
                    "0001-01-01",
                    "null",
                    "%27%3B--",
                    new string('x', 3_000),
                }
            )
            {
                string[] tried = [$"{Filled(path)}?{string.Join('&', names.Select(n => $"{n}={nasty}"))}", Filled(path, nasty)];
                foreach (var address in tried)
                {
                    using var response = await piet.SendAsync("GET", address);
                    if ((int)response.StatusCode >= 500)
                        wrong.Add($"{response.StatusCode} {address[..Math.Min(address.Length, 200)]}");
                }
            }
        }
        wrong.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("{}", "/id /template /start /typed")]
    [InlineData("{\"id\":\"01890000-0000-7000-8000-000000000001\",\"template\":\"deckhand\",\"start\":null}", "/typed")]
    public async Task A_property_that_is_needed_and_missing_is_named_by_its_pointer(string body, string pointers)
    {
        using var orla = await firm.As("orla");
        using var response = await orla.SendAsync("POST", "/api/hires", body);
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await response.ErrorsAsync()).Select(e => e.Pointer).ShouldBe(pointers.Split(' '), ignoreOrder: true);
    }

    [Theory]
    [InlineData("PATCH", "/api/hires/many", "application/json", 405, "wrong-method")]
    [InlineData("GET", "/api/hires/many", null, 405, "wrong-method")]
    [InlineData("POST", "/api/hires/many", "text/plain", 415, "wrong-kind")]
    [InlineData("POST", "/api/hires/many", null, 400, "invalid")]
    [InlineData("POST", "/api/nowhere", "text/plain", 404, "not-found")]
    [InlineData("PUT", "/api/hires/many/nowhere", null, 404, "not-found")]
    public async Task What_no_endpoint_takes_is_told_by_what_is_wrong_with_it(string method, string path, string? kind, int status, string code)
    {
        using var orla = await firm.As("orla");
        using var response = kind is null ? await orla.SendAsync(method, path) : await orla.SendAsync(method, path, new StringContent("{}", null, kind));
        ((int)response.StatusCode, (await response.JsonAsync()).Text("code")).ShouldBe((status, code));
        if (status == 405)
            response.Content.Headers.Allow.ShouldBe(["POST"]);
    }

    [Fact]
    public async Task A_task_is_ticked_today_where_nothing_is_said()
    {
        using var orla = await firm.As("orla");
        var hire = await FirmFixture.HireAsync(orla, "Varga");
        (await orla.SendAsync("PUT", $"/api/hires/{hire.Text("id")}/tasks/radio-program/done")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task What_cannot_be_a_text_is_pointed_at_however_deep_it_stands()
    {
        using var orla = await firm.As("orla");
        using var response = await orla.SendAsync(
            "POST",
            "/api/hires/many/preview",
            """{"hires":[{"id":"01890000-0000-7000-8000-000000000001","template":"deckhand","start":null,"typed":{"room":["a","\ud800"]}}]}"""
        );
        (await response.ErrorsAsync()).ShouldBe([("/hires/0/typed/room/1", "bad-characters")]);
    }

    // Signing out or in another way would end what the others are called with; the feed would be waited for.
    private static bool Skipped(string path) =>
        path is "/api/session" or "/api/sessions" or "/api/session/password" or "/api/intake/pull" or "/api/first-run"
        || path.EndsWith(".xlsx", StringComparison.Ordinal);

    private static string Filled(string path, string? instead = null) => System.Text.RegularExpressions.Regex.Replace(path, @"\{(\w+)\}", m => instead
            ?? m.Groups[1].Value switch
            {
                "id" or "change" or "file" => SomeId,
                "key" => "room",
                "code" => "deckhand",
                "list" => "jobs",
                "version" => "0",
                _ => "x",
            });

    // Every value of a sound body replaced by each nasty one, or left out; and bodies that are none.
    private static IEnumerable<string> Mutations(JsonNode? sound)
    {
        yield return "";
        yield return "null";
        yield return "[]";
        yield return "{";
        yield return "\"\\ud800\"";
        yield return sound?.ToJsonString() ?? "{}";
        foreach (var pointer in Places(sound, "").ToList())
        {
            foreach (var nasty in Nasty)
                yield return With(sound!, pointer, nasty);
            yield return With(sound!, pointer, null);
        }
    }

    private static IEnumerable<string> Places(JsonNode? node, string at)
    {
        if (at.Length > 0)
            yield return at;
        if (node is JsonObject map)
            foreach (var (name, value) in map.ToList())
            foreach (var place in Places(value, $"{at}/{name}"))
                yield return place;
        if (node is JsonArray list)
            for (var i = 0; i < list.Count; i++)
                foreach (var place in Places(list[i], $"{at}/{i}"))
                    yield return place;
    }

    // Written by hand: what is put in need not be JSON that a node can hold.
    private static string With(JsonNode node, string pointer, string? raw)
    {
        var text = new StringBuilder();
        Write(node, "");
        return text.ToString();

        void Write(JsonNode? value, string at)
        {
            if (at == pointer)
                text.Append(raw);
            else if (value is JsonObject map)
            {
                text.Append('{');
                var first = true;
                foreach (var (name, held) in map)
                {
                    if (raw is null && $"{at}/{name}" == pointer)
                        continue;
                    if (!first)
                        text.Append(',');
                    first = false;
                    text.Append(JsonSerializer.Serialize(name)).Append(':');
                    Write(held, $"{at}/{name}");
                }
                text.Append('}');
            }
            else if (value is JsonArray list)
            {
                text.Append('[');
                var first = true;
                for (var i = 0; i < list.Count; i++)
                {
                    if (raw is null && $"{at}/{i}" == pointer)
                        continue;
                    if (!first)
                        text.Append(',');
                    first = false;
                    Write(list[i], $"{at}/{i}");
                }
                text.Append(']');
            }
            else
                text.Append(value?.ToJsonString() ?? "null");
        }
    }

    // A body as the schema has it, with one of everything.
    private static JsonNode? Sample(JsonNode document, JsonNode schema, int depth)
    {
        if (depth > 7)
            return null;
        if ((string?)schema["$ref"] is { } reference)
            return Sample(document, document["components"]!["schemas"]![reference.Split('/')[^1]]!, depth + 1);
        if ((schema["oneOf"] ?? schema["anyOf"] ?? schema["allOf"]) is JsonArray choices)
            return Sample(document, choices.FirstOrDefault(c => (string?)(c!["type"] as JsonValue) != "null") ?? choices[0]!, depth + 1);
        if (schema["enum"] is JsonArray options)
            return options.First(o => o is not null)!.DeepClone();
        var type = schema["type"] is JsonArray types ? types.Select(t => (string)t!).First(t => t != "null") : (string?)schema["type"];
        switch (type)
        {
            case "array":
                return new JsonArray(Sample(document, schema["items"]!, depth + 1));
            case "boolean":
                return true;
            case "integer" or "number":
                return 1;
            case "string":
                return (string?)schema["format"] switch
                {
                    "uuid" => SomeId,
                    "date" => "2027-03-22",
                    "date-time" => "2027-03-22T00:00:00Z",
                    _ => "deckhand",
                };
            case "object" or null when schema["properties"] is JsonObject properties:
                return new JsonObject(properties.Select(p => KeyValuePair.Create(p.Key, Sample(document, p.Value!, depth + 1))));
            case "object" when schema["additionalProperties"] is JsonObject of:
                return new JsonObject { ["room"] = of.Count == 0 ? "x" : Sample(document, of, depth + 1) };
            default:
                return "x";
        }
    }
}
