using Fid.Core.Calendars;
using Fid.Core.Pay;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Lists;

/// <summary>A pay group as its list entry describes it.</summary>
public static class PayGroupEntry
{
    /// <summary>The columns that say when its people are paid.</summary>
    public static IReadOnlyList<string> TermColumns { get; } = ["every", "first_period_start", "pay_days_after_end", "cut_off_working_days", "calendar"];

    /// <summary>By what rule its people are paid; of an entry whose <see cref="TermColumns"/> are sound.</summary>
    /// <param name="calendar">The working days of the calendar it names.</param>
    public static PayGroupTerms Terms(EntryContent group, WorkCalendar calendar) =>
        new(
            Every(group),
            group.Text("first_period_start") is { } first ? LocalDatePattern.Iso.Parse(first).Value : (LocalDate?)null,
            (int)(group.Number("pay_days_after_end") ?? 0),
            (int)(group.Number("cut_off_working_days") ?? 0),
            calendar
        );

    /// <summary>By what the first period is paid in part: working days where it does not say.</summary>
    public static PartMethod PartBy(EntryContent group) => Enum.Parse<PartMethod>(group.Text("part_by") ?? nameof(PartMethod.WorkingDays), ignoreCase: true);

    /// <summary>How long its periods are: a month where it does not say.</summary>
    public static PayPeriod Every(EntryContent group) => Enum.Parse<PayPeriod>(group.Text("every") ?? nameof(PayPeriod.Month), ignoreCase: true);
}
