using System.Text.Json;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>Says when the firm reminds the owners of tasks, or that it does not for now.</summary>
public sealed class SetReminders(FidDb db)
{
    private const int MostBefore = 10,
        MostDays = 250;

    public async Task<ActResult> DoAsync(SetRemindersRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Settings))
            return Refusal.Forbidden;
        var problems = Check(request).ToList();
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.RemindersAsync(db, cancellation);
        var firm = await db.Firms.SingleAsync(cancellation);
        firm.RemindBefore = [.. request.Before.Distinct().OrderDescending()];
        (firm.RemindOnDue, firm.RemindEvery, firm.RemindMost) = (request.OnDue, request.Every, request.Most);
        (firm.EscalateAfter, firm.RemindAt, firm.RemindersPaused) = (request.EscalateAfter, request.At, request.Paused);
        act.Note(
            actor.Author("exchange").Change("reminders.set", firm.Id, firm.Name) with
            {
                Details = JsonSerializer.Serialize(
                    new
                    {
                        before = firm.RemindBefore,
                        onDue = firm.RemindOnDue,
                        every = firm.RemindEvery,
                        most = firm.RemindMost,
                        escalateAfter = firm.EscalateAfter,
                        at = firm.RemindAt.ToString("HH:mm", null),
                        paused = firm.RemindersPaused,
                    }
                ),
            }
        );
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private static IEnumerable<Problem> Check(SetRemindersRequest request)
    {
        if (request.Before.Count > MostBefore)
            yield return new Problem("/before", "out-of-range", $"Remind at most {MostBefore} times before it is due.");
        else if (request.Before.Any(d => d is < 1 or > MostDays))
            yield return new Problem("/before", "out-of-range", $"Say from 1 to {MostDays} working days.");
        if (request.Every is < 1 or > MostDays)
            yield return new Problem("/every", "out-of-range", $"Say from 1 to {MostDays} working days.");
        if (request.Most is < 0 or > MostDays)
            yield return new Problem("/most", "out-of-range", $"Say from 0 to {MostDays}.");
        if (request.EscalateAfter is < 0 or > MostDays)
            yield return new Problem("/escalateAfter", "out-of-range", $"Say from 0 to {MostDays} working days, or leave it empty.");
    }
}

/// <param name="Before">How many working days before it is due, each.</param>
/// <param name="OnDue">Whether on the day.</param>
/// <param name="Every">Every how many working days after it.</param>
/// <param name="Most">How often after it at most.</param>
/// <param name="EscalateAfter">How many working days after it the owner's manager is told; null for never.</param>
/// <param name="At">From when on in the firm's zone.</param>
/// <param name="Paused">Whether nobody is reminded for now.</param>
public sealed record SetRemindersRequest(IReadOnlyList<int> Before, bool OnDue, int Every, int Most, int? EscalateAfter, LocalTime At, bool Paused);
