using Fid.Acts.Exchange;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Work;

/// <summary>Lets go of what nobody needs any more: files that were given and never saved with anything, keys of acts that nobody sends
/// again, what came with old sheets, links that have run out, and what is known of jobs long done.</summary>
public sealed class ClearUp(FidDb db)
{
    private static readonly Duration FilesKept = Duration.FromDays(1),
        RunsKept = Duration.FromDays(30);

    /// <returns>How many things went.</returns>
    public async Task<ActResult<int>> DoAsync(ClearUpRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        var now = actor.Clock.Now;
        var cleared =
            await DropUnnamedFilesAsync(now, cancellation)
            + await DoneOnce.ForgetAsync(db, now, cancellation)
            + await ImportRetention.ClearAsync(db, now, cancellation);
        cleared += await db.AccountLinks.Where(l => l.EndsAt < now).ExecuteDeleteAsync(cancellation);
        var (old, runs) = (now - RunsKept, db.JobRuns);
        return cleared + await runs.Where(r => r.EndedAt < old).ExecuteDeleteAsync(cancellation);
    }

    // Files that were given more than a day ago and never saved with a record, a task or a template.
    private Task<int> DropUnnamedFilesAsync(Instant now, CancellationToken cancellation) =>
        db.Database.ExecuteSqlAsync(
            $"""
            delete from stored_files f where f.at < {now - FilesKept}
              and not exists (select from record_values v where v.value #>> array[]::text[] = f.id::text and length(v.value #>> array[]::text[]) = 36)
              and not exists (select from hire_tasks t where f.id = any(t.attachments))
              and not exists (
                select from (select spec::text as said from template_versions union all select spec::text from template_drafts union all
                  select properties::text from shared_tasks) t
                where t.said like '%' || f.id || '%')
            """,
            cancellation
        );
}

public sealed record ClearUpRequest;
