using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Two server instances on one database are one Fid.</summary>
public class LiveTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task What_is_ticked_at_one_instance_is_told_and_seen_at_the_other()
    {
        await using var other = new FidInstance(firm.Database.Connection);
        using var orla = await firm.As("orla");
        using var piet = await Caller.SignedInAsync(other.Address, "piet");
        using var stream = await piet.SendAsync("GET", "/api/live");
        using var lines = new StreamReader(await stream.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken));
        (await DataAsync(lines)).ShouldBe("all"); // the line is open
        var hire = await FirmFixture.HireAsync(orla, "Okafor");

        await orla.SendAsync("PUT", $"/api/hires/{hire["id"]}/tasks/contract-sign/done", new { done = (string?)null });
        (await DataAsync(lines)).ShouldBe($"hire:{hire["id"]}");
        var seen = await FirmFixture.HireAsync(piet, "Okafor");
        seen["readiness"]!["done"]!.GetValue<int>().ShouldBe(hire["readiness"]!["done"]!.GetValue<int>() + 1);
    }

    [Fact]
    public async Task A_server_that_stops_ends_the_streams_of_its_browsers_in_an_orderly_way()
    {
        var other = new FidInstance(firm.Database.Connection);
        using var orla = await Caller.SignedInAsync(other.Address, "orla");
        using var stream = await orla.SendAsync("GET", "/api/live");
        using var lines = new StreamReader(await stream.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken));
        (await DataAsync(lines)).ShouldBe("all");
        var rest = lines.ReadToEndAsync(TestContext.Current.CancellationToken);
        await other.DisposeAsync();
        await rest.ShouldNotThrowAsync();
    }

    [Fact]
    public async Task A_listener_hears_of_what_they_may_read_and_of_nothing_else()
    {
        using var orla = await firm.As("orla");
        using var callum = await firm.As("callum"); // a manager
        var own = (await callum.GetAsync("/api/arrivals"))["hires"]!.AsArray()[0]!;
        var foreign = await FirmFixture.HireAsync(orla, "Lind");
        foreach (var (who, hears) in new[] { ("callum", true), ("nils", false), ("ines", false), ("piet", true) })
        {
            using var listener = await firm.As(who);
            using var stream = await listener.SendAsync("GET", "/api/live");
            using var lines = new StreamReader(await stream.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken));
            (await DataAsync(lines)).ShouldBe("all");
            await orla.SaveAsync(foreign.Text("employmentId"), "recruited_by", $"A friend of {who}");
            await orla.SaveAsync(own.Text("employmentId"), "recruited_by", $"A friend of {who}");
            var heard = await HeardUntilNowAsync(orla, lines, $"LIVE-{who}");
            heard.Contains($"record:{own.Text("employmentId")}").ShouldBe(hears, who);
            heard.Contains($"record:{foreign.Text("employmentId")}").ShouldBe(who == "piet", who);
        }
    }

    [Theory]
    [InlineData("piet", true)] // another coordinator
    [InlineData("ruth", true)] // payroll, who reads templates
    [InlineData("callum", false)] // a manager
    public async Task A_template_that_is_changed_is_told_to_those_who_read_templates(string who, bool hears)
    {
        using var orla = await firm.As("orla");
        using var listener = await firm.As(who);
        using var stream = await listener.SendAsync("GET", "/api/live");
        using var lines = new StreamReader(await stream.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken));
        (await DataAsync(lines)).ShouldBe("all");
        var code = $"heard-by-{who}";
        var spec = (await orla.GetAsync("/api/templates/galley-cook"))["live"]!;
        spec["name"] = $"Heard by {who}";
        spec["nameDe"] = null;
        var draft = await orla.DraftAsync(code, spec, null);
        (await orla.SendAsync("DELETE", $"/api/templates/{code}/draft", ifMatch: draft.Text("version"))).EnsureSuccessStatusCode();
        var heard = await HeardUntilNowAsync(orla, lines, code);
        heard.Count(c => c == "templates").ShouldBe(hears ? 2 : 0);
    }

    // Lists are everybody's: what comes before an entry is told of is all that a listener hears of what was before it.
    private static async Task<List<string>> HeardUntilNowAsync(Caller orla, StreamReader lines, string code)
    {
        using var listed = await orla.SendAsync(
            "POST",
            "/api/lists/teams/entries",
            new
            {
                code,
                name = code,
                values = new { },
            }
        );
        listed.StatusCode.ShouldBe(System.Net.HttpStatusCode.Created, await listed.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        var heard = new List<string>();
        while (await DataAsync(lines) is var change and not "lists")
            heard.Add(change);
        return heard;
    }

    [Fact]
    public async Task A_session_begun_at_one_instance_is_known_at_the_other_and_after_a_restart()
    {
        // Cookies do not know ports: the same caller, sent to another instance.
        using var orla = await firm.As("orla");
        await using var other = new FidInstance(firm.Database.Connection);
        using var moved = orla.MovedTo(other.Address);
        (await moved.GetAsync("/api/session"))["user"]!.Text("name").ShouldBe("Orla Dunmore");
        (
            await moved.SendAsync(
                "POST",
                "/api/hires/preview",
                new
                {
                    id = Guid.NewGuid(),
                    template = "deckhand",
                    start = (string?)null,
                    typed = new { },
                }
            )
        ).EnsureSuccessStatusCode();
    }

    // The next event's data; waits for it as long as the test may take.
    private static async Task<string> DataAsync(StreamReader lines)
    {
        while (await lines.ReadLineAsync(TestContext.Current.CancellationToken) is { } line)
            if (line.StartsWith("data: ", StringComparison.Ordinal) && line.Length > 6)
                return line[6..];
        throw new EndOfStreamException();
    }
}
