using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Chasing;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Chasing;

/// <summary>What goes out over weeks, day by day, with what went out before remembered: as a firm sees it that Fid runs for.</summary>
public class ChaseOverTimeTests
{
    private static readonly LocalDate First = new(2027, 3, 1);
    private const int Days = 60;

    private static readonly Gen<(ChasePolicy Policy, WorkCalendar Calendar, LocalDate Due, HashSet<int> Down)> Cases = Gen.Select(
            Gen.Select(Gen.Int[1, 8].Array[0, 3], Gen.Bool, Gen.Int[1, 4], Gen.Int[0, 4]),
            Gen.Int[0, 6].Nullable(),
            Gen.Select(Gen.Int[0, 126], Gen.Int[0, Days].Array[0, 8]),
            Gen.Int[10, 35],
            Gen.Int[0, Days].Array[0, 25]
        )
        .Select(
            (policy, escalate, days, due, down) =>
                (
                    new ChasePolicy(policy.Item1, policy.Item2, policy.Item3, policy.Item4, escalate),
                    new WorkCalendar(Rest(days.Item1), days.Item2.Select(d => First.PlusDays(d))),
                    First.PlusDays(due),
                    down.ToHashSet()
                )
        );

    [Fact]
    public void Each_moment_goes_out_once_on_its_day_and_after_days_off_the_latest_is_made_good() =>
        Cases.Sample(c =>
        {
            var (policy, calendar, due, down) = c;
            var went = Run(policy, calendar, due, down);
            went.Select(w => (w.Kind, w.Moment)).ShouldBeUnique();
            var moments = Moments(policy, calendar, due);
            // Whatever goes out is a moment, on its day or on the first after it on which Fid ran and the owner works.
            foreach (var (on, kind, moment) in went)
            {
                moments.ShouldContain((kind, moment));
                for (var day = moment; day < on; day = day.PlusDays(1))
                    (down.Contains(Period.DaysBetween(First, day)) || !calendar.IsWorking(day) || day < First).ShouldBeTrue($"{kind} of {moment} on {on}");
            }
            // Nothing is left out but what a later moment of its track overtook while nothing ran.
            foreach (var (kind, moment) in moments.Where(m => m.Moment >= First && !went.Exists(w => (w.Kind, w.Moment) == m)))
                moments
                    .Where(m => (m.Kind == ReminderKind.Escalation) == (kind == ReminderKind.Escalation) && m.Moment > moment)
                    .Select(m => m.Moment)
                    .DefaultIfEmpty(First.PlusDays(Days))
                    .Min()
                    .ShouldSatisfyAllConditions(next =>
                    {
                        for (var day = moment; day < next && day < First.PlusDays(Days); day = day.PlusDays(1))
                            (down.Contains(Period.DaysBetween(First, day)) || !calendar.IsWorking(day)).ShouldBeTrue($"{kind} of {moment} was left out");
                    });
        });

    private static List<(LocalDate On, ReminderKind Kind, LocalDate Moment)> Run(ChasePolicy policy, WorkCalendar calendar, LocalDate due, HashSet<int> down)
    {
        var went = new List<(LocalDate On, ReminderKind Kind, LocalDate Moment)>();
        for (var i = 0; i < Days; i++)
        {
            if (down.Contains(i))
                continue;
            var today = First.PlusDays(i);
            var answer = Chase
                .Of(
                    new ChaseQuestion(
                        today,
                        new Dictionary<string, WorkCalendar> { ["c"] = calendar },
                        policy,
                        [new ChasedPerson("o", "c", "m", []), new ChasedPerson("m", "c", null, [])],
                        [new ChasedTask("t", "o", due, true)],
                        [.. went.Select(w => new SentReminder("t", w.Kind, w.Moment))]
                    )
                )
                .Answer!;
            foreach (var reminder in answer.Messages.SelectMany(m => m.Reminders))
                went.Add((today, reminder.Kind, reminder.Day));
        }
        return went;
    }

    // The moments, found by walking from day to day.
    private static HashSet<(ReminderKind Kind, LocalDate Moment)> Moments(ChasePolicy policy, WorkCalendar calendar, LocalDate due)
    {
        var on = due;
        while (!calendar.IsWorking(on))
            on = on.PlusDays(-1);
        var moments = new HashSet<(ReminderKind, LocalDate)>();
        foreach (var before in policy.Before)
            moments.Add((ReminderKind.Before, Walk(-before)));
        if (policy.OnDue)
            moments.Add((ReminderKind.Due, on));
        for (var k = 1; k <= policy.OverdueMost; k++)
            moments.Add((ReminderKind.Overdue, Walk(k * policy.OverdueEvery)));
        if (policy.EscalateAfter is { } after)
            moments.Add((ReminderKind.Escalation, Walk(after)));
        return moments;

        LocalDate Walk(int steps)
        {
            var day = on;
            for (var left = Math.Abs(steps); left > 0; )
            {
                day = day.PlusDays(Math.Sign(steps));
                if (calendar.IsWorking(day))
                    left--;
            }
            return day;
        }
    }

    private static RestMask Rest(int bits)
    {
        var mask = string.Concat(Enumerable.Range(0, 7).Select(i => (bits >> i & 1) == 1 ? '1' : '0'));
        return RestMask.TryParse(mask, out var rest) ? rest : RestMask.None;
    }
}
