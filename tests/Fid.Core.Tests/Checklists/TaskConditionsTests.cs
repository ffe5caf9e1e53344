using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Checklists;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Checklists;

public class TaskConditionsTests
{
    private static readonly LocalDate Today = new(2027, 3, 1);

    [Theory]
    [InlineData(null, true)]
    [InlineData("kind == 'seasonal'", true)]
    [InlineData("kind == 'permanent'", false)]
    [InlineData("site == 'skerry' and returning == 'no'", true)]
    // Nothing is known of it: as an add-on of that condition would not apply, neither does a task.
    [InlineData("grade == 'C4'", false)]
    [InlineData("pay_rate > 'much'", false)]
    [InlineData("pay_rate / 0 > 1", false)]
    // Not true is not enough.
    [InlineData("kind", false)]
    [InlineData("start_date > today()", true)]
    [InlineData("addWorkingDays(today(), 1) == '2027-03-02'", true)]
    // What nobody can read takes no task away.
    [InlineData("kind ==", true)]
    public void A_task_applies_where_its_condition_comes_to_true(string? when, bool applies) => Conditions().Hold(when).ShouldBe(applies);

    [Fact]
    public void Working_days_are_those_of_the_record()
    {
        RestMask.TryParse("0000001", out var sundays).ShouldBeTrue();
        var sixDays = new WorkCalendar(sundays, []);
        Conditions().Hold("addWorkingDays('2027-03-05', 1) == '2027-03-08'").ShouldBeTrue();
        Conditions(sixDays).Hold("addWorkingDays('2027-03-05', 1) == '2027-03-06'").ShouldBeTrue();
    }

    private static TaskConditions Conditions(WorkCalendar? calendar = null) =>
        new(
            new Dictionary<string, object>
            {
                ["kind"] = "seasonal",
                ["site"] = "skerry",
                ["returning"] = "no",
                ["pay_rate"] = 17.4m,
                ["start_date"] = "2027-03-22",
            }.ToDictionary(f => f.Key, f => JsonSerializer.SerializeToElement(f.Value)),
            Today,
            calendar
        );
}
