using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Changes of a record that somebody asks for: who is asked, what comes of their word, and what nobody learns before. Callum is a
/// manager, Ruth is in payroll, Orla the coordinator and Piet the administrator.</summary>
public sealed class RequestTests : IAsyncLifetime
{
    private readonly FirmFixture _firm = new();
    private Caller _callum = null!,
        _orla = null!,
        _ruth = null!,
        _piet = null!;
    private string _report = null!;

    public async ValueTask InitializeAsync()
    {
        await _firm.InitializeAsync();
        (_callum, _orla, _ruth, _piet) = (await _firm.As("callum"), await _firm.As("orla"), await _firm.As("ruth"), await _firm.As("piet"));
        _report = await Asking.ReportOfCallumAsync(_firm.Database);
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var caller in new[] { _callum, _orla, _ruth, _piet })
            caller.Dispose();
        await _firm.DisposeAsync();
    }

    [Fact]
    public async Task A_manager_asks_for_a_raise_and_it_is_true_with_the_word_of_somebody_who_may_change_pay()
    {
        var before = await PayAsync(_orla);
        using (
            var tried = await _callum.ChangeAsync(
                _report,
                new
                {
                    changes = new { pay_rate = before + 1 },
                    from = "2027-04-01",
                    why = "Bosun now",
                }
            )
        )
            (await tried.ErrorsAsync()).ShouldBe([("/changes/pay_rate", "read-only")]);
        Records.Field(await _callum.GetAsync($"/api/records/{_report}"), "pay_rate").Text("access").ShouldBe("ask");

        var asked = await _callum.AskedAsync(_report, new { pay_rate = before + 1 }, from: "2027-04-01");
        asked.Text("state").ShouldBe("waiting");
        asked["steps"]!.AsArray().ShouldHaveSingleItem()!["who"]!.AsArray().Select(w => (string)w!).ShouldBe(["Orla Dunmore", "Piet Haverkort", "Ruth Abara"]);
        // Nothing of it is true yet, for nobody, and the record says that it waits.
        (await PayAsync(_orla)).ShouldBe(before);
        var waiting = (await _orla.GetAsync($"/api/records/{_report}"))["waiting"]!.AsArray().ShouldHaveSingleItem()!;
        (waiting.Text("field"), (decimal)waiting["value"]!, waiting.Text("from"), waiting.Text("askedBy")).ShouldBe(
            ("pay_rate", before + 1, "2027-04-01", "Callum Reyes")
        );
        (await _callum.ToDecideAsync()).ShouldBeEmpty("who asks does not decide");

        var seen = (await _ruth.ToDecideAsync()).ShouldHaveSingleItem();
        (seen["changes"]![0]!["old"]!["value"]!.GetValue<decimal>(), seen["changes"]![0]!["new"]!["value"]!.GetValue<decimal>()).ShouldBe((before, before + 1));
        using (var agreed = await _ruth.DecideAsync(seen, "agree", "Within the band."))
            agreed.StatusCode.ShouldBe(HttpStatusCode.NoContent);

        (await PayAsync(_orla)).ShouldBe(before, "it holds from April");
        var record = await _orla.GetAsync($"/api/records/{_report}");
        Records.Field(record, "pay_rate")["coming"]![0]!["value"]!.GetValue<decimal>().ShouldBe(before + 1);
        record["waiting"]!.AsArray().ShouldBeEmpty();
        var change = (await _orla.GetAsync($"/api/records/{_report}/history"))["changes"]![0]!;
        (change.Text("by"), change.Text("why"), change["agreedBy"]!.AsArray().Select(b => (string)b!).Single()).ShouldBe(
            ("Callum Reyes", "A test", "Ruth Abara")
        );
        (await _callum.AskedForAsync()).ShouldHaveSingleItem().Text("state").ShouldBe("done");
        foreach (var caller in new[] { _orla, _ruth, _piet })
            (await caller.ToDecideAsync()).ShouldBeEmpty();
        await _firm.EveryProjectionFollowsAsync();
    }

    [Fact]
    public async Task Of_two_who_agree_at_once_one_does_it_and_the_same_word_sent_again_does_nothing()
    {
        var before = await PayAsync(_orla);
        await _callum.AskedAsync(_report, new { pay_rate = before + 1 });
        var (first, second) = ((await _ruth.ToDecideAsync()).Single(), (await _orla.ToDecideAsync()).Single());
        var answers = await Task.WhenAll(_ruth.DecideAsync(first, "agree"), _orla.DecideAsync(second, "agree"));
        answers.Count(a => a.IsSuccessStatusCode).ShouldBe(1);
        answers.Single(a => !a.IsSuccessStatusCode).StatusCode.ShouldBeOneOf(HttpStatusCode.Conflict, HttpStatusCode.PreconditionFailed);
        (await ChangesOfPayAsync()).ShouldBe(1);

        var key = Guid.NewGuid();
        await _callum.AskedAsync(_report, new { pay_rate = before + 2 });
        var again = (await _ruth.ToDecideAsync()).Single();
        foreach (var _ in Enumerable.Range(0, 2))
            (await _ruth.DecideAsync(again, "agree", key: key)).IsSuccessStatusCode.ShouldBeTrue();
        (await ChangesOfPayAsync()).ShouldBe(2);
        (await PayAsync(_orla)).ShouldBe(before + 2);
    }

    [Fact]
    public async Task What_changed_meanwhile_is_asked_again_with_the_difference_and_what_came_about_by_itself_is_over()
    {
        var before = await PayAsync(_orla);
        await _callum.AskedAsync(_report, new { pay_rate = before + 3 });
        await _orla.SaveAsync(
            _report,
            new
            {
                changes = new { pay_rate = before + 1 },
                from = (string?)null,
                why = (string?)null,
            }
        );

        var stale = (await _ruth.ToDecideAsync()).Single();
        stale["changes"]![0]!["now"]!["value"]!.GetValue<decimal>().ShouldBe(before + 1);
        using (var agreed = await _ruth.DecideAsync(stale, "agree"))
            agreed.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await PayAsync(_orla)).ShouldBe(before + 1, "it was asked in place of another value");
        var again = (await _ruth.ToDecideAsync()).Single();
        var change = again["changes"]![0]!;
        (Value(change, "before"), Value(change, "old"), Value(change, "new")).ShouldBe((before, before + 1, before + 3));
        again["askedAgain"].ShouldNotBeNull();
        change["now"].ShouldBeNull();

        await _orla.SaveAsync(
            _report,
            new
            {
                changes = new { pay_rate = before + 3 },
                from = (string?)null,
                why = (string?)null,
            }
        );
        await _ruth.DecideAsync((await _ruth.ToDecideAsync()).Single(), "agree");
        (await _callum.AskedForAsync()).Single().Text("state").ShouldBe("overtaken");
        (await ChangesOfPayAsync()).ShouldBe(0, "Callum changed nothing");
    }

    [Fact]
    public async Task It_can_be_refused_with_a_reason_talked_about_handed_on_and_withdrawn()
    {
        var before = await PayAsync(_orla);
        var asked = await _callum.AskedAsync(_report, new { pay_rate = before + 1 });
        using (var silent = await _ruth.DecideAsync((await _ruth.ToDecideAsync()).Single(), "refuse"))
            (await silent.ErrorsAsync()).ShouldBe([("/comment", "missing")]);
        using (var said = await _ruth.DecideAsync((await _ruth.ToDecideAsync()).Single(), "comment", "From which budget?"))
            said.StatusCode.ShouldBe(HttpStatusCode.OK);
        // Who decides next has read what was said.
        using (var unread = await _callum.DecideAsync(asked, "withdraw"))
            unread.StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        (await _callum.AskedForAsync()).Single()["said"]!.AsArray()[^1]!.Text("words").ShouldBe("From which budget?");

        var seen = (await _ruth.ToDecideAsync()).Single();
        var others = (await _ruth.GetAsync($"/api/requests/{seen.Text("id")}/others")).AsArray();
        others.Select(o => o!.Text("name")).ShouldBe(["Orla Dunmore", "Piet Haverkort"]);
        var orla = others.Single(o => o!.Text("name") == "Orla Dunmore")!.Text("account");
        using (var handed = await HandOnAsync(_ruth, seen, orla))
            handed.StatusCode.ShouldBe(HttpStatusCode.NoContent, "Ruth is not asked any more");
        (await _ruth.ToDecideAsync()).ShouldBeEmpty();
        (await _piet.ToDecideAsync()).ShouldBeEmpty();
        using (var to = await HandOnAsync(_orla, (await _orla.ToDecideAsync()).Single(), (await AccountAsync("callum"))))
            (await to.ErrorsAsync()).ShouldBe([("/to", "cannot-be-asked")], "who asks never decides");
        using (var no = await _orla.DecideAsync((await _orla.ToDecideAsync()).Single(), "refuse", "Not this year."))
            no.IsSuccessStatusCode.ShouldBeTrue();
        var refused = (await _callum.AskedForAsync()).Single();
        (refused.Text("state"), (bool)refused["mayWithdraw"]!).ShouldBe(("refused", false));
        refused["said"]!.AsArray().Select(s => s!.Text("what")).ShouldBe(["request.asked", "request.commented", "request.handedOn", "request.refused"]);

        await _callum.AskedAsync(_report, new { pay_rate = before + 1 });
        using (var twice = await _callum.AskAsync(_report, new { pay_rate = before + 2 }))
            (await twice.ErrorsAsync()).ShouldBe([("/changes/pay_rate", "waits-already")]);
        using (var others2 = await _ruth.DecideAsync((await _ruth.ToDecideAsync()).Single(), "withdraw"))
            others2.StatusCode.ShouldBe(HttpStatusCode.NotFound, "only who asked takes it back");
        using (var back = await _callum.DecideAsync((await _callum.AskedForAsync())[0], "withdraw"))
            (await back.JsonAsync()).Text("state").ShouldBe("withdrawn");
        (await _ruth.ToDecideAsync()).ShouldBeEmpty();
        (await PayAsync(_orla)).ShouldBe(before);
    }

    [Fact]
    public async Task Approvals_bind_those_too_who_may_change_the_field_and_ask_one_after_the_other()
    {
        await Asking.ApproveByAsync(_piet, """{"id":"raise","label":"Raises","fields":["pay_rate"],"when":"new > old","by":["manager","role:payroll"]}""");
        var before = await PayAsync(_orla);
        using (
            var direct = await _orla.ChangeAsync(
                _report,
                new
                {
                    changes = new { pay_rate = before + 1 },
                    from = (string?)null,
                    why = (string?)null,
                }
            )
        )
            (await direct.ErrorsAsync()).ShouldBe([("/changes/pay_rate", "needs-approval")]);
        // Less is nobody's to be asked about.
        await _orla.SaveAsync(
            _report,
            new
            {
                changes = new { pay_rate = before - 1 },
                from = (string?)null,
                why = (string?)null,
            }
        );

        var route = await RouteAsync(_orla, new { pay_rate = before + 1, room = "7" });
        route["steps"]!.AsArray().Select(s => string.Join(", ", s!["who"]!.AsArray())).ShouldBe(["Callum Reyes", "Ruth Abara"]);
        route["direct"]!.AsArray().Select(d => (string)d!).ShouldBe(["room"]);
        await _orla.AskedAsync(_report, new { pay_rate = before + 1 });
        (await _ruth.ToDecideAsync()).ShouldBeEmpty("the manager comes first");
        await _callum.AgreeToTheOneAsync();
        (await PayAsync(_orla)).ShouldBe(before - 1);
        await _ruth.AgreeToTheOneAsync();
        (await PayAsync(_orla)).ShouldBe(before + 1);
        // Who asks is left out, whatever other role they have.
        using var own = await _ruth.AskAsync(_report, new { pay_rate = before + 2 });
        (await own.JsonAsync())["steps"]!
            .AsArray()
            .Select(s => string.Join(", ", s!["who"]!.AsArray()))
            .ShouldBe(["Callum Reyes", "Piet Haverkort"], "nobody else is in payroll, so it is left to the administrators");
        using var decided = await _ruth.DecideAsync((await _ruth.AskedForAsync()).First(r => r.Text("state") == "waiting"), "agree");
        decided.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task An_approver_who_leaves_gives_way_and_one_who_may_no_longer_ask_gets_nothing_done()
    {
        await Asking.ApproveByAsync(_piet, """{"id":"raise","fields":["pay_rate"],"by":["role:payroll"]}""");
        var before = await PayAsync(_orla);
        await _callum.AskedAsync(_report, new { pay_rate = before + 1 });
        (await _piet.ToDecideAsync()).ShouldBeEmpty();
        await DisableAsync("ruth");
        var left = (await _piet.ToDecideAsync()).ShouldHaveSingleItem();
        await DisableAsync("callum");
        using (var gone = await _piet.DecideAsync(left, "agree"))
            (await gone.JsonAsync()).Text("code").ShouldBe("may-no-longer-ask");
        (await PayAsync(_orla)).ShouldBe(before);
        using (var refused = await _piet.DecideAsync((await _piet.ToDecideAsync()).Single(), "refuse", "Callum has left."))
            refused.IsSuccessStatusCode.ShouldBeTrue();
        (await _piet.ToDecideAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_sealed_stays_so_until_it_is_true_also_where_two_records_turn_out_to_be_one()
    {
        using var ines = await _firm.As("ines");
        var own = (string)
            (await _firm.Database.AskAsync("select e.id::text from employments e join users u on u.person_id = e.person_id where u.email like 'ines@%'"))!;
        await ines.AskedAsync(own, new { bank_account = "IE29AIBK93115212345678" });
        ((long)(await _firm.Database.AskAsync("select count(*) from record_requests where changes::text like '%IE29AIBK%'"))!).ShouldBe(0);
        var seen = (await _ruth.ToDecideAsync()).Single();
        seen.ToJsonString().ShouldNotContain("IE29AIBK");
        // Somebody who may not see it is neither asked nor told that it waits.
        (await _callum.ToDecideAsync()).ShouldBeEmpty();

        // The person turns out to be another, whose record stays.
        var twin = await _orla.OpenAsync("Varga");
        using (
            var merged = await _orla.SendAsync(
                "POST",
                $"/api/people/{twin.Text("employmentId")}/merge",
                new
                {
                    with = own,
                    take = Array.Empty<string>(),
                    why = "The same",
                    close = (string[]?)null,
                }
            )
        )
            merged.IsSuccessStatusCode.ShouldBeTrue(await merged.Content.ReadAsStringAsync());
        await DecideUntilDoneAsync(_ruth);
        using var shown = await _ruth.SendAsync("POST", $"/api/records/{own}/fields/bank_account/reveal", new { value = (string?)null });
        (await shown.Content.ReadAsStringAsync()).ShouldContain("IE29AIBK93115212345678");
    }

    [Theory]
    [InlineData("""{"pay_rate":-1}""", "2027-04-01", "x", "/changes/pay_rate", "out-of-range")]
    [InlineData("""{"pay_rate":"much"}""", "2027-04-01", "x", "/changes/pay_rate", null)]
    [InlineData("""{"bank_account":"IE29AIBK93115212345678"}""", null, "x", "/changes/bank_account", "unknown-field")]
    [InlineData("""{"room":"7"}""", null, "x", "/changes/room", "read-only")]
    [InlineData("""{"nothing":"7"}""", null, "x", "/changes/nothing", "unknown-field")]
    [InlineData("""{"pay_rate":99}""", "0001-04-01", "x", "/from", "bad-date")]
    [InlineData("""{"pay_rate":99}""", null, " ", "/why", "missing")]
    [InlineData("{}", null, "x", "/changes", "missing")]
    public async Task What_cannot_be_asked_for_says_why_at_the_field(string changes, string? from, string why, string pointer, string? code)
    {
        using var refused = await _callum.AskAsync(_report, JsonNode.Parse(changes)!, from, why);
        var errors = await refused.ErrorsAsync();
        errors.ShouldContain(e => e.Pointer == pointer && (code == null || e.Code == code), $"{string.Join(", ", errors)}");
        (await _callum.AskedForAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task New_hires_sheets_and_templates_obey_as_well_and_so_does_what_is_taken_back()
    {
        var before = await PayAsync(_orla);
        await _orla.SaveAsync(
            _report,
            new
            {
                changes = new { pay_rate = before + 5 },
                from = (string?)null,
                why = "above the band",
            }
        );
        await Asking.ApproveByAsync(
            _piet,
            """
            {"id":"site","label":"Places","fields":["site","kind"],"by":["role:administrator"]},
            {"id":"pay","label":"Pay","fields":["pay_rate"],"when":"new != 17.25","by":["role:payroll"]}
            """
        );
        var hire = Records.NewHire("Aoife", "Byrne");
        hire["typed"]!["pay_rate"] = 17.25;
        hire["typed"]!["kind"] = "seasonal";
        // The site is the first word: without one no hire is opened.
        using (var opened = await _orla.SendAsync("POST", "/api/hires", hire.ToJsonString()))
            (await opened.ErrorsAsync()).ShouldBe([("/typed/kind", "needs-approval")]);
        hire["typed"]!.AsObject().Remove("kind");
        // What a colleague has is no template's word either.
        hire["typed"]!.AsObject().Remove("pay_rate");
        hire["like"] = new JsonObject { ["employment"] = _report, ["parts"] = new JsonArray("work", "pay") };
        using (var like = await _orla.SendAsync("POST", "/api/hires", hire.ToJsonString()))
            (await like.ErrorsAsync()).Select(e => e.Code).ShouldContain("needs-approval");

        var number = (await _orla.GetAsync($"/api/records/{_report}")).Text("number");
        var run = await _orla.ImportAsync(
            "people",
            "Employee number,Role template,Start date,Given name,Family name,Site,Pay rate\n"
                + $"{number},,,,,Little Brae Slip,17.25\nnew,Deckhand,2027-06-07,Aoife,Byrne,Skerry Pier,\nnew,Deckhand,2027-06-07,Malo,Keane,,99\n"
        );
        (await _orla.RowsAsync(run, "wrong"))
            .SelectMany(r => r["problems"]!.AsArray().Select(p => $"{p!.Text("column")} {p!.Text("code")}"))
            .Where(p => p.EndsWith("needs-approval", StringComparison.Ordinal))
            .ShouldBe(["site needs-approval", "pay_rate needs-approval"], run.ToJsonString());

        var spec = (await _orla.GetAsync("/api/templates/deckhand"))["live"]!;
        spec["values"]!["pay_rate"] = 18.25;
        await _orla.PublishAsync("deckhand", (await _orla.DraftAsync("deckhand", spec, null)).Text("version"));
        var update = (await _orla.GetAsync("/api/templates/deckhand/updates"))[0]!;
        using (
            var applied = await _orla.SendAsync(
                "POST",
                "/api/templates/updates",
                new { hires = new[] { new { id = update.Text("id"), take = new[] { "values/pay_rate" } } } }
            )
        )
            (await applied.ErrorsAsync()).ShouldBe([("/hires/0/take/pay_rate", "needs-approval")]);

        var raised = (await _orla.GetAsync($"/api/records/{_report}/history"))["changes"]![0]!.Text("id");
        using (var taken = await _orla.SendAsync("POST", $"/api/records/{_report}/changes/{raised}/take-back", new { why = "Wrong" }))
            (taken.StatusCode, (await taken.JsonAsync()).Text("code")).ShouldBe((HttpStatusCode.Conflict, "needs-approval"));
        (await PayAsync(_orla)).ShouldBe(before + 5);
    }

    [Fact]
    public async Task The_approvals_of_a_draft_are_tried_on_somebody_before_they_count()
    {
        var configuration = (await _piet.GetAsync("/api/fields"))["configuration"]!.DeepClone().AsObject();
        configuration["approvals"] = JsonNode.Parse("""[{"id":"raise","fields":["pay_rate"],"when":"new > old","by":["manager","role:payroll"]}]""");
        var before = await PayAsync(_orla);
        async Task<JsonNode> TryAsync(decimal rate)
        {
            using var tried = await _piet.SendAsync(
                "POST",
                "/api/fields/draft/approvals",
                new JsonObject
                {
                    ["configuration"] = configuration.DeepClone(),
                    ["employment"] = _report,
                    ["changes"] = new JsonObject { ["pay_rate"] = rate },
                    ["from"] = null,
                }.ToJsonString()
            );
            return await tried.JsonAsync();
        }
        (await TryAsync(before + 1))["steps"]!.AsArray().Select(s => (string)s!["who"]![0]!).ShouldBe(["Callum Reyes", "Ruth Abara"]);
        (await TryAsync(before - 1))["direct"]!.AsArray().Select(d => (string)d!).ShouldBe(["pay_rate"]);
        configuration["approvals"]![0]!["by"]![0] = "role:pilots";
        (await TryAsync(before + 1))["errors"]![0]!.Text("pointer").ShouldBe("/configuration/approvals/0/by");
    }

    private static decimal? Value(JsonNode change, string which) => change[which]?["value"]?.GetValue<decimal>();

    private async Task<decimal> PayAsync(Caller caller) =>
        Records.Field(await caller.GetAsync($"/api/records/{_report}"), "pay_rate")["value"]!.GetValue<decimal>();

    private async Task<long> ChangesOfPayAsync() =>
        (long)(await _firm.Database.AskAsync($"select count(*) from changes where subject_id = '{_report}' and by_name = 'Callum Reyes'"))!;

    private async Task<JsonNode> RouteAsync(Caller caller, object changes)
    {
        using var route = await caller.SendAsync(
            "POST",
            $"/api/records/{_report}/requests/route",
            new
            {
                changes,
                from = (string?)null,
                why = (string?)null,
            }
        );
        return await route.JsonAsync();
    }

    private static Task<HttpResponseMessage> HandOnAsync(Caller caller, JsonNode request, string to) =>
        caller.SendAsync("POST", $"/api/requests/{request.Text("id")}/hand-on", new { to, comment = (string?)null }, request.Text("version"));

    private async Task<string> AccountAsync(string who) => (await Roles.AccountAsync(_piet, who)).Id;

    private async Task DisableAsync(string who)
    {
        var (id, detail) = await Roles.AccountAsync(_piet, who);
        using var disabled = await _piet.SendAsync("PUT", $"/api/accounts/{id}/disabled", null, detail.Text("version"));
        disabled.IsSuccessStatusCode.ShouldBeTrue(await disabled.Content.ReadAsStringAsync());
    }

    // Asked again where the record changed, it takes a second word.
    private static async Task DecideUntilDoneAsync(Caller caller)
    {
        while ((await caller.ToDecideAsync()) is [var next, ..])
        {
            using var agreed = await caller.DecideAsync(next, "agree");
            agreed.IsSuccessStatusCode.ShouldBeTrue(await agreed.Content.ReadAsStringAsync());
        }
    }
}
