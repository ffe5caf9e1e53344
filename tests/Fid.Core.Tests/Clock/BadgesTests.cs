using CsCheck;
using Fid.Core.Clock;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Clock;

public class BadgesTests
{
    [Fact]
    // The last day counts.
    public void Finds_two_people_with_one_badge_at_once() => Check(A("a", "0012", "p", 1, 10), A("b", "0012", "q", 10)).ShouldBe(["Overlap 0012 a b"]);

    [Fact]
    public void Finds_a_badge_reissued_before_it_has_rested_the_earlier_first()
    {
        Check(A("a", "0012", "p", 40), A("b", "0012", "q", 1, 10)).ShouldBe(["TooSoon 0012 b a"]); // 29 days between
        Check(A("a", "0012", "p", 41), A("b", "0012", "q", 1, 10)).ShouldBeEmpty(); // 30
        Check(A("a", "0012", "p", 12), A("b", "0012", "p", 1, 10)).ShouldBeEmpty(); // back to the same person
    }

    [Fact]
    public void Finds_one_person_with_two_badges_at_once() => Check(A("a", "1", "p", 1, 10), A("b", "2", "p", 5)).ShouldBe(["TwoBadges  a b"]);

    [Fact]
    public void One_badge_after_another_and_one_twice_are_no_two_badges()
    {
        Check(A("a", "1", "p", 1, 10), A("b", "2", "p", 11)).ShouldBeEmpty();
        Check(A("a", "1", "p", 1, 10), A("b", "1", "p", 5)).ShouldBeEmpty();
    }

    [Fact]
    public void A_day_is_a_time_and_no_rest_is_a_rest()
    {
        Badges.Check([A("a", "1", "p", 5, 5)], 0).Answer.ShouldBeEmpty();
        Badges.Check([A("a", "1", "p", 1, 5), A("b", "1", "q", 6)], 0).Answer.ShouldBeEmpty();
    }

    [Fact]
    public void Keeps_device_groups_and_leading_zeros_apart()
    {
        Check(A("a", "12", "p", 1), A("b", "012", "q", 1)).ShouldBeEmpty();
        Check(A("a", "12", "p", 1), A("b", "12", "q", 1) with { Group = "other" }, A("c", "13", "p", 1) with { Group = "third" }).ShouldBeEmpty();
    }

    [Fact]
    public void Lists_conflicts_in_the_order_of_the_question() =>
        Check(A("a", "1", "p", 1), A("b", "2", "p", 1), A("c", "1", "q", 1)).ShouldBe(["TwoBadges  a b", "Overlap 1 a c"]);

    [Fact]
    public void Says_what_is_wrong_with_an_assignment()
    {
        var problems = Badges.Check([A("a", "1x", "p", 5, 4), A("a", "", "q", 1)], -1).Problems;
        problems.Select(p => p.Path).ShouldBe(["/assignments/0/badge", "/assignments/0/to", "/assignments/1/id", "/assignments/1/badge", "/restDays"]);
    }

    [Fact]
    public void The_next_free_badge_is_the_one_after_the_highest()
    {
        Badges.NextFree(["004810", "17", "x"]).ShouldBe("004811");
        Badges.NextFree([]).ShouldBe("000001");
        Badges.NextFree(["99"], width: 2).ShouldBeNull();
        Badges.NextFree(["98"], width: 2).ShouldBe("99");
        Badges.NextAfter("0012", "x7").ShouldBe("0012");
        (Badges.NextAfter("0012", "0012"), Badges.NextAfter("0012", "7"), Badges.NextAfter("0012", "400"), Badges.NextAfter(null, "1")).ShouldBe(
            ("0013", "0012", "0401", null)
        );
    }

    [Fact]
    public void Whatever_order_is_asked_in_the_same_pairs_conflict() =>
        (
            from badges in Gen.Int[0, 3].Array[2, 12]
            from people in Gen.Int[0, 3].Array[badges.Length]
            from start in Gen.Int[0, 60].Array[badges.Length]
            select badges.Select((b, i) => A($"{i}", $"{b}", $"{people[i]}", start[i], start[i] + 15)).ToArray()
        ).Sample(assignments =>
        {
            static IEnumerable<string> Pairs(BadgeAssignment[] all) =>
                Badges.Check(all, 30).Answer!.Select(c => $"{c.Kind} {string.Join(" ", c.Ids.Order(StringComparer.Ordinal))}").Order(StringComparer.Ordinal);
            Pairs([.. assignments.Reverse()]).ShouldBe(Pairs(assignments));
        });

    private static string[] Check(params BadgeAssignment[] assignments) =>
        [.. Badges.Check(assignments, 30).Answer!.Select(c => $"{c.Kind} {c.Badge} {string.Join(" ", c.Ids)}")];

    private static BadgeAssignment A(string id, string badge, string person, int from, int? to = null) =>
        new(id, badge, "gate", person, Day(from), to is { } last ? Day(last) : null);

    private static LocalDate Day(int day) => new LocalDate(2027, 1, 1).PlusDays(day - 1);
}
