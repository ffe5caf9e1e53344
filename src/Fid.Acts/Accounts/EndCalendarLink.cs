using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Ends the user's own private link to the calendar of who arrives: it opens nothing any more.</summary>
public sealed class EndCalendarLink(FidDb db)
{
    public async Task<ActResult> DoAsync(EndCalendarLinkRequest request, Actor actor, CancellationToken cancellation)
    {
        if (actor.AccountId is not { } own)
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await AccountInHand.TakeAsync(db, own, cancellation) is not { } account)
            return Refusal.NotFound;
        if (await db.CalendarLinks.Where(l => l.UserId == account.Id).ExecuteDeleteAsync(cancellation) == 0)
            return Refusal.NotFound;
        act.Note(AccountInHand.Entry(actor.Author("arrivals"), "calendarLink.ended", account));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record EndCalendarLinkRequest;
