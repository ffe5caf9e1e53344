using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Acts.Tasks;
using Fid.Data;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Ticking tasks off, skipping them, and taking either back; and the files that go with them.</summary>
internal static class TaskEndpoints
{
    public static async Task<Results<NoContent, ProblemHttpResult>> Tick(
        Guid id,
        string key,
        DoneRequest? request,
        Actor actor,
        TickTasks tick,
        CancellationToken cancellation
    ) => (await tick.DoAsync(new TickTasksRequest([new TaskRef(id, key)], request?.Done), actor, cancellation)).Answer();

    public static async Task<Results<NoContent, ProblemHttpResult>> Untick(
        Guid id,
        string key,
        Actor actor,
        UntickTasks untick,
        CancellationToken cancellation
    ) => (await untick.DoAsync(new UntickTasksRequest([new TaskRef(id, key)]), actor, cancellation)).Answer();

    public static async Task<Results<NoContent, ProblemHttpResult>> Skip(
        Guid id,
        string key,
        SkipRequest request,
        Actor actor,
        SkipTasks skip,
        CancellationToken cancellation
    ) => (await skip.DoAsync(new SkipTasksRequest([new TaskRef(id, key)], request.Why), actor, cancellation)).Answer();

    public static async Task<Results<NoContent, ProblemHttpResult>> Unskip(
        Guid id,
        string key,
        Actor actor,
        UnskipTasks unskip,
        CancellationToken cancellation
    ) => (await unskip.DoAsync(new UnskipTasksRequest([new TaskRef(id, key)]), actor, cancellation)).Answer();

    private static async Task<bool> SeesAsync(Guid hire, Actor actor, FidDb db, CancellationToken cancellation) =>
        await (await HireAccess.VisibleAsync(actor, db, cancellation))(db.Hires).AnyAsync(h => h.Id == hire, cancellation);

    /// <summary>A file that goes with a task, for whoever does it or sees the hire.</summary>
    public static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ShowFile(
        Guid id,
        string key,
        Guid file,
        Actor actor,
        FidDb db,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        var task = await db.HireTasks.AsNoTracking().FirstOrDefaultAsync(t => t.HireId == id && t.Key == key && t.Attachments.Contains(file), cancellation);
        if (task is null || (!await SeesAsync(id, actor, db, cancellation) && !await TasksInHand.MayTickAsync(db, actor, task, cancellation)))
            return Problems.NotFound();
        return await db.StoredFiles.AsNoTracking().FirstOrDefaultAsync(f => f.Id == file, cancellation) is { } stored
            ? Files.Answer(stored, http)
            : Problems.NotFound();
    }
}

/// <summary>The day a task was done; today when left out.</summary>
public sealed record DoneRequest(LocalDate? Done);

public sealed record SkipRequest(string Why);
