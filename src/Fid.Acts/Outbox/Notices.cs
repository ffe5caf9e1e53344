using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.Hires;
using Fid.Data.Intake;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Outbox;

/// <summary>Writes notices.</summary>
public sealed class Notices(FidDb db)
{
    /// <summary>Puts what other systems are to be told of a hire into the context: recruiting where the hire came from there, the
    /// others where the person might be known to them already.</summary>
    public async Task TellAsync(Hire hire, CurrentRecord record, NoticeKind kind, Instant at, CancellationToken cancellation)
    {
        var number = await db.Employments.Where(e => e.Id == record.EmploymentId).Select(e => e.Number).SingleAsync(cancellation);
        var candidate = await db.IntakeCandidates.AsNoTracking().SingleOrDefaultAsync(c => c.HireId == hire.Id, cancellation);
        foreach (var system in Notice.Systems)
        {
            if (system == Notice.Recruiting ? candidate is null : kind is NoticeKind.Opened) continue;
            Add(system, kind, hire.Id, system == Notice.Recruiting ? candidate!.SourceId : number, number, hire.Start, at);
        }
    }

    /// <summary>Puts a notice to recruiting into the context.</summary>
    public void TellRecruiting(IntakeCandidate candidate, NoticeKind kind, Guid hire, string number, LocalDate start, Instant at) =>
        Add(Notice.Recruiting, kind, hire, candidate.SourceId, number, start, at);

    private void Add(string system, NoticeKind kind, Guid hire, string reference, string number, LocalDate start, Instant at) => db.Notices.Add(new Notice
    {
        System = system,
        Kind = kind,
        HireId = hire,
        Reference = reference,
        Number = number,
        Start = start,
        At = at,
        NextTry = at,
    });
}
