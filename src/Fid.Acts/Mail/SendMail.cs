using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Mail;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Mail;

/// <summary>Gives one message to the mail server. One that was taken is not given again; a server that cannot be reached is tried again
/// by the queue, which keeps the message until then.</summary>
public sealed class SendMail(FidDb db, MailServer server)
{
    /// <summary>The job that does it, by the id of the message.</summary>
    public const string Kind = "mail";

    /// <summary>How often it is tried: over about three days.</summary>
    public const int MostTries = 80;

    public async Task<ActResult<int>> DoAsync(SendMailRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        if (await db.MailMessages.SingleOrDefaultAsync(m => m.Id == request.Message, cancellation) is not { SentAt: null, Refused: null } message)
            return 0;
        var refused = await server.SendAsync(message, cancellation);
        if (refused is null)
            message.SentAt = actor.Clock.Now;
        else
            message.Refused = MailMessage.Cut(refused);
        // What the mail server has said is kept even where the server is being stopped: otherwise it would be sent once more.
        await db.SaveChangesAsync(CancellationToken.None);
        return 1;
    }
}

public sealed record SendMailRequest(Guid Message);
