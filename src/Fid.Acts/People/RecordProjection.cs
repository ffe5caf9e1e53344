using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Core.Fields;
using Fid.Core.Texts;
using Fid.Data.People;
using NodaTime;
using NodaTime.Text;

namespace Fid.Acts.People;

/// <summary>What is read of records without looking at their values follows from the values: worked out with every save.</summary>
public static class RecordProjection
{
    /// <summary>The day for which a record is shown: today, or the first day of somebody who has not started.</summary>
    public static LocalDate AsOf(Employment employment, LocalDate today) => LocalDate.Max(today, employment.Start);

    /// <summary>Brings a record's projection, and the last day of its employment, to what its values say on the day it is shown for.</summary>
    /// <param name="believed">All that is believed of the employment and its person.</param>
    /// <param name="at">When it was saved.</param>
    internal static void Show(LiveFields fields, CurrentRecord record, IEnumerable<RecordValue> believed, Employment employment, Instant at, LocalDate today)
    {
        var asOf = AsOf(employment, today);
        var held = believed.Where(v => v.HoldsOn(asOf)).ToDictionary(v => v.Address, v => v.Value);
        Project(fields, record, held, employment, at, today);
        FollowEnd(employment, held);
    }

    // The last day is what the record says, but for a stint that never was.
    internal static void FollowEnd(Employment employment, Dictionary<string, JsonElement> held)
    {
        if (employment.Stint.NeverWas)
            return;
        employment.End =
            held.TryGetValue("end_date", out var end)
            && end.ValueKind == JsonValueKind.String
            && LocalDatePattern.Iso.Parse(end.GetString()!) is { Success: true } day
                ? LocalDate.Max(day.Value, employment.Start)
                : null;
    }

    /// <summary>What is read of a record without looking at its values, from the values it holds on the day that counts for it.</summary>
    /// <param name="at">When it was saved.</param>
    public static void Project(
        LiveFields fields,
        CurrentRecord record,
        Dictionary<string, JsonElement> held,
        Employment employment,
        Instant at,
        LocalDate today
    )
    {
        record.GivenName = Text("given_name") ?? "";
        record.FamilyName = Text("family_name") ?? "";
        record.Email = Text("email");
        record.SiteCode = Text("site");
        record.DepartmentCode = Text("department");
        record.JobCode = Text("job");
        record.Kind = Text("kind");
        record.Badge = Text("badge");
        record.CalendarCode = Text("holiday_calendar");
        record.ManagerId = Guid.TryParse(Text("manager"), out var manager) ? manager : null;
        record.BuddyId = Guid.TryParse(Text("buddy"), out var buddy) ? buddy : null;
        record.AsOf = AsOf(employment, today);
        record.Saved = at;
        var completeness = Completeness.Count(fields.Set, held, record.AsOf);
        record.Missing = [.. completeness.Missing];
        record.Filled = completeness.Filled;
        record.Of = completeness.Of;
        record.Groups = fields.Roles.GroupsOf(held, record.AsOf);
        record.Search = TextRules.SearchWords($"{record.GivenName} {record.FamilyName} {record.GivenName} {employment.Number}");

        string? Text(string field) => held.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString() : null;
    }
}
