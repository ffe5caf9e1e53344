using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Fid.Acts.Exchange;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The gap of a field, out as a sheet and in again.</summary>
public class GapSheetTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task The_gap_goes_out_as_a_sheet_and_what_was_filled_comes_back_for_whom_it_was_meant()
    {
        using var orla = await firm.As("orla");
        var coverage = await orla.GetAsync("/api/fields/bank_account/coverage");
        var sheet = await orla.BytesAsync("/api/fields/bank_account/gap.xlsx");
        var rows = SheetFile.Rows(() => new MemoryStream(sheet)).ToList();
        rows[0].ShouldBe(["Number", "Name", "Bank account (IBAN)"]);
        rows.Skip(1).Select(r => r[0]).ShouldBe(coverage["people"]!.AsArray().Select(p => p!.Text("number")));

        var who = coverage["people"]![0]!;
        var filled = await ReadAsync(orla, "bank_account", $"Bank account (IBAN);Number\nIE04HSFB90001234567899;{who.Text("number")}\n;{rows[2][0]}\nx;nobody");
        (filled["values"]!.AsArray().Select(v => (v!.Text("employmentId"), v!.Text("typed"))).Single(), (string)filled["unknown"]![0]!).ShouldBe(
            ((who.Text("employmentId"), "IE04HSFB90001234567899"), "nobody")
        );
        // In the reader's words, as one would type it.
        var number = who.Text("number");
        (await ReadAsync(orla, "permit_until", $"Number,Work permit until\n{number},24/12/2027"))["values"]![0]!.Text("typed").ShouldBe("2027-12-24");
        (await ReadAsync(orla, "payment_method", $"Nummer\tAuszahlung\n{number}\tper Überweisung"))["values"]![0]!.Text("typed").ShouldBe("transfer");
        (await ReadAsync(orla, "pension", $"Number,pension\n{number},ja"))["values"]![0]!.Text("typed").ShouldBe("yes");
        using var wrong = await orla.SendFileAsync("/api/fields/pension/gap", Encoding.UTF8.GetBytes("Who,What\n1,2"));
        (wrong.StatusCode, (await wrong.ErrorsAsync()).Single().Code).ShouldBe((HttpStatusCode.BadRequest, "missing-columns"));
    }

    private static async Task<JsonNode> ReadAsync(Caller caller, string field, string sheet)
    {
        using var response = await caller.SendFileAsync($"/api/fields/{field}/gap", Encoding.UTF8.GetBytes(sheet));
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return await response.JsonAsync();
    }
}
