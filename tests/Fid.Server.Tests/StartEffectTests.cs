using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What moving a first day does beside the checklist: to the first shift, the first pay and the badge. The firm's today is 1 March 2027.</summary>
public sealed class StartEffectTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _orla = null!;
    private JsonNode _hire = null!;

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        _orla = await _firm.As("orla");
        _hire = await FirmFixture.HireAsync(_orla, "Weiß");
    }

    public async ValueTask DisposeAsync()
    {
        _orla.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task It_says_which_shift_is_the_first_and_what_the_first_fortnight_holds()
    {
        // Office days: from Monday to Friday from 08:30 to 16:30, half an hour unpaid. Monday 12 April; Saturday the 17th.
        await SetAsync(("shift_pattern", "office"));
        var change = await ChangeAsync("2027-04-17");
        change["before"]!["shift"]!.Text("on").ShouldBe("2027-04-12");
        var after = change["after"]!["shift"]!;
        after.Text("on").ShouldBe("2027-04-19");
        // Ten working days of the first fortnight either way.
        var day = ((int)change["before"]!["shift"]!["fortnightMinutes"]!) / 10;
        ((int)after["fortnightMinutes"]!).ShouldBe(10 * day);
        // Monday 3 May is a holiday: nine are left.
        ((int)(await ChangeAsync("2027-05-03"))["after"]!["shift"]!["fortnightMinutes"]!).ShouldBe(9 * day);
    }

    [Fact]
    public async Task It_says_when_they_are_paid_first_and_what_and_whether_a_cut_off_is_missed()
    {
        await SetAsync(("pay_group", "crew"), ("pay_rate", 20m), ("paid_by", "hour"), ("weekly_hours", 35m), ("holiday_calendar", "sound"));
        await _firm.Database.AskAsync(
            """
            update list_entries set "values" = "values" || '{"every":"fortnight","first_period_start":"2027-01-04","pay_days_after_end":5,
              "cut_off_working_days":4,"calendar":"sound"}' where list = 'payGroups' and code = 'crew'
            """
        );
        // 20 an hour, 35 hours a week: 1,400 a fortnight. From Monday 12 April the period is whole; from Monday 19 April half of it is left.
        var change = await ChangeAsync("2027-04-19");
        Pay(change["before"]!).ShouldBe("2027-04-30 2027-04-26 0 1400");
        Pay(change["after"]!).ShouldBe("2027-04-30 2027-04-26 0 700");
        // Of the period from 1 to 14 February the cut-off was 15 February: it comes with the next run.
        Pay((await ChangeAsync("2027-02-08"))["after"]!).ShouldBe("2027-03-05 2027-02-15 1 2100");
    }

    [Fact]
    public async Task It_says_whose_badge_it_would_be_as_well()
    {
        var other = await _orla.PersonAsync("Reyes");
        var badge = Records.Field(await _orla.GetAsync($"/api/records/{other}"), "badge").Text("value");
        // A badge that is still somebody's until they leave on 18 April, and lies unused for a month afterwards.
        await _firm.Database.AskAsync($"update employments set \"end\" = '2027-04-18' where id = '{other}'");
        await _firm.Database.AskAsync($"update records_now set badge = '{badge}' where employment_id = '{_hire["employmentId"]}'");
        await _firm.Database.AskAsync(
            $"""
            update record_values set value = '"{badge}"' where owner_id = '{_hire["employmentId"]}' and field = 'badge'
            """
        );
        var change = await ChangeAsync("2027-06-07");
        Badges(change["before"]!).ShouldBe([$"overlap {badge} Callum Reyes"]);
        Badges(change["after"]!).ShouldBeEmpty();
        Badges((await ChangeAsync("2027-04-20"))["after"]!).ShouldBe([$"tooSoon {badge} Callum Reyes"]);
    }

    [Fact]
    public async Task What_the_reader_may_not_see_of_the_record_is_not_worked_out_for_them()
    {
        await SetAsync(("shift_pattern", "office"), ("pay_group", "crew"), ("pay_rate", 20m), ("paid_by", "hour"), ("weekly_hours", 35m));
        using var piet = await _firm.As("piet");
        await Markers.HideAsync(piet, _orla, "coordinator", "pay_rate");
        var change = await ChangeAsync("2027-04-19");
        change["after"]!["pay"]!["total"].ShouldBeNull();
        change["after"]!["pay"]!.Text("payDay").ShouldNotBeEmpty();
        await Markers.HideAsync(piet, _orla, "coordinator", "pay_group");
        await Markers.HideAsync(piet, _orla, "coordinator", "shift_pattern");
        change = await ChangeAsync("2027-04-19");
        change["after"]!["pay"].ShouldBeNull();
        change["after"]!["shift"].ShouldBeNull();
    }

    private Task<JsonNode> ChangeAsync(string to) => _orla.GetAsync($"/api/hires/{_hire["id"]}/start-change?to={to}");

    private static string Pay(JsonNode effects) =>
        effects["pay"] is { } pay ? $"{pay.Text("payDay")} {pay.Text("cutOff")} {pay["arrears"]} {(decimal)pay["total"]!:0.##}" : "";

    private static IEnumerable<string> Badges(JsonNode effects) =>
        effects["badges"]!.AsArray().Select(b => $"{b!.Text("kind")} {b!.Text("badge")} {b!.Text("other")}");

    private Task SetAsync(params (string Field, object Value)[] values) =>
        _orla.SaveAsync(
            _hire.Text("employmentId"),
            new
            {
                changes = values.ToDictionary(v => v.Field, v => v.Value),
                from = (string?)null,
                why = "A test",
            }
        );
}
