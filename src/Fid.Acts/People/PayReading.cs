using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.Rosters;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Core.PayElements;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>What people are paid, from what their records and the firm's lists say.</summary>
public sealed class PayReading
{
    /// <summary>The days a week that everybody is taken to work, until shift patterns are read for it.</summary>
    public const decimal WorkingDaysPerWeek = 5;

    private readonly Dictionary<string, EntryContent> _groups;
    private readonly EntryContent[] _components;

    private PayReading(Firm firm, CalendarSet calendars, Dictionary<string, EntryContent> groups, EntryContent[] components) =>
        (Firm, Calendars, _groups, _components) = (firm, calendars, groups, components);

    /// <summary>The fields a rate is worked out from.</summary>
    public static readonly string[] Fields = ["pay_rate", "paid_by", "weekly_hours", "pay_group"];

    /// <summary>The fields that all of a period's pay is worked out from, columns of rows among them.</summary>
    public static readonly string[] AllFields = [.. Fields, "hours_arise", .. PayElementRows.Fields];

    /// <summary>The firm whose people they are.</summary>
    public Firm Firm { get; }

    /// <summary>The firm's calendars.</summary>
    public CalendarSet Calendars { get; }

    /// <param name="calendars">The firm's calendars, where they are read already.</param>
    public static async Task<PayReading> LoadAsync(FidDb db, CancellationToken cancellation, CalendarSet? calendars = null)
    {
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        calendars ??= await CalendarSet.LoadAsync(db, cancellation);
        var entries = (
            await db
                .ListEntries.AsNoTracking()
                .Where(e => e.List == "payGroups" || (e.List == "payComponents" && !e.Retired))
                .OrderBy(e => e.Id)
                .ToListAsync(cancellation)
        ).ToLookup(e => e.List, e => e.Content());
        return new PayReading(firm, calendars, entries["payGroups"].ToDictionary(g => g.Code, StringComparer.Ordinal), [.. entries["payComponents"]]);
    }

    /// <summary>The same with other pay components.</summary>
    /// <param name="components">All that are in use.</param>
    public PayReading With(IReadOnlyList<EntryContent> components) => new(Firm, Calendars, _groups, [.. components]);

    /// <summary>The names of pay components, by code, in the reader's language.</summary>
    public string NameOf(string component) => _components.Single(c => c.Code == component).NameIn(ReaderLanguage.Code);

    /// <summary>The pay group that a record names; null where it names none that there is.</summary>
    public EntryContent? Group(IReadOnlyDictionary<string, JsonElement?> values) =>
        values.Text("pay_group") is { } code ? _groups.GetValueOrDefault(code) : null;

    /// <summary>The rate; null where something is missing to work it out.</summary>
    public PayRate? Rate(IReadOnlyDictionary<string, JsonElement?> values) =>
        Typed(values) is var (amount, per, hours) && Group(values) is { } group
            ? PayRate.Of(amount, per, hours, Firm.FullTimeHours, WorkingDaysPerWeek, PayGroupEntry.Every(group)).Answer
            : null;

    /// <summary>The rate as it could be stated otherwise; null where something is missing to work it out.</summary>
    public static StatedRate? Stated(IReadOnlyDictionary<string, JsonElement?> values) =>
        Typed(values) is var (amount, per, hours) ? StatedRate.Of(amount, per, hours, WorkingDaysPerWeek).Answer : null;

    /// <summary>The rate as it was entered, with the hours a week; null where something of it is missing.</summary>
    public static (decimal Amount, PayPeriod Per, decimal Hours)? Typed(IReadOnlyDictionary<string, JsonElement?> values) =>
        values.Number("pay_rate") is { } amount
        && values.Number("weekly_hours") is { } hours
        && Enum.TryParse<PayPeriod>(values.Text("paid_by"), ignoreCase: true, out var per)
            ? (amount, per, hours)
            : null;

    /// <summary>The pay groups of the firm, by code.</summary>
    public IReadOnlyDictionary<string, EntryContent> Groups => _groups;

    /// <summary>When the people of a pay group are paid.</summary>
    public PayGroupTerms Terms(EntryContent group) => PayGroupEntry.Terms(group, Calendars[group.Text("calendar")]);

    /// <summary>Whose first pay is asked for; null without a pay group. Without a rate it is that of somebody who is paid nothing.</summary>
    /// <param name="pattern">Their shift pattern; null for none.</param>
    /// <param name="start">Their first day.</param>
    /// <param name="approved">When their record could be paid.</param>
    /// <param name="rosterTo">The last day for which their roster may be asked for; that of the first period where left out.</param>
    public FirstPayQuestion? First(
        IReadOnlyDictionary<string, JsonElement?> values,
        EntryContent? pattern,
        LocalDate start,
        LocalDate approved,
        LocalDate? rosterTo = null
    )
    {
        if (Group(values) is not { } group)
            return null;
        var terms = Terms(group);
        var calendar = values.Text("holiday_calendar");
        var question = new FirstPayQuestion(terms, start, approved, Calendars[calendar], Rate(values)?.PerPeriod ?? 0, PayGroupEntry.PartBy(group));
        return
            pattern is not null
            && values.Text("paid_by") == "hour"
            && values.Text("hours_arise") != "fixed"
            && terms.Periods(start, start).Answer is [var first, ..]
            ? question with
            {
                Method = PartMethod.RosteredHours,
                Roster = new Rostered(pattern, Firm.Zone, Calendars, calendar).Terms(first.Start, rosterTo ?? first.End),
            }
            : question;
    }

    /// <summary>What a record says is paid beside base pay, and what an hour of the main job pays.</summary>
    public (IReadOnlyList<PayElement> Elements, decimal MainRate) Beside(IReadOnlyDictionary<string, JsonElement?> values)
    {
        var said = values.RowsOf(PayElementRows.Field);
        return said.Count == 0 ? ([], 0) : (PayElementRows.Of(said), Rate(values)?.Hourly ?? 0);
    }

    /// <summary>The components that make up somebody's pay on a day; null without a pay group, or where none stands for base pay or for something else
    /// that the record says.</summary>
    /// <param name="start">Their first day.</param>
    /// <param name="day">The day.</param>
    public PaidComponents? Components(IReadOnlyDictionary<string, JsonElement?> values, LocalDate start, LocalDate day) =>
        Group(values) is { } group ? Components(group, PaidElement.Over(start, [], _ => Beside(values)), day) : null;

    /// <summary>The same of a pay group, with what is paid beside base pay over time.</summary>
    public PaidComponents? Components(EntryContent group, IReadOnlyList<PaidElement> elements, LocalDate day) =>
        PayComponentEntry.Of(_components, group.Code, day, elements);
}
