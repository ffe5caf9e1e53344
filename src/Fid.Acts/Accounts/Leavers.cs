using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Accounts;

/// <summary>Whose users work here no more: from the day after the last day of the last stint, and where no stint ever came about.</summary>
internal static class Leavers
{
    /// <summary>Whether somebody has. Of whom the firm has no record nothing is known.</summary>
    public static async Task<bool> HasLeftAsync(FidDb db, Guid? person, LocalDate today, CancellationToken cancellation) =>
        person is { } id
        && await db.Employments.AnyAsync(e => e.PersonId == id, cancellation)
        && !await Employment.AnyGoesOnAsync(db, id, today, null, cancellation);

    /// <summary>The accounts of those who have.</summary>
    public static IQueryable<FidUser> In(FidDb db, LocalDate today) =>
        db.Users.Where(u =>
            db.Employments.Any(e => e.PersonId == u.PersonId)
            && !db.Employments.Any(e => e.PersonId == u.PersonId && (e.End == null || (e.End >= today && e.End >= e.Start)))
        );
}
