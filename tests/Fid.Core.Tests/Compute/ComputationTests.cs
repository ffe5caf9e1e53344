using System.Buffers;
using System.Text;
using System.Text.Json;
using Fid.Core.Compute;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Compute;

public class ComputationTests
{
    private const string Plan = """
        {"today":"2027-03-01","anchors":{"start":"2027-03-22"},"calendars":{"office":{"rest":"0000011","holidays":["2027-03-17"]}},
         "stages":[{"id":"prepare"}],"tasks":[{"id":"a","stage":"prepare","calendar":"office","after":[],"dayOne":true},
         {"id":"b","stage":"prepare","calendar":"office","work":2,"after":["a",{"id":"a","lag":1}],"due":{"anchor":"start","offset":-1,"unit":"weeks"}},
         {"id":"c","stage":"prepare","calendar":"office","done":"2027-02-26"}]}
        """;

    [Theory]
    [InlineData(
        "calendar",
        """{"calendar":{"rest":"0000011","holidays":["2027-05-17"]},"ask":[{"do":"add","date":"2027-05-14","days":3},"""
            + """{"do":"count","from":"2027-05-10","to":"2027-05-21"},{"do":"roll","date":"2027-05-17","rule":"following"}]}""",
        """{"answers":["2027-05-20",9,"2027-05-18"]}"""
    )]
    [InlineData(
        "pay.rate",
        """{"amount":17.40,"per":"hour","weeklyHours":30,"fullTimeHours":37.5,"payEvery":"fortnight"}""",
        """{"annual":27144.00,"fullTimeAnnual":33930.00,"hourly":17.4000,"perPeriod":1044.00}"""
    )]
    [InlineData("pay.band", """{"pay":33930,"min":30000,"mid":36000,"max":42000}""", """{"compaRatio":0.943,"penetration":0.328,"position":"within"}""")]
    [InlineData(
        "clock.badges",
        """{"assignments":[{"id":"x","badge":"0012","group":"g","person":"p","from":"2027-01-01","to":"2027-02-01"},"""
            + """{"id":"y","badge":"0012","group":"g","person":"q","from":"2027-02-03","to":null}],"restDays":30}""",
        """{"conflicts":[{"code":"tooSoon","badge":"0012","ids":["x","y"]}]}"""
    )]
    [InlineData(
        "pay.periods",
        """{"payGroup":{"every":"fortnight","firstPeriodStart":"2027-01-04","payDaysAfterEnd":5,"cutOffWorkingDays":4,"calendar":"""
            + """{"rest":"0000011","holidays":["2027-03-17"]}},"from":"2027-03-29","to":"2027-03-29"}""",
        """{"periods":[{"start":"2027-03-29","end":"2027-04-11","payDate":"2027-04-16","cutOff":"2027-04-12"}]}"""
    )]
    [InlineData(
        "pay.first",
        """{"payGroup":{"every":"fortnight","firstPeriodStart":"2027-01-04","payDaysAfterEnd":5,"cutOffWorkingDays":4,"calendar":"""
            + """{"rest":"0000011","holidays":["2027-03-17"]}},"start":"2027-03-22","approvedOn":"2027-04-06","workCalendar":"""
            + """{"rest":"0000011","holidays":[]},"amountPerPeriod":1250.00,"method":"workingDays"}""",
        """{"firstPeriod":{"start":"2027-03-15","end":"2027-03-28","payDate":"2027-04-02","cutOff":"2027-03-29"},"paidWith":"""
            + """{"start":"2027-03-29","end":"2027-04-11","payDate":"2027-04-16","cutOff":"2027-04-12"},"part":5,"whole":10,"lines":"""
            + """[{"period":"2027-03-15","amount":625.00,"arrears":true},{"period":"2027-03-29","amount":1250.00,"arrears":false}],"total":1875.00}"""
    )]
    [InlineData(
        "pay.first",
        """{"payGroup":{"every":"month","payDaysAfterEnd":0,"cutOffWorkingDays":3,"calendar":{"rest":"0000011","holidays":[]}},"start":"2027-03-30","""
            + """ "approvedOn":"2027-03-01","workCalendar":{"rest":"0000011","holidays":[]},"amountPerPeriod":1000,"method":"rosteredHours","roster":"""
            + """{"timeZone":"Europe/Dublin","pattern":{"cycleStart":"2027-03-28","days":["N"],"shifts":{"N":{"start":"22:00","end":"06:00"}}}}}""",
        // The night to the 28th is an hour shorter: 31 nights of eight hours less one.
        """{"firstPeriod":{"start":"2027-03-01","end":"2027-03-31","payDate":"2027-03-31","cutOff":"2027-03-26"},"paidWith":"""
            + """{"start":"2027-03-01","end":"2027-03-31","payDate":"2027-03-31","cutOff":"2027-03-26"},"part":960,"whole":14820,"lines":"""
            + """[{"period":"2027-03-01","amount":64.78,"arrears":false}],"total":64.78}"""
    )]
    [InlineData(
        "pay.loaded",
        """{"annualCosts":[33800,2028,640],"weeklyHours":37.5,"hoursPerDay":7.5,"leaveDays":25,"holidays":9,"trainingHours":30}""",
        """{"annualCost":36468.00,"productiveHours":1665.00,"loadedHourly":21.90}"""
    )]
    [InlineData(
        "pay.preview",
        """{"every":"fortnight","components":[{"code":"ISLE","kind":"earning","percent":4,"of":["BASE"]},{"code":"BASE","kind":"earning","amount":1250}]}""",
        """{"lines":[{"code":"ISLE","amount":50.00,"working":"4 % of BASE (1250.00): 4 % of 1250.00 = 50.00."},"""
            + """{"code":"BASE","amount":1250.00,"working":"A fixed amount of 1250.00."}],"gross":"""
            + """1300.00,"deductions":0.00,"net":1300.00,"employerCost":1300.00}"""
    )]
    [InlineData(
        "clock.roster",
        """{"timeZone":"Europe/Dublin","pattern":{"cycleStart":"2027-03-26","days":["N","-"],"shifts":{"N":"""
            + """{"start":"22:00","end":"06:00","unpaidBreak":30}}},"holidays":[],"onHoliday":"off","from":"2027-03-27","to":"2027-03-28"}""",
        """{"days":[{"date":"2027-03-27","shift":null,"holiday":false,"paidMinutes":0},"""
            + """{"date":"2027-03-28","shift":"N","holiday":false,"start":"2027-03-28T22:00:00+01:00","end":"2027-03-29T06:00:00+01:00","paidMinutes":"""
            + """450}],"paidMinutes":450}"""
    )]
    public void Answers_as_the_rules_say(string name, string question, string answer) => Ask(name, question).ShouldBe(answer);

    [Fact]
    public void Answers_a_plan_with_nulls_where_nothing_bounds_and_no_dates_for_what_is_done()
    {
        using var answer = JsonDocument.Parse(Ask("plan", Plan));
        var tasks = answer.RootElement.GetProperty("tasks");
        tasks[0].GetProperty("due").ValueKind.ShouldBe(JsonValueKind.Null);
        tasks[1]
            .GetRawText()
            .ShouldBe(
                "{\"id\":\"b\",\"due\":\"2027-03-15\",\"state\":\"waiting\",\"earliestStart\":\"2027-03-03\",\"earliestFinish\":\"2027-03-04\","
                    + "\"latestStart\":\"2027-03-12\",\"latestFinish\":\"2027-03-15\",\"slack\":"
                    + """7,"critical":false}"""
            );
        tasks[2].GetRawText().ShouldBe("""{"id":"c","due":null,"state":"done"}""");
        answer.RootElement.EnumerateObject().Select(p => p.Name).ShouldBe(["tasks", "stages", "feasible", "soonestStart", "readiness", "holdUp"]);
    }

    [Theory]
    [InlineData("\"today\":\"2027-03-01\"", "\"today\":\"2027-02-30\"", "/today", "bad-date")]
    [InlineData("\"today\":\"2027-03-01\"", "\"today\":\"2027-03-01T00:00:00Z\"", "/today", "bad-date")]
    [InlineData("\"today\":\"2027-03-01\",", "", "/today", "missing-property")]
    [InlineData("\"dayOne\":true", "\"dayone\":true", "/tasks/0/dayone", "unknown-property")]
    [InlineData("\"dayOne\":true", "\"dayOne\":\"yes\"", "/tasks/0/dayOne", "wrong-type")]
    [InlineData("\"work\":2", "\"work\":-1", "/tasks/1/work", "out-of-range")]
    [InlineData("\"work\":2", "\"work\":2.5", "/tasks/1/work", "wrong-type")]
    [InlineData("\"work\":2", "\"work\":2,\"work\":3", "/tasks/1/work", "duplicate-property")]
    [InlineData("\"anchor\":\"start\"", "\"anchor\":\"finish\"", "/tasks/1/due", "unknown-anchor")]
    [InlineData("\"unit\":\"weeks\"", "\"unit\":\"years\"", "/tasks/1/due/unit", "bad-value")]
    [InlineData("\"after\":[]", "\"after\":[\"b\"]", "/tasks/0/after", "dependency-loop")]
    [InlineData("\"0000011\"", "\"1111111\"", "/calendars/office/rest", "no-working-day")]
    [InlineData("\"2027-03-17\"", "20270317", "/calendars/office/holidays/0", "wrong-type")]
    [InlineData("\"start\":\"2027-03-22\"", "\"begin\":\"2027-03-22\"", "/anchors", "missing-anchor")]
    [InlineData("\"office\":{", "\"a/b~c\":{\"x\":1,", "/calendars/a~1b~0c/x", "unknown-property")]
    public void Names_the_place_and_the_kind_of_a_mistake(string right, string wrong, string path, string code)
    {
        Plan.ShouldContain(right);
        Errors("plan", Plan.Replace(right, wrong, StringComparison.Ordinal)).ShouldContain((path, code));
    }

    [Theory]
    [InlineData("""{"rest":"0000011"}""", """{"do":"add","date":"9999-12-31","days":5}""", "/ask/0", "out-of-range")]
    [InlineData("""{"rest":"0000011"}""", """{"do":"add","date":"2027-01-01","days":1.5}""", "/ask/0/days", "wrong-type")]
    [InlineData("""{"rest":"0000011"}""", """{"do":"add","date":"2027-01-01","days":1,"rule":"following"}""", "/ask/0/rule", "unknown-property")]
    [InlineData("""{"rest":"0000011"}""", """{"do":"jump"}""", "/ask/0/do", "bad-value")]
    [InlineData("""{"rest":"0000011"}""", """{"date":"2027-01-01"}""", "/ask/0/do", "missing-property")]
    [InlineData("""{"rest":"0000011"}""", """{"do":"add","date":null,"days":1}""", "/ask/0/date", "missing-property")]
    [InlineData("""{"rest":"0000011"}""", "7", "/ask/0", "wrong-type")]
    [InlineData("""{"rest":"00000"}""", """{"do":"add","date":"2027-01-01","days":1}""", "/calendar/rest", "bad-value")]
    public void Names_mistakes_in_what_is_asked_of_a_calendar(string calendar, string ask, string path, string code) =>
        Errors("calendar", $$"""{"calendar":{{calendar}},"ask":[{{ask}}]}""").ShouldBe([(path, code)]);

    [Theory]
    [InlineData("")]
    [InlineData("{")]
    [InlineData("{} {}")]
    [InlineData("{'a':1}")]
    [InlineData("\u0000")]
    [InlineData("""{"tasks":[{"due":{"unit":"\ud800"}}]}""")]
    [InlineData("""{"\ud800":1}""")]
    public void Says_what_is_no_JSON(string question) => Errors("plan", question).ShouldBe([("", "malformed-json")]);

    [Fact]
    public void Says_what_it_cannot_compute() => Errors("pay.magic", "{}").ShouldBe([("", "unknown-computation")]);

    private static (string, string)[] Errors(string name, string question)
    {
        using var answer = JsonDocument.Parse(Ask(name, question));
        return
        [
            .. answer.RootElement.GetProperty("errors").EnumerateArray().Select(e => (e.GetProperty("path").GetString()!, e.GetProperty("code").GetString()!)),
        ];
    }

    private static string Ask(string name, string question)
    {
        var answer = new ArrayBufferWriter<byte>();
        Computations.Answer(name, Encoding.UTF8.GetBytes(question), answer);
        return Encoding.UTF8.GetString(answer.WrittenSpan);
    }
}
