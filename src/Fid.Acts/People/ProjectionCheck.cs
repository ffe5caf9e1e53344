using Fid.Acts.Fields;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>Proves that every record's projection follows from its rows, and the people of every hire from the record.</summary>
public static class ProjectionCheck
{
    /// <summary>The first record or hire of which that is not so, with what differs; null where all do.</summary>
    public static async Task<string?> FirstWrongAsync(FidDb db, CancellationToken cancellation)
    {
        // Everybody's whole record is read: that may take longer than an answer to somebody who waits for it.
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        // In one snapshot: saves that are made meanwhile must not look like faults.
        await using var transaction = await db.Database.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, cancellation);
        var employments = await db.Employments.AsNoTracking().ToDictionaryAsync(e => e.Id, cancellation);
        var ids = await db.CurrentRecords.AsNoTracking().OrderBy(r => r.EmploymentId).Select(r => r.EmploymentId).ToListAsync(cancellation);
        foreach (var batch in ids.Chunk(500))
        {
            var stored = await db.CurrentRecords.AsNoTracking().Where(r => batch.Contains(r.EmploymentId)).ToListAsync(cancellation);
            var held = await ShownValues.LoadAsync(db, batch, cancellation);
            foreach (var record in stored)
            {
                var made = new CurrentRecord { EmploymentId = record.EmploymentId, PersonId = record.PersonId };
                RecordProjection.Project(fields, made, held[record.EmploymentId].ToDictionary(), employments[record.EmploymentId], record.Saved, record.AsOf);
                foreach (var (column, read) in Columns)
                    if (read(record) != read(made))
                        return $"The record of {record.FullName} ({record.EmploymentId}) shows {column} “{read(record)}”, where its values come to "
                            + $"“{read(made)}”.";
            }
        }
        return await FirstWrongHireAsync(db, cancellation);
    }

    private static async Task<string?> FirstWrongHireAsync(FidDb db, CancellationToken cancellation)
    {
        var wrong = await db
            .Hires.Join(db.CurrentRecords, h => h.EmploymentId, r => r.EmploymentId, (h, r) => new { h, r })
            .Where(x =>
                !db.HirePeople.Any(p =>
                    p.HireId == x.h.Id
                    && p.EmploymentId == x.r.EmploymentId
                    && p.PersonId == x.r.PersonId
                    && p.ManagerId == x.r.ManagerId
                    && p.BuddyId == x.r.BuddyId
                )
            )
            .OrderBy(x => x.h.Id)
            .Select(x => new
            {
                x.h.Id,
                x.r.GivenName,
                x.r.FamilyName,
            })
            .FirstOrDefaultAsync(cancellation);
        return wrong is null ? null : $"The hire of {wrong.GivenName} {wrong.FamilyName} ({wrong.Id}) names another person, manager or buddy than the record.";
    }

    private static readonly (string Column, Func<CurrentRecord, string?> Read)[] Columns =
    [
        ("the name", r => r.FullName),
        ("the e-mail", r => r.Email),
        ("the site", r => r.SiteCode),
        ("the department", r => r.DepartmentCode),
        ("the job", r => r.JobCode),
        ("the kind", r => r.Kind),
        ("the badge", r => r.Badge),
        ("the calendar", r => r.CalendarCode),
        ("the manager", r => r.ManagerId?.ToString()),
        ("missing", r => string.Join(' ', r.Missing)),
        ("the groups", r => string.Join(' ', r.Groups)),
        ("filled", r => FormattableString.Invariant($"{r.Filled} of {r.Of}")),
        ("the search text", r => r.Search),
    ];
}
