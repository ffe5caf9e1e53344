using Fid.Core.Pay;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

public class PayPreviewTests
{
    private static readonly PayComponent Base = new("BASE", ComponentKind.Earning, Amount: 1250);
    private static readonly PayComponent Isle = new("ISLE", ComponentKind.Earning, Percent: 4, Of: ["BASE"]);
    private static readonly PayComponent Pension = new("PENS", ComponentKind.Deduction, Percent: 5, Of: ["BASE", "ISLE"], Floor: 240, Cap: 1600);
    private static readonly PayComponent Levy = new(
        "LEVY",
        ComponentKind.Deduction,
        Of: ["BASE", "ISLE", "PENS"],
        Brackets: [new(0, 12000), new(18, 30000), new(32)]
    );
    private static readonly PayComponent Employer = new("PENS-ER", ComponentKind.EmployerCost, Percent: 6, Of: ["BASE", "ISLE"]);

    [Fact]
    public void A_fortnight_comes_to_what_the_rules_say_in_whatever_order_it_is_listed()
    {
        PayComponent[] all = [Base, Isle, Pension, Levy, Employer];
        foreach (var order in new[] { all, [.. all.Reverse()], [Levy, Employer, Pension, Isle, Base] })
        {
            var slip = PayPreview.Of(PayPeriod.Fortnight, order).Answer!;
            slip.Lines.Select(l => l.Code).ShouldBe(order.Select(c => c.Code));
            slip.Lines.ToDictionary(l => l.Code, l => l.Amount)
                .ShouldBe(
                    new Dictionary<string, decimal>
                    {
                        ["BASE"] = 1250.00m,
                        ["ISLE"] = 50.00m,
                        ["PENS"] = 53.00m,
                        ["LEVY"] = 154.42m,
                        ["PENS-ER"] = 78.00m,
                    },
                    ignoreOrder: true
                );
            (slip.Gross, slip.Deductions, slip.Net, slip.EmployerCost).ShouldBe((1300.00m, 207.42m, 1092.58m, 1378.00m));
        }
    }

    [Fact]
    public void They_are_read_by_kind_and_after_what_they_are_worked_out_from()
    {
        PayPreview.InReadingOrder([Employer, Levy, Pension, Isle, Base]).Select(c => c.Code).ShouldBe(["BASE", "ISLE", "PENS", "LEVY", "PENS-ER"]);
        // What cannot be worked out stays as it was given.
        PayPreview.InReadingOrder([Levy, Base]).Select(c => c.Code).ShouldBe(["LEVY", "BASE"]);
    }

    [Fact]
    public void Below_the_floor_nothing_counts_and_at_a_limit_no_further_slice_does()
    {
        var small = new PayComponent("BASE", ComponentKind.Earning, Amount: 200);
        PayComponent Sliced(decimal limit) =>
            new("LEVY", ComponentKind.Deduction, Of: ["BASE"], Brackets: [new(10, limit), new(50)], Basis: BracketBasis.Period);
        PayLine Last(PayComponent component) => PayPreview.Of(PayPeriod.Month, [small, component]).Answer!.Lines[1];
        Last(new("PENS", ComponentKind.Deduction, Percent: 5, Of: ["BASE"], Floor: 240)).Amount.ShouldBe(0);
        Last(new("PENS", ComponentKind.Deduction, Percent: 5, Of: ["BASE"], Cap: 100)).Amount.ShouldBe(5);
        (Last(Sliced(200)).Working, Last(Sliced(199)).Amount).ShouldBe(("On BASE (200.00): 10 % of 200.00 = 20.00.", 20.40m));
    }

    [Fact]
    public void Each_line_shows_its_working_in_either_language()
    {
        PayComponent[] all = [Base, Isle, Pension, Levy, new("EXTRA", ComponentKind.Earning, Formula: "Max(BASE - 1300, 0)")];
        PayPreview
            .Of(PayPeriod.Fortnight, all)
            .Answer!.Lines.Select(l => l.Working)
            .ShouldBe([
                "A fixed amount of 1250.00.",
                "4 % of BASE (1250.00): 4 % of 1250.00 = 50.00.",
                "5 % of BASE + ISLE (1300.00) up to 1600.00 above 240.00: 5 % of 1060.00 = 53.00.",
                "On BASE + ISLE − PENS (1247.00) × 26 = 32422.00 a year: 0 % of 12000.00 + 18 % of 18000.00 + 32 % of 2422.00 = 4015.04 a "
                    + "year, ÷ 26 = 154.42.",
                "Max(BASE - 1300, 0) with BASE = 1250.00 = 0.00.",
            ]);
        PayPreview
            .Of(PayPeriod.Fortnight, all, PayWording.In("de"))
            .Answer!.Lines.Select(l => l.Working)
            .ShouldBe([
                "Fester Betrag von 1250,00.",
                "4 % von BASE (1250,00): 4 % von 1250,00 = 50,00.",
                "5 % von BASE + ISLE (1300,00) bis 1600,00 über 240,00: 5 % von 1060,00 = 53,00.",
                "Auf BASE + ISLE − PENS (1247,00) × 26 = 32422,00 im Jahr: 0 % von 12000,00 + 18 % von 18000,00 + 32 % von 2422,00 = 4015,04 "
                    + "im Jahr, ÷ 26 = 154,42.",
                "Max(BASE - 1300, 0) mit BASE = 1250,00 = 0,00.",
            ]);
    }

    [Theory]
    [InlineData("BASE * 0.1", "125.00")]
    [InlineData("Max(BASE - 1300, 0)", "0.00")]
    [InlineData("if(BASE > 1000, Round(BASE / 3, 2), 0)", "416.67")]
    [InlineData("[BASE] + 0.005", "1250.01")]
    [InlineData("0.1 + 0.2", "0.30")]
    public void A_formula_computes_in_decimals(string formula, string amount) =>
        PayPreview
            .Of(PayPeriod.Month, [new("X", ComponentKind.Earning, Formula: formula), Base])
            .Answer!.Lines[0]
            .Amount.ToString(System.Globalization.CultureInfo.InvariantCulture)
            .ShouldBe(amount);

    [Theory]
    [InlineData("BASE +", "/components/0/formula", "formula-error")]
    [InlineData("BOSS * 2", "/components/0/formula", "unknown-code")]
    [InlineData("Pow(9, 99999999)", "/components/0/formula", "formula-error")]
    [InlineData("9 ** 99999999", "/components/0/formula", "formula-error")]
    [InlineData("BASE / 0", "/components/0", "formula-error")]
    [InlineData("BASE > 3", "/components/0", "formula-error")]
    [InlineData("'BASE'", "/components/0", "formula-error")]
    [InlineData("99999999999999999999999999 * 99999999", "/components/0", "formula-error")]
    [InlineData("X + 1", "/components/0", "loop")]
    public void A_formula_that_cannot_be_is_refused_at_its_place(string formula, string path, string code)
    {
        var problem = PayPreview.Of(PayPeriod.Month, [new("X", ComponentKind.Earning, Formula: formula), Base]).Problems.Single();
        (problem.Path, problem.Code).ShouldBe((path, code));
    }

    [Fact]
    public void A_ring_is_named_whole()
    {
        var ring = PayPreview.Of(
            PayPeriod.Month,
            [
                new("A", ComponentKind.Earning, Formula: "C"),
                new("B", ComponentKind.Earning, Percent: 1, Of: ["A"]),
                new("C", ComponentKind.Earning, Percent: 2, Of: ["B"]),
            ]
        );
        ring.Problems.Single().Message.ShouldContain("A reads C reads B reads A");
    }

    [Fact]
    public void Each_component_has_one_rule_and_a_base_only_where_it_needs_one()
    {
        string[] Codes(params PayComponent[] components) => [.. PayPreview.Of(PayPeriod.Month, components).Problems.Select(p => p.Code)];
        Codes(new PayComponent("A", ComponentKind.Earning)).ShouldBe(["one-rule"]);
        Codes(Base, new("A", ComponentKind.Earning, Amount: 1, Percent: 2, Of: ["BASE"])).ShouldBe(["one-rule"]);
        Codes(new PayComponent("A", ComponentKind.Earning, Percent: 2)).ShouldBe(["missing-property"]);
        Codes(Base, new("A", ComponentKind.Earning, Of: ["BASE"], Brackets: [new(1), new(2, 5)])).ShouldBe(["bad-value", "bad-value"]);
        Codes(Base, Base).ShouldBe(["duplicate-code"]);
        Codes(Base, new("A", ComponentKind.Earning, Percent: 2, Of: ["BASE"], Floor: 10, Cap: 5)).ShouldBe(["reversed-range"]);
    }

    [Theory]
    [InlineData("\"amount\":1", "")]
    [InlineData("\"amount\":1000000000000", "")]
    [InlineData("\"amount\":1000000000001", "/components/1 out-of-range")]
    [InlineData("\"amount\":-1000000000001", "/components/1 out-of-range")]
    [InlineData("", "/components/1 one-rule")]
    [InlineData("\"amount\":1,\"formula\":\"2\"", "/components/1 one-rule")]
    [InlineData("\"percent\":4", "/components/1/of missing-property")]
    [InlineData("\"percent\":4,\"of\":[]", "/components/1/of missing-property")]
    [InlineData("\"brackets\":[{\"percent\":4}]", "/components/1/of missing-property")]
    [InlineData("\"percent\":4,\"of\":[\"NONE\"]", "/components/1/of/0 unknown-code")]
    [InlineData("\"percent\":4,\"of\":[\"BASE\",\"NONE\"]", "/components/1/of/1 unknown-code")]
    [InlineData("\"percent\":4,\"of\":[\"X\"]", "/components/1 loop")]
    [InlineData("\"formula\":\"X + 1\"", "/components/1 loop")]
    [InlineData("\"formula\":\"NONE + 1\"", "/components/1/formula unknown-code")]
    [InlineData("\"formula\":\"BASE +\"", "/components/1/formula formula-error")]
    [InlineData("\"amount\":1,\"of\":[\"BASE\"]", "/components/1/of unknown-property")]
    [InlineData("\"amount\":1,\"floor\":1", "/components/1 unknown-property")]
    [InlineData("\"amount\":1,\"cap\":1", "/components/1 unknown-property")]
    [InlineData("\"percent\":4,\"of\":[\"BASE\"],\"floor\":5,\"cap\":5", "")]
    [InlineData("\"percent\":4,\"of\":[\"BASE\"],\"floor\":5,\"cap\":4.99", "/components/1/cap reversed-range")]
    [InlineData("\"brackets\":[],\"of\":[\"BASE\"]", "/components/1/brackets bad-value")]
    [InlineData("\"brackets\":[{\"percent\":1000}],\"of\":[\"BASE\"]", "")]
    [InlineData("\"brackets\":[{\"percent\":1000.01}],\"of\":[\"BASE\"]", "/components/1/brackets/0/percent out-of-range")]
    [InlineData("\"brackets\":[{\"percent\":-1000.01}],\"of\":[\"BASE\"]", "/components/1/brackets/0/percent out-of-range")]
    [InlineData("\"brackets\":[{\"percent\":1,\"upTo\":0}],\"of\":[\"BASE\"]", "/components/1/brackets/0 bad-value")]
    [InlineData("\"brackets\":[{\"percent\":1,\"upTo\":5},{\"percent\":2,\"upTo\":5}],\"of\":[\"BASE\"]", "/components/1/brackets/1 bad-value")]
    [InlineData("\"brackets\":[{\"percent\":1,\"upTo\":5},{\"percent\":2,\"upTo\":6}],\"of\":[\"BASE\"]", "")]
    [InlineData("\"brackets\":[{\"percent\":1},{\"percent\":2}],\"of\":[\"BASE\"]", "/components/1/brackets/0 bad-value")]
    [InlineData("\"brackets\":[{\"percent\":1,\"upTo\":1000000000000}],\"of\":[\"BASE\"]", "")]
    [InlineData("\"brackets\":[{\"percent\":1,\"upTo\":1000000000001}],\"of\":[\"BASE\"]", "/components/1/brackets/0 bad-value")]
    public void A_component_has_one_whole_rule(string rule, string problem)
    {
        var rest = rule.Length > 0 ? "," + rule : "";
        var question = $$"""{"every":"month","components":[{"code":"BASE","kind":"earning","amount":10},{"code":"X","kind":"earning"{{rest}} }]}""";
        Asked.ShouldTell("pay.preview", question, problem);
    }

    [Fact]
    public void Codes_stand_once_and_are_not_empty_and_a_period_is_longer_than_a_day()
    {
        string Question(string every, params string[] codes) => $$"""{"every":"{{every}}","components":[{{string.Join(',', codes.Select(One))}}]}""";
        string One(string code) => $$"""{"code":"{{code}}","kind":"earning","amount":1}""";
        Asked.Problems("pay.preview", Question("month", "A", "A")).Select(p => $"{p.Path} {p.Code}").ShouldBe(["/components/1/code duplicate-code"]);
        Asked.Problems("pay.preview", Question("month", "")).ShouldHaveSingleItem().Code.ShouldBe("bad-value");
        foreach (var every in new[] { "hour", "day" })
            Asked.Problems("pay.preview", Question(every, "A")).ShouldHaveSingleItem();
        Asked.Answer("pay.preview", Question("month", [.. Enumerable.Range(0, 1000).Select(i => $"C{i}")]));
        Asked
            .Problems("pay.preview", Question("month", [.. Enumerable.Range(0, 1001).Select(i => $"C{i}")]))
            .ShouldHaveSingleItem()
            .Code.ShouldBe("out-of-range");
    }
}
