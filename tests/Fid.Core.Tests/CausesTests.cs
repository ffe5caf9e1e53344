using CsCheck;
using Fid.Core.Lists;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests;

public class CausesTests
{
    // d is worked out from c, c from b, b from a; x and y from each other.
    private static readonly Dictionary<string, string[]> Chain = new()
    {
        ["d"] = ["c"],
        ["c"] = ["b"],
        ["b"] = ["a"],
        ["x"] = ["y"],
        ["y"] = ["x", "a"],
    };

    [Theory]
    [InlineData("d", "a", "a")]
    [InlineData("d", "a b", "b")]
    [InlineData("d", "a c d", "c")]
    [InlineData("a", "a d", null)]
    [InlineData("d", "d x", null)]
    [InlineData("x", "x y", null)]
    [InlineData("x", "x y a", "a")]
    [InlineData("d", "", null)]
    public void What_is_worked_out_from_something_wrong_follows_from_the_nearest_and_never_in_a_ring(string place, string wrong, string? cause) =>
        Causes.Of(place, wrong.Split(' ', StringSplitOptions.RemoveEmptyEntries).ToHashSet(), p => Chain.GetValueOrDefault(p, [])).ShouldBe(cause);

    [Fact]
    public void Among_any_places_that_are_wrong_one_at_least_is_to_be_mended_first() =>
        Gen.Select(Gen.Int[0, 6].Array[0, 4].Array[7], Gen.Int[0, 6].Array[1, 7])
            .Sample(
                (reads, wrong) =>
                {
                    var at = wrong.Select(w => $"{w}").ToHashSet();
                    at.ShouldContain(p => Causes.Of(p, at, r => reads[int.Parse(r, null)].Select(n => $"{n}")) == null);
                }
            );

    [Theory]
    [InlineData("shiftPatterns", "cycle", "shifts", "shifts=six to two; cycle=E E - -; cycle_start=2027-01-04; on_holiday=off")]
    [InlineData("payComponents", "amount", "percent", "kind=earning; percent=a lot")]
    [InlineData("payComponents", "cap", null, "kind=earning; amount=5; floor=9; cap=3")]
    public void In_a_row_of_a_list_what_could_not_be_read_is_the_cause_of_what_it_leaves_open(string key, string column, string? cause, string cells)
    {
        var list = ShippedLists.All.Single(l => l.Key == key);
        var said = cells.Split(';', StringSplitOptions.TrimEntries).Select(c => c.Split('=')).ToDictionary(c => c[0], c => c[1]);
        var read = EntryReader.Read(
            list,
            "X-1",
            "One",
            null,
            c => said.TryGetValue(c.Key, out var cell) ? ColumnValue.FromText(c, cell, CellStyle.Own) : CellValue.Empty,
            (_, code) => code
        );
        read.Problems.Single(p => p.Column == column).From.ShouldBe(cause is null ? null : new EntryCause(null, cause));
        if (cause is not null)
            read.Problems.Single(p => p.Column == cause).From.ShouldBeNull();
    }

    [Fact]
    public void What_reads_itself_does_not_follow_from_itself() =>
        Causes
            .Of("own", new HashSet<string> { "own", "next" }, at => at == "own" ? ["own", "next"]
                : at == "next" ? ["own"]
                : [])
            .ShouldBeNull();
}
