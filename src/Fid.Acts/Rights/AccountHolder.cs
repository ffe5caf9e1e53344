using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rights;

/// <summary>Whose an account is, and what they may: read anew for every request, so that what is given or taken holds at once.</summary>
/// <param name="Tasks">Whose tasks they do.</param>
/// <param name="NeedsSecondFactor">Whether one of their roles is held only by those who prove by a second factor who they are.</param>
/// <param name="Employments">All employments of the person, by which records name them as manager.</param>
public sealed record AccountHolder(
    Guid AccountId,
    string Name,
    string? Email,
    string Language,
    Guid? PersonId,
    Guid[] Employments,
    TaskOwners Tasks,
    HeldRights Rights,
    bool NeedsSecondFactor
)
{
    /// <summary>Who holds an account; null for one that is gone or disabled.</summary>
    /// <param name="today">The day on which their roles are to count.</param>
    public static async Task<AccountHolder?> FindAsync(FidDb db, Guid account, LocalDate today, CancellationToken cancellation)
    {
        if (await AccountRoles.On(db, today).Where(a => a.Account == account && !a.IsDisabled).SingleOrDefaultAsync(cancellation) is not { } held)
            return null;
        var set = await LiveRights.OfAsync(db, held.Rights, cancellation);
        return new AccountHolder(
            account,
            held.Name,
            held.Email,
            held.Language,
            held.Person,
            held.Employments,
            held.Tasks,
            HeldRights.Of(set, held.AllOf(set)),
            held.AllOf(set).Any(set.SecondFactor.Contains)
        );
    }
}
