using System.Text.Json.Nodes;
using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Chasing;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Chasing;

public class StallsTests
{
    [Fact]
    public void The_worked_example_comes_to_what_was_worked_out_by_hand() =>
        JsonNode.DeepEquals(JsonNode.Parse(Asked.Answer("stalls", Example)), JsonNode.Parse(Worked)).ShouldBeTrue();

    private const string Example = """
        {"calendars":{"office":{"rest":"0000011","holidays":["2027-03-17"]},"dock":{"rest":"0000000","holidays":[]}},
        "from":"2027-03-01","to":"2027-03-31","least":4,"tasks":[
        {"key":"order-radio","owner":"stores","calendar":"office","work":2,"possible":"2027-03-01","done":"2027-03-02"},
        {"key":"order-radio","owner":"stores","calendar":"office","work":2,"possible":"2027-03-05","due":"2027-03-10","done":"2027-03-09"},
        {"key":"order-radio","owner":"stores","calendar":"office","work":2,"possible":"2027-03-16","done":"2027-03-19"},
        {"key":"order-radio","owner":"stores","calendar":"office","work":2,"possible":"2027-03-12","due":"2027-03-19","done":"2027-03-24","heldUp":true},
        {"key":"order-radio","owner":"stores","calendar":"office","work":2,"possible":"2027-03-30"}]}
        """;

    private const string Worked = """
        {"tasks":[{"key":"order-radio","count":4,"median":3,"p90":6.5,"lateShare":0.5,"heldUpShare":0.25,"open":1,"work":2,"suggestedWork":5}],
        "owners":[{"owner":"stores","count":4,"median":3,"p90":6.5,"lateShare":0.5,"heldUpShare":0.25,"open":1}]}
        """;

    // "a stores 1 1 3": key, owner, work, the day in March on which it was possible, and that on which it was done; "due9" and "held" may follow.
    private static JsonNode Ask(string tasks, string least = "1")
    {
        var all = tasks
            .Split(';', StringSplitOptions.RemoveEmptyEntries)
            .Select(t => t.Trim().Split(' '))
            .Select(t =>
                $$"""{"key":"{{t[0]}}","owner":"{{t[1]}}","calendar":"dock","work":{{t[2]}},"possible":"{{March(t[3])}}","""
                + (t[4] == "-" ? "" : $"\"done\":\"{March(t[4])}\",")
                + (t.FirstOrDefault(w => w.StartsWith("due", StringComparison.Ordinal)) is { } due ? $"\"due\":\"{March(due[3..])}\"," : "")
                + $"\"heldUp\":{(t.Contains("held") ? "true" : "false")}}}"
            );
        return JsonNode.Parse(
            Asked.Answer(
                "stalls",
                $$"""{"calendars":{"dock":{"rest":"0000000"} },"from":"2027-03-10","to":"2027-03-20","least":{{least}},"tasks":[{{string.Join(',', all)}}]}"""
            )
        )!;
    }

    private static string March(string day) => $"2027-03-{day.PadLeft(2, '0')}";

    [Theory]
    [InlineData("a s 1 8 10", "1 3 3")] // the first and the last day count
    [InlineData("a s 1 18 20", "1 3 3")]
    [InlineData("a s 1 8 9; a s 1 8 21", "0  ")]
    [InlineData("a s 1 12 12", "1 1 1")]
    [InlineData("a s 1 15 12", "1 1 1")] // done before it was possible
    [InlineData("a s 1 10 11; a s 1 10 12", "2 2.5 2.9")]
    [InlineData("a s 1 10 11; a s 1 10 12; a s 1 10 19", "3 3 8.6")]
    public void What_was_done_in_the_time_is_counted_and_took_at_least_a_day(string tasks, string figures) =>
        $"{Ask(tasks)["tasks"]![0]!["count"]} {Ask(tasks)["tasks"]![0]!["median"]} {Ask(tasks)["tasks"]![0]!["p90"]}".ShouldBe(figures);

    [Theory]
    [InlineData("a s 1 10 12", " 0")]
    [InlineData("a s 1 10 12 due12; a s 1 10 13 due12; a s 1 10 13", "0.5 0")]
    [InlineData("a s 1 10 12 due12; a s 1 10 13 due12 held; a s 1 10 12 due13", "0.333 0.333")]
    [InlineData("a s 1 10 13 due12 held; a s 1 10 14 due12 held; a s 1 10 12 due13", "0.667 0.667")]
    [InlineData("a s 1 10 - due12 held", " ")]
    public void Of_those_with_a_due_date_some_were_late_and_of_all_some_held_up_their_hire(string tasks, string shares) =>
        $"{Ask(tasks)["tasks"]![0]!["lateShare"]} {Ask(tasks)["tasks"]![0]!["heldUpShare"]}".ShouldBe(shares);

    [Theory]
    [InlineData("a s 1 20 -", 1)]
    [InlineData("a s 1 21 -", 0)]
    [InlineData("a s 1 9 21", 1)]
    [InlineData("a s 1 9 20", 0)]
    [InlineData("a s 1 1 5", 0)]
    public void Open_is_what_was_possible_and_not_done_by_the_last_day(string tasks, int open) => ((int)Ask(tasks)["tasks"]![0]!["open"]!).ShouldBe(open);

    [Theory]
    [InlineData("a s 2 10 13", "1", "2 4")]
    [InlineData("a s 4 10 13", "1", "4 ")] // it is what happens
    [InlineData("a s 2 10 13", "2", "2 ")] // too few
    [InlineData("a s 7 10 13; a s 3 10 12; a s 5 10 13", "9", "5 ")] // of the last done; of two on one day of the later here
    [InlineData("a s 7 10 14; a s 3 10 12; a s 5 10 13", "9", "7 ")]
    [InlineData("a s 2 10 -", "1", " ")]
    [InlineData("a s 1 10 10; a s 1 10 10; a s 1 10 11", "3", "1 2")] // 1.6, rounded up
    [InlineData("a s 9 10 13; a s 9 10 13; a s 9 10 13; a s 9 10 13; a s 9 10 13; a s 9 10 18", "6", "9 4")] // exactly 4, and no more
    public void Where_work_takes_another_time_than_was_said_it_is_suggested(string tasks, string least, string work) =>
        $"{Ask(tasks, least)["tasks"]![0]!["work"]} {Ask(tasks, least)["tasks"]![0]!["suggestedWork"]}".ShouldBe(work);

    [Fact]
    public void Every_key_and_owner_has_its_row_the_slowest_first()
    {
        var answer = Ask("b it 1 10 12; a stores 1 10 12; slow it 1 10 18; never stores 1 10 -; c none 1 25 -; \uff21 x 1 10 12; \ud83d\ude80 x 1 10 12");
        answer["tasks"]!.AsArray().Select(t => (string)t!["key"]!).ShouldBe(["slow", "a", "b", "\uff21", "\ud83d\ude80", "c", "never"]);
        answer["owners"]!.AsArray().Select(t => (string)t!["owner"]!).ShouldBe(["it", "stores", "x", "none"]);
        answer["owners"]![0]!.AsObject().ContainsKey("work").ShouldBeFalse();
        answer["owners"]![3]!.ToJsonString().ShouldBe("""{"owner":"none","count":0,"median":null,"p90":null,"lateShare":null,"heldUpShare":null,"open":0}""");
    }

    [Theory]
    [InlineData(
        "\"calendar\":\"office\",\"work\":2,\"possible\":\"2027-03-30\"",
        "\"calendar\":\"x\",\"work\":2,\"possible\":\"2027-03-30\"",
        "/tasks/4/calendar unknown-calendar"
    )]
    [InlineData("\"to\":\"2027-03-31\"", "\"to\":\"2027-02-28\"", "/to not-in-order")]
    [InlineData("\"least\":4", "\"least\":0", "/least out-of-range")]
    [InlineData("\"work\":2", "\"work\":-1", "/tasks/0/work out-of-range")]
    public void What_is_wrong_is_told_at_its_place(string right, string wrong, string problem) =>
        Asked.Problems("stalls", Example.Replace(right, wrong, StringComparison.Ordinal)).Select(p => $"{p.Path} {p.Code}").ShouldContain(problem);

    [Fact]
    public void Percentiles_are_those_of_a_sheet_worked_out_in_fractions() =>
        Gen.Int[1, 300]
            .Array[1, 40]
            .Sample(days =>
            {
                var to = new LocalDate(2027, 12, 31);
                var tasks = days.Select(d => new WorkedTask("a", "s", "dock", 1000, to.PlusDays(1 - d), null, to)).ToList();
                var calendars = new Dictionary<string, WorkCalendar> { ["dock"] = WorkCalendar.EveryDay };
                var row = Stalls.Of(new StallsQuestion(calendars, to, to, 1, tasks)).Answer!.Tasks[0];
                Array.Sort(days);
                row.Figures.Median.ShouldBe(decimal.Round(Exact(0.5m), 2, MidpointRounding.AwayFromZero));
                row.Figures.P90.ShouldBe(decimal.Round(Exact(0.9m), 2, MidpointRounding.AwayFromZero));
                row.SuggestedWork.ShouldBe((int)decimal.Ceiling(Exact(0.8m)));

                // By the definition: at rank p(n − 1), between the values below and above it.
                decimal Exact(decimal p)
                {
                    var rank = p * (days.Length - 1);
                    var (below, above) = (days[(int)decimal.Floor(rank)], days[(int)decimal.Ceiling(rank)]);
                    return below + (rank - decimal.Floor(rank)) * (above - below);
                }
            });
}
