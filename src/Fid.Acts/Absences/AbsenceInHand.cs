using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Absences;

/// <summary>What acts on absences have in common.</summary>
internal static class AbsenceInHand
{
    /// <summary>Whether somebody may enter and end the absences of an account: their own, and all where they look after accounts.</summary>
    public static bool MayChange(Actor actor, Guid account) => actor.AccountId == account || actor.Rights.MayToAll(Right.Edit, Things.Account);

    /// <summary>An absence as the trail keeps it.</summary>
    public static async Task<object> WordsAsync(FidDb db, AccountAbsence absence, CancellationToken cancellation) =>
        new
        {
            from = absence.From.ToString("uuuu-MM-dd", null),
            to = absence.To.ToString("uuuu-MM-dd", null),
            standIn = await db.Users.Where(u => u.Id == absence.StandInId).Select(u => u.DisplayName).SingleOrDefaultAsync(cancellation),
        };
}
