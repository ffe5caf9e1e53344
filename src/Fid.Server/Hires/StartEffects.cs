using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Rosters;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>What the day on which somebody starts means beside their checklist: for their first shift, their first pay and their badge. Only what
/// the reader may see of the record is looked at.</summary>
internal sealed class StartEffects
{
    private const int Fortnight = 14,
        // A pattern that has no shift in so long has none.
        LongestWait = 60;

    private readonly PayReading _pay;
    private readonly LocalDate _today;
    private readonly Dictionary<string, JsonElement?> _values;
    private readonly BadgeReading? _badge;
    private readonly EntryContent? _pattern;

    private StartEffects(PayReading pay, LocalDate today, Dictionary<string, JsonElement?> values, BadgeReading? badge, EntryContent? pattern) =>
        (_pay, _today, _values, _badge, _pattern) = (pay, today, values, badge, pattern);

    /// <param name="rights">What the reader may see of this record.</param>
    public static async Task<StartEffects> LoadAsync(
        FidDb db,
        Reader reader,
        FieldRights rights,
        HireHead hire,
        CalendarSet calendars,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var employment = await db.Employments.AsNoTracking().SingleAsync(e => e.Id == hire.EmploymentId, cancellation);
        var values = (await ShownValues.OfAsync(db, employment, today, cancellation))
            .Where(v => rights.Sees(v.Key))
            .ToDictionary(v => v.Key, v => (JsonElement?)v.Value.Value);
        var badge = values.Text("badge") is { } number ? await BadgeReading.LoadAsync(db, reader, employment, number, cancellation) : null;
        var pattern = await Rostered.PatternAsync(db, values.Text("shift_pattern"), cancellation);
        return new StartEffects(await PayReading.LoadAsync(db, cancellation, calendars), today, values, badge, pattern);
    }

    /// <summary>What a day means.</summary>
    public StartEffectsResponse On(LocalDate start) => new(Shift(start), Pay(start), _badge?.Clashes(start, _pay.Firm.BadgeRestDays) ?? []);

    private FirstShift? Shift(LocalDate start)
    {
        if (_pattern is null)
            return null;
        var to = start.PlusDays(LongestWait - 1);
        if (new Rostered(_pattern, _pay.Firm.Zone, _pay.Calendars, _values.Text("holiday_calendar")).Terms(start, to).On(start, to).Answer is not { } roster)
            return null;
        var minutes = roster.Days.Take(Fortnight).Sum(d => d.PaidMinutes);
        return roster.Days.FirstOrDefault(d => d.Shift is not null) is { Start: { } begins, End: { } ends } first
            ? new FirstShift(first.Date, TaskSpec.TimeOfDay.Format(begins.TimeOfDay), TaskSpec.TimeOfDay.Format(ends.TimeOfDay), minutes)
            : null;
    }

    // As if the record were approved today: until then no run can have it.
    private FirstPayResponse? Pay(LocalDate start) =>
        _pay.First(_values, _pattern, start, _today) is { } question && FirstPay.Of(question).Answer is { } pay
            ? new FirstPayResponse(
                pay.PaidWith.PayDate,
                pay.FirstPeriod.CutOff,
                pay.Lines.Count(l => l.IsArrears),
                _pay.Rate(_values) is null ? null : pay.Total
            )
            : null;
}

/// <summary>What a first day means.</summary>
/// <param name="Shift">The first shift; null without a pattern.</param>
/// <param name="Pay">The first pay; null without a pay group.</param>
/// <param name="Badges">Others who carry the badge at that time.</param>
public sealed record StartEffectsResponse(FirstShift? Shift, FirstPayResponse? Pay, BadgeClash[] Badges);

/// <summary>Somebody's first shift, with its times as HH:mm where the firm is.</summary>
/// <param name="FortnightMinutes">What is paid of the shifts of the first fourteen days.</param>
public sealed record FirstShift(LocalDate On, string From, string To, int FortnightMinutes);

/// <summary>When somebody is paid first.</summary>
/// <param name="CutOff">The last day on which the record could be approved to be paid with the period they start in.</param>
/// <param name="Arrears">How many periods are paid late with it, their own cut-offs being missed.</param>
/// <param name="Total">What it pays before deductions, by the working days of the first period; null where the rate is not known or not to be seen.</param>
public sealed record FirstPayResponse(LocalDate PayDay, LocalDate CutOff, int Arrears, decimal? Total);
