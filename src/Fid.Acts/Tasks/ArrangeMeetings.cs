using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Hires;
using NodaTime;

namespace Fid.Acts.Tasks;

/// <summary>Says for some hires at what time and where one meets for a task, or that it has no time. Who is invited is told by itself.</summary>
public sealed class ArrangeMeetings(FidDb db)
{
    private static readonly Refusal NoMeeting = Refusal.Conflict("no-meeting", "Nobody meets for this task. Only tasks to attend have a time and a place.");

    public async Task<ActResult<TasksChanged>> DoAsync(ArrangeMeetingsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (Problems(request, out var place).ToList() is { Count: > 0 } problems)
            return Refusal.Invalid(problems);
        return await TaskChanges.MakeAsync(db, request, request.Tasks, new TaskChange("task.arranged", OwnToo: false, task =>
            {
                if (task.Kind != TaskKind.Attend)
                    return NoMeeting;
                if (task.Done is not null)
                    return TasksInHand.IsDone;
                (task.MeetsAt, task.Minutes, task.Place) = (request.At, request.At is null ? null : request.Minutes, place);
                return null;
            }), actor, cancellation);
    }

    private static List<Problem> Problems(ArrangeMeetingsRequest request, out string? place)
    {
        var problems = new List<Problem>();
        place = null;
        if (request.Minutes is < 5 or > TaskFindings.MostMinutes)
            problems.Add(new Problem("/minutes", "out-of-range", $"Enter from 5 to {TaskFindings.MostMinutes} minutes."));
        if (request.Place is { } where)
        {
            if (!TextRules.TryClean(where, out var clean))
                problems.Add(new Problem("/place", "bad-characters", TextRules.BadCharacters));
            else if (clean.Length > HireTask.LongestName)
                problems.Add(new Problem("/place", "too-long", $"Enter at most {HireTask.LongestName} characters."));
            place = clean.Length == 0 ? null : clean;
        }
        return problems;
    }
}

/// <param name="At">When one meets, in the firm's zone; null for at no time.</param>
/// <param name="Minutes">How long; null for as long as is usual.</param>
/// <param name="Place">Where; null for nowhere in particular.</param>
public sealed record ArrangeMeetingsRequest(IReadOnlyList<TaskRef> Tasks, LocalTime? At, int? Minutes, string? Place);
