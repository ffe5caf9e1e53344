using Fid.Core.Calendars;
using Fid.Core.Planning;
using NodaTime;
using NodaTime.Text;
using Shouldly;

namespace Fid.Core.Tests.Planning;

/// <summary>Makes plan questions briefly.</summary>
internal static class Plans
{
    public static readonly WorkCalendar Office = new(RestMask.Weekend, [new LocalDate(2027, 3, 17)]);

    public static LocalDate Day(string text) => LocalDatePattern.Iso.Parse(text.Length == 5 ? "2027-" + text : text).Value;

    public static PlanStage Stage(string id, PlanOffset? opens = null, params string[] waitsFor) => new(id, opens, waitsFor);

    public static PlanOffset FromStart(int amount, OffsetUnit unit = OffsetUnit.Days) => new("start", amount, unit);

    public static PlanTask Task(
        string id,
        string stage = "prepare",
        string calendar = "office",
        int work = 1,
        PlanOffset? opens = null,
        PlanOffset? due = null,
        string? after = null,
        int lag = 0,
        bool required = true,
        bool dayOne = false,
        string? done = null,
        bool skipped = false
    ) =>
        new(id, stage, calendar, work, opens, due, after is null ? [] : [new PlanLink(after, lag)], required, dayOne, done is null ? null : Day(done), skipped);

    public static PlanQuestion Question(
        IReadOnlyList<PlanTask> tasks,
        IReadOnlyList<PlanStage>? stages = null,
        string today = "03-01",
        string start = "03-22"
    ) =>
        new(
            Day(today),
            new Dictionary<string, LocalDate> { ["start"] = Day(start), ["accepted"] = Day("02-15") },
            new Dictionary<string, WorkCalendar> { ["office"] = Office, ["dock"] = WorkCalendar.EveryDay },
            stages ?? [Stage("prepare"), Stage("arrive", FromStart(0), "prepare")],
            tasks
        );

    public static Plan Plan(PlanQuestion question)
    {
        var outcome = Planner.Plan(question);
        outcome.Problems.ShouldBeEmpty();
        return outcome.Answer!;
    }

    public static PlannedTask Only(PlanTask task, string today = "03-01", string start = "03-22") =>
        Plan(Question([task], today: today, start: start)).Tasks[0];

    /// <summary>The worked example of the rules.</summary>
    public static PlanQuestion Example { get; } =
        Question([
            Task("contract", work: 2, dayOne: true, done: "02-26"),
            Task("order-radio", work: 8, dayOne: true, after: "contract"),
            Task("program-radio", work: 3, dayOne: true, after: "order-radio", due: FromStart(-2, OffsetUnit.Working)),
            Task("locker", calendar: "dock", dayOne: true, due: FromStart(-3)),
            Task("badge", calendar: "dock", work: 0, dayOne: true, after: "locker"),
            Task("tour", "arrive", "dock", due: FromStart(0)),
            Task("review", "arrive", after: "tour", due: FromStart(1, OffsetUnit.Months), required: false),
        ]);
}
