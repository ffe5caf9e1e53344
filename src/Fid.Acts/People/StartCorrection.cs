using System.Text.Json;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>The first day of somebody without a checklist, corrected in the record itself. Where there is a checklist it moves with
/// the start, so it is moved there.</summary>
/// <param name="To">The first day; null where it is not being corrected, or what was entered is no day.</param>
/// <param name="Problem">What is wrong with it; the path is a slash and the field's key.</param>
/// <param name="Others">The other changes of the same save.</param>
public sealed record StartCorrection(LocalDate? To, Problem? Problem, Dictionary<string, JsonElement> Others)
{
    public const string Field = "start_date";

    /// <summary>Whether a user may correct the start of an employment in its record.</summary>
    /// <param name="hasHire">Whether a hire is under way.</param>
    public static bool IsOpenTo(Reader reader, Employment employment, CurrentRecord record, bool hasHire) =>
        !hasHire && !employment.Stint.NeverWas && reader.May(Actions.Correct, Things.Record, record) && reader.On(record).Sees(Field);

    public static async Task<StartCorrection> OfAsync(
        FidDb db,
        Reader reader,
        Dictionary<string, JsonElement> changes,
        Employment employment,
        CurrentRecord record,
        CancellationToken cancellation
    )
    {
        if (
            !changes.TryGetValue(Field, out var entered)
            || !IsOpenTo(
                reader,
                employment,
                record,
                await db.Hires.AnyAsync(h => h.EmploymentId == employment.Id && h.Occasion == Occasion.Arrival && h.Closed == null, cancellation)
            )
        )
            return new(null, null, changes);
        var others = changes.Where(c => c.Key != Field).ToDictionary();
        var (value, problem) = ValueCheck.Check(reader.Fields.Set.Find(Field)!, entered);
        if (problem is not null)
            return new(null, problem, others);
        if (value is not { } day)
            return new(null, new Problem($"/{Field}", "missing", "Say when the person starts."), others);
        var to = LocalDate.FromDateTime(day.GetDateTime());
        return employment.End < to && !others.ContainsKey("end_date")
            ? new(null, new Problem($"/{Field}", "after-end", "The record ends before that. Change its end first."), others)
            : new(to, null, others);
    }
}
