using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>What people are called, for those who may see names and for those who may not.</summary>
internal static class PeopleNames
{
    /// <summary>Names by employment; numbers where names may not be seen.</summary>
    public static Task<Dictionary<Guid, string>> LoadAsync(FidDb db, IReadOnlyCollection<Guid> employments, bool seesNames, CancellationToken cancellation) =>
        db
            .CurrentRecords.AsNoTracking()
            .Where(r => employments.Contains(r.EmploymentId))
            .Join(db.Employments, r => r.EmploymentId, e => e.Id, (record, employment) => new { record, employment.Number })
            .ToDictionaryAsync(p => p.record.EmploymentId, p => seesNames ? p.record.FullName : p.Number, cancellation);

    /// <summary>The same by hire.</summary>
    public static Task<Dictionary<Guid, string>> OfHiresAsync(FidDb db, IReadOnlyCollection<Guid> hires, bool seesNames, CancellationToken cancellation) =>
        (
            from hire in db.Hires
            join record in db.CurrentRecords on hire.EmploymentId equals record.EmploymentId
            join employment in db.Employments on hire.EmploymentId equals employment.Id
            where hires.Contains(hire.Id)
            select new
            {
                hire.Id,
                record,
                employment.Number,
            }
        )
            .AsNoTracking()
            .ToDictionaryAsync(p => p.Id, p => seesNames ? p.record.FullName : p.Number, cancellation);
}
