using System.Net;
using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Rates of a group changed by a rule: what is seen before is what is made, from the day, and undone as a whole or not at all.</summary>
public class RevisionTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private const string From = "2027-04-01";
    private const string Rates =
        "select coalesce(string_agg(owner_id || ' ' || value || ' ' || effective, ',' order by owner_id, effective), '') from record_values "
        + "where field = 'pay_rate' and upper_inf(known)";

    [Fact]
    public async Task What_is_seen_before_is_what_everybody_is_paid_from_the_day_and_undone_all_are_paid_as_before()
    {
        using var orla = await firm.As("orla");
        var before = await firm.Database.AskAsync(Rates);
        // A deckhand becomes bosun on that day, and is no deckhand any more.
        var bosuns = (await PreviewAsync(orla, Asked(percent: 1, job: "DK-4")))["lines"]!.AsArray().Select(l => l!.Text("job")).ToArray();
        bosuns.ShouldAllBe(j => j == "Bosun");
        bosuns.LongLength.ShouldBe(
            1
                + (long)
                    (
                        await firm.Database.AskAsync(
                            "select count(*) from records_now r join employments e on e.id = r.employment_id where job_code = 'DK-4' "
                                + $"and e.start <= '{From}' and (e.\"end\" is null or e.\"end\" >= '{From}')"
                        )
                    )!
        );
        var asked = Asked(percent: 2.5m, atLeast: 0.40m, job: "DK-2");
        var preview = await PreviewAsync(orla, asked);
        var lines = preview["lines"]!.AsArray().Select(l => l!).ToArray();
        lines.Length.ShouldBeGreaterThan(5);
        lines.ShouldAllBe(l => l.Text("job") == "Deckhand");
        lines.Sum(l => l.Amount("annualAfter") - l.Amount("annualBefore")).ShouldBe(preview.Amount("budget"));
        lines.Count(l => l.Amount("after") > l.Amount("before")).ShouldBe(preview["raised"]!.GetValue<int>());
        foreach (var line in lines)
            line.Amount("after")
                .ShouldBe(
                    Math.Max(
                        decimal.Round(line.Amount("before") * 1.025m, 2, MidpointRounding.AwayFromZero),
                        line.Amount("before") + (line.Text("per") == "hour" ? 0.40m : 0)
                    ),
                    line.Text("name")
                );
        (await firm.Database.AskAsync(Rates)).ShouldBe(before);

        var id = Guid.NewGuid();
        (await MakeAsync(orla, asked, preview, id, "the yearly round")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var one = lines.First(l => l.Amount("after") > l.Amount("before"));
        var rate = Records.Field(await orla.GetAsync($"/api/records/{one.Text("employmentId")}"), "pay_rate");
        rate.Amount("value").ShouldBe(one.Amount("before"));
        (rate["coming"]![0]!.Text("from"), rate["coming"]![0]!.Amount("value")).ShouldBe((From, one.Amount("after")));
        var told = (await orla.GetAsync($"/api/records/{one.Text("employmentId")}/history"))["changes"]![0]!;
        (told.Text("origin"), told.Text("why")).ShouldBe(("revision", "the yearly round"));
        var made = (await orla.GetAsync("/api/pay-revisions")).AsArray().Single(r => r!.Text("id") == id.ToString())!;
        (made["group"]!.ToJsonString(), made["people"]!.GetValue<int>(), made.Amount("budget"), made["undoneByName"]).ShouldBe(
            ("""["Deckhand"]""", preview["raised"]!.GetValue<int>(), preview.Amount("budget"), null)
        );
        // Looked at again, everybody would be raised from what they are paid by then.
        (await PreviewAsync(orla, asked))["lines"]!
            .AsArray()
            .Single(l => l!.Text("employmentId") == one.Text("employmentId"))!
            .Amount("before")
            .ShouldBe(one.Amount("after"));

        (await MakeAsync(orla, asked, await PreviewAsync(orla, asked), id)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await UndoAsync(orla, id)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await firm.Database.AskAsync(Rates)).ShouldBe(before);
        (await orla.GetAsync("/api/pay-revisions")).AsArray().Single(r => r!.Text("id") == id.ToString())!.Text("undoneByName").ShouldStartWith("Orla");
        (await UndoAsync(orla, id)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await UndoAsync(orla, Guid.NewGuid())).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Sent_twice_under_one_key_it_is_made_once_and_of_two_at_once_one_sees_that_pay_changed_meanwhile()
    {
        using var orla = await firm.As("orla");
        var (asked, key) = (Asked(percent: 1, job: "TC-1"), Guid.NewGuid());
        var preview = await PreviewAsync(orla, asked);
        var id = Guid.NewGuid();
        var twice = await Task.WhenAll(MakeAsync(orla, asked, preview, id, key: key), MakeAsync(orla, asked, preview, id, key: key));
        twice.ShouldAllBe(a => a.StatusCode == HttpStatusCode.NoContent);
        (await orla.GetAsync("/api/pay-revisions")).AsArray().Count(r => r!.Text("id") == id.ToString()).ShouldBe(1);

        var next = await PreviewAsync(orla, asked);
        var both = await Task.WhenAll(MakeAsync(orla, asked, next, Guid.NewGuid()), MakeAsync(orla, asked, next, Guid.NewGuid()));
        both.Select(a => a.StatusCode).Order().ShouldBe([HttpStatusCode.NoContent, HttpStatusCode.PreconditionFailed]);
        var after = (await PreviewAsync(orla, asked))["lines"]!.AsArray();
        after.Select(l => l!.Amount("before")).ShouldBe(next["lines"]!.AsArray().Select(l => l!.Amount("after")));
    }

    [Fact]
    public async Task Where_somebodys_pay_changed_since_nothing_is_undone_and_who_it_is_is_said()
    {
        using var orla = await firm.As("orla");
        var (asked, id) = (Asked(percent: 3, job: "RG-3"), Guid.NewGuid());
        var preview = await PreviewAsync(orla, asked);
        (await MakeAsync(orla, asked, preview, id)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var line = preview["lines"]![0]!;
        await orla.SaveAsync(
            line.Text("employmentId"),
            new
            {
                changes = new { pay_rate = line.Amount("after") + 0.05m },
                from = "2027-05-01",
                why = "agreed with the crew",
            }
        );
        var between = await firm.Database.AskAsync(Rates);
        using var refused = await UndoAsync(orla, id);
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.JsonAsync()).Text("title").ShouldContain(line.Text("number"));
        (await firm.Database.AskAsync(Rates)).ShouldBe(between);
        // A rate that is entered ahead is said beforehand: it stays.
        var again = (await PreviewAsync(orla, asked))["lines"]!.AsArray().Single(l => l!.Text("number") == line.Text("number"))!;
        again.Text("enteredAhead").ShouldBe("2027-05-01");
    }

    [Fact]
    public async Task Whose_raise_others_have_to_agree_to_is_left_out_and_said()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var asked = Asked(percent: 4, job: "EN-2");
        var all = (await PreviewAsync(orla, asked))["lines"]!.AsArray();
        var limit = all.Max(l => l!.Amount("after"));
        limit.ShouldBeGreaterThan(all.Min(l => l!.Amount("after")));
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.AsObject();
        configuration["approvals"] = JsonNode.Parse(
            FormattableString.Invariant($$"""[{"id":"raise","fields":["pay_rate"],"when":"new >= {{limit}}","by":["role:payroll"]}]""")
        );
        await Markers.PublishAsync(piet, orla, configuration);
        try
        {
            var preview = await PreviewAsync(orla, asked);
            var highest = all.Where(l => l!.Amount("after") == limit).Select(l => l!.Text("name")).ToArray();
            preview["leftOut"]!.AsArray().Select(l => (l!.Text("name"), l!.Text("why"))).ShouldBe(highest.Select(n => (n, "needsApproval")));
            preview["lines"]!.AsArray().Count.ShouldBe(all.Count - highest.Length);
            preview.Amount("budget").ShouldBe(preview["lines"]!.AsArray().Sum(l => l!.Amount("annualAfter") - l!.Amount("annualBefore")));
            (await MakeAsync(orla, asked, preview, Guid.NewGuid())).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }
        finally
        {
            configuration["approvals"] = new JsonArray();
            await Markers.PublishAsync(piet, orla, configuration);
        }
    }

    [Fact]
    public async Task Taken_out_as_a_sheet_it_comes_back_through_exchange_from_the_day()
    {
        using var orla = await firm.As("orla");
        var preview = await PreviewAsync(orla, Asked(percent: 2, job: "ST-2"));
        var sheet = await orla.BytesAsync($"/api/pay-revisions/sheet.xlsx?percent=2&job=ST-2&upToBand=false&from={From}");
        var run = await orla.ImportAsync("people", sheet, "round.xlsx");
        run = await orla.OnAsync(
            run,
            "PUT",
            "matching",
            new
            {
                columns = run["columns"]!.AsArray().Select(c => (string)c!),
                dates = (string?)null,
                @decimal = ".",
                emptyClears = false,
                holdsFrom = From,
            }
        );
        run.Counts().ShouldBe([0, preview["raised"]!.GetValue<int>(), 0, 0, 0], run.ToJsonString());
        run = await orla.OnAsync(run, "POST", "commit", new { onlyGood = false });
        (run.Text("state"), run["failure"]).ShouldBe(("committed", null));
        foreach (var line in preview["lines"]!.AsArray())
            Records.Field(await orla.GetAsync($"/api/records/{line!.Text("employmentId")}"), "pay_rate")["coming"]![0]!
                .Amount("value")
                .ShouldBe(line!.Amount("after"));
        (await orla.OnAsync(run, "POST", "undo")).Text("state").ShouldBe("undone");
    }

    [Fact]
    public async Task Nobody_learns_or_changes_pay_here_that_they_may_not_see_or_change_on_the_record()
    {
        using var orla = await firm.As("orla");
        using var piet = await firm.As("piet");
        var asked = Asked(percent: 2, job: "MA-5");
        var preview = await PreviewAsync(orla, asked);
        preview["lines"]!.AsArray().ShouldNotBeEmpty();
        var configuration = (await piet.GetAsync("/api/fields"))["configuration"]!.AsObject();
        var access = configuration["fields"]!.AsArray().Single(f => f!.Text("key") == "pay_rate")!["access"]!;
        try
        {
            access["coordinator"] = "view";
            await Markers.PublishAsync(piet, orla, configuration);
            (await PreviewAsync(orla, asked))["lines"]!.AsArray().ShouldBeEmpty();
            (await PreviewAsync(orla, asked))["leftOut"]!.AsArray().ShouldAllBe(l => l!.Text("why") == "notYours");
            (await MakeAsync(orla, asked, preview, Guid.NewGuid())).StatusCode.ShouldBe(HttpStatusCode.Conflict);
            // Seen by nobody of the role, nobody is named either.
            await Markers.HideAsync(piet, orla, "coordinator", "pay_rate");
            var hidden = await PreviewAsync(orla, asked);
            (hidden["lines"]!.AsArray().Count, hidden["leftOut"]!.AsArray().Count, hidden.Amount("annualBefore")).ShouldBe((0, 0, 0m));
        }
        finally
        {
            access["coordinator"] = "edit";
            await Markers.PublishAsync(piet, orla, configuration);
        }
    }

    public static TheoryData<string, string> BadQuestions =>
        new()
        {
            { """{"percent":-1}""", "/percent out-of-range" },
            { """{"percent":100.5}""", "/percent out-of-range" },
            { """{"percent":1e12}""", "/percent out-of-range" },
            { """{"atLeastHourly":-0.01}""", "/atLeastHourly out-of-range" },
            { """{"atLeastHourly":1001}""", "/atLeastHourly out-of-range" },
            { """{"group":{"grade":"C99","job":null,"site":"atlantis","payGroup":null}}""", "/group/grade unknown-entry, /group/site unknown-entry" },
            { """{"from":"1066-10-14"}""", "/from bad-date" },
        };

    [Theory]
    [MemberData(nameof(BadQuestions))]
    public async Task What_is_wrong_with_a_rule_is_said_where_it_stands_when_it_is_looked_at_and_when_it_is_made(string over, string problems)
    {
        using var orla = await firm.As("orla");
        var asked = Asked(percent: 2);
        foreach (var (name, value) in JsonNode.Parse(over)!.AsObject())
            asked[name] = value!.DeepClone();
        foreach (
            var answer in new[]
            {
                await orla.SendAsync("POST", "/api/pay-revisions/preview", asked.ToJsonString()),
                await orla.SendAsync("POST", "/api/pay-revisions", Body(asked, Guid.NewGuid(), "a round", "seen").ToJsonString()),
            }
        )
            string.Join(", ", (await answer.ErrorsAsync()).Select(e => $"{e.Pointer} {e.Code}")).ShouldBe(problems);
    }

    [Fact]
    public async Task Without_a_reason_or_with_nobody_to_raise_nothing_is_made()
    {
        using var orla = await firm.As("orla");
        var asked = Asked(percent: 2, job: "DK-2");
        var preview = await PreviewAsync(orla, asked);
        foreach (var why in new[] { null, " ", new string('x', 501), "a\u0000b" })
            (await (await MakeAsync(orla, asked, preview, Guid.NewGuid(), why)).ErrorsAsync()).ShouldHaveSingleItem().Pointer.ShouldBe("/why");
        (await MakeAsync(orla, Asked(percent: 0), preview, Guid.NewGuid())).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    private static JsonObject Asked(decimal percent, decimal atLeast = 0, string? job = null) =>
        new()
        {
            ["group"] = new JsonObject
            {
                ["grade"] = null,
                ["job"] = job,
                ["site"] = null,
                ["payGroup"] = null,
            },
            ["percent"] = percent,
            ["atLeastHourly"] = atLeast,
            ["upToBand"] = false,
            ["from"] = From,
        };

    private static async Task<JsonNode> PreviewAsync(Caller caller, JsonObject asked)
    {
        using var answer = await caller.SendAsync("POST", "/api/pay-revisions/preview", asked.ToJsonString());
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return await answer.JsonAsync();
    }

    private static Task<HttpResponseMessage> MakeAsync(
        Caller caller,
        JsonObject asked,
        JsonNode preview,
        Guid id,
        string? why = "the yearly round",
        Guid? key = null
    ) => caller.SendAsync("POST", "/api/pay-revisions", Body(asked, id, why, preview.Text("version")).ToJsonString(), key: key);

    private static Task<HttpResponseMessage> UndoAsync(Caller caller, Guid id) => caller.SendAsync("POST", $"/api/pay-revisions/{id}/undo");

    private static JsonObject Body(JsonObject asked, Guid id, string? why, string seen) =>
        new()
        {
            ["id"] = id.ToString(),
            ["asked"] = asked.DeepClone(),
            ["why"] = why,
            ["seen"] = seen,
        };
}
