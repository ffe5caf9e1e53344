using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Tasks;

/// <summary>Puts files to tasks of a hire alone, or takes them away from there: a photograph of what was handed out, a form that came back.</summary>
public sealed class AttachToTasks(FidDb db)
{
    /// <summary>The most files that go with a task.</summary>
    public const int Most = 20;

    internal const string Action = "task.attached";

    private static readonly Refusal Unknown = Refusal.Invalid("/attach", "unknown-file", "The file is not there any more. Choose it again.");

    private static readonly Refusal TooMany = Refusal.Conflict("too-many-files", $"At most {Most} files go with a task. Take one away first.");

    public async Task<ActResult<TasksChanged>> DoAsync(AttachToTasksRequest request, Actor actor, CancellationToken cancellation)
    {
        Guid[] attach = [.. (request.Attach ?? []).Distinct()],
            detach = [.. request.Detach ?? []];
        if (attach.Length + detach.Length is 0 or > Most)
            return Refusal.Invalid("/attach", "missing", $"Choose 1 to {Most} files.");
        var fresh = await FreshAsync(attach, cancellation);
        return await TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange(Action, OwnToo: true, task =>
            {
                Guid[] files = [.. task.Attachments.Except(detach).Union(attach)];
                if (!attach.Except(task.Attachments).All(fresh.Contains))
                    return Unknown;
                if (files.Length > Most && files.Length > task.Attachments.Length)
                    return TooMany;
                // One that has it already is not changed.
                if (!files.SequenceEqual(task.Attachments))
                    task.Attachments = files;
                return null;
            }), actor, cancellation);
    }

    // Whoever knows the id of a file that nothing names yet has given it. What a record or any task names is not to be read by way of another.
    private async Task<HashSet<Guid>> FreshAsync(Guid[] files, CancellationToken cancellation)
    {
        var texts = files.Select(f => f.ToString()).ToArray();
        return
        [
            .. await db
                .Database.SqlQuery<Guid>(
                    $"""
                    select f.id as "Value" from stored_files f where f.id = any({files})
                      and not exists (select from record_values v
                        where v.value #>> array[]::text[] = any({texts}) and length(v.value #>> array[]::text[]) = 36
                          and v.value #>> array[]::text[] = f.id::text)
                      and not exists (select from hire_tasks t where cardinality(t.attachments) > 0 and t.attachments @> array[f.id])
                    """
                )
                .ToListAsync(cancellation),
        ];
    }
}

/// <param name="Attach">The ids of files given before.</param>
/// <param name="Detach">The ids of files that no longer go with them.</param>
public sealed record AttachToTasksRequest(IReadOnlyList<TaskRef> Tasks, Guid[]? Attach, Guid[]? Detach);
