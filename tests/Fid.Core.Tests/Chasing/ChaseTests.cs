using System.Text.Json.Nodes;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Chasing;

public class ChaseTests
{
    [Fact]
    public void The_worked_example_comes_to_what_was_worked_out_by_hand() =>
        JsonNode.DeepEquals(JsonNode.Parse(Asked.Answer("chase", Example)), JsonNode.Parse(Worked)).ShouldBeTrue();

    private const string Example = """
        {"today":"2027-03-10","calendars":{"office":{"rest":"0000011","holidays":["2027-03-17"]},"dock":{"rest":"0000000","holidays":[]}},
        "policy":{"before":[5,1],"onDue":true,"overdueEvery":2,"overdueMost":3,"escalateAfter":3},
        "people":[{"id":"nils","calendar":"office","manager":"ruth","away":[{"from":"2027-03-08","to":"2027-03-12","standIn":"callum"}]},
        {"id":"callum","calendar":"dock","manager":"orla"},{"id":"orla","calendar":"office"},{"id":"ruth","calendar":"office"}],
        "tasks":[{"id":"order-radio","owner":"nils","due":"2027-03-06","possible":true},{"id":"locker","owner":"callum","due":"2027-03-11","possible":true},
        {"id":"program-radio","owner":"nils","due":"2027-03-12","possible":false}],"sent":[{"task":"order-radio","kind":"due","day":"2027-03-05"}]}
        """;

    private const string Worked = """
        {"messages":[{"to":"callum","reminders":[{"task":"order-radio","kind":"overdue","day":"2027-03-09","days":2,"for":"nils"},
        {"task":"locker","kind":"before","day":"2027-03-10","days":-1}]},
        {"to":"ruth","reminders":[{"task":"order-radio","kind":"escalation","day":"2027-03-10","days":3,"for":"nils"}]}],
        "waiting":[{"task":"program-radio","why":"not-possible"}]}
        """;

    // Mondays in March 2027 are the 1st, 8th, 15th, 22nd and 29th. Nils works in the office under Ruth, Callum at the dock under Orla.
    private const string Policy = """{"before":[5,1],"onDue":true,"overdueEvery":2,"overdueMost":2,"escalateAfter":3}""";

    private static string Ask(
        string today,
        string due,
        string away = "",
        string sent = "",
        string policy = Policy,
        string owner = "nils",
        string more = "",
        string tasks = ""
    )
    {
        var people = new (string Id, string Calendar, string? Manager)[]
        {
            ("nils", "office", "ruth"),
            ("ruth", "office", null),
            ("callum", "dock", "orla"),
            ("orla", "dock", "ruth"),
            ("own", "dock", "own"),
        };
        // "nils 8 12 callum; callum 9 9": from and to, and who stands in.
        var absences = away.Split(';', StringSplitOptions.RemoveEmptyEntries).Select(a => a.Trim().Split(' ')).ToLookup(a => a[0]);
        var all = people.Select(p =>
            $$"""{"id":"{{p.Id}}","calendar":"{{p.Calendar}}"{{(p.Manager is null ? "" : $",\"manager\":\"{p.Manager}\"")}},"away":[{{string.Join(
                ',',
                absences[p.Id].Select(Away)
            )}}]}"""
        );
        // "due 12; before 5": the kind, and the day of its moment.
        var went = sent.Split(';', StringSplitOptions.RemoveEmptyEntries)
            .Select(s => s.Trim().Split(' '))
            .Select(s => $$"""{"task":"t","kind":"{{s[0]}}","day":"2027-03-{{s[1].PadLeft(2, '0')}}"}""");
        return $$"""
            {"today":"2027-03-{{today.PadLeft(2, '0')}}","calendars":{"office":{"rest":"0000011","holidays":["2027-03-17"]},"dock":{"rest":"0000000"} },
             "policy":{{policy}},"people":[{{string.Join(',', all)}}],
             "tasks":[{"id":"t","owner":"{{owner}}","due":"2027-03-{{due.PadLeft(2, '0')}}","possible":true{{more}}}{{tasks}}],"sent":[{{string.Join(
                ',',
                went
            )}}]}
            """;
    }

    // "nils 8 12 callum"
    private static string Away(string[] words)
    {
        var standIn = words.Length > 3 ? $",\"standIn\":\"{words[3]}\"" : "";
        return $$"""{"from":"2027-03-{{words[1].PadLeft(2, '0')}}","to":"2027-03-{{words[2].PadLeft(2, '0')}}"{{standIn}}}""";
    }

    // "ruth: escalation 17 3 of nils; waiting t rest-day"
    private static string Told(string question)
    {
        var answer = JsonNode.Parse(Asked.Answer("chase", question))!;
        var told = answer["messages"]!
            .AsArray()
            .Select(m =>
                $"{m!["to"]}: "
                + string.Join(
                    ", ",
                    m["reminders"]!.AsArray().Select(r => $"{r!["kind"]} {((string)r["day"]!)[8..]} {r["days"]}{(r["for"] is { } owner ? $" of {owner}" : "")}")
                )
            );
        var waits = answer["waiting"]!.AsArray().Select(w => $"waiting {w!["why"]}");
        return string.Join("; ", told.Concat(waits));
    }

    [Theory]
    [InlineData("4", "12", "")] // a Thursday: the first moment is on Friday
    [InlineData("5", "12", "nils: before 05 -5")]
    [InlineData("8", "12", "nils: before 05 -5")] // it was missed, and is made good
    [InlineData("8", "12", "", "before 5")]
    [InlineData("11", "12", "nils: before 11 -1", "before 5")]
    [InlineData("11", "12", "nils: before 11 -1")] // by the latest alone
    [InlineData("12", "12", "nils: due 12 0")]
    [InlineData("15", "12", "", "due 12")]
    [InlineData("15", "12", "nils: due 12 0", "before 11")]
    [InlineData("16", "12", "nils: overdue 16 2", "due 12")]
    [InlineData("17", "12", "waiting rest-day", "due 12")] // the holiday: what is due since yesterday waits one day more
    [InlineData("18", "12", "nils: overdue 16 2; ruth: escalation 18 3 of nils", "due 12")]
    [InlineData("19", "12", "nils: overdue 19 4", "due 12; overdue 16; escalation 18")]
    [InlineData("19", "12", "nils: overdue 19 4; ruth: escalation 18 3 of nils")]
    [InlineData("31", "12", "", "overdue 19; escalation 18")] // no more than twice
    [InlineData("31", "12", "nils: overdue 19 4", "overdue 16; escalation 18")]
    [InlineData("12", "13", "nils: due 12 0")] // due on a Saturday: on Friday
    [InlineData("12", "17", "nils: before 09 -5")] // due on the holiday: on Tuesday
    [InlineData("15", "17", "nils: before 15 -1")]
    [InlineData("13", "12", "waiting rest-day")]
    [InlineData("13", "12", "", "due 12")] // nothing of it is due
    [InlineData("1", "31", "")]
    [InlineData("12", "12", "nils: due 12 0", "due 11")] // sent of another due date, before it moved
    [InlineData("12", "12", "nils: due 12 0", "overdue 12")]
    public void Of_the_moments_that_have_come_the_latest_goes_out_unless_it_was_sent(string today, string due, string told, string sent = "") =>
        Told(Ask(today, due, sent: sent)).ShouldBe(told);

    [Theory]
    [InlineData("\"before\":[],\"onDue\":true,\"overdueEvery\":1,\"overdueMost\":0", "11", "")]
    [InlineData("\"before\":[],\"onDue\":true,\"overdueEvery\":1,\"overdueMost\":0", "25", "nils: due 12 0")]
    [InlineData("\"before\":[1,5,5],\"onDue\":false,\"overdueEvery\":1,\"overdueMost\":0", "25", "nils: before 11 -1")]
    [InlineData("\"before\":[1,5,5],\"onDue\":false,\"overdueEvery\":3,\"overdueMost\":9", "15", "nils: before 11 -1")]
    [InlineData("\"before\":[],\"onDue\":false,\"overdueEvery\":3,\"overdueMost\":9", "24", "nils: overdue 23 6")]
    [InlineData("\"before\":[],\"onDue\":false,\"overdueEvery\":1,\"overdueMost\":0,\"escalateAfter\":0", "12", "ruth: escalation 12 0 of nils")]
    [InlineData("\"before\":[],\"onDue\":false,\"overdueEvery\":1,\"overdueMost\":0,\"escalateAfter\":1", "12", "")]
    [InlineData("\"before\":[],\"onDue\":false,\"overdueEvery\":1,\"overdueMost\":0,\"escalateAfter\":null", "31", "")]
    [InlineData("\"before\":[100000],\"onDue\":true,\"overdueEvery\":100000,\"overdueMost\":100000,\"escalateAfter\":100000", "31", "nils: due 12 0")]
    public void A_firm_says_when_it_reminds(string policy, string today, string told) => Told(Ask(today, "12", policy: $"{{{policy}}}")).ShouldBe(told);

    [Theory]
    [InlineData("nils 12 12 callum", "callum: due 12 0 of nils")]
    [InlineData("nils 11 11 callum", "nils: due 12 0")]
    [InlineData("nils 13 14 callum", "nils: due 12 0")]
    [InlineData("nils 1 31", "ruth: due 12 0 of nils")] // nobody stands in: the manager
    [InlineData("nils 1 31; ruth 1 31 callum", "ruth: due 12 0 of nils")] // away or not
    [InlineData("nils 1 31 callum; callum 12 12 orla", "orla: due 12 0 of nils")]
    [InlineData("nils 1 31 callum; callum 12 12", "ruth: due 12 0 of nils")] // the owner's manager, not the stand-in's
    [InlineData("nils 1 31 callum; callum 1 31 orla; orla 1 31 callum", "ruth: due 12 0 of nils")] // they go round
    [InlineData("nils 1 31 callum; callum 1 31 nils", "ruth: due 12 0 of nils")]
    [InlineData("nils 1 31 nils", "ruth: due 12 0 of nils")]
    [InlineData("nils 1 12 callum; nils 12 31 orla", "callum: due 12 0 of nils")] // the first listed counts
    [InlineData("nils 1 31 own", "own: due 12 0 of nils")]
    public void Who_is_away_gives_way_along_those_who_stand_in(string away, string told) => Told(Ask("12", "12", away)).ShouldBe(told);

    [Theory]
    [InlineData("ruth", "", "ruth: overdue 17 2; waiting no-manager", "18")]
    [InlineData("ruth", "ruth 1 31", "ruth: overdue 17 2; waiting no-manager", "18")] // nobody else is there
    [InlineData("ruth", "", "ruth: overdue 17 2", "17")] // it is not so late yet
    [InlineData("callum", "", "callum: overdue 17 2; orla: escalation 18 3 of callum", "18")]
    [InlineData("callum", "orla 1 31 nils", "callum: overdue 17 2; orla: escalation 18 3 of callum", "18")]
    [InlineData("callum", "callum 1 31 orla", "orla: escalation 18 3 of callum, overdue 17 2 of callum", "18")]
    [InlineData("own", "", "own: escalation 18 3 of own, overdue 17 2", "18")] // who manages themselves is told as the manager too
    public void What_is_late_for_long_goes_to_the_owners_manager(string owner, string away, string told, string today)
    {
        var everyDay = Ask(today, "15", away, owner: owner).Replace("0000011", "0000000", StringComparison.Ordinal);
        Told(everyDay.Replace("[\"2027-03-17\"]", "[]", StringComparison.Ordinal)).ShouldBe(told);
    }

    [Theory]
    [InlineData(",\"paused\":true", "waiting paused")]
    [InlineData(",\"paused\":false", "nils: due 12 0")]
    [InlineData(",\"paused\":null", "nils: due 12 0")]
    public void What_is_paused_or_cannot_be_begun_is_said_and_nothing_of_it_goes_out(string more, string told)
    {
        Told(Ask("12", "12", more: more)).ShouldBe(told);
        Told(Ask("12", "12", more: more).Replace("\"possible\":true", "\"possible\":false", StringComparison.Ordinal)).ShouldBe("waiting not-possible");
        // Also where no moment has come.
        Told(Ask("1", "31", more: more)).ShouldBe(told.StartsWith("nils", StringComparison.Ordinal) ? "" : told);
    }

    [Fact]
    public void One_message_tells_escalations_first_then_what_is_late_due_and_coming_by_due_date_and_task()
    {
        static string Task(string id, string owner, string due) => $$""",{"id":"{{id}}","owner":"{{owner}}","due":"2027-03-{{due}}","possible":true}""";
        var tasks =
            Task("late-b", "orla", "14")
            + Task("late-a", "orla", "14")
            + Task("later", "orla", "15")
            + Task("today", "orla", "17")
            + Task("\ud83d\ude80", "orla", "18")
            + Task("\uff21", "orla", "18")
            + Task("callums", "callum", "14")
            + Task("waits", "nils", "17");
        var answer = JsonNode.Parse(Asked.Answer("chase", Ask("17", "31", tasks: tasks)))!;
        // Beyond the basic plane comes last: by code point, not by what UTF-16 makes of it.
        answer["messages"]![1]!["reminders"]!
            .AsArray()
            .Select(r => (string)r!["task"]!)
            .ShouldBe(["callums", "late-a", "late-b", "later", "today", "\uff21", "\ud83d\ude80"]);
        answer["messages"]!.AsArray().Select(m => (string)m!["to"]!).ShouldBe(["callum", "orla"]);
        answer["waiting"]!
            .ToJsonString()
            .ShouldBe("""[{"task":"late-b","why":"rest-day"},{"task":"late-a","why":"rest-day"},{"task":"waits","why":"rest-day"}]""");
    }

    [Theory]
    [InlineData("\"owner\":\"nils\"", "\"owner\":\"who\"", "/tasks/0/owner unknown-person")]
    [InlineData("\"manager\":\"ruth\"", "\"manager\":\"who\"", "/people/0/manager unknown-person")]
    [InlineData("\"standIn\":\"callum\"", "\"standIn\":\"who\"", "/people/0/away/0/standIn unknown-person")]
    [InlineData("\"to\":\"2027-03-12\"", "\"to\":\"2027-03-09\"", "/people/0/away/0/to not-in-order")]
    [InlineData("\"id\":\"nils\",\"calendar\":\"office\"", "\"id\":\"nils\",\"calendar\":\"moon\"", "/people/0/calendar unknown-calendar")]
    [InlineData("\"task\":\"t\"", "\"task\":\"u\"", "/sent/0/task unknown-task")]
    [InlineData("\"id\":\"ruth\"", "\"id\":\"orla\"", "/people/3/id duplicate-id")]
    [InlineData("\"overdueEvery\":2", "\"overdueEvery\":0", "/policy/overdueEvery out-of-range")]
    [InlineData("\"before\":[5,1]", "\"before\":[5,0]", "/policy/before/1 out-of-range")]
    [InlineData("\"overdueMost\":2", "\"overdueMost\":-1", "/policy/overdueMost out-of-range")]
    [InlineData("\"escalateAfter\":3", "\"escalateAfter\":-1", "/policy/escalateAfter out-of-range")]
    [InlineData("\"kind\":\"due\"", "\"kind\":\"soon\"", "/sent/0/kind bad-value")]
    public void What_is_wrong_is_told_at_its_place(string right, string wrong, string problem) =>
        Asked
            .Problems("chase", Ask("12", "12", "nils 10 12 callum", "due 12").Replace(right, wrong, StringComparison.Ordinal))
            .Select(p => $"{p.Path} {p.Code}")
            .ShouldContain(problem);
}
