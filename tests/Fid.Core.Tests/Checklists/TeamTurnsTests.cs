using Fid.Core.Checklists;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Checklists;

public class TeamTurnsTests
{
    private static readonly Guid Ann = new("00000000-0000-0000-0000-00000000000a"),
        Ben = new("00000000-0000-0000-0000-00000000000b"),
        Cai = new("00000000-0000-0000-0000-00000000000c");

    [Fact]
    public void In_rotation_each_has_their_turn_from_whose_it_was_last()
    {
        var turns = new TeamTurns(HandOut.Rotation, Team(9, 0, 0), Ben);
        Handed(turns, 4).ShouldBe([Cai, Ann, Ben, Cai]);
        turns.Last.ShouldBe(Cai);
        Handed(new TeamTurns(HandOut.Rotation, Team(0, 0, 0), null), 2).ShouldBe([Ann, Ben]);
    }

    [Fact]
    public void By_load_it_comes_to_whoever_has_the_fewest_and_of_several_to_the_next_in_turn()
    {
        Handed(new TeamTurns(HandOut.Load, Team(3, 1, 2), null), 6).ShouldBe([Ben, Cai, Ben, Cai, Ann, Ben]);
        Handed(new TeamTurns(HandOut.Load, Team(1, 1, 1), Ann), 3).ShouldBe([Ben, Cai, Ann]);
    }

    [Theory]
    [InlineData(HandOut.Rotation)]
    [InlineData(HandOut.Load)]
    public void Who_is_away_or_gave_it_back_is_passed_over_and_where_all_are_it_stays_the_teams(HandOut way)
    {
        TeamMember[] team = [new(Ann, 0, true), new(Ben, 0, false), new(Cai, 5, true)];
        var turns = new TeamTurns(way, team, Ann);
        turns.Next([Ann]).ShouldBe(Cai);
        turns.Next([Cai]).ShouldBe(Ann);
        turns.Next([Ann, Cai]).ShouldBeNull();
        // Nobody's turn is used up by it.
        turns.Last.ShouldBe(Ann);
    }

    [Fact]
    public void Who_has_left_the_team_holds_nobodys_place_and_a_team_without_members_hands_nothing_out()
    {
        new TeamTurns(HandOut.Rotation, Team(0, 0, 0), Guid.NewGuid()).Next([]).ShouldBe(Ann);
        new TeamTurns(HandOut.Rotation, [], Ann).Next([]).ShouldBeNull();
        new TeamTurns(HandOut.Whoever, Team(0, 0, 0), null).Next([]).ShouldBeNull();
    }

    private static TeamMember[] Team(int ann, int ben, int cai) => [new(Ann, ann, true), new(Ben, ben, true), new(Cai, cai, true)];

    private static Guid?[] Handed(TeamTurns turns, int times) => [.. Enumerable.Range(0, times).Select(_ => turns.Next([]))];
}
