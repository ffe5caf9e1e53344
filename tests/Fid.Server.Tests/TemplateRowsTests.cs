using System.Text;
using System.Text.Json.Nodes;
using Fid.Acts.FieldDrafts;
using Fid.Acts.Fields;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Rows that templates give, hires under way that get newer ones, and single fields of before that become rows.</summary>
public class TemplateRowsTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_newer_template_gives_changes_and_takes_rows_but_none_that_somebody_has_filled_in()
    {
        using var orla = await firm.As("orla");
        var (plain, filled) = (await orla.OpenAsync("Plain"), await orla.OpenAsync("Filled"));
        var uniform = await RowAsync(filled.Text("employmentId"), "items.item", "UNIFORM");
        await orla.SaveAsync(filled.Text("employmentId"), $"items.serial@{uniform}", "U-17");
        var jacket = await RowAsync(filled.Text("employmentId"), "items.item", "LIFEJACKET");
        await orla.SaveAsync(filled.Text("employmentId"), $"items.note@{jacket}", "Large, in the blue box");

        var spec = (await orla.GetAsync("/api/templates/deckhand"))["live"]!;
        Entries(spec, "items").Add(JsonNode.Parse("""{"key":"UNIFORM","properties":{},"drop":true}"""));
        Entries(spec, "items").Add(JsonNode.Parse("""{"key":"LIFEJACKET","properties":{"note":"Serviced in May"},"drop":false}"""));
        Entries(spec, "items").Add(JsonNode.Parse("""{"key":"TOOLROLL","properties":{"quantity":2},"drop":false}"""));
        // By what the row is about, a template says more of it: here also one that no list of its names.
        spec["values"]!["items.size@LIFEJACKET"] = "M";
        spec["values"]!["items.size@LAPTOP"] = "13 inch";
        foreach (
            var (address, code) in new[] { ("items.size@NOTHING", "unknown-entry"), ("items.nothing@LAPTOP", "unknown-field"), ("items.size", "unknown-field") }
        )
        {
            var wrong = spec.DeepClone();
            wrong["values"]![address] = "x";
            using var example = await orla.SendAsync(
                "POST",
                "/api/templates/deckhand/example",
                new JsonObject
                {
                    ["spec"] = wrong,
                    ["use"] = null,
                    ["facts"] = new JsonObject(),
                    ["start"] = null,
                }.ToJsonString()
            );
            (await example.JsonAsync())["findings"]!.AsArray().ShouldContain(f => f!.Text("key") == address && f!.Text("code") == code, address);
        }
        var version = (string?)(await orla.GetAsync("/api/templates/deckhand"))["draft"]?["version"];
        await orla.PublishAsync("deckhand", (await orla.DraftAsync("deckhand", spec, version)).Text("version"));
        var before = await firm.Database.AskAsync(Snapshot);
        var decided = (await orla.GetAsync("/api/templates/deckhand/updates"))
            .AsArray()
            .Where(u => u!.Text("id") == plain.Text("id") || u!.Text("id") == filled.Text("id"))
            .Select(u => new { id = u!.Text("id"), take = u!["facts"]!.AsArray().Where(f => f!.Text("fate") == "take").Select(f => f!.Text("fact")).ToArray() })
            .ToArray();
        decided[0]
            .take.ShouldBe(
                ["items/LIFEJACKET", "items/TOOLROLL", "items/UNIFORM", "values/items.size@LAPTOP", "values/items.size@LIFEJACKET"],
                ignoreOrder: true
            );
        using var applied = await orla.SendAsync("POST", "/api/templates/updates", new { hires = decided });
        var run = await applied.JsonAsync();

        (await ItemsAsync(plain)).ShouldBe(
            "LAPTOP  13 inch, LIFEJACKET Serviced in May M, LOCKER At the pier, ask for the kiosk key , RADIO Marine VHF , TOOLROLL  "
        );
        // What somebody wrote stays, and what they filled in is not taken from them.
        (await ItemsAsync(filled)).ShouldBe(
            "LAPTOP  13 inch, LIFEJACKET Large, in the blue box M, LOCKER At the pier, ask for the kiosk key , RADIO Marine VHF , TOOLROLL  , UNIFORM  "
        );
        (
            await firm.Database.AskAsync(
                $"""
                select q.value::text from record_values q join record_values i on i.row_id = q.row_id and i.field = 'items.item'
                where q.field = 'items.quantity' and q.owner_id = '{plain["employmentId"]}' and i.value = '"TOOLROLL"'
                """
            )
        ).ShouldBe("2");
        (await orla.GetAsync("/api/templates/deckhand/updates")).AsArray().Select(u => u!.Text("id")).ShouldNotContain(plain.Text("id"));
        // Whoever is hired now starts with all of it.
        (await ItemsAsync(await orla.OpenAsync("Later"))).ShouldBe(await ItemsAsync(plain));
        await firm.EveryProjectionFollowsAsync();

        using var undone = await orla.SendAsync("POST", $"/api/templates/updates/{run["id"]}/undo");
        (await undone.JsonAsync())["left"]!.AsArray().ShouldBeEmpty();
        (
            await firm.Database.AskAsync(
                Snapshot.Replace("true", $"v.owner_id <> (select employment_id from hires order by entered desc, id desc limit 1)", StringComparison.Ordinal)
            )
        ).ShouldNotBeNull();
        (await ItemsAsync(plain)).ShouldStartWith("LIFEJACKET By size ");
        await firm.EveryProjectionFollowsAsync();

        async Task<string> ItemsAsync(JsonNode hire) =>
            (string)
                (
                    await firm.Database.AskAsync(
                        $"""
                        select string_agg(item || ' ' || coalesce(note, '') || ' ' || coalesce(size, ''), ', ' order by item) from (
                          select row_id, max(value #>> array[]::text[]) filter (where field = 'items.item') as item,
                            max(value #>> array[]::text[]) filter (where field = 'items.note') as note,
                            max(value #>> array[]::text[]) filter (where field = 'items.size') as size
                          from record_values where owner_id = '{hire["employmentId"]}' and row_id is not null and upper_inf(known) group by 1) r
                        """
                    )
                )!;
    }

    private const string Snapshot = "select md5(string_agg(v.id::text, ' ' order by v.id)) from record_values v where upper_inf(v.known) and true";

    [Fact]
    public async Task Somebody_known_gets_no_second_row_for_what_they_hold_already()
    {
        using var orla = await firm.As("orla");
        var known = await orla.OpenAsync("Returner");
        var first = known.Text("employmentId");
        var sea = await RowAsync(first, "certificates.kind", "SEA");
        await orla.SaveAsync(first, $"certificates.number@{sea}", "S-9");
        var own = Guid.NewGuid();
        await orla.SaveAsync(first, $"certificates.kind@{own}", "MED");
        (await orla.SendAsync("PUT", $"/api/hires/{known["id"]}/outcome", new { outcome = "withdrawn", why = "Another year" })).EnsureSuccessStatusCode();
        var person = await firm.Database.AskAsync($"select person_id::text from employments where id = '{first}'");
        var again = await orla.OpenAsync("Returner", (string)person!);
        var rows = (string)
            (
                await firm.Database.AskAsync(
                    $"""
                    select string_agg(value #>> array[]::text[], ' ' order by value) from record_values
                    where field = 'certificates.kind' and owner_id = '{person}' and upper_inf(known)
                    """
                )
            )!;
        rows.ShouldBe("MED MED RADIO SEA", "One of them by hand, as it was.");
        Records.Field(await orla.GetAsync($"/api/records/{again["employmentId"]}"), "certificates")["rows"]!["rows"]!.AsArray().Count.ShouldBe(4);
        (await firm.Database.AskAsync($"select count(*) from record_values where field like 'items.%' and owner_id = '{again["employmentId"]}'")).ShouldNotBe(
            0L
        );
    }

    [Fact]
    public async Task Single_fields_of_before_become_rows_once_with_their_days_in_a_firms_own_configuration_too()
    {
        using var piet = await firm.As("piet");
        using var orla = await firm.As("orla");
        // The firm as it was: a configuration of its own with the fields of before, one of which a condition reads, and a draft.
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.DeepClone().AsObject();
        var fields = configuration["fields"]!.AsArray();
        foreach (var rows in new[] { "certificates", "items" })
            fields.Remove(fields.Single(f => f!.Text("key") == rows));
        foreach (
            var (key, type, of) in new[]
            {
                ("certificates_held", "choices", "person"),
                ("medical_until", "date", "person"),
                ("first_aid_until", "date", "person"),
                ("items_held", "choices", "employment"),
                ("locker", "text", "employment"),
                ("keys", "text", "employment"),
                ("laptop", "text", "employment"),
                ("radio", "text", "employment"),
            }
        )
            fields.Add(
                new JsonObject
                {
                    ["key"] = key,
                    ["label"] = key,
                    ["section"] = "papers",
                    ["type"] = type,
                    ["of"] = of,
                    ["list"] = type == "choices" ? key.Split('_')[0] : null,
                    ["access"] = new JsonObject { ["coordinator"] = "edit", ["administrator"] = "edit" },
                }
            );
        foreach (var field in fields.Where(f => f!["list"] is null))
            field!.AsObject().Remove("list");
        fields.Single(f => f!.Text("key") == "room")!["showWhen"] = "locker == null";
        var written = Encoding.UTF8.GetBytes(configuration.ToJsonString());
        var version = Convert.ToInt32(await firm.Database.AskAsync("select coalesce(max(version), 0) + 1 from field_versions"), null);
        await firm.Database.AskAsync(
            $"""
            insert into field_versions (version, configuration, hash, at, by_name) values ({version}, '{configuration.ToJsonString().Replace(
                "'",
                "''",
                StringComparison.Ordinal
            )}',
              '{LiveFieldsLoader.HashOf(written)}', now(), 'Piet')
            """
        );
        (
            await piet.SendAsync("PUT", "/api/fields/draft", new JsonObject { ["configuration"] = configuration.DeepClone() }.ToJsonString())
        ).EnsureSuccessStatusCode();
        var id = (await FirmFixture.HireAsync(orla, "Okafor")).Text("employmentId");
        await firm.Database.AskAsync(
            $"""
            with c as (
              insert into changes (id, at, by_name, origin, action, subject_id)
              values (gen_random_uuid(), now(), 'Orla', 'record', 'record.changed', '{id}') returning id, at)
            insert into record_values (id, owner_id, owner_kind, field, value, source, effective, known, change_id)
            select gen_random_uuid(), case kind when 'Person' then e.person_id else e.id end, kind, field, value::jsonb, 'typed',
              during::daterange, tstzrange(c.at, null), c.id
            from c, employments e, (values ('Person', 'certificates_held', '["SEA"]', '[2026-06-01,2026-07-01)'),
              ('Person', 'certificates_held', '["SEA","AID"]', '[2026-01-01,2026-06-01)'),
              ('Person', 'medical_until', '"2027-08-31"', '[2026-02-01,)'), ('Person', 'first_aid_until', '"2028-01-31"', '[2026-03-01,)'),
              ('Employment', 'laptop', '"LT-4"', '[2027-04-01,)'), ('Employment', 'keys', '"K 7"', '[2027-04-01,)'),
              ('Employment', 'locker', '"12"', '[2027-04-01,)'), ('Employment', 'allowance', '46', '[2027-04-01,)'),
              ('Employment', 'allowance_for', '"nights"', '[2027-04-01,)'))
              v(kind, field, value, during)
            where e.id = '{id}'
            """
        );
        (await CarryAsync()).ShouldBe(8, "The locker stays, since a condition reads it.");
        (await CarryAsync()).ShouldBe(0);

        (
            await firm.Database.AskAsync(
                $"""
                select string_agg(v.field || '=' || (v.value #>> array[]::text[]) || ' ' || v.effective, E'\n' order by v.field, v.effective, v.value)
                from record_values v join employments e on v.owner_id in (e.id, e.person_id)
                where e.id = '{id}' and v.row_id is not null and upper_inf(v.known) and v.change_id in (select id from changes where origin = 'rows')
                """
            )
        ).ShouldBe(
            """
            certificates.kind=AID [2026-01-01,2026-06-01)
            certificates.kind=SEA [2026-01-01,2026-06-01)
            certificates.kind=MED [2026-02-01,)
            certificates.kind=SEA [2026-06-01,2026-07-01)
            certificates.kind=AID [2026-06-01,)
            certificates.until=2027-08-31 [2026-02-01,)
            certificates.until=2028-01-31 [2026-03-01,)
            items.item=KEYS [2027-04-01,)
            items.item=LAPTOP [2027-04-01,)
            items.serial=K 7 [2027-04-01,)
            items.serial=LT-4 [2027-04-01,)
            pay_elements.amount=46 [2027-04-01,)
            pay_elements.kind=allowance [2027-04-01,)
            pay_elements.note=nights [2027-04-01,)
            """
        );
        (await firm.Database.AskAsync("select name || ' ' || name_de from list_entries where list = 'items' and code = 'KEYS'")).ShouldBe("Keys Schlüssel");
        var live = await piet.GetAsync("/api/fields");
        foreach (var now in new[] { live["configuration"]!, live["draft"]!["configuration"]! })
        {
            var keys = now["fields"]!.AsArray().Select(f => f!.Text("key")).ToList();
            keys.ShouldContain("certificates");
            keys.ShouldContain("items");
            keys.ShouldContain("locker");
            keys.Intersect(["certificates_held", "medical_until", "first_aid_until", "items_held", "keys", "laptop", "radio"]).ShouldBeEmpty();
        }
        (await firm.Database.AskAsync("select count(*) from record_values where field = 'locker' and upper_inf(known)")).ShouldBe(1L);
        await firm.EveryProjectionFollowsAsync();

        async Task<int> CarryAsync()
        {
            await using var acts = new ActCaller(firm.Server);
            (await acts.Get<CarryIntoRows>().DoAsync(new CarryIntoRowsRequest(), await acts.AsFidAsync("rows"), default))
                .IsDone(out var carried, out var refusal)
                .ShouldBeTrue(refusal?.Message);
            return carried;
        }
    }

    private static JsonArray Entries(JsonNode spec, string list)
    {
        var lists = spec["lists"]!.AsObject();
        if (lists[list] is null)
            lists[list] = new JsonArray();
        return lists[list]!.AsArray();
    }

    private async Task<string> RowAsync(string employment, string field, string about) =>
        (string)
            (
                await firm.Database.AskAsync(
                    $"""
                    select row_id::text from record_values v join employments e on v.owner_id in (e.id, e.person_id)
                    where e.id = '{employment}' and field = '{field}' and value = '"{about}"' and upper_inf(known) limit 1
                    """
                )
            )!;
}
