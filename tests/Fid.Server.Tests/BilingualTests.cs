using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What the firm enters can be in two languages; each reader has their own, and either is understood.</summary>
public class BilingualTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task What_the_firm_calls_its_tasks_and_stages_is_read_in_the_readers_language()
    {
        using var orla = await firm.As("orla");
        using var greta = await firm.As("orla");
        greta.Language = "de";
        // In turn, since one server keeps the tasks of hires for all its readers.
        foreach (
            var (reader, stage, task, team) in new[]
            {
                (orla, "Prepare", "Order radio", "Stores"),
                (greta, "Vorbereiten", "Funkgerät bestellen", "Lager"),
                (orla, "Prepare", "Order radio", "Stores"),
            }
        )
        {
            var hire = await FirmFixture.HireAsync(reader, "Brandt");
            (hire["holdUp"]!.Text("name"), hire["holdUp"]!.Text("ownerName")).ShouldBe((task, team));
            (await reader.GetAsync("/api/arrivals"))["stages"]!.AsArray()[0]!.Text("name").ShouldBe(stage);
            var checklist = await reader.GetAsync($"/api/hires/{hire["id"]}");
            checklist["stages"]!.AsArray()[0]!.Text("name").ShouldBe(stage);
            var program = checklist["tasks"]!.AsArray().Single(t => t!.Text("key") == "radio-program")!;
            program["after"]![0]!.Text("name").ShouldBe(task);
            (await reader.GetAsync("/api/fields"))["stages"]!.AsArray()[0]!.Text("name").ShouldBe(stage);
        }
        using var nils = await firm.As("nils");
        nils.Language = "de";
        (await nils.GetAsync("/api/tasks"))["tasks"]!.AsArray().Select(t => t!.Text("name")).ShouldContain("Funkgerät bestellen");
    }

    [Fact]
    public async Task What_a_task_tells_is_read_in_the_readers_language_and_in_the_other_where_there_is_only_that()
    {
        using var orla = await firm.As("orla");
        var spec = (await orla.GetAsync("/api/templates/deckhand"))["live"]!;
        var order = spec["lists"]!["tasks"]!.AsArray().Single(t => t!.Text("key") == "radio-order")!["properties"]!;
        (order["contact"], order["contactWhy"], order["contactWhyDe"]) = ("coordinator", "Knows the chandler", "Kennt den Ausrüster");
        spec["lists"]!["tasks"]!.AsArray().Single(t => t!.Text("key") == "radio-program")!["properties"]!["instructionsDe"] = "Nach der Liste an Bord.";
        await orla.PublishAsync("deckhand", (await orla.DraftAsync("deckhand", spec, null)).Text("version"));
        var brandt = await FirmFixture.HireAsync(orla, "Brandt");
        var touched = (await orla.GetAsync("/api/templates/deckhand/updates")).AsArray().Single(h => h!.Text("id") == brandt.Text("id"))!;
        string[] facts = [.. touched["facts"]!.AsArray().Where(f => f!.Text("fate") == "take").Select(f => f!.Text("fact"))];
        facts.ShouldContain("tasks/radio-order/contactWhyDe");
        (
            await orla.SendAsync("POST", "/api/templates/updates", new { hires = new[] { new { id = brandt.Text("id"), take = facts } } })
        ).EnsureSuccessStatusCode();

        foreach (
            var (language, instructions, why) in new[]
            {
                ("en", "Marine VHF, one each.", "Knows the chandler"),
                ("de", "UKW-Seefunkgerät, eines je Person.", "Kennt den Ausrüster"),
            }
        )
        {
            orla.Language = language;
            var tasks = (await orla.GetAsync($"/api/hires/{brandt["id"]}"))["tasks"]!.AsArray();
            var radio = tasks.Single(t => t!.Text("key") == "radio-order")!;
            radio.Text("instructions").ShouldStartWith(instructions);
            radio.Text("contactWhy").ShouldBe(why);
            tasks.Single(t => t!.Text("key") == "radio-program")!.Text("instructions").ShouldBe("Nach der Liste an Bord.");
            using var nils = await firm.As("nils");
            nils.Language = language;
            (await nils.GetAsync("/api/tasks"))["tasks"]!
                .AsArray()
                .First(t => t!.Text("key") == "radio-order")!
                .Text("instructions")
                .ShouldStartWith(instructions);
        }
    }

    [Fact]
    public async Task A_template_is_called_by_its_name_in_the_readers_language_and_meant_by_either()
    {
        using var orla = await firm.As("orla");
        foreach (var (language, name) in new[] { ("en", "Deckhand"), ("de", "Decksleute") })
        {
            orla.Language = language;
            (await orla.GetAsync("/api/templates")).AsArray().Single(t => t!.Text("code") == "deckhand")!.Text("name").ShouldBe(name);
            var brandt = await FirmFixture.HireAsync(orla, "Brandt");
            (await orla.GetAsync($"/api/hires/{brandt["id"]}")).Text("template").ShouldBe(name);
            (await orla.GetAsync($"/api/records/{brandt["employmentId"]}")).ToJsonString().ShouldContain(name);
            (await orla.GetAsync("/api/goto?q=decksleute"))!.ToJsonString().ShouldContain("deckhand");
        }
        orla.Language = "en";
        var run = await orla.ImportAsync(
            "people",
            "Role template,Given name,Family name,E-mail,Start date,Site\ndecksleute,Zwei,Sprachen,zwei@example.org,2027-05-03,skerry\n"
        );
        var row = (await orla.GetAsync($"/api/imports/{run.Text("id")}/rows"))["rows"]!.AsArray().ShouldHaveSingleItem()!;
        row["problems"]!.AsArray().ShouldBeEmpty();
    }

    [Theory]
    [InlineData("en", "by the hour", "by the month")]
    [InlineData("de", "pro Stunde", "pro Monat")]
    public async Task History_tells_choices_by_their_labels_in_the_readers_language(string language, string before, string after)
    {
        using var orla = await firm.As("orla");
        orla.Language = language;
        var id = await orla.PersonAsync(language == "en" ? "Brandt" : "Varga");
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { paid_by = "month" },
                from = "2027-04-01",
                why = "Paid by the month from April, at the old rate for now.",
            }
        );
        (await orla.GetAsync($"/api/records/{id}/history"))["values"]!
            .AsArray()
            .Where(v => v!.Text("field") == "paid_by")
            .Select(v => v!.Text("display"))
            .ShouldBe([before, before, after]);
        var differences = await orla.GetAsync($"/api/records/{id}/compare?on=2027-03-31&with=2027-04-01");
        var change = differences.AsArray().Single(d => d!.Text("field") == "paid_by")!;
        (change["before"]!.Text("display"), change["after"]!.Text("display")).ShouldBe((before, after));
    }

    [Theory]
    [InlineData("name", "DECKSLEUTE")]
    [InlineData("nameDe", "Deckhand")]
    public async Task No_two_templates_have_one_name_in_whichever_language(string property, string taken)
    {
        using var orla = await firm.As("orla");
        var spec = (await orla.GetAsync("/api/templates/galley-cook"))["live"]!;
        spec[property] = taken;
        var draft = await orla.DraftAsync("galley-cook", spec, null);
        using (var refused = await orla.SendAsync("POST", "/api/templates/galley-cook/draft/publish", new { why = (string?)null }, draft.Text("version")))
            (await refused.ErrorsAsync()).ShouldBe([($"/{property}", "not-unique")]);
        (await orla.SendAsync("DELETE", "/api/templates/galley-cook/draft", ifMatch: draft.Text("version"))).EnsureSuccessStatusCode();
    }
}
