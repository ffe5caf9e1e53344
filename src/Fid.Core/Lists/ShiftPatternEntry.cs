using Fid.Core.Clock;
using NodaTime.Text;

namespace Fid.Core.Lists;

/// <summary>A shift pattern as its list entry describes it.</summary>
public static class ShiftPatternEntry
{
    /// <summary>The cycle of a sound entry.</summary>
    public static ShiftCycle Cycle(EntryContent pattern) =>
        new(
            LocalDatePattern.Iso.Parse(pattern.Text("cycle_start")!).Value,
            pattern.Text("cycle")!.Split(' '),
            pattern
                .Parts<ShiftEntry>("shifts")
                .ToDictionary(
                    s => s.Letter,
                    s => new Shift(StructureText.ReadTime(s.Start)!.Value, StructureText.ReadTime(s.End)!.Value, s.Break),
                    StringComparer.Ordinal
                )
        );

    /// <summary>What holidays mean for its shifts.</summary>
    public static OnHoliday OnHoliday(EntryContent pattern) => pattern.Text("on_holiday") == "worked" ? Clock.OnHoliday.Worked : Clock.OnHoliday.Off;
}
