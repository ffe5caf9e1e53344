using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Mail;

/// <summary>Deals with a message that came back: sends it once more, to the address that its account has now, or lays it aside.</summary>
public sealed class SettleMail(FidDb db)
{
    private static readonly Refusal NotBack = Refusal.Conflict("not-back", "It has not come back, or somebody has dealt with it.");

    private static readonly Refusal NoText = Refusal.Conflict(
        "no-text",
        "It was never written, for its text could not be filled. Mend the text under Admin; the task is reminded of again by itself."
    );

    private static readonly Refusal SameAddress = Refusal.Conflict(
        "same-address",
        "It would go to the same address again. Correct the address of the account first."
    );

    public async Task<ActResult> DoAsync(SettleMailRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task) || !actor.Rights.MayToAll(Actions.See, Things.Hire))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RemindersAsync(db, cancellation);
        if (await db.MailMessages.SingleOrDefaultAsync(m => m.Id == request.Message, cancellation) is not { } message)
            return Refusal.NotFound;
        if (message is not { Refused: not null, SettledAt: null })
            return NotBack;
        var author = actor.Author("exchange");
        if (request.Again)
        {
            if (message.Text.Length == 0)
                return NoText;
            var address = await db.Users.Where(u => u.Id == message.AccountId).Select(u => u.Email).SingleOrDefaultAsync(cancellation);
            if (address is null || address == message.Address)
                return SameAddress;
            (message.Address, message.Refused) = (address, null);
            MailOut.Send(db, message, author.At);
        }
        else
            (message.SettledAt, message.SettledBy) = (author.At, author.Name);
        var firm = await db.Firms.Select(f => f.Id).SingleAsync(cancellation);
        act.Note(author.Change(request.Again ? "mail.sentAgain" : "mail.laidAside", firm, message.Name));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Again">Whether it is sent once more; else it is laid aside.</param>
public sealed record SettleMailRequest(Guid Message, bool Again);
