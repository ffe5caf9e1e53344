using System.Text.Json;
using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Clock;
using Fid.Core.Pay;
using Fid.Core.PayElements;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Pay;

/// <summary>What is paid beside base pay: allowances, second jobs and one-off payments, in whole periods and in parts of them.</summary>
public class PayElementTests
{
    private static readonly WorkCalendar Weekdays = new(RestMask.Weekend, []);
    private static readonly PayGroupTerms Fortnights = new(PayPeriod.Fortnight, new LocalDate(2027, 1, 4), 5, 4, Weekdays);
    private static readonly LocalDate Monday = new(2027, 3, 15);
    private static readonly PayElement Evenings = new(Guid.NewGuid(), PayElementKind.SecondJob, 15.2m) { WeeklyHours = 6, Job = "TC-1" };
    private static readonly PayElement Nights = new(Guid.NewGuid(), PayElementKind.Allowance, 46) { Note = "nights" };
    private static readonly PayElement Boots = new(Guid.NewGuid(), PayElementKind.OneOff, 250) { Due = Monday.PlusDays(9) };

    [Theory]
    [InlineData(SecondJobKind.Flat, 15.2, PayPeriod.Fortnight, 182.40)]
    [InlineData(SecondJobKind.Flat, 15.2, PayPeriod.Month, 395.20)]
    // 17.40 and a tenth of it more: 6 × 19.14 × 52 ÷ 26.
    [InlineData(SecondJobKind.PlusPercent, 10, PayPeriod.Fortnight, 229.68)]
    [InlineData(SecondJobKind.PlusAmount, -0.4, PayPeriod.Week, 102)]
    // What pays no more than the main job is paid all the same.
    [InlineData(SecondJobKind.PlusPercent, 0, PayPeriod.Fortnight, 208.80)]
    public void A_second_job_pays_its_hours_at_its_own_rate(SecondJobKind stated, double amount, PayPeriod every, double paid) =>
        (Evenings with { Stated = stated, Amount = (decimal)amount }).PerPeriod(Monday, 17.4m, every).ShouldBe((decimal)paid);

    [Fact]
    public void What_is_paid_for_days_is_paid_from_the_first_to_the_last_of_them()
    {
        var while_ = Nights with { From = Monday, Until = Monday.PlusDays(6) };
        new[] { -1, 0, 6, 7 }.Select(d => while_.PerPeriod(Monday.PlusDays(d), 17, PayPeriod.Fortnight)).ShouldBe([0, 46, 46, 0]);
        (Evenings with { From = Monday }).HourlyOn(Monday.PlusDays(-1), 17).ShouldBeNull();
        (Nights.HourlyOn(Monday, 17), Boots.PerPeriod(Boots.Due!.Value, 17, PayPeriod.Week)).ShouldBe((null, 0));
    }

    [Fact]
    public void Each_is_a_part_of_its_line_and_says_how_it_was_worked_out()
    {
        var slip = Slip([Nights, Nights with { Id = Guid.NewGuid(), Amount = 10, Note = null }, Evenings, Boots], Run(Monday));
        slip.Lines.Select(l => l.Amount).ShouldBe([1250, 56, 182.40m, 250]);
        slip.Lines[1].Working.Single().ShouldBe("nights: A whole period: 46.00. A whole period: 10.00.");
        slip.Lines[2].Working.Single().ShouldBe("6 hours a week at 15.20: 6 × 15.20 × 52 ÷ 26 = 182.40 a period. A whole period: 182.40.");
        slip.Lines[3].Working.Single().ShouldBe("Paid once: 250.00.");
        slip.Elements.Sum(e => e.Amount).ShouldBe(slip.Gross - 1250);
    }

    [Fact]
    public void In_German_it_says_so_in_German() =>
        Slip([Evenings, Boots], Run(Monday), wording: PayWording.German)
            .Lines.Select(l => l.Working.Single())
            .ShouldBe([
                "Ein ganzer Zeitraum: 1250,00.",
                "Fester Betrag von 0,00.",
                "6 Stunden die Woche zu 15,20: 6 × 15,20 × 52 ÷ 26 = 182,40 je Zeitraum. Ein ganzer Zeitraum: 182,40.",
                "Einmal gezahlt: 250,00.",
            ]);

    [Fact]
    public void What_begins_or_ends_in_the_middle_of_a_period_is_paid_in_part()
    {
        var (first, second) = (Monday.PlusDays(4), Monday.PlusDays(7));
        // Monday to Thursday of ten working days, and from the second Monday on.
        Slip([Nights with { Until = first.PlusDays(-1) }], Run(Monday)).Lines[1].Amount.ShouldBe(18.40m);
        Slip([Nights with { From = second }], Run(Monday)).Lines[1].Amount.ShouldBe(23);
        Slip([Evenings with { From = second }], Run(Monday)).Lines[2].Amount.ShouldBe(91.20m);
        Slip([Evenings with { From = second }], Run(Monday.PlusWeeks(2))).Lines[2].Amount.ShouldBe(182.40m);
        Slip([Evenings with { Until = Monday.PlusDays(-1) }], Run(Monday)).Lines[2].Amount.ShouldBe(0);
    }

    [Fact]
    public void By_the_roster_of_the_main_job_an_allowance_is_shared_out_and_a_second_job_is_not()
    {
        // Every shift of the fortnight lies in its second week, and both elements begin with that.
        var shift = new Shift(new LocalTime(6, 0), new LocalTime(14, 0), 30);
        var cycle = new ShiftCycle(
            Monday,
            [.. Enumerable.Repeat("-", 7), .. Enumerable.Repeat("E", 5), "-", "-"],
            new Dictionary<string, Shift> { ["E"] = shift }
        );
        var rostered = Question with
        {
            Method = PartMethod.RosteredHours,
            Roster = new RosterTerms(DateTimeZone.Utc, cycle, new HashSet<LocalDate>(), OnHoliday.Off),
        };
        var from = Monday.PlusDays(7);
        var slip = Slip([Nights with { From = from }, Evenings with { From = from }], Run(Monday), rostered);
        (slip.Lines[1].Amount, slip.Lines[2].Amount).ShouldBe((46, 91.20m));
        slip.Lines[1].Working.Single().ShouldContain("rostered hours");
        slip.Lines[2].Working.Single().ShouldContain("5 of 10 working days");
    }

    [Fact]
    public void A_rate_that_hangs_on_the_main_rate_rises_with_it()
    {
        var above = Evenings with { Stated = SecondJobKind.PlusAmount, Amount = 1 };
        var raise = Monday.PlusDays(7);
        var paid = PaidElement.Over(Start, [raise], day => ([above], day < raise ? 17 : 18)).Single();
        paid.Amounts(PayPeriod.Fortnight).ShouldBe([new(Start, 216), new(raise, 228)]);
        var line = Payslip.Of(Question, new PaidComponents("BASE", [("SECOND", paid)], Components), [Run(Monday)]).Answer!.Lines[2];
        (line.Amount, line.Working.Single()).ShouldBe(
            (
                222,
                "6 hours a week at 19.00: 6 × 19.00 × 52 ÷ 26 = 228.00 a period. 5 of 10 working days: 5 × 216.00 ÷ 10 = 108.00. "
                    + "5 of 10 working days: 5 × 228.00 ÷ 10 = 114.00."
            )
        );
    }

    [Fact]
    public void What_the_record_says_otherwise_from_a_day_holds_from_that_day()
    {
        var change = Monday.PlusDays(7);
        var paid = PaidElement.Over(Start, [change, change.PlusWeeks(1)], day => (
                day < change ? [Nights]
                : day == change ? [Nights with { Amount = 50 }]
                : [],
                0
            ));
        paid.Single().Amounts(PayPeriod.Fortnight).ShouldBe([new(Start, 46), new(change, 50), new(change.PlusWeeks(1), 0)]);
        paid[0].Element.Amount.ShouldBe(50);
        (paid[0].On(Monday)!.Element!.Amount, paid[0].On(change.PlusWeeks(1))).ShouldBe((46, null));
    }

    [Fact]
    public void A_one_off_payment_comes_with_the_run_of_its_day_once()
    {
        var due = Boots.Due!.Value;
        PayRun[] runs = [Run(due.PlusWeeks(-2)), Run(due), Run(due.PlusWeeks(2))];
        runs.Select(r => Slip([Boots], r).Lines[3].Amount).ShouldBe([0, 250, 0]);
        Slip([Boots], runs).Lines[3].Amount.ShouldBe(250);
        // Promised before the first day it comes with the first period, due after the last day with the last.
        Slip([Boots with { Due = Start.PlusDays(-40) }], Run(Start)).Lines[3].Amount.ShouldBe(250);
        // Taken away before it is due it is not paid, and after that it was.
        Removed(due.PlusDays(-1)).ShouldBe(0);
        Removed(due.PlusDays(1)).ShouldBe(250);
        var leaver = Question with { End = due.PlusDays(-10) };
        Slip([Boots], Run(due.PlusDays(-10)), leaver).Lines[3].Amount.ShouldBe(250);

        decimal Removed(LocalDate day)
        {
            var paid = PaidElement.Over(Start, [day], on => (on < day ? [Boots] : [], 0)).Single();
            return Payslip.Of(Question, new PaidComponents("BASE", [("ONCE", paid)], Components), [Run(due)]).Answer!.Lines[3].Amount;
        }
    }

    [Fact]
    public void However_the_days_are_cut_an_element_pays_as_much() =>
        Gen.Select(Gen.Int[0, 90], Gen.Int[0, 13], Gen.Int[1, 20_000])
            .Sample(
                (from, length, cents) =>
                {
                    var (begin, end) = (Start.PlusDays(from), Start.PlusDays(from + length));
                    var whole = Nights with { Amount = cents / 100m, From = begin };
                    PayElement[] cut = [whole with { Until = end }, whole with { Id = Guid.NewGuid(), From = end.PlusDays(1) }];
                    var run = Run(begin);
                    // Two parts that are rounded each may differ from the one by a cent.
                    Math.Abs(Slip(cut, run).Gross - Slip([whole], run).Gross).ShouldBeLessThanOrEqualTo(0.01m);
                }
            );

    [Theory]
    [InlineData("kind=allowance amount=46", "")]
    [InlineData("kind=allowance", "amount:missing")]
    [InlineData("kind=allowance amount=-1", "amount:out-of-range")]
    [InlineData("kind=allowance amount=46 due=2027-04-01", "due:not-in-kind")]
    [InlineData("kind=allowance amount=46 hours=3", "hours:not-in-kind")]
    [InlineData("kind=secondJob amount=15.2 hours=6", "")]
    [InlineData("kind=secondJob amount=15.2", "hours:missing")]
    [InlineData("kind=secondJob amount=-2 hours=6", "amount:out-of-range")]
    [InlineData("kind=secondJob amount=-2 hours=6 stated=plusAmount", "")]
    [InlineData("kind=oneOff amount=250 due=2027-04-01", "")]
    [InlineData("kind=oneOff amount=250", "due:missing")]
    [InlineData("kind=oneOff amount=250 due=2027-04-01 from=2027-04-01", "from:not-in-kind")]
    // Two for the same at the same time; of another job, for something else or at another time they are two.
    [InlineData("kind=allowance amount=46 note=nights; kind=allowance amount=10 note=Nights", "from:overlaps from:overlaps")]
    [InlineData("kind=allowance amount=46 note=nights; kind=allowance amount=10 note=boots", "")]
    [InlineData("kind=allowance amount=46 until=2027-03-31; kind=allowance amount=50 from=2027-03-31", "from:overlaps from:overlaps")]
    [InlineData("kind=allowance amount=46 until=2027-03-31; kind=allowance amount=50 from=2027-04-01", "")]
    [InlineData("kind=secondJob amount=15 hours=6 job=TC-1; kind=secondJob amount=15 hours=2 job=TC-1", "from:overlaps from:overlaps")]
    [InlineData("kind=secondJob amount=15 hours=6 job=TC-1; kind=secondJob amount=15 hours=2 job=DK-1", "")]
    [InlineData("kind=oneOff amount=1 due=2027-04-01; kind=oneOff amount=2 due=2027-04-01", "due:overlaps due:overlaps")]
    [InlineData("kind=oneOff amount=1 due=2027-04-01; kind=oneOff amount=2 due=2027-04-02", "")]
    public void What_does_not_go_together_is_told_at_its_cell(string rows, string problems)
    {
        var values = Values("pay_elements", rows);
        var found = PayElementRows.Problems(values, values.Keys);
        string.Join(' ', found.Select(p => $"{p.Path.Split('.', '@')[1]}:{p.Code}")).ShouldBe(problems);
        // Whoever touches something else is not told.
        PayElementRows.Problems(values, ["pay_rate", "items.item@1"]).ShouldBeEmpty();
    }

    [Fact]
    public void Rows_that_do_not_say_what_they_are_or_how_much_are_passed_over()
    {
        var values = Values(
            "pay_elements",
            "kind=allowance; amount=5; kind=oneOff amount=250 due=2027-04-01; kind=secondJob amount=5 stated=plusPercent hours=6"
        );
        PayElementRows
            .Of(values)
            .Select(e => (e.Kind, e.Amount, e.Stated, e.WeeklyHours, e.Due))
            .ShouldBe([
                (PayElementKind.SecondJob, 5, SecondJobKind.PlusPercent, 6, null),
                (PayElementKind.OneOff, 250, SecondJobKind.Flat, 0, new LocalDate(2027, 4, 1)),
            ]);
    }

    internal static Dictionary<string, JsonElement> Values(string field, string rows)
    {
        var values = new Dictionary<string, JsonElement>();
        foreach (var row in rows.Split(';'))
        {
            var id = Guid.NewGuid();
            foreach (var cell in row.Split(' ', StringSplitOptions.RemoveEmptyEntries))
            {
                var (column, value) = (cell.Split('=')[0], cell.Split('=')[1]);
                values[$"{field}.{column}@{id:D}"] = decimal.TryParse(value, out var number)
                    ? JsonSerializer.SerializeToElement(number)
                    : JsonSerializer.SerializeToElement(value);
            }
        }
        return values;
    }

    private static readonly LocalDate Start = new(2027, 3, 1);

    private static readonly FirstPayQuestion Question = new(Fortnights, Start, Start, Weekdays, 1250, PartMethod.WorkingDays);

    private static readonly PayComponent[] Components =
    [
        .. new[] { "BASE", "ALLOW", "SECOND", "ONCE" }.Select(c => new PayComponent(c, ComponentKind.Earning, Amount: 0)),
    ];

    private static Payslip Slip(IReadOnlyList<PayElement> elements, PayRun run, FirstPayQuestion? question = null, PayWording? wording = null) =>
        Slip(elements, [run], question, wording);

    private static Payslip Slip(IReadOnlyList<PayElement> elements, PayRun[] runs, FirstPayQuestion? question = null, PayWording? wording = null)
    {
        var paid = PaidElement.Over(Start, [], _ => (elements, 17.4m)).Select(e => (Components[1 + (int)e.Element.Kind].Code, e));
        return Payslip.Of(question ?? Question, new PaidComponents("BASE", [.. paid], Components), runs, wording).Answer!;
    }

    private static PayRun Run(LocalDate day) => Fortnights.Periods(day, day).Answer!.Single();
}
