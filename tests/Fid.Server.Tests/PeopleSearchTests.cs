using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>People are found as people type them, and each says how they stand with the firm.</summary>
public class PeopleSearchTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Theory]
    [InlineData("jörg-änne")]
    [InlineData("jorg anne")]
    [InlineData("O'Weißenfels")]
    [InlineData("oweissenfels")]
    [InlineData("O’WEISS")]
    [InlineData("weiß jörg", false)]
    [InlineData("NUMBER")]
    [InlineData("oweiss BADGE")]
    [InlineData("BADGE")]
    [InlineData("oweissenfels rigger")]
    [InlineData("oweissenfels yard")]
    [InlineData("oweissenfels cook", false)]
    [InlineData("eissenfels", false)]
    public async Task Somebody_is_found_by_any_name_number_badge_job_or_site_in_People_and_in_Go_to(string typed, bool found = true)
    {
        using var orla = await firm.As("orla");
        var id = await NamedAsync(orla);
        var record = await orla.GetAsync($"/api/records/{id}");
        typed = typed
            .Replace("NUMBER", record.Text("number"), StringComparison.Ordinal)
            .Replace("BADGE", Records.Field(record, "badge").Text("value"), StringComparison.Ordinal);
        var query = Uri.EscapeDataString(typed);
        (await orla.GetAsync($"/api/people?q={query}"))["people"]!.AsArray().Any(p => p!.Text("employmentId") == id).ShouldBe(found, typed);
        (await orla.GetAsync($"/api/goto?q={query}")).AsArray().Any(f => f!.Text("id") == id).ShouldBe(found, typed);
    }

    [Fact]
    public async Task Each_says_how_they_stand_and_who_was_here_before_is_shown_when_asked_for()
    {
        using var orla = await firm.As("orla");
        var (here, leaving, left) = (await orla.PersonAsync("Prys"), await orla.PersonAsync("Moutinho"), await orla.PersonAsync("Morita"));
        await orla.SaveAsync(leaving, "end_date", "2027-03-31");
        await orla.SaveAsync(left, "end_date", "2027-02-26");
        var coming = (await FirmFixture.HireAsync(orla, "Okafor")).Text("employmentId");
        var never = await FirmFixture.HireAsync(orla, "Brandt");
        (await orla.SendAsync("PUT", $"/api/hires/{never["id"]}/outcome", new { outcome = "withdrawn", why = "Stepped back" })).EnsureSuccessStatusCode();

        (await StandingAsync("Prys", here), await StandingAsync("Moutinho", leaving), await StandingAsync("Okafor", coming)).ShouldBe(
            ("here ", "leaving 2027-03-31", "coming ")
        );
        (await StandingAsync("Morita", left), await StandingAsync("Brandt", never.Text("employmentId"))).ShouldBe((null, null));
        (await StandingAsync("Morita", left, "&all=true"), await StandingAsync("Brandt", never.Text("employmentId"), "&all=true")).ShouldBe(
            ("left 2027-02-26", "neverCame ")
        );

        async Task<string?> StandingAsync(string family, string id, string all = "") =>
            (await orla.GetAsync($"/api/people?q={family}{all}"))["people"]!.AsArray().SingleOrDefault(p => p!.Text("employmentId") == id) is { } row
                ? $"{row.Text("standing")} {(string?)row["end"]}"
                : null;
    }

    // The same person for all cases: whoever comes first gives the name.
    private static async Task<string> NamedAsync(Caller orla)
    {
        var people = (await orla.GetAsync("/api/people?q=oweissenfels"))["people"]!.AsArray();
        if (people.Count > 0)
            return people[0]!.Text("employmentId");
        var id = await orla.PersonAsync("Bondar");
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { given_name = "Jörg-Änne", family_name = "O'Weißenfels" },
                from = (string?)null,
                why = (string?)null,
            }
        );
        return id;
    }
}
