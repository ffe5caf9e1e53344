using Fid.Acts.People;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.PayElements;
using Fid.Data;
using Fid.Data.Requests;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>Reads whose pay begins, changes or ends in runs, and what it comes to.</summary>
public static class PayRunLines
{
    /// <summary>What is read of each record.</summary>
    private static readonly string[] Fields =
    [
        .. PayReading.AllFields,
        "job",
        "department",
        "cost_centre",
        .. CostSplitRows.Fields,
        "holiday_calendar",
        "shift_pattern",
        "payment_method",
        "bank_account",
    ];

    /// <summary>The lines of some runs, of those whose record and pay the reader may see: the worst first, then by name.</summary>
    /// <param name="runs">One of each pay group at most.</param>
    /// <param name="only">Only the lines of these employments; null for all.</param>
    public static async Task<IReadOnlyList<PayRunLine>> LoadAsync(
        FidDb db,
        Reader reader,
        PayReading pay,
        LocalDate today,
        IReadOnlyList<CheckedRun> runs,
        CancellationToken cancellation,
        IReadOnlyCollection<Guid>? only = null
    )
    {
        var found = await CandidatesAsync(db, runs, only, cancellation);
        var stints = await StintsAsync(db, reader, [.. found.Select(c => c.Employment).Distinct()], cancellation);
        var facts = await FactsAsync(db, stints.Keys, runs, pay.Firm.FullTimeHours, cancellation);
        var rule = new PayRunRule(pay, today, facts);
        return
        [
            .. found
                .Where(c => stints.ContainsKey(c.Employment))
                .Select(c => rule.Line(stints[c.Employment], runs.Single(r => r.Group.Code == c.PayGroup)))
                .OfType<PayRunLine>()
                .OrderBy(l => l.Findings.Count == 0 ? int.MaxValue : (int)l.Findings[0].Kind)
                .ThenBy(l => l.Record.FamilyName, StringComparer.Ordinal)
                .ThenBy(l => l.Record.GivenName, StringComparer.Ordinal)
                .ThenBy(l => l.Employment.Number, StringComparer.Ordinal),
        ];
    }

    // Of each run those of its pay group who start, end or change in it, and newcomers who might be paid with it only now.
    private static Task<List<Candidate>> CandidatesAsync(
        FidDb db,
        IReadOnlyList<CheckedRun> runs,
        IReadOnlyCollection<Guid>? only,
        CancellationToken cancellation
    )
    {
        var groups = runs.Select(r => r.Group.Code).ToArray();
        var (firsts, lasts) = (runs.Select(r => r.Run.Start).ToArray(), runs.Select(r => r.Run.End).ToArray());
        var until = runs.Select(r => LocalDate.Max(r.Run.End, r.Run.PayDate)).ToArray();
        var (arrival, all, chosen) = (Occasion.Arrival.ToString(), only is null, only?.ToArray() ?? []);
        return db
            .Database.SqlQuery<Candidate>(
                $"""
                select distinct e.id as employment, w.grp as pay_group
                from unnest({groups}, {firsts}, {lasts}, {until}) w(grp, first, last, until)
                join record_values g on g.field = 'pay_group' and upper_inf(g.known) and g.value = to_jsonb(w.grp)
                  and g.effective && daterange(w.first, w.until, '[]')
                join employments e on e.id = g.owner_id and e.start <= w.until and (e."end" is null or (e."end" >= w.first and e."end" >= e.start))
                where ({all} or e.id = any({chosen})) and (e.start >= w.first or e."end" <= w.last
                  or exists (select from hires h where h.employment_id = e.id and h.occasion = {arrival} and h.closed is null)
                  or exists (select from record_values v where v.owner_id = e.id and v.field = any({PayReading.AllFields}) and upper_inf(v.known)
                    and (lower(v.effective) between w.first and w.last or upper(v.effective) between w.first and w.last))
                  -- ISO 8601 days are in order as texts; what ends on one day is paid no more on the next.
                  or exists (select from record_values v where v.owner_id = e.id and v.field = any({PayElementRows.Days}) and upper_inf(v.known)
                    and v.value #>> array[]::text[] between to_char(w.first - 1, 'YYYY-MM-DD') and to_char(w.last, 'YYYY-MM-DD')))
                """
            )
            .ToListAsync(cancellation);
    }

    private static async Task<Dictionary<Guid, PaidStint>> StintsAsync(FidDb db, Reader reader, Guid[] employments, CancellationToken cancellation)
    {
        var records = await reader
            .Readable(db.CurrentRecords.AsNoTracking())
            .Where(r => employments.Contains(r.EmploymentId))
            .Join(db.Employments.AsNoTracking(), r => r.EmploymentId, e => e.Id, (record, employment) => new { record, employment })
            .ToListAsync(cancellation);
        records.RemoveAll(r => !reader.SeesPay(reader.On(r.record)));
        var owners = records.SelectMany(r => new[] { r.employment.Id, r.employment.PersonId }).Distinct().ToArray();
        var values = (
            await db
                .RecordValues.AsNoTracking()
                .Where(v => owners.Contains(v.OwnerId) && Fields.Contains(v.Field) && v.Known.UpperBoundInfinite)
                .ToListAsync(cancellation)
        ).ToLookup(v => v.OwnerId);
        return records.ToDictionary(
            r => r.employment.Id,
            r => new PaidStint(r.employment, r.record, [.. values[r.employment.Id], .. values[r.employment.PersonId]])
        );
    }

    private static async Task<PayRunFacts> FactsAsync(
        FidDb db,
        IReadOnlyCollection<Guid> employments,
        IReadOnlyList<CheckedRun> runs,
        decimal fullTimeHours,
        CancellationToken cancellation
    )
    {
        var entries = (
            await db.ListEntries.AsNoTracking().Where(e => e.List == "jobs" || e.List == "grades" || e.List == "shiftPatterns").ToListAsync(cancellation)
        ).ToLookup(e => e.List, e => e.Content());
        var templates = await TemplateRates.LoadAsync(db, employments, cancellation);
        var waiting = await db
            .RecordRequests.AsNoTracking()
            .Where(r => employments.Contains(r.EmploymentId) && r.State == RequestState.Waiting)
            .ToListAsync(cancellation);
        var periods = runs.Select(r => r.Run.Start).Distinct().ToArray();
        var checks = await db.PayChecks.AsNoTracking().Where(c => employments.Contains(c.EmploymentId) && periods.Contains(c.Period)).ToListAsync(cancellation);
        var typed = await db
            .Changes.AsNoTracking()
            .Where(c =>
                db.RecordValues.Any(v =>
                    v.ChangeId == c.Id && employments.Contains(v.OwnerId) && v.Field == "pay_rate" && v.Known.UpperBoundInfinite && v.Source == "typed"
                )
            )
            .ToDictionaryAsync(c => c.Id, cancellation);
        return new PayRunFacts(
            new JobBands(entries, fullTimeHours),
            entries["shiftPatterns"].ToDictionary(e => e.Code, StringComparer.Ordinal),
            await PayKnownSince.LoadAsync(db, templates.Newcomers, cancellation),
            templates,
            waiting.Where(r => r.Changes.Any(c => PayReading.AllFields.Contains(FieldAddress.FieldOf(c.Field)))).Select(r => r.EmploymentId).ToHashSet(),
            checks.ToLookup(c => c.EmploymentId),
            typed
        );
    }

    private sealed record Candidate(Guid Employment, string PayGroup);
}
