using Fid.Data;
using Fid.Data.Firms;
using NodaTime;

namespace Fid.Acts.Accounts;

/// <summary>Whose users work here no more: from the day after the last day of the last stint, and where no stint ever came about.</summary>
internal static class Leavers
{
    /// <summary>The accounts of those who have.</summary>
    public static IQueryable<FidUser> In(FidDb db, LocalDate today) =>
        db.Users.Where(u =>
            db.Employments.Any(e => e.PersonId == u.PersonId)
            && !db.Employments.Any(e => e.PersonId == u.PersonId && (e.End == null || (e.End >= today && e.End >= e.Start)))
        );
}
