using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>
/// Hides each field from each role, with every other field shown at least once while it is hidden, and reads every endpoint as each
/// role: values, searches, formulas, conditions, previews and refusals. Fields are told apart by the digits of their place: for each
/// digit those with a 0 are hidden, then those with a 1.
/// </summary>
public class HiddenFieldTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private static readonly string[] Roles = ["coordinator", "administrator", "payroll", "manager", "owner"];
    private static readonly string[] Readers = ["orla", "piet", "ruth", "callum", "nils"];

    [Fact]
    public async Task Nothing_of_a_field_comes_out_to_whom_it_is_hidden_from()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        using var callum = await firm.As("callum");
        var hire = (await callum.GetAsync("/api/arrivals"))["hires"]!.AsArray()[0]!;
        var (id, employment) = (hire.Text("id"), hire.Text("employmentId"));
        var markers = await Markers.PutAsync(piet, employment);
        await Markers.AskAsync(firm.Database, employment, markers);
        markers.Count.ShouldBeGreaterThan(60);
        (await orla.ToDecideAsync()).Length.ShouldBeGreaterThan(60, "what is asked for is there to be seen");
        markers.Keys.ShouldContain("certificates.number");
        var born = markers.GetValueOrDefault("birth_date");
        var document = await piet.GetAsync("/api/openapi.json");
        var sound = (await piet.GetAsync("/api/fields"))["configuration"]!.AsObject();
        var keys = sound["fields"]!
            .AsArray()
            .Select(f => f!.Text("key"))
            .Where(k => k is not ("start_date" or Conditional))
            .Concat(markers.Keys.Where(IsColumn))
            .ToArray();
        var person = (string)(await firm.Database.AskAsync($"select person_id::text from employments where id = '{employment}'"))!;

        // For whoever sees it all, every marker shows: the test would notice one that is stored nowhere.
        var seen = new List<string>();
        await foreach (var (_, said) in EveryReading.OfAsync(piet, document, id, employment, person, markers, []).ConfigureAwait(false))
            seen.Add(said);
        foreach (var (key, marker) in markers)
            if (!sound["fields"]!.AsArray().Single(f => f!.Text("key") == key.Split('.')[0])!.AsObject().ContainsKey("sensitive"))
                seen.ShouldContain(s => s.Contains(marker), key);

        // Signed in once: what somebody may see is asked anew with every request, and sign-ins are limited by the minute.
        var readers = new Dictionary<string, Caller>();
        foreach (var who in Readers)
            readers[who] = await firm.As(who);
        var told = new List<string>();
        for (var digit = 0; 1 << digit <= keys.Length; digit++)
            foreach (var bit in new[] { 0, 1 })
            {
                var hidden = keys.Where((_, i) => ((i >> digit) & 1) == bit).ToHashSet();
                // What is hidden as a whole is hidden column by column.
                hidden.UnionWith(markers.Keys.Where(m => hidden.Contains(m.Split('.')[0])));
                await Markers.PublishAsync(piet, orla, Hide(sound, hidden, markers));
                foreach (var (who, reader) in readers)
                {
                    await foreach (var (address, said) in EveryReading.OfAsync(reader, document, id, employment, person, markers, hidden))
                    foreach (var key in hidden)
                        if (markers.TryGetValue(key, out var marker) && said.Contains(marker, StringComparison.Ordinal))
                            told.Add($"{who} learns {key} from {address}");
                    if (who is "orla" or "piet")
                        told.AddRange(await AskAsync(reader, hidden, markers, born, employment));
                    if (
                        who != "nils"
                        && (await reader.GetAsync("/api/arrivals"))["hires"]!.AsArray().Single(h => h!.Text("id") == id)!["missing"]!
                            .AsArray()
                            .Any(m => (string)m! == Conditional)
                    )
                        told.Add($"{who} learns by what is missing that a hidden condition holds");
                }
            }
        foreach (var reader in readers.Values)
            reader.Dispose();
        told.Distinct().ShouldBeEmpty();
    }

    private static bool IsColumn(string key) => key.Contains('.', StringComparison.Ordinal);

    // Required by a condition over what is hidden; itself it is always seen.
    private const string Conditional = "overtime_agreed";

    private static JsonObject Hide(JsonObject sound, HashSet<string> hidden, Dictionary<string, string> markers)
    {
        var configuration = sound.DeepClone().AsObject();
        foreach (var field in configuration["fields"]!.AsArray())
        {
            if (hidden.Contains(field!.Text("key")))
            {
                foreach (var role in Roles)
                    field!["access"]?.AsObject().Remove(role);
                // Somebody can fill it still, or nobody could save a record.
                field!["access"]!.AsObject()["newcomer"] = "edit";
            }
            foreach (var column in field!["columns"]?.AsArray() ?? [])
                if (hidden.Contains($"{field.Text("key")}.{column!.Text("key")}"))
                    column!["access"] = new JsonObject { ["newcomer"] = "edit" };
            if (field!.Text("key") == Conditional)
                field!["requiredWhen"] = string.Join(
                    " or ",
                    hidden
                        .Where(h => !IsColumn(h) && markers.TryGetValue(h, out var m) && m.StartsWith("Mk", StringComparison.Ordinal))
                        .Take(12)
                        .Select(h => $"{h} == '{markers[h]}'")
                );
        }
        return configuration;
    }

    // Formulas, conditions and guesses: what is hidden counts as empty in all of them.
    private static async Task<List<string>> AskAsync(Caller reader, HashSet<string> hidden, Dictionary<string, string> markers, string? born, string employment)
    {
        var told = new List<string>();
        foreach (var some in hidden.Where(h => !IsColumn(h)).Chunk(25))
        {
            using var people = await reader.SendAsync("POST", "/api/templates/people", new { when = string.Join(" or ", some.Select(k => $"{k} != null")) });
            var counted = await people.JsonAsync();
            if (counted["count"]?.GetValue<int>() > 0)
                told.Add($"a condition over one of {string.Join(' ', some)} names people");
            counted["trouble"].ShouldBeNull();
        }
        foreach (var key in hidden.Where((k, i) => k is "tax_number" || i % 4 == 0))
        {
            using var touches = await reader.SendAsync(
                "POST",
                "/api/templates/deckhand/touches",
                new
                {
                    spec = new
                    {
                        name = "Deckhand",
                        addOn = false,
                        buildsOn = "crew-basics",
                        when = (string?)null,
                        order = 0,
                        opens = true,
                        values = new Dictionary<string, object> { [key] = "x", ["roster_note"] = new { formula = key } },
                        lists = new { },
                    },
                }
            );
            var said = await touches.Content.ReadAsStringAsync();
            if (
                said.Contains("sealed:", StringComparison.Ordinal)
                || (markers.TryGetValue(key, out var marker) && said.Contains(marker, StringComparison.Ordinal))
            )
                told.Add($"touches tell {key}");
        }
        // Whom a draft touches, by a condition over what is hidden.
        var fields = await reader.GetAsync("/api/fields");
        foreach (var key in hidden.Where(k => !IsColumn(k) && markers.ContainsKey(k)).Take(3))
        {
            var counts = new List<string>();
            foreach (var condition in new[] { $"{key} == '{markers[key]}' or {key} == null", $"{key} == 'nobody has this' or {key} == null" })
            {
                var draft = fields["configuration"]!.DeepClone().AsObject();
                var room = draft["fields"]!.AsArray().Single(f => f!.Text("key") == "room")!;
                room["showWhen"] = condition;
                using var review = await reader.SendAsync("POST", "/api/fields/draft/review", new JsonObject { ["configuration"] = draft }.ToJsonString());
                var said = await review.Content.ReadAsStringAsync();
                review.IsSuccessStatusCode.ShouldBeTrue(said);
                counts.Add(JsonNode.Parse(said)!["touched"]!.ToJsonString());
            }
            if (counts[0] != counts[1])
                told.Add($"a draft's reach tells {key}: {string.Join(" / ", counts)}");
        }
        if (born is not null && hidden.Contains("birth_date"))
        {
            var record = await reader.GetAsync($"/api/records/{employment}");
            foreach (var guess in new[] { born, "1950-01-02" })
            {
                using var known = await reader.SendAsync(
                    "POST",
                    "/api/hires/known",
                    new
                    {
                        givenName = record.Text("givenName"),
                        familyName = record.Text("familyName"),
                        birthDate = guess,
                        email = (string?)null,
                        phone = (string?)null,
                        start = (string?)null,
                    }
                );
                if ((await known.Content.ReadAsStringAsync()).Contains("born", StringComparison.Ordinal))
                    told.Add("known people confirm a hidden birth date");
            }
        }
        return told;
    }
}
