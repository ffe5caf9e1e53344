using System.Net;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Whatever is sent, the answer is problem details that name what is wrong, and never a fault of ours.</summary>
public class BadInputTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private static readonly string[] Bodies =
    [
        "",
        "null",
        "[]",
        "7",
        "\"text\"",
        "{",
        "{\"typed\":7}",
        "{\"id\":\"x\",\"template\":null,\"start\":5,\"typed\":[]}",
        "{\"changes\":\"x\"}",
        "{\"changes\":{\"pay_rate\":{\"deep\":[1]}},\"from\":null,\"why\":null}",
        "{\"changes\":{},\"from\":\"0000-00-00\",\"why\":null}",
        "{\"start\":\"soon\",\"why\":null}",
        "{\"start\":\"9999-12-31\",\"why\":\"\\u0000\"}",
        "{\"start\":\"-9998-01-01\",\"why\":null}",
        "{\"why\":5}",
        "{\"done\":\"2027-02-30\"}",
        "{\"done\":\"0001-01-01\"}",
        "{\"email\":\"\\u0000\",\"password\":\"x\"}",
        "{\"email\":\"a\",\"password\":null}",
        "{\"unknown\":1}",
        "{\"language\":\"tlh\"}",
    ];

    // Texts that have broken programs before.
    private static readonly string[] Nasty =
    [
        "'; drop table people; --",
        "<script>alert(1)</script>",
        "\u0000",
        "\ud83d",
        "\u202Etxt.exe",
        "%s%n",
        "../../etc/passwd",
        "NULL",
        "Ω≈ç√∫",
        "社會科學院語學研究所",
        "ثم نفس سقطت",
        "👩‍👩‍👧‍👧",
        "T̴̡̩o͢o͠",
        "a\r\nSet-Cookie: x=1",
        "=cmd|' /C calc'!A0",
        "{{7*7}}",
        "\u200b",
        new('x', 5000),
    ];

    [Fact]
    public async Task Bodies_of_the_wrong_kind_are_refused_with_problem_details()
    {
        using var orla = await firm.As("orla");
        var hire = await FirmFixture.HireAsync(orla, "Lind");
        (string, string)[] calls =
        [
            ("POST", "/api/hires"),
            ("POST", "/api/hires/preview"),
            ("PUT", $"/api/hires/{hire["id"]}/start"),
            ("PUT", $"/api/hires/{hire["id"]}/tasks/badge/skipped"),
            ("PUT", $"/api/records/{hire["employmentId"]}"),
            ("POST", $"/api/records/{hire["employmentId"]}/readings"),
            ("PUT", "/api/session/language"),
            ("POST", "/api/first-run"),
            ("PUT", $"/api/hires/{hire["id"]}/tasks/badge/done"),
        ];
        foreach (var (method, path) in calls)
        foreach (var body in Bodies)
        {
            using var response = await orla.SendAsync(method, path, body, "\"1\"");
            ((int)response.StatusCode).ShouldBeLessThan(500, $"{method} {path} {body}");
            if (response.IsSuccessStatusCode)
                continue;
            response.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json", $"{method} {path} {body}");
            (await response.JsonAsync()).Text("code").ShouldNotBeNullOrEmpty();
        }
    }

    [Theory]
    [InlineData("""{"id":"x","template":"deckhand","start":null,"typed":{}}""", "/id")]
    [InlineData("""{"id":"01890000-0000-7000-8000-000000000000","template":"deckhand","start":"2027-13-01","typed":{}}""", "/start")]
    [InlineData("""{"id":"01890000-0000-7000-8000-000000000000","template":"deckhand","start":null,"typed":{},"site":"skerry"}""", "/site")]
    [InlineData("""{"id":"01890000-0000-7000-8000-000000000000","template":7,"start":null,"typed":{}}""", "/template")]
    public async Task The_part_of_a_body_that_cannot_be_read_is_pointed_at(string body, string pointer)
    {
        using var orla = await firm.As("orla");
        using var response = await orla.SendAsync("POST", "/api/hires", body);
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await response.ErrorsAsync()).Single().Pointer.ShouldBe(pointer);
    }

    [Fact]
    public async Task Nasty_texts_in_every_field_are_kept_as_they_are_or_refused_at_the_field()
    {
        using var orla = await firm.As("orla");
        var hire = await FirmFixture.HireAsync(orla, "Phạm");
        string[] fields = ["given_name", "known_as", "email", "phone", "street", "emergency_name", "badge", "job", "kind", "birth_date", "pay_rate", "manager"];
        foreach (var text in Nasty)
        foreach (var field in fields)
        {
            var version = (await orla.GetAsync($"/api/records/{hire["employmentId"]}")).Text("version");
            using var response = await orla.SendAsync(
                "PUT",
                $"/api/records/{hire["employmentId"]}",
                new
                {
                    changes = new Dictionary<string, string> { [field] = text },
                    from = (string?)null,
                    why = (string?)null,
                },
                version
            );
            if (response.StatusCode == HttpStatusCode.BadRequest)
                (await response.ErrorsAsync()).Select(e => e.Pointer).ShouldContain(p => p.StartsWith($"/changes/{field}"), $"{field} {text}");
            else
                response.StatusCode.ShouldBe(HttpStatusCode.OK, $"{field} {text}");
        }
    }

    [Fact]
    public async Task Nasty_texts_in_addresses_and_queries_are_answered()
    {
        using var orla = await firm.As("orla");
        foreach (var text in Nasty.Select(Uri.EscapeDataString))
        foreach (
            var path in new[]
            {
                $"/api/goto?q={text}",
                $"/api/people?q={text}",
                $"/api/people?after={text}",
                $"/api/dates?text={text}",
                $"/api/templates/{text}",
                $"/api/hires/{text}",
                $"/api/hires/01890000-0000-7000-8000-000000000000/start-change?to={text}",
            }
        )
        {
            using var response = await orla.SendAsync("GET", path);
            ((int)response.StatusCode).ShouldBeLessThan(500, path);
        }
    }

    [Fact]
    public async Task A_body_that_is_too_large_is_refused_with_the_reason()
    {
        using var orla = await firm.As("orla");
        using var response = await orla.SendAsync(
            "POST",
            "/api/hires/preview",
            new
            {
                id = Guid.NewGuid(),
                template = new string('x', 2_000_000),
                start = (string?)null,
                typed = new { },
            }
        );
        response.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await response.JsonAsync()).Text("code").ShouldBe("too-large");
    }
}
