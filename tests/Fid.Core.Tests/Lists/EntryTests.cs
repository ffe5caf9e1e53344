using Fid.Core.Lists;
using Fid.Core.Pay;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Lists;

/// <summary>Entries of the shipped lists, read cell by cell as a sheet gives them.</summary>
public class EntryTests
{
    [Theory]
    [InlineData("BOSUN", null)]
    [InlineData(" BOSUN ", null)]
    [InlineData("v1.2", null)]
    [InlineData("", "missing")]
    [InlineData("  ", "missing")]
    [InlineData("a,b", "bad-characters")]
    [InlineData("50%", "bad-characters")]
    [InlineData("..", "bad-characters")]
    [InlineData("a\u0000", "bad-characters")]
    public void A_code_is_short_and_stands_in_an_address(string code, string? wrong) => EntryCheck.Code(code).Code.ShouldBe(wrong);

    [Fact]
    public void Codes_and_names_have_a_longest_length()
    {
        (EntryCheck.Code(new string('a', 40)).Value, EntryCheck.Code(new string('a', 41)).Code).ShouldBe((new string('a', 40), "too-long"));
        (EntryCheck.Name(new string('a', 200), true).Code, EntryCheck.Name(new string('a', 201), true).Code).ShouldBe((null, "too-long"));
        (EntryCheck.Name(" ", true).Code, EntryCheck.Name(" ", false).Code, EntryCheck.Name(" Bosun ", false).Value).ShouldBe(("missing", null, "Bosun"));
    }

    [Fact]
    public void A_German_name_that_says_the_same_is_none()
    {
        Read("teams", "DECK", "Deck", "Deck").Content.NameDe.ShouldBeNull();
        Read("teams", "DECK", "Deck", "Deckmannschaft").Content.NameDe.ShouldBe("Deckmannschaft");
    }

    [Theory]
    [InlineData("shiftPatterns", "shifts=E 06:00-14:00; N 22:00-06:00|cycle_start=2027-01-04|on_holiday=off|cycle=E E N -", "")]
    [InlineData("shiftPatterns", "shifts=E 06:00-14:00|cycle_start=2027-01-04|on_holiday=off|cycle=E L -", "cycle:unknown-shift")]
    [InlineData("shiftPatterns", "cycle_start=2027-01-04|on_holiday=off|cycle=- -", "shifts:missing")]
    [InlineData("payGroups", "every=week|pay_days_after_end=5|cut_off_working_days=3|calendar=office|first_period_start=2027-01-04", "")]
    [InlineData("payGroups", "every=week|pay_days_after_end=5|cut_off_working_days=3|calendar=office", "first_period_start:missing")]
    [InlineData("payGroups", "every=fourWeeks|pay_days_after_end=5|cut_off_working_days=3|calendar=office", "first_period_start:missing")]
    [InlineData("payGroups", "every=month|pay_days_after_end=5|cut_off_working_days=3|calendar=office", "")]
    [InlineData("payComponents", "kind=earning|amount=3", "")]
    [InlineData("payComponents", "kind=earning|amount=3|percent=4", "amount:one-rule of:missing")]
    [InlineData("payComponents", "kind=earning", "amount:one-rule")]
    [InlineData("payComponents", "kind=earning|stands_for=basePay|amount=1", "")]
    [InlineData("payComponents", "kind=earning|stands_for=basePay|percent=1|of=BASE", "stands_for:amount-needed")]
    [InlineData("payComponents", "kind=deduction|stands_for=allowance|amount=1", "stands_for:earning-needed")]
    [InlineData("payComponents", "kind=earning|amount=1|paid_from=2027-03-02|paid_to=2027-03-01", "paid_to:reversed-range")]
    [InlineData("payComponents", "kind=earning|amount=1|paid_from=2027-03-01|paid_to=2027-03-01", "")]
    [InlineData("payComponents", "kind=earning|amount=1|paid_to=2027-03-01", "")]
    [InlineData("payComponents", "kind=earning|percent=4", "of:missing")]
    [InlineData("payComponents", "kind=earning|percent=4|of=BASE", "")]
    [InlineData("payComponents", "kind=deduction|brackets=18%|of=BASE", "")]
    [InlineData("payComponents", "kind=deduction|brackets=18%", "of:missing")]
    [InlineData("payComponents", "kind=earning|amount=3|of=BASE", "of:bad-value")]
    [InlineData("payComponents", "kind=earning|of=BASE", "amount:one-rule")]
    [InlineData("payComponents", "kind=earning|percent=4|of=BASE|floor=5|cap=5", "")]
    [InlineData("payComponents", "kind=earning|percent=4|of=BASE|floor=5|cap=4.99", "cap:reversed-range")]
    public void What_must_hold_within_an_entry_is_said_at_the_column(string list, string cells, string problems)
    {
        var read = Read(list, "X", "X", null, cells);
        read.Problems.Select(p => $"{p.Column}:{p.Code}").Order().ShouldBe(problems.Split(' ', StringSplitOptions.RemoveEmptyEntries).Order());
    }

    [Fact]
    public void A_cycle_has_at_most_so_many_days()
    {
        string[] Codes(int days) =>
            [
                .. Read(
                    "shiftPatterns",
                    "X",
                    "X",
                    null,
                    $"shifts=E 06:00-14:00|cycle_start=2027-01-04|on_holiday=off|cycle={string.Join(' ', Enumerable.Repeat("E", days))}"
                )
                    .Problems.Select(p => p.Code),
            ];
        Codes(Fid.Core.Clock.ShiftCycle.Longest).ShouldBeEmpty();
        Codes(Fid.Core.Clock.ShiftCycle.Longest + 1).ShouldContain("out-of-range");
    }

    [Fact]
    public void What_an_entry_refers_to_is_found_by_code_or_name_and_kept_by_code()
    {
        var column = new ListColumn("x", ColumnType.Entries, None, None, List: "jobs");
        EntryCheck.Refer(column, Of(new[] { "cook", "Bosun", "COOK" }), Find).Value.ShouldBe(new[] { "COOK", "BOSUN" });
        EntryCheck.Refer(column, Of(new[] { "cook", "pirate" }), Find).Code.ShouldBe("unknown-entry");
        EntryCheck.Refer(column, new CellValue(null, "bad-value", "No."), Find).Code.ShouldBe("bad-value");
        EntryCheck.Refer(column, default(CellValue), Find).Value.ShouldBeNull();
        var needs = new ListColumn("x", ColumnType.Requirements, None, None, List: "jobs");
        ((Requirement[])EntryCheck.Refer(needs, Of(new[] { new Requirement("cook", true), new Requirement("bosun", false) }), Find).Value!)
            .Select(n => (n.Certificate, n.Essential))
            .ShouldBe([("COOK", true), ("BOSUN", false)]);
        EntryCheck.Refer(needs, Of(new[] { new Requirement("cook", true), new Requirement("pirate", true) }), Find).Code.ShouldBe("unknown-entry");
        var heads = new ListColumn("x", ColumnType.Heads, None, None);
        var on = new NodaTime.LocalDate(2027, 3, 1);
        EntryCheck.Refer(heads, Of(new[] { new HeadFrom(on, null), new HeadFrom(on, "1042") }), Find).IsWrong.ShouldBeFalse();
        EntryCheck.Refer(heads, Of(new[] { new HeadFrom(on, "9999") }), Find).Code.ShouldBe("unknown-person");
    }

    [Fact]
    public void An_entry_that_is_moved_is_replaced_wherever_it_is_referred_to()
    {
        var (one, many, needs) = (
            new ListColumn("x", ColumnType.Entry, None, None, List: "jobs"),
            new ListColumn("x", ColumnType.Entries, None, None, List: "jobs"),
            new ListColumn("x", ColumnType.Requirements, None, None, List: "jobs")
        );
        (EntryCheck.Replace(one, "COOK", "COOK", "CHEF"), EntryCheck.Replace(one, "BOSUN", "COOK", "CHEF")).ShouldBe(("CHEF", "BOSUN"));
        EntryCheck.Replace(many, new[] { "COOK", "BOSUN", "CHEF" }, "COOK", "CHEF").ShouldBe(new[] { "CHEF", "BOSUN" });
        ((Requirement[])EntryCheck.Replace(needs, new[] { new Requirement("COOK", true), new Requirement("CHEF", false) }, "COOK", "CHEF"))
            .Select(n => (n.Certificate, n.Essential))
            .ShouldBe([("CHEF", true)]);
        EntryCheck
            .References(one, "COOK")
            .Concat(EntryCheck.References(needs, new[] { new Requirement("SEA", true) }))
            .ShouldBe([("jobs", "COOK"), ("jobs", "SEA")]);
    }

    [Fact]
    public void A_tree_closes_no_ring_and_grows_no_deeper_than_its_list_says()
    {
        var list = ShippedLists.All.First(l => l.DeepestTree > 0);
        var parent = list.Columns.First(c => c.Type == ColumnType.Entry && c.List == list.Key).Key;
        EntryContent Below(string code, string? above) => new(code, code, null, above is null ? Nothing : new Dictionary<string, object> { [parent] = above });
        var chain = Enumerable.Range(1, list.DeepestTree).Select(i => Below($"L{i}", i == 1 ? null : $"L{i - 1}")).ToList();
        ListConsistency.Between(list, chain).ShouldBeEmpty();
        ListConsistency.Between(list, [.. chain, Below("DEEP", $"L{list.DeepestTree}")]).Select(p => (p.Entry, p.Code)).ShouldBe([("DEEP", "too-deep")]);
        ListConsistency
            .Between(list, [Below("A", "B"), Below("B", "C"), Below("C", "B"), Below("D", null)])
            .Select(p => (p.Entry, p.Code))
            .ShouldBe([("B", "loop"), ("C", "loop")]);
    }

    [Fact]
    public void Components_that_do_not_work_out_together_are_named_with_their_column()
    {
        var list = ShippedLists.Find("payComponents")!;
        EntryContent Entry(string code, params (string Key, object Value)[] values) => new(code, code, null, values.ToDictionary(v => v.Key, v => v.Value));
        var wrong = ListConsistency
            .Between(
                list,
                [
                    Entry("BASE", ("kind", "earning"), ("amount", 1000m)),
                    Entry("ISLE", ("kind", "earning"), ("percent", 4m), ("of", new[] { "NONE" })),
                    Entry("TAX", ("kind", "deduction"), ("brackets", new[] { new PayBracket(18m) }), ("of", new[] { "BASE" }), ("basis", "period")),
                ]
            )
            .Select(p => (p.Entry, p.Column))
            .ToList();
        wrong.ShouldContain(("ISLE", "of"));
        wrong.ShouldNotContain(p => p.Entry == "BASE" || p.Entry == "TAX");
        ListConsistency
            .Between(list, [Entry("SUM", ("kind", "earning"), ("formula", "NOTHING + 1"))])
            .Select(p => (p.Entry, p.Column))
            .ShouldBe([("SUM", "formula")]);
        PayComponentEntry.Component(Entry("TAX", ("kind", "deduction"), ("basis", "period"))).Basis.ShouldBe(BracketBasis.Period);
        PayComponentEntry.Component(Entry("TAX", ("kind", "deduction"), ("basis", "annual"))).Basis.ShouldBe(BracketBasis.Annual);
    }

    [Theory]
    [InlineData("", "", "BASE")]
    [InlineData("groups=crew", "groups=crew;yard", "BASE")]
    [InlineData("groups=crew", "groups=office", null)]
    [InlineData("paid_to=2027-03-31", "paid_from=2027-04-01", null)]
    [InlineData("paid_from=2027-04-01", "paid_to=2027-03-31", null)]
    [InlineData("paid_to=2027-04-01", "paid_from=2027-04-01", "BASE")]
    [InlineData("paid_to=2027-04-01", "stands_for=allowance", null)]
    public void One_component_stands_for_base_pay_for_each_group_at_each_time(string one, string other, string? named)
    {
        EntryContent Standing(string code, string more)
        {
            var values = new Dictionary<string, object>
            {
                ["kind"] = "earning",
                ["stands_for"] = "basePay",
                ["amount"] = 1m,
            };
            foreach (var cell in more.Split('|', StringSplitOptions.RemoveEmptyEntries).Select(c => c.Split('=')))
                values[cell[0]] = cell[0] == "groups" ? cell[1].Split(';') : cell[1];
            return new EntryContent(code, code, null, values);
        }
        var wrong = ListConsistency.Between(ShippedLists.Find("payComponents")!, [Standing("BASE", one), Standing("PAY", other)]).ToList();
        wrong.Select(w => (w.Entry, w.Column)).ShouldBe(named is null ? [] : [("PAY", "stands_for")]);
        wrong.ShouldAllBe(w => w.Message.StartsWith(named!, StringComparison.Ordinal));
    }

    [Fact]
    public void An_option_that_was_there_is_never_taken_away()
    {
        EntryContent With(params string[] values) =>
            new("C", "C", null, new Dictionary<string, object> { ["options"] = values.Select(v => new OptionEntry(v, v, null, false)).ToArray() });
        var choices = ShippedLists.Find("choiceLists")!;
        ListConsistency.Against(choices, With("S", "M"), With("M", "L")).Select(p => p.Code).ShouldBe(["option-gone"]);
        ListConsistency.Against(choices, With("S", "M"), With("M", "L", "S")).ShouldBeEmpty();
        ListConsistency.Against(ShippedLists.Find("teams")!, With("S"), With("M")).ShouldBeEmpty();
    }

    [Fact]
    public void A_list_knows_the_columns_that_every_list_has_beside_its_own()
    {
        var teams = ShippedLists.Find("teams")!;
        new[] { "code", "name", "name_de", "nothing" }.Select(teams.Takes).ShouldBe([true, true, true, false]);
        var people = teams with { HasNames = false };
        new[] { "code", "name", "name_de" }.Select(people.Takes).ShouldBe([true, false, false]);
        teams.Columns.ShouldAllBe(c => teams.Takes(c.Key));
    }

    [Fact]
    public void An_entry_is_called_by_its_German_name_where_it_has_one()
    {
        var (both, one) = (new EntryContent("D", "Deck", "Deckmannschaft", Nothing), new EntryContent("D", "Deck", null, Nothing));
        (both.NameIn("de"), both.NameIn("en"), one.NameIn("de")).ShouldBe(("Deckmannschaft", "Deck", "Deck"));
        var flags = new EntryContent("D", "Deck", null, new Dictionary<string, object> { ["yes"] = true, ["no"] = false });
        (flags.Is("yes"), flags.Is("no"), flags.Is("none")).ShouldBe((true, false, false));
    }

    private static readonly Label None = new("", "");
    private static readonly Dictionary<string, object> Nothing = [];

    private static CellValue Of(object value) => new(value, null, null);

    private static string? Find(string list, string said) =>
        (list, said.ToUpperInvariant()) is ("jobs", "COOK" or "BOSUN") ? said.ToUpperInvariant()
        : (list, said) == (EntryCheck.People, "1042") ? said
        : null;

    private static ReadEntry Read(string list, string code, string name, string? nameDe, string cells = "")
    {
        var given = cells
            .Split('|', StringSplitOptions.RemoveEmptyEntries)
            .Select(c => c.Split('=', 2))
            .ToDictionary(c => c[0], c => c[1], StringComparer.Ordinal);
        return EntryReader.Read(
            ShippedLists.Find(list)!,
            code,
            name,
            nameDe,
            column => given.TryGetValue(column.Key, out var cell) ? ColumnValue.FromText(column, cell, CellStyle.Own) : default(CellValue),
            (_, said) => said
        );
    }
}
