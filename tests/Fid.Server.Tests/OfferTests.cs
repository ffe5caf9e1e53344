using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using UglyToad.PdfPig;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Forms of an offer side by side, on paper, and one taken over into the record.</summary>
public class OfferTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Each_form_comes_to_what_the_rules_compute_and_the_record_stays_as_it_is()
    {
        using var orla = await firm.As("orla");
        var id = (await orla.OpenAsync("Offered")).Text("employmentId");
        var before = (await orla.GetAsync($"/api/records/{id}")).Text("version");
        var offer = await CompareAsync(
            orla,
            id,
            Form(new { }),
            Form(new { pay_rate = 20, weekly_hours = 30 }, "2027-06-21"),
            Form(
                new Dictionary<string, object>
                {
                    ["pay_rate"] = 2300,
                    ["paid_by"] = "month",
                    [Beside("kind")] = "allowance",
                    [Beside("amount")] = 46,
                    [Beside("note")] = "nights",
                }
            )
        );
        offer.Text("name").ShouldBe("Rhys Offered");
        var (held, less, monthly) = (offer["forms"]![0]!, offer["forms"]![1]!, offer["forms"]![2]!);
        var readings = await (await orla.SendAsync("POST", $"/api/records/{id}/readings", new { changes = new { } })).JsonAsync();
        foreach (var part in new[] { "rate", "band", "cost" })
            held[part]!.ToJsonString().ShouldBe(readings[part]!.ToJsonString());
        held["firstPay"]!["slip"]!.ToJsonString().ShouldBe(readings["firstPay"]!["slip"]!.ToJsonString());

        less["rate"]!["stated"]!.Amount("year").ShouldBe(31_200);
        less["band"]!.Amount("pay").ShouldBe(39_000);
        less.Text("start").ShouldBe("2027-06-21");
        less["firstPay"]!["periods"]![0]!.Text("start").ShouldBeLessThanOrEqualTo("2027-06-21", StringComparer.Ordinal);
        foreach (var form in new[] { held, less })
        {
            var computed = ComputedPay.Preview("fortnight", form["rate"]!.Amount("perPeriod"));
            (form["wholePeriod"]!.Amount("gross"), form["wholePeriod"]!.Amount("net")).ShouldBe((computed.Amount("gross"), computed.Amount("net")));
        }
        var lines = monthly["wholePeriod"]!["lines"]!.AsArray().ToDictionary(l => l!.Text("code"), l => l!.Amount("amount"));
        (lines["BASE"], lines["ALLOW"]).ShouldBe((decimal.Round(2300m * 12 / 26, 2, MidpointRounding.AwayFromZero), 46));
        (await orla.GetAsync($"/api/records/{id}")).Text("version").ShouldBe(before);
    }

    private static string Beside(string column) => $"pay_elements.{column}@0b7f0a52-6a4e-4f0e-9d5a-2f4d2b0c9a11";

    [Fact]
    public async Task What_is_wrong_with_a_form_is_told_at_its_field()
    {
        using var orla = await firm.As("orla");
        var id = (await orla.OpenAsync("Mistyped")).Text("employmentId");
        async Task<(string, string)[]> WrongAsync(params object[] forms) =>
            await (await orla.SendAsync("POST", $"/api/records/{id}/offer", new { forms })).ErrorsAsync();
        (await WrongAsync(Form(new { }), Form(new { pay_rate = -1 }))).Single().Item1.ShouldBe("/forms/1/changes/pay_rate");
        (await WrongAsync(Form(new { pay_rate = 1e12 }))).Single().Item1.ShouldBe("/forms/0/changes/pay_rate");
        (await WrongAsync(Form(new { paid_by = "moon" }))).Single().Item1.ShouldBe("/forms/0/changes/paid_by");
        (await WrongAsync(Form(new { site = "hallan" }))).ShouldBe([("/forms/0/changes/site", "unknown-property")]);
        (await WrongAsync(Form(new { }, "0001-01-01"))).ShouldBe([("/forms/0/start", "bad-date")]);
        (await WrongAsync()).ShouldBe([("/forms", "out-of-range")]);
        (await WrongAsync(Form(new { }), Form(new { }), Form(new { }), Form(new { }))).ShouldBe([("/forms", "out-of-range")]);
    }

    [Fact]
    public async Task A_form_is_taken_over_with_its_start_whole_or_not_at_all()
    {
        using var orla = await firm.As("orla");
        var opened = await orla.OpenAsync("Taken");
        var id = opened.Text("employmentId");
        var seen = (await orla.GetAsync($"/api/records/{id}")).Text("version");
        // Above the band it needs a reason: the start does not move without it either.
        (await (await TakeAsync(new { pay_rate = 23 }, "2027-06-14")).ErrorsAsync()).ShouldBe([("/why", "reason-needed")]);
        (await orla.GetAsync($"/api/hires/{opened.Text("id")}")).Text("start").ShouldBe("2027-06-07");
        (await (await TakeAsync(new { site = "hallan" }, null)).ErrorsAsync()).ShouldBe([("/changes/site", "unknown-property")]);
        (await (await TakeAsync(new { }, null)).ErrorsAsync()).ShouldBe([("/changes", "missing")]);

        var key = Guid.NewGuid();
        for (var i = 0; i < 2; i++)
            (await TakeAsync(new { pay_rate = 23 }, "2027-06-14", "eleven seasons elsewhere", key)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await orla.GetAsync($"/api/hires/{opened.Text("id")}")).Text("start").ShouldBe("2027-06-14");
        Records.Field(await orla.GetAsync($"/api/records/{id}"), "pay_rate").Amount("value").ShouldBe(23);
        (await TakeAsync(new { pay_rate = 20 }, null)).StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);

        // Somebody who has settled cannot start on another day.
        id = await orla.PersonAsync("Morita");
        seen = (await orla.GetAsync($"/api/records/{id}")).Text("version");
        (await (await TakeAsync(new { }, "2027-06-14")).ErrorsAsync()).ShouldBe([("/start", "not-arriving")]);
        using var callum = await firm.As("callum");
        (await callum.SendAsync("PUT", $"/api/records/{id}/offer/taken", Taken(new { pay_rate = 20 }, null, null), seen)).IsSuccessStatusCode.ShouldBeFalse();

        Task<HttpResponseMessage> TakeAsync(object changes, string? start, string? why = null, Guid? with = null) =>
            orla.SendAsync("PUT", $"/api/records/{id}/offer/taken", Taken(changes, start, why), seen, key: with);
    }

    [Fact]
    public async Task The_paper_says_what_they_get_and_nothing_of_what_is_the_firms_own()
    {
        using var orla = await firm.As("orla");
        var id = (await orla.OpenAsync("Paper")).Text("employmentId");
        var forms = new[] { Form(new { }), Form(new { pay_rate = 19.5 }) };
        var offer = await CompareAsync(orla, id, forms);
        using var answer = await orla.SendAsync("POST", $"/api/records/{id}/offer/paper", new { forms });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        var text = new StringBuilder();
        using (var pdf = PdfDocument.Open(await answer.Content.ReadAsByteArrayAsync()))
            foreach (var page in pdf.GetPages())
                text.Append(page.Text);
        var said = text.ToString();
        said.ShouldContain("Offer to Rhys Paper");
        foreach (var form in offer["forms"]!.AsArray())
        {
            said.ShouldContain(form!["wholePeriod"]!.Amount("net").ToString("N2", System.Globalization.CultureInfo.InvariantCulture));
            said.ShouldNotContain(form["cost"]!.Amount("annualCost").ToString("N2", System.Globalization.CultureInfo.InvariantCulture));
        }
    }

    [Fact]
    public async Task Whoever_does_not_see_all_of_pay_is_offered_nothing()
    {
        using var orla = await firm.As("orla");
        using var nils = await firm.As("nils");
        var id = (await FirmFixture.HireAsync(orla, "Brandt")).Text("employmentId");
        using var answer = await nils.SendAsync("POST", $"/api/records/{id}/offer", new { forms = new[] { Form(new { }) } });
        answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static object Form(object changes, string? start = null) => new { changes, start };

    private static object Taken(object changes, string? start, string? why) =>
        new
        {
            changes,
            start,
            why,
        };

    private static async Task<JsonNode> CompareAsync(Caller caller, string id, params object[] forms)
    {
        using var answer = await caller.SendAsync("POST", $"/api/records/{id}/offer", new { forms });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return await answer.JsonAsync();
    }
}
