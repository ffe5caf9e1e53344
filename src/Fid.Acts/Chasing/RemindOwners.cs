using Fid.Acts.Mail;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Chasing;

/// <summary>Writes the day's reminders, one message a person, once a day from the firm's hour on: by whichever server comes first.</summary>
public sealed class RemindOwners(FidDb db, MailSettings mail)
{
    /// <returns>How many messages were written.</returns>
    public async Task<ActResult<int>> DoAsync(RemindOwnersRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        if (!mail.IsSet || !await IsTimeAsync(actor, cancellation))
            return 0;
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request, cancellation);
        // Held until the round is committed: another server that comes meanwhile finds the day done.
        await Locks.RemindersAsync(db, cancellation);
        var firm = await db.Firms.SingleAsync(cancellation);
        if (firm.RemindedOn >= actor.Today || firm.RemindersPaused)
            return 0;
        var round = await ReminderRound.LoadAsync(db, firm, actor.Today, cancellation);
        var letters = await ReminderMail.LoadAsync(db, mail, firm, round, cancellation);
        var ids = await TaskIdsAsync(round, cancellation);
        foreach (var message in round.Chase.Messages)
        {
            var mailed = letters.Write(message, actor.Clock.Now);
            // Of what could not be written nobody was reminded: the next day tries again, maybe with a better text.
            if (mailed.Refused is not null)
                continue;
            foreach (var reminder in message.Reminders)
            {
                var about = round.WorkOf(reminder.Task);
                db.TaskReminders.Add(
                    new TaskReminder
                    {
                        TaskId = ids[(about.Hire.Id, about.Task.Key)],
                        OwnerId = about.Owner,
                        Kind = reminder.Kind,
                        Day = reminder.Day,
                        MessageId = mailed.Id,
                    }
                );
            }
        }
        firm.RemindedOn = actor.Today;
        await act.CommitAsync(cancellation);
        return round.Chase.Messages.Count;
    }

    private async Task<bool> IsTimeAsync(Actor actor, CancellationToken cancellation)
    {
        if (await db.Firms.AsNoTracking().FirstOrDefaultAsync(cancellation) is not { RemindersPaused: false } firm || firm.RemindedOn >= actor.Today)
            return false;
        var now = actor.Clock.Now.InZone(firm.Zone);
        // The firm's today can be held still, and then every hour of it has come.
        return now.Date != actor.Today || now.TimeOfDay >= firm.RemindAt;
    }

    private Task<Dictionary<(Guid, string), Guid>> TaskIdsAsync(ReminderRound round, CancellationToken cancellation)
    {
        var hires = round.Chase.Messages.SelectMany(m => m.Reminders).Select(r => round.WorkOf(r.Task).Hire.Id).Distinct().ToArray();
        return db
            .HireTasks.Where(t => hires.Contains(t.HireId))
            .Select(t => new
            {
                t.HireId,
                t.Key,
                t.Id,
            })
            .ToDictionaryAsync(t => (t.HireId, t.Key), t => t.Id, cancellation);
    }
}

public sealed record RemindOwnersRequest;
