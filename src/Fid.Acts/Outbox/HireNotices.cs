using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Exchange;
using Fid.Data.Hires;
using Fid.Data.Intake;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Outbox;

/// <summary>Writes what other systems are to be told of hires.</summary>
public sealed class HireNotices(FidDb db)
{
    /// <summary>Puts what other systems are to be told of a hire into the context: recruiting where the hire came from there, the
    /// others where the person might be known to them already.</summary>
    public async Task TellAsync(Hire hire, CurrentRecord record, NoticeKind kind, Change cause, CancellationToken cancellation)
    {
        var number = await db.Employments.Where(e => e.Id == record.EmploymentId).Select(e => e.Number).SingleAsync(cancellation);
        var candidate = await db.IntakeCandidates.AsNoTracking().SingleOrDefaultAsync(c => c.HireId == hire.Id, cancellation);
        foreach (var system in OutboxMessage.Systems)
        {
            if (system == OutboxMessage.Recruiting ? candidate is null : kind is NoticeKind.Opened)
                continue;
            Add(system, system == OutboxMessage.Recruiting ? candidate!.SourceId : number, new HireNotice(kind, number, hire.Start), hire.Id, cause);
        }
    }

    /// <summary>Puts a notice to recruiting into the context.</summary>
    /// <param name="hire">The hire it is about; null for none.</param>
    public void TellRecruiting(IntakeCandidate candidate, HireNotice notice, Guid? hire, Change cause) =>
        Add(OutboxMessage.Recruiting, candidate.SourceId, notice, hire, cause);

    private void Add(string system, string recipient, HireNotice notice, Guid? hire, Change cause) =>
        db.Outbox.Add(
            new OutboxMessage
            {
                Channel = system,
                Recipient = recipient,
                Payload = notice,
                HireId = hire,
                CauseId = cause.Id,
                At = cause.At,
                NextTry = cause.At,
            }
        );
}
