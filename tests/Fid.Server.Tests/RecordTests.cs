using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Npgsql;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Records: values with a time for which they hold, and a time for which they are believed.</summary>
public class RecordTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_change_from_a_date_leaves_what_held_before_and_a_fix_takes_its_place()
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Moutinho");
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { pay_rate = 19.50 },
                from = "2027-02-01",
                why = "Yearly rise",
            }
        );
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { pay_rate = 19.75 },
                from = (string?)null,
                why = "Typing mistake",
            }
        );

        (
            await firm.Database.AskAsync(
                $"""
                select string_agg(effective || ' ' || (value #>> array[]::text[]) || case when upper_inf(known) then '' else ' no longer believed' end, '; '
                  order by lower(known), lower(effective))
                from record_values where owner_id = '{id}' and field = 'pay_rate' and lower(effective) >= '2027-02-01'
                """
            )
        ).ShouldBe("[2027-02-01,) 19.50 no longer believed; [2027-02-01,) 19.75");
        (
            await firm.Database.AskAsync(
                $"select count(*) from record_values where owner_id = '{id}' and field = 'pay_rate' and upper(effective) = '2027-02-01' and upper_inf(known)"
            )
        ).ShouldBe(1L);
        var field = Records.Field(await orla.GetAsync($"/api/records/{id}"), "pay_rate");
        (field["value"]!.GetValue<decimal>(), field.Text("since"), field["change"]!.Text("by"), field["change"]!.Text("why")).ShouldBe(
            (19.75m, "2027-02-01", "Orla Dunmore", "Typing mistake")
        );
    }

    [Fact]
    public async Task The_start_of_somebody_without_a_checklist_is_corrected_in_the_record_and_what_held_from_it_moves_along()
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Hauge");
        Records.Field(await orla.GetAsync($"/api/records/{id}"), "start_date").Text("access").ShouldBe("edit");
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { start_date = "2015-03-02", room = "9" },
                from = (string?)null,
                why = "By the contract",
            }
        );

        var record = await orla.GetAsync($"/api/records/{id}");
        (
            record.Text("start"),
            Records.Field(record, "start_date").Text("value"),
            Records.Field(record, "job").Text("since"),
            Records.Field(record, "room").Text("value")
        ).ShouldBe(("2015-03-02", "2015-03-02", "2015-03-02", "9"));
        (
            await firm.Database.AskAsync(
                $"select count(distinct change_id) from record_values v join changes c on c.id = v.change_id where owner_id = '{id}' and c.why "
                    + "= 'By the contract'"
            )
        ).ShouldBe(1L);
    }

    [Theory]
    [InlineData("orla", null, "missing")]
    [InlineData("orla", "3026-01-05", "bad-value")]
    [InlineData("orla", "2030-01-07", "after-end")]
    [InlineData("ruth", "2015-03-02", "read-only")]
    public async Task A_start_that_cannot_be_is_refused_at_the_field(string who, string? start, string code)
    {
        using var orla = await firm.As("orla");
        using var caller = await firm.As(who);
        var id = await orla.PersonAsync("Bondar");
        await orla.SaveAsync(id, "end_date", "2029-12-31");
        using var refused = await caller.ChangeAsync(id, "start_date", start);
        (await refused.ErrorsAsync()).ShouldBe([("/changes/start_date", code)]);
    }

    [Fact]
    public async Task Where_a_checklist_hangs_on_the_start_the_record_does_not_move_it()
    {
        using var orla = await firm.As("orla");
        var id = (await orla.GetAsync("/api/arrivals"))["hires"]![0]!.Text("employmentId");
        Records.Field(await orla.GetAsync($"/api/records/{id}"), "start_date").Text("access").ShouldBe("view");
        using var refused = await orla.ChangeAsync(id, "start_date", "2027-03-08");
        (await refused.ErrorsAsync()).ShouldBe([("/changes/start_date", "read-only")]);
    }

    [Fact]
    public async Task What_was_entered_beforehand_takes_effect_on_its_day_also_when_no_server_ran_then()
    {
        await using var database = await TestDatabase.CloneAsync();
        string id;
        await using (var server = new FidInstance(database.Connection))
        {
            using var orla = await Caller.SignedInAsync(server.Address, "orla");
            id = await orla.PersonAsync("Prys");
            var before = Records.Field(await orla.GetAsync($"/api/records/{id}"), "department").Text("value");
            await orla.SaveAsync(
                id,
                new
                {
                    changes = new { department = "rigging" },
                    from = "2027-04-01",
                    why = "Changes places",
                }
            );
            var coming = Records.Field(await orla.GetAsync($"/api/records/{id}"), "department");
            (coming.Text("value"), coming["coming"]![0]!.Text("from"), coming["coming"]![0]!.Text("display")).ShouldBe((before, "2027-04-01", "Rigging"));
            (await DepartmentAsync(id)).ShouldBe(before);
        }
        await using var later = new FidInstance(database.Connection, today: new NodaTime.LocalDate(2027, 4, 3));
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        while (!"rigging".Equals(await DepartmentAsync(id)))
            patience.Token.ThrowIfCancellationRequested();

        async Task<object?> DepartmentAsync(string employment) =>
            await database.AskAsync($"select department_code from records_now where employment_id = '{employment}'");
    }

    [Fact]
    public async Task A_change_is_explained_and_taken_back_which_is_recorded_and_a_later_one_comes_first()
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Llewelyn");
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { town = "Corran", room = "12" },
                from = (string?)null,
                why = "Moved house",
            }
        );
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { town = "Skerry" },
                from = (string?)null,
                why = (string?)null,
            }
        );
        var changes = (await orla.GetAsync($"/api/records/{id}/history"))["changes"]!.AsArray();
        string Path(int at, string what) => $"/api/records/{id}/changes/{changes[at]!.Text("id")}/{what}";
        (await orla.SendAsync("POST", Path(1, "take-back"), new { why = "wrong" })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await orla.SendAsync("POST", Path(1, "explanations"), new { why = "By letter" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await orla.SendAsync("POST", Path(0, "take-back"), new { why = "Mixed up" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Records.Field(await orla.GetAsync($"/api/records/{id}"), "town").Text("value").ShouldBe("Corran");
        // What made the record is not taken back: nothing would be left of it.
        (await orla.SendAsync("POST", Path(changes.Count - 1, "take-back"), new { why = "all of it" })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        changes = (await orla.GetAsync($"/api/records/{id}/history"))["changes"]!.AsArray();
        changes
            .Take(3)
            .Select(c => (c!.Text("action"), c!["stands"]!.GetValue<bool>()))
            .ShouldBe([("record.takenBack", true), ("record.fixed", false), ("record.fixed", true)]);
        changes[2]!["explanations"]![0]!.Text("why").ShouldBe("By letter");
    }

    [Fact]
    public async Task The_list_of_people_as_of_a_day_shows_who_was_here_then_and_as_what()
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Hauge");
        var before = (await orla.GetAsync($"/api/people?q=Hauge"))["people"]![0]!.Text("department");
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { department = "rigging" },
                from = "2027-02-10",
                why = "Moved",
            }
        );
        (await OnAsync("2027-02-09")).Text("department").ShouldBe(before);
        (await OnAsync("2027-02-10")).Text("department").ShouldBe("Rigging");
        (await orla.GetAsync("/api/people?on=1990-01-01"))["people"]!.AsArray().ShouldBeEmpty();

        async Task<JsonNode> OnAsync(string day) =>
            (await orla.GetAsync($"/api/people?q=hauge&on={day}"))["people"]!.AsArray().Single(p => p!.Text("employmentId") == id)!;
    }

    [Fact]
    public async Task PostgreSQL_itself_forbids_two_believed_values_at_one_time()
    {
        var error = await Should.ThrowAsync<PostgresException>(() =>
            firm.Database.AskAsync(
                """
                insert into record_values (id, owner_id, owner_kind, field, value, source, effective, known, change_id)
                select gen_random_uuid(), owner_id, owner_kind, field, value, 'typed', effective, known, change_id 
                  from record_values where field = 'job' limit 1
                """
            )
        );
        error.SqlState.ShouldBe(PostgresErrorCodes.ExclusionViolation);
    }

    [Fact]
    public async Task The_second_of_two_saves_gets_what_the_first_one_saved()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var id = await orla.PersonAsync("Aakre");
        var seen = (await orla.GetAsync($"/api/records/{id}")).Text("version");
        (await piet.SendAsync("PUT", $"/api/records/{id}", Body(new { town = "Corran" }), seen)).StatusCode.ShouldBe(HttpStatusCode.OK);
        using var second = await orla.SendAsync("PUT", $"/api/records/{id}", Body(new { town = "Little Brae" }), seen);
        second.StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        Records.Field((await second.JsonAsync())["current"]!, "town").Text("value").ShouldBe("Corran");
    }

    [Fact]
    public async Task Of_many_who_save_at_the_same_moment_one_is_through_and_nothing_is_half_saved()
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Hauge");
        var seen = (await orla.GetAsync($"/api/records/{id}")).Text("version");
        var saves = await Task.WhenAll(
            Enumerable.Range(0, 8).Select(i => orla.SendAsync("PUT", $"/api/records/{id}", Body(new { street = $"{i} Pier Road", town = $"Town {i}" }), seen))
        );
        saves.Count(s => s.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        saves.ShouldAllBe(s =>
            s.StatusCode == HttpStatusCode.OK || s.StatusCode == HttpStatusCode.PreconditionFailed || s.StatusCode == HttpStatusCode.Conflict
        );
        var record = await orla.GetAsync($"/api/records/{id}");
        Records.Field(record, "street").Text("value").Split(' ')[0].ShouldBe(Records.Field(record, "town").Text("value").Split(' ')[1]);
    }

    [Fact]
    public async Task What_is_not_right_is_said_at_its_field_and_nothing_is_saved()
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Prys");
        var before = await orla.GetAsync($"/api/records/{id}");
        using var response = await orla.SendAsync(
            "PUT",
            $"/api/records/{id}",
            Body(
                new
                {
                    town = "Fine",
                    email = "nobody",
                    badge = "12a",
                    job = "XX-9",
                    manager = id,
                    family_name = (string?)null,
                    end_date = "1999-01-01",
                    shoe = 1,
                }
            ),
            before.Text("version")
        );
        (await response.ErrorsAsync()).ShouldBe(
            [
                ("/changes/email", "bad-value"),
                ("/changes/badge", "bad-value"),
                ("/changes/job", "unknown-entry"),
                ("/changes/manager", "self"),
                ("/changes/shoe", "unknown-field"),
                ("/changes/family_name", "missing"),
                ("/changes/end_date", "not-in-order"),
            ],
            ignoreOrder: true
        );
        (await orla.GetAsync($"/api/records/{id}")).ToJsonString().ShouldBe(before.ToJsonString());
    }

    [Fact]
    public async Task Readings_follow_what_is_typed_and_find_a_badge_that_two_people_carry()
    {
        using var orla = await firm.As("orla");
        var hire = await FirmFixture.HireAsync(orla, "Keel");
        var readings = await (
            await orla.SendAsync("POST", $"/api/records/{hire["employmentId"]}/readings", new { changes = new { pay_rate = 35000 } })
        ).JsonAsync();
        readings["rate"]!["stated"]!["year"]!.GetValue<decimal>().ShouldBe(35000);
        (readings["band"]!["compaRatio"]!.GetValue<decimal>(), readings["band"]!.Text("position")).ShouldBe((1, "within"));
        readings["badges"]!.AsArray().ShouldHaveSingleItem()!.Text("other").ShouldBe("Kenta Morita");
    }

    [Theory]
    [InlineData("O'Driscoll-Smith", "O'Dr")]
    [InlineData("Nguye\u0302\u0303n", "nguyen")]
    [InlineData("بن يوسف", "يوسف")]
    [InlineData("Løvås", "løvas")]
    public async Task Names_with_apostrophes_marks_and_right_to_left_letters_are_kept_and_found(string family, string typed)
    {
        using var orla = await firm.As("orla");
        var id = await orla.PersonAsync("Llewelyn");
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { family_name = family },
                from = (string?)null,
                why = (string?)null,
            }
        );
        var found = (await orla.GetAsync($"/api/goto?q={Uri.EscapeDataString(typed)}")).AsArray();
        found.Select(f => f!.Text("id")).ShouldContain(id);
        await orla.SaveAsync(
            id,
            new
            {
                changes = new { family_name = "Llewelyn" },
                from = (string?)null,
                why = (string?)null,
            }
        );
    }

    [Fact]
    public async Task People_are_paged_by_key_without_gaps()
    {
        using var orla = await firm.As("orla");
        var names = new List<string>();
        for (var page = await orla.GetAsync("/api/people?all=true"); ; page = await orla.GetAsync($"/api/people?all=true&after={page["next"]}"))
        {
            names.AddRange(page["people"]!.AsArray().Select(p => p!.Text("employmentId")));
            if (page["next"] is null)
                break;
        }
        names.Count.ShouldBe(Convert.ToInt32(await firm.Database.AskAsync("select count(*) from records_now"), null));
        names.Distinct().Count().ShouldBe(names.Count);
    }

    private static object Body(object changes) =>
        new
        {
            changes,
            from = (string?)null,
            why = (string?)null,
        };
}
