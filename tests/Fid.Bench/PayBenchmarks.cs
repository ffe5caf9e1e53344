using BenchmarkDotNet.Attributes;
using Fid.Core.Calendars;
using Fid.Core.Pay;
using NodaTime;

namespace Fid.Bench;

/// <summary>The first pay down to net and the loaded cost of 5,000 people, who start over a year in three pay groups, each at a rate of their own.</summary>
public class PayBenchmarks
{
    private const int People = 5_000;

    private (FirstPayQuestion Question, PaidComponents Components)[] _people = [];

    [GlobalSetup]
    public void Prepare()
    {
        var random = new Random(20270301);
        var first = new LocalDate(2027, 1, 4);
        var calendar = new WorkCalendar(RestMask.Weekend, Enumerable.Range(0, 40).Select(_ => first.PlusDays(random.Next(400))));
        PayGroupTerms[] groups =
        [
            new(PayPeriod.Fortnight, first, 5, 4, calendar),
            new(PayPeriod.Month, null, -3, 5, calendar),
            new(PayPeriod.Week, first, 4, 3, calendar),
        ];
        PayComponent[] components =
        [
            new("BASE", ComponentKind.Earning, Amount: 0),
            new("ALLOW", ComponentKind.Earning, Amount: 0),
            new("ISLE", ComponentKind.Earning, Percent: 4, Of: ["BASE"]),
            new("PENS", ComponentKind.Deduction, Percent: 5, Of: ["BASE", "ISLE"], Floor: 240, Cap: 1600),
            new(
                "LEVY",
                ComponentKind.Deduction,
                Of: ["BASE", "ALLOW", "ISLE", "PENS"],
                Brackets: [new PayBracket(0, 12000), new PayBracket(18, 30000), new PayBracket(32)]
            ),
            new("PENS-ER", ComponentKind.EmployerCost, Percent: 6, Of: ["BASE", "ISLE"]),
        ];
        _people =
        [
            .. Enumerable
                .Range(0, People)
                .Select(i =>
                {
                    var start = first.PlusDays(random.Next(360));
                    // One in ten is known only after the start: the first run pays arrears.
                    var approved = start.PlusDays(i % 10 == 0 ? 30 : -10);
                    return (
                        new FirstPayQuestion(groups[i % 3], start, approved, calendar, random.Next(40_000, 400_000) / 100m, PartMethod.WorkingDays),
                        new PaidComponents("BASE", [("ALLOW", Allowance(start, i % 4 * 15))], components)
                    );
                }),
        ];
    }

    private static PaidElement Allowance(LocalDate start, decimal amount) =>
        PaidElement.Over(start, [], _ => ([new PayElement(Guid.Empty, PayElementKind.Allowance, amount)], 0)).Single();

    [Benchmark]
    public decimal FirstPayAndCost()
    {
        var total = 0m;
        foreach (var (question, components) in _people)
        {
            var first = FirstPay.Of(question).Answer!;
            total += Payslip.Of(question, components, first.Runs).Answer!.Net;
            var every = question.Terms.Every;
            var year = components.Whole(every, question.AmountPerPeriod, question.Start).Answer!.EmployerCost * PayRate.PeriodsPerYear(every);
            total += LoadedCost.Of([year], 37.5m, 7.5m, 25, 9, 30).Answer!.LoadedHourly;
        }
        return total;
    }
}
