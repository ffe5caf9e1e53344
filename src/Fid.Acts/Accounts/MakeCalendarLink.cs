using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Makes the user's own private link to a calendar of who arrives. One made before opens nothing from then on.</summary>
public sealed class MakeCalendarLink(FidDb db)
{
    /// <returns>What the link holds, which is shown this once. Asked for again, it makes another.</returns>
    public async Task<ActResult<string>> DoAsync(MakeCalendarLinkRequest request, Actor actor, CancellationToken cancellation)
    {
        if (actor.AccountId is not { } own || !actor.May(Actions.See, Things.Hire))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (await AccountInHand.TakeAsync(db, own, cancellation) is not { } account)
            return Refusal.NotFound;
        var (author, token) = (actor.Author("arrivals"), SecretToken.Make());
        await db.CalendarLinks.Where(l => l.UserId == account.Id).ExecuteDeleteAsync(cancellation);
        db.CalendarLinks.Add(
            new CalendarLink
            {
                UserId = account.Id,
                Hash = SecretToken.Hash(token),
                MadeAt = author.At,
            }
        );
        if (!act.IsDoneAlready)
            act.Note(AccountInHand.Entry(author, "calendarLink.made", account));
        await act.CommitAsync(cancellation);
        return token;
    }

    /// <summary>The account whose link it is; null for one that was replaced, ended, or never was, and for an account that is disabled.</summary>
    public static Task<Guid?> FindAccountAsync(FidDb db, string token, CancellationToken cancellation)
    {
        var hash = SecretToken.Hash(token);
        return db
            .CalendarLinks.Where(l => l.Hash == hash)
            .Join(db.Users.Where(u => u.DisabledAt == null), l => l.UserId, u => u.Id, (_, user) => (Guid?)user.Id)
            .SingleOrDefaultAsync(cancellation);
    }
}

public sealed record MakeCalendarLinkRequest;
