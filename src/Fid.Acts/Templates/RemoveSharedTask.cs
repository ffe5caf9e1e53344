using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Takes away a shared task that no template has.</summary>
public sealed class RemoveSharedTask(FidDb db)
{
    public async Task<ActResult> DoAsync(RemoveSharedTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.TemplatesAsync(db, cancellation);
        if (await db.SharedTasks.SingleOrDefaultAsync(t => t.Key == request.Key, cancellation) is not { } task)
            return Refusal.NotFound;
        var users = SharedTasks.UsersOf(await db.RoleTemplates.AsNoTracking().ToListAsync(cancellation))[request.Key].Select(t => t.Name).ToList();
        if (users.Count > 0)
            return Refusal.Conflict("in-use", $"These templates have it: {string.Join(", ", users)}.");
        db.SharedTasks.Remove(task);
        act.Note(actor.Author("templates").Change("sharedTask.removed", await db.Firms.Select(f => f.Id).SingleAsync(cancellation), request.Key));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

public sealed record RemoveSharedTaskRequest(string Key);
