using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Microsoft.Extensions.DependencyInjection;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Values that are kept sealed.</summary>
public class SensitiveTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private const string Account = "IE53 HSFB 9000 1234 5678 90";

    [Fact]
    public async Task A_sensitive_value_is_masked_everywhere_until_it_is_asked_for_and_that_is_put_on_record()
    {
        using var orla = await firm.As("orla");
        using var ruth = await firm.As("ruth");
        var id = await orla.PersonAsync("Moutinho");
        await orla.SaveAsync(id, "bank_account", Account);
        await orla.SaveAsync(id, "bank_account", "IE04HSFB90001234567899");
        foreach (var path in new[] { "", "/history", "/compare?on=2020-01-01&with=2027-03-01" })
        {
            var read = (await ruth.GetAsync($"/api/records/{id}{path}")).ToJsonString();
            read.ShouldNotContain("9000");
            read.ShouldNotContain("sealed:");
        }
        (await (await orla.SendAsync("POST", $"/api/records/{id}/readings", """{"changes":{"room":"4"}}""")).Content.ReadAsStringAsync()).ShouldNotContain(
            "sealed:"
        );
        (await firm.Database.AskAsync("select count(*) from record_values v where v::text ~ '9000.?1234.?5678'")).ShouldBe(0L);

        (await RevealAsync(ruth, id)).ShouldBe("IE04HSFB90001234567899");
        var history = await orla.GetAsync($"/api/records/{id}/history");
        var (asked, first) = (
            history["changes"]![0]!,
            history["values"]!.AsArray().First(v => v!.Text("field") == "bank_account" && v!["knownTo"] is not null)!
        );
        (asked.Text("action"), asked.Text("by"), (string)asked["fields"]![0]!).ShouldBe(("field.revealed", "Ruth Abara", "bank_account"));
        (await RevealAsync(orla, id, first.Text("id"))).ShouldNotBe("IE04HSFB90001234567899");
        // Nobody asks for another's by way of a record they may open, nor for what is not sealed.
        var other = await orla.PersonAsync("Prys");
        (await orla.SendAsync("POST", $"/api/records/{other}/fields/bank_account/reveal", new { value = first.Text("id") })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await orla.SendAsync("POST", $"/api/records/{id}/fields/town/reveal", new { value = (string?)null })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await orla.ChangeAsync(id, "bank_account", "••••••")).ErrorsAsync()).ShouldBe([("/changes/bank_account", "masked")]);
        (await (await orla.ChangeAsync(id, "bank_account", "twelve")).ErrorsAsync()).ShouldBe([("/changes/bank_account", "bad-value")]);
    }

    [Fact]
    public async Task A_sensitive_value_is_found_when_it_is_typed_whole_by_those_who_may_see_it()
    {
        using var orla = await firm.As("orla");
        using var ruth = await firm.As("ruth");
        var id = await orla.PersonAsync("Llewelyn");
        await orla.SaveAsync(id, "tax_number", "77 1234-Q");
        foreach (var (caller, typed, found) in new[] { (orla, "771234q", true), (orla, "77 1234-Q", true), (orla, "77 1234", false), (ruth, "771234Q", true) })
            (await caller.GetAsync($"/api/people?q={Uri.EscapeDataString(typed)}"))["people"]!
                .AsArray()
                .Any(p => p!.Text("employmentId") == id)
                .ShouldBe(found, typed);

        using var piet = await firm.As("piet");
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.AsObject();
        var field = configuration["fields"]!.AsArray().Single(f => f!.Text("key") == "tax_number")!;
        field["access"]!.AsObject().Remove("payroll");
        field["unique"] = true;
        var draft = await (
            await piet.SendAsync("PUT", "/api/fields/draft", new JsonObject { ["configuration"] = configuration.DeepClone() }.ToJsonString())
        ).JsonAsync();
        (
            await piet.SendAsync("POST", "/api/fields/draft/publish", new { why = (string?)null, despite = true }, draft.Text("version"))
        ).EnsureSuccessStatusCode();
        (await ruth.GetAsync("/api/people?q=771234Q"))["people"]!.AsArray().ShouldBeEmpty();
        (await (await orla.ChangeAsync(await orla.PersonAsync("Bondar"), "tax_number", "771234 q")).ErrorsAsync()).ShouldBe([
            ("/changes/tax_number", "not-unique"),
        ]);

        // What is stored cannot be turned: it would have to be rewritten.
        field["sensitive"] = false;
        var review = await (
            await piet.SendAsync("POST", "/api/fields/draft/review", new JsonObject { ["configuration"] = configuration.DeepClone() }.ToJsonString())
        ).JsonAsync();
        review["findings"]!.AsArray().Select(f => (f!.Text("code"), f!["blocks"]!.GetValue<bool>())).ShouldContain(("sensitive-stored", true));
    }

    [Fact]
    public async Task Keys_rotate_and_what_older_ones_sealed_stays_readable()
    {
        using var orla = await firm.As("orla");
        var (first, second) = (await orla.PersonAsync("Hauge"), await orla.PersonAsync("Morita"));
        await orla.SaveAsync(first, "social_number", "A-1");
        var now = DateTimeOffset.UtcNow;
        firm.Server.Services.GetRequiredService<IKeyManager>().CreateNewKey(now.AddSeconds(-1), now.AddDays(90));
        await using var next = new FidInstance(firm.Database.Connection);
        using var there = await Caller.SignedInAsync(next.Address, "orla");
        await there.SaveAsync(second, "social_number", "A-2");
        (
            await firm.Database.AskAsync("select count(distinct left(split_part(value #>> '{}', ':', 3), 32)) from record_values where field = 'social_number'")
        ).ShouldBe(2L);
        (await RevealAsync(there, first, field: "social_number"), await RevealAsync(there, second, field: "social_number")).ShouldBe(("A-1", "A-2"));
    }

    [Fact]
    public async Task The_keys_themselves_are_encrypted_with_a_certificate_outside_the_database()
    {
        await using var database = await TestDatabase.EmptyAsync();
        var certificate = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}.pfx");
        try
        {
            await using (var one = new FidInstance(database.Connection, keyRing: certificate))
            using (var caller = new Caller(one.Address))
                await caller.GetAsync("/api/session");
            (
                await database.AskAsync(
                    "select count(*) filter (where xml like '%encryptedSecret%EncryptedData%') = count(*) and count(*) > 0 from data_protection_keys"
                )
            ).ShouldBe(true);
            if (OperatingSystem.IsLinux())
                File.GetUnixFileMode(certificate).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
            await using var two = new FidInstance(database.Connection, keyRing: certificate);
            two.Services.GetRequiredService<IKeyManager>().GetAllKeys().ShouldAllBe(k => k.CreateEncryptor() != null);
        }
        finally
        {
            File.Delete(certificate);
        }
    }

    private static async Task<string> RevealAsync(Caller caller, string id, string? value = null, string field = "bank_account")
    {
        using var response = await caller.SendAsync("POST", $"/api/records/{id}/fields/{field}/reveal", new { value });
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return (await response.JsonAsync()).Text("value");
    }
}
