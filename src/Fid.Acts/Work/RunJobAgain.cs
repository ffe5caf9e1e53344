using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Work;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Work;

/// <summary>Has a job done now that failed, or waits for its time.</summary>
public sealed class RunJobAgain(FidDb db)
{
    public async Task<ActResult> DoAsync(RunJobAgainRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await db.Jobs.AsNoTracking().SingleOrDefaultAsync(j => j.Id == request.Job, cancellation) is not { } job)
            return Refusal.NotFound;
        var author = actor.Author("admin");
        // One that is being done is left to it.
        if (
            await db
                .Jobs.Where(j => j.Id == job.Id && j.State != JobState.Running)
                .ExecuteUpdateAsync(
                    s => s.SetProperty(j => j.State, JobState.Waiting).SetProperty(j => j.Due, author.At).SetProperty(j => j.Tries, 0),
                    cancellation
                ) > 0
        )
            act.Note(author.Change("job.asked", job.Id, job.Kind));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record RunJobAgainRequest(Guid Job);
