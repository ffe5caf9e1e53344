using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.Fields;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>Evaluates records with what only the database knows: the live fields, the stage a hire is in, and its calendar.</summary>
public static class ShownRecord
{
    /// <summary>What somebody sees of a record that holds certain values.</summary>
    /// <param name="rights">What they may do with its fields; null for the whole record, as the system sees it.</param>
    /// <param name="entered">The fields somebody entered: no rule and no default touches them.</param>
    /// <param name="changed">The fields whose rules act.</param>
    public static async Task<EvaluatedRecord> EvaluateAsync(
        FidDb db,
        LiveFields fields,
        IReadOnlyDictionary<string, JsonElement> values,
        FieldRights? rights,
        IReadOnlyCollection<string> entered,
        IReadOnlyList<string> changed,
        string? stage,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var calendar = await CalendarSet.OfRecordAsync(db, fields.Set, values, cancellation);
        return RecordEvaluation.Of(fields.Set, new RecordQuestion(values, entered, changed, rights, stage, today, RecordQuestion.NoLists, calendar));
    }

    /// <summary>The stage an employment's hire is in, as <see cref="LiveFields.StageOf"/> says.</summary>
    public static async Task<string?> StageAsync(FidDb db, LiveFields fields, Guid employment, CancellationToken cancellation)
    {
        var open = await db
            .Hires.AsNoTracking()
            .Where(h => h.EmploymentId == employment && h.Occasion == Occasion.Arrival && h.Closed == null)
            .SelectMany(h => h.Tasks)
            .Where(t => t.Required && t.Done == null && t.SkippedWhy == null)
            .Select(t => t.StageKey)
            .Distinct()
            .ToListAsync(cancellation);
        return fields.StageOf(open);
    }
}
