using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Pay;
using Fid.Core.Texts;

namespace Fid.Core.Lists;

/// <summary>What must hold between the parts of one value. Each answers with what is wrong, or null.</summary>
internal static class StructureCheck
{
    private const int LongestLetter = 3;
    private const int MinutesOfDay = 1440;

    public static string? Bands(IReadOnlyList<BandFrom> bands)
    {
        foreach (var band in bands)
        {
            if (band.Per is not ("year" or "hour"))
                return "A band is stated per year or per hour.";
            if (band.Min <= 0 || band.Max > Money.Most || band.Min > band.Mid || band.Mid > band.Max || band.Min == band.Max)
                return $"The band from {band.From:uuuu-MM-dd} must rise from its least over its middle to its most.";
        }
        return Dates(bands.Select(b => b.From));
    }

    public static string? Heads(IReadOnlyList<HeadFrom> heads) => Dates(heads.Select(h => h.From));

    public static string? Rates(IReadOnlyList<RateFrom> rates)
    {
        foreach (var rate in rates)
        {
            if (rate.How is not ("flat" or "percent" or "amount"))
                return "A rate is flat, or a percent or an amount on top of the main rate.";
            if (rate.Value is < 0 or > 1_000_000)
                return "A rate is from 0 to 1000000.";
        }
        return Dates(rates.Select(r => r.From));
    }

    public static string? Requirements(IReadOnlyList<Requirement> needs) =>
        Twice(needs.Select(n => n.Certificate)) is { } twice ? $"The certificate {twice} stands twice." : null;

    public static string? Brackets(IReadOnlyList<PayBracket> brackets)
    {
        for (var i = 0; i < brackets.Count; i++)
        {
            if (brackets[i].Percent is < -1000 or > 1000)
                return "A percentage is from -1000 to 1000.";
            var before = i == 0 ? 0 : brackets[i - 1].UpTo;
            if (brackets[i].UpTo is { } end ? before is null || end <= before || end > Money.Most : i < brackets.Count - 1)
                return "Brackets ascend, and only the last may have no end.";
        }
        return null;
    }

    public static string? Holidays(IReadOnlyList<HolidayEntry> holidays)
    {
        foreach (var holiday in holidays)
        {
            if (HolidayRule.Read(holiday.On) is not { } rule)
                return $"“{holiday.On}” is no day. Write 2027-05-17, --12-25 for every year, --05 1MO for the first Monday of May, or easter+1.";
            if (holiday.Days is < 1 or > Holiday.Longest)
                return $"A holiday lasts from 1 to {Holiday.Longest} days.";
            if (holiday.Name.Length > TextRules.Longest || !TextRules.TryClean(holiday.Name, out _))
                return $"The name of the holiday {holiday.On} cannot be stored.";
            if (rule is HolidayRule.Once { Date.Year: < 1900 or > 2199 })
                return "A date lies in the years 1900 to 2199.";
        }
        return Twice(holidays.Select(h => h.On)) is { } twice ? $"The holiday {twice} stands twice." : null;
    }

    public static string? Shifts(IReadOnlyList<ShiftEntry> shifts)
    {
        foreach (var shift in shifts)
        {
            if (shift.Letter.Length is 0 or > LongestLetter || shift.Letter == Clock.ShiftCycle.Off || shift.Letter.Any(c => !char.IsLetterOrDigit(c)))
                return $"A shift is named by up to {LongestLetter} letters or digits.";
            if (StructureText.ReadTime(shift.Start) is null || StructureText.ReadTime(shift.End) is null)
                return "A time is written as hours and minutes, such as 06:00.";
            if (shift.Break is < 0 or >= MinutesOfDay)
                return "A break has from 0 to 1439 minutes.";
        }
        return Twice(shifts.Select(s => s.Letter)) is { } twice ? $"The shift {twice} stands twice." : null;
    }

    public static string? Options(IReadOnlyList<OptionEntry> options)
    {
        foreach (var option in options)
        {
            string?[] texts = [option.Value, option.En, option.De];
            if (option.Value.Length == 0 || texts.Any(t => t is not null && (t.Length > TextRules.Longest || !TextRules.TryClean(t, out _))))
                return "An option needs a value and a label.";
        }
        return Twice(options.Select(o => o.Value)) is { } twice ? $"The option {twice} stands twice." : null;
    }

    private static string? Dates(IEnumerable<NodaTime.LocalDate> dates)
    {
        var seen = new HashSet<NodaTime.LocalDate>();
        foreach (var date in dates)
        {
            if (!ValueCheck.IsSensible(date))
                return "A date lies in the years 1900 to 2199.";
            if (!seen.Add(date))
                return $"{date:uuuu-MM-dd} stands twice. Keep one.";
        }
        return null;
    }

    private static string? Twice(IEnumerable<string> texts)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        return texts.FirstOrDefault(t => !seen.Add(t.Trim()));
    }
}
