using CsCheck;
using Fid.Core.Calendars;
using Fid.Core.Planning;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Planning;

/// <summary>What holds for every plan.</summary>
public class PlanPropertyTests
{
    private static readonly LocalDate Today = new(2027, 3, 3);
    private static readonly string[] Calendars = ["office", "dock", "odd"];

    private static readonly Gen<PlanOffset?> AnyOffset = Gen.Frequency(
        (3, Gen.Const((PlanOffset?)null)),
        (
            2,
            from amount in Gen.Int[-25, 15]
            from unit in Gen.Enum<OffsetUnit>()
            from anchor in Gen.OneOf(Gen.Const("start"), Gen.Const("start"), Gen.Const("accepted"))
            select (PlanOffset?)new PlanOffset(anchor, unit is OffsetUnit.Weeks or OffsetUnit.Months ? amount / 8 : amount, unit)
        )
    );

    private static Gen<PlanTask> AnyTask(int i) =>
        from stage in Gen.Int[0, 2]
        from calendar in Gen.OneOf(Calendars.Select(Gen.Const).ToArray())
        from work in Gen.Int[0, 6]
        from opens in AnyOffset
        from due in AnyOffset
        from after in Gen.Int[0, Math.Max(0, i - 1)].Array[0, Math.Min(2, i)]
        from lag in Gen.Int[-1, 3]
        from flags in Gen.Int[0, 15]
        from done in Gen.Frequency((5, Gen.Const(-1)), (1, Gen.Int[0, 12]))
        select new PlanTask(
            $"t{i}",
            $"s{stage}",
            calendar,
            work,
            flags % 4 == 0 ? opens : null,
            due,
            [.. after.Distinct().Select(a => new PlanLink($"t{a}", lag))],
            Required: flags % 5 != 0,
            DayOne: flags % 2 == 0 && stage == 0,
            Done: done < 0 ? null : Today.PlusDays(-done),
            Skipped: flags == 15
        );

    internal static readonly Gen<PlanQuestion> Any =
        from count in Gen.Int[1, 14]
        from tasks in Sequence(count)
        from start in Gen.Int[-5, 40]
        from holidays in Gen.Int[-20, 90].Array[0, 8]
        select new PlanQuestion(
            Today,
            new Dictionary<string, LocalDate> { ["start"] = Today.PlusDays(start), ["accepted"] = Today.PlusDays(-14) },
            new Dictionary<string, WorkCalendar>
            {
                ["office"] = new(RestMask.Weekend, [.. holidays.Select(h => Today.PlusDays(h))]),
                ["dock"] = WorkCalendar.EveryDay,
                ["odd"] = new(RestMask.TryParse("1010011", out var odd) ? odd : RestMask.None, [.. holidays.Select(h => Today.PlusDays(h + 1))]),
            },
            [new PlanStage("s0", null, []), new PlanStage("s1", new PlanOffset("start", 0, OffsetUnit.Days), ["s0"]), new PlanStage("s2", null, ["s1"])],
            // A task never comes after one of a later stage, or there would be a loop through its gate.
            [
                .. tasks.Select(
                    (t, i) =>
                        t with
                        {
                            After = [.. t.After.Where(l => string.CompareOrdinal(tasks[int.Parse(l.Id[1..], null)].Stage, t.Stage) <= 0 && l.Id != $"t{i}")],
                        }
                ),
            ]
        );

    private static Gen<PlanTask[]> Sequence(int count) =>
        Enumerable.Range(0, count).Aggregate(Gen.Const(Array.Empty<PlanTask>()), (made, i) => from a in made from t in AnyTask(i) select a.Append(t).ToArray());

    [Fact]
    public void Every_earliest_and_latest_day_is_a_working_day_of_its_calendar_and_the_slack_leads_from_one_to_the_other() =>
        Any.Sample(question =>
        {
            var plan = Plans.Plan(question);
            foreach (var (task, planned) in question.Tasks.Zip(plan.Tasks).Where(p => p.Second.Unfinished))
            {
                var calendar = question.Calendars[task.Calendar];
                foreach (var day in new[] { planned.EarliestStart, planned.EarliestFinish, planned.LatestStart, planned.LatestFinish })
                    if (day is { } d)
                        calendar.IsWorking(d).ShouldBeTrue();
                planned.EarliestStart!.Value.ShouldBeGreaterThanOrEqualTo(question.Today);
                if (planned.Slack is { } slack)
                    calendar.Add(planned.EarliestStart.Value, slack).ShouldBe(planned.LatestStart);
                (planned.Slack is null).ShouldBe(planned.LatestStart is null);
                if (planned.Due is { } due)
                    planned.LatestFinish!.Value.ShouldBeLessThanOrEqualTo(due);
            }
        });

    [Fact]
    public void Earliest_and_latest_starts_keep_the_order_of_dependencies() =>
        Any.Sample(question =>
        {
            var plan = Plans.Plan(question);
            var byId = question.Tasks.Zip(plan.Tasks).ToDictionary(p => p.First.Id);
            foreach (var (task, planned) in byId.Values.Where(p => p.Second.Unfinished))
            foreach (var link in task.After.Where(l => l.Lag >= 0 && byId[l.Id].Second.Unfinished))
            {
                var (before, plannedBefore) = byId[link.Id];
                var gap = before.Work == 0 ? 0 : 1;
                var free = plannedBefore.EarliestFinish!.Value.PlusDays(gap);
                planned.EarliestStart!.Value.ShouldBeGreaterThanOrEqualTo(free);
                // So many whole working days of the successor lie between the two.
                if (planned.EarliestStart.Value > free)
                    question.Calendars[task.Calendar].Count(free, planned.EarliestStart.Value.PlusDays(-1)).ShouldBeGreaterThanOrEqualTo(link.Lag);
                if (planned.LatestStart is { } latest)
                    plannedBefore.LatestFinish!.Value.PlusDays(gap).ShouldBeLessThanOrEqualTo(latest);
            }
        });

    [Fact]
    public void A_done_task_never_moves_whatever_the_start() =>
        Any.Sample(question =>
        {
            var moved = question with { Anchors = new Dictionary<string, LocalDate>(question.Anchors) { ["start"] = question.Anchors["start"].PlusDays(17) } };
            foreach (var (one, other) in Plans.Plan(question).Tasks.Zip(Plans.Plan(moved).Tasks).Where(p => p.First.State == TaskState.Done))
                (one with { Due = null }).ShouldBe(other with { Due = null });
        });

    [Fact]
    public void The_soonest_start_is_the_first_feasible_one_when_every_day_is_tried() =>
        Any.Sample(
            question =>
            {
                var tried = Enumerable
                    .Range(0, Planner.Horizon + 1)
                    .Select(d => question.Today.PlusDays(d))
                    .Select(d => (LocalDate?)d)
                    .FirstOrDefault(d =>
                        Plans.Plan(question with { Anchors = new Dictionary<string, LocalDate>(question.Anchors) { ["start"] = d!.Value } }).Feasible
                    );
                Planner.Plan(question).Answer!.SoonestStart.ShouldBe(tried);
            },
            iter: 150
        );

    [Fact]
    public void Asking_in_another_order_changes_nothing_but_the_order() =>
        Any.Sample(question =>
        {
            var turned = question with { Tasks = [.. question.Tasks.Reverse()] };
            Plans.Plan(turned).Tasks.Reverse().ShouldBe(Plans.Plan(question).Tasks);
            Plans.Plan(turned).HoldUp.ShouldBe(Plans.Plan(question).HoldUp);
        });

    [Fact]
    public void The_rope_runs_in_one_direction_and_ends_where_the_work_does() =>
        Any.Sample(question =>
        {
            var plan = Plans.Plan(question);
            var rope = Rope.Of(question, plan, question.Anchors["accepted"]);
            rope.Knots.Select(k => k.Day).ShouldBeInOrder();
            rope.To.ShouldBeGreaterThanOrEqualTo(rope.From);
            rope.To.ShouldBeLessThanOrEqualTo(rope.Knots[^1].Day);
            if (plan.Stages.All(s => s.State == StageState.Passed))
                rope.To.ShouldBe(rope.Knots[^1].Day);
        });
}
