using Fid.Core.Calendars;
using Fid.Core.Chasing;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Chasing;

/// <summary>Who is told of work that can be begun because its stage has opened. The 1st of March 2027 is a Monday.</summary>
public class OpenedWorkTests
{
    private static readonly LocalDate Opened = Day(1);

    [Theory]
    [InlineData(1, "nils: opened 1")]
    [InlineData(3, "nils: opened 1")] // Fid was off meanwhile
    [InlineData(6, "")] // a Saturday: it goes out on Monday
    [InlineData(8, "nils: opened 1")]
    public void The_owner_is_told_once_on_a_day_they_work(int today, string told) =>
        Told(today, new ChasedTask("t", "nils", null, true, Opened: Opened)).ShouldBe(told);

    [Fact]
    public void Who_was_told_of_the_task_before_or_is_told_more_of_it_now_is_not_told_that_it_opened()
    {
        var task = new ChasedTask("t", "nils", Day(31), true, Opened: Opened);
        Told(2, task, [new("t", ReminderKind.Opened, Opened)]).ShouldBe("");
        Told(2, task, [new("t", ReminderKind.Before, Day(1))]).ShouldBe("");
        Told(2, task with { Due = Day(3) }).ShouldBe("nils: before 2");
        Told(2, task).ShouldBe("nils: opened 1");
    }

    [Fact]
    public void What_cannot_be_begun_is_paused_or_opens_later_is_told_to_nobody()
    {
        var task = new ChasedTask("t", "nils", null, true, Opened: Opened);
        Told(1, task with { Possible = false }).ShouldBe("");
        Told(1, task with { Paused = true }).ShouldBe("");
        Told(1, task with { Opened = Day(2) }).ShouldBe("");
        Told(1, task with { Opened = null }).ShouldBe("");
    }

    [Fact]
    public void Who_stands_in_is_told_for_whom_and_news_comes_last_in_the_message()
    {
        var fresh = new ChasedTask("a", "nils", null, true, Opened: Opened);
        var dated = new ChasedTask("b", "nils", Day(30), true, Opened: Opened);
        var due = new ChasedTask("z", "callum", Day(1), true);
        Told(1, [fresh, dated, due], away: true).ShouldBe("callum: due 1, opened 1 for nils (b), opened 1 for nils (a)");
    }

    private static string Told(int today, ChasedTask task, params SentReminder[] sent) => Told(today, [task], sent);

    private static string Told(int today, ChasedTask[] tasks, SentReminder[]? sent = null, bool away = false)
    {
        var chase = Chase
            .Of(
                new ChaseQuestion(
                    Day(today),
                    new Dictionary<string, WorkCalendar> { ["office"] = new(RestMask.Weekend, []) },
                    new ChasePolicy([1], true, 2, 3, null),
                    [new("nils", "office", null, away ? [new Absence(Day(1), Day(1), "callum")] : []), new("callum", "office", null, [])],
                    tasks,
                    sent ?? []
                )
            )
            .Answer!;
        return string.Join("; ", chase.Messages.Select(m => $"{m.To}: {string.Join(", ", m.Reminders.Select(Word))}"));

        string Word(Reminder r) => $"{r.Kind.ToString().ToLowerInvariant()} {r.Day.Day}{(r.For is null ? "" : $" for {r.For} ({r.Task})")}";
    }

    private static LocalDate Day(int day) => new(2027, 3, day);
}
