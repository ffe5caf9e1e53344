using static Fid.Core.Fields.FieldType;
using static Fid.Core.Fields.Shipped.ShippedField;

namespace Fid.Core.Fields.Shipped;

/// <summary>Badge, pattern and calendar.</summary>
internal static class ClockFields
{
    private const string Section = "clock";

    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        Field(Section, "badge", Text, "Badge", "Ausweis", ForWork).Needed("arrive") with
        {
            Pattern = "[0-9]{1,20}",
        },
        Entry(Section, "clock_device", "clockDevices", "Clock device", "Terminal", ForWork).Needed("arrive"),
        Entry(Section, "shift_pattern", "shiftPatterns", "Shift pattern", "Schichtmuster", ForWork).Needed("arrive"),
        Entry(Section, "holiday_calendar", "calendars", "Holiday calendar", "Feiertagskalender", ForWork).Needed("prepare"),
        Entry(Section, "clock_rules", "clockRules", "Clock rules", "Zeitregeln", ForWork),
        Field(Section, "overtime_agreed", YesNo, "Overtime agreed", "Überstunden vereinbart", ForWork),
        Field(Section, "leave_days", Number, "Leave days a year", "Urlaubstage pro Jahr", ForWork).Between(0, 366),
        Field(Section, "roster_note", Text, "Note for the roster", "Hinweis für den Dienstplan", ForWork),
    ];
}
