using Fid.Core;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Hires;

namespace Fid.Acts.Tasks;

/// <summary>Notes at tasks what whoever does them should know; or takes the note away.</summary>
public sealed class NoteTasks(FidDb db)
{
    internal const string Action = "task.noted";

    public async Task<ActResult<TasksChanged>> DoAsync(NoteTasksRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Check(request.Note) is { } bad)
            return Refusal.Invalid(bad);
        var note = Clean(request.Note);
        return await TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange(Action, OwnToo: true, task =>
            {
                task.Note = note;
                return null;
            }), actor, cancellation);
    }

    /// <summary>What is wrong with a note; null for nothing.</summary>
    internal static Problem? Check(string? note) =>
        note is null ? null
        : note.Length > HireTask.LongestNote ? new Problem("/note", "too-long", $"Enter at most {HireTask.LongestNote} characters.")
        : !TextRules.TryCleanLines(note, out _) ? new Problem("/note", "bad-characters", TextRules.BadCharacters)
        : null;

    /// <summary>The note to keep; null for none.</summary>
    internal static string? Clean(string? note) => note is not null && TextRules.TryCleanLines(note, out var clean) && clean.Length > 0 ? clean : null;
}

/// <param name="Note">Null or nothing but space takes it away.</param>
public sealed record NoteTasksRequest(IReadOnlyList<TaskRef> Tasks, string? Note);
