using System.Net;
using Fid.Testing;
using Ical.Net;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The private link by which a calendar program reads who arrives.</summary>
public class ArrivalsCalendarTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private const string Link = "/api/arrivals/calendar-link";

    [Fact]
    public async Task A_program_that_is_not_signed_in_reads_who_starts_when_until_the_link_is_replaced_or_ended()
    {
        using var orla = await firm.As("orla");
        (await orla.GetAsync(Link))["madeAt"].ShouldBeNull();
        var first = await MakeAsync(orla);
        var events = (await ReadAsync(first)).ShouldNotBeNull().Events;
        var arrivals = (await orla.GetAsync("/api/arrivals"))["hires"]!.AsArray();
        events
            .Select(e => $"{e.Summary} {e.Start!.Value:yyyy-MM-dd}")
            .ShouldBe(arrivals.Select(h => $"{h!.Text("givenName")} {h!.Text("familyName")} starts {h!.Text("start")}"), ignoreOrder: true);
        events.ShouldAllBe(e => !e.Start!.HasTime && e.End!.Value == e.Start.Value.AddDays(1));
        var brandt = events.Single(e => e.Summary == "Tomasz Brandt starts");
        (brandt.Location, brandt.Description).ShouldBe(("Skerry Pier", "Deckhand, seasonal, Orla Dunmore"));

        var second = await MakeAsync(orla);
        (await ReadAsync(first)).ShouldBeNull();
        (await ReadAsync(second)).ShouldNotBeNull();
        (await orla.GetAsync(Link))["madeAt"].ShouldNotBeNull();
        (await orla.SendAsync("DELETE", Link)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ReadAsync(second)).ShouldBeNull();
        (await orla.SendAsync("DELETE", Link)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (
            await firm.Database.AskAsync(
                "select string_agg(action, ' ' order by at) from changes where action like 'calendarLink.%' and by_name = 'Orla Dunmore'"
            )
        ).ShouldBe("calendarLink.made calendarLink.made calendarLink.ended");
    }

    [Fact]
    public async Task It_shows_what_its_user_sees_in_their_language_and_nothing_once_they_see_nothing()
    {
        using var callum = await firm.As("callum");
        var path = await MakeAsync(callum);
        await firm.Database.AskAsync("update users set language = 'de' where email like 'callum@%' returning 1");
        var own = (await callum.GetAsync("/api/arrivals"))["hires"]!.AsArray().Select(h => $"{h!.Text("givenName")} {h!.Text("familyName")} beginnt");
        (await ReadAsync(path)).ShouldNotBeNull().Events.Select(e => e.Summary).ShouldBe(own, ignoreOrder: true);
        await firm.Database.AskAsync("update users set disabled_at = now() where email like 'callum@%' returning 1");
        (await ReadAsync(path)).ShouldBeNull();
        await firm.Database.AskAsync("update users set disabled_at = null, language = 'en' where email like 'callum@%' returning 1");
    }

    [Fact]
    public async Task Nothing_is_told_to_whoever_guesses_and_the_database_does_not_keep_what_opens_it()
    {
        using var piet = await firm.As("piet");
        var token = (await MakeAsync(piet)).Split('/')[3];
        foreach (var wrong in new[] { token[..^1], token + "0", new string('a', 5_000), "%00", "..%2f" })
            (await ReadAsync($"/api/calendars/{wrong}/arrivals.ics")).ShouldBeNull();
        (
            await firm.Database.AskAsync(
                $"select count(*) from calendar_links where encode(hash, 'hex') = '{token}' or encode(hash, 'escape') like '%{token}%'"
            )
        ).ShouldBe(0L);
        (await firm.Database.AskAsync($"select count(*) from changes where details::text like '%{token}%'")).ShouldBe(0L);
    }

    private static async Task<string> MakeAsync(Caller caller)
    {
        using var made = await caller.SendAsync("POST", Link);
        made.StatusCode.ShouldBe(HttpStatusCode.OK, await made.Content.ReadAsStringAsync());
        return (await made.JsonAsync()).Text("path");
    }

    // As a program does: without a cookie. Null where there is nothing.
    private async Task<Calendar?> ReadAsync(string path)
    {
        using var program = new HttpClient { BaseAddress = firm.Server.Address };
        using var response = await program.GetAsync(path);
        if (!response.IsSuccessStatusCode)
        {
            response.StatusCode.ShouldBeOneOf(HttpStatusCode.NotFound, HttpStatusCode.BadRequest);
            return null;
        }
        response.Content.Headers.ContentType!.MediaType.ShouldBe("text/calendar");
        response.Headers.CacheControl!.NoStore.ShouldBeTrue();
        return Calendar.Load(await response.Content.ReadAsStringAsync());
    }
}
