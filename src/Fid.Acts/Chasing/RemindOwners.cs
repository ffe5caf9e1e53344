using System.Globalization;
using Fid.Acts.Fields;
using Fid.Acts.Mail;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Chasing;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Fid.Data.Mail;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>Writes the day's reminders, one message a person, once a day from the firm's hour on: by whichever server comes first.</summary>
public sealed class RemindOwners(FidDb db, MailSettings mail)
{
    private const string Kind = "reminders";

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
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var day = new Day(
            firm,
            fields,
            await ReachTarget.LoadAsync(db, Records(round), cancellation),
            await TaskIdsAsync(round, cancellation),
            actor.Clock.Now
        );
        foreach (var message in round.Chase.Messages)
            Write(message, round, day);
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

    private void Write(ChaseMessage message, ReminderRound round, Day day)
    {
        var to = round.AccountOf(message.To);
        var text = MailText.Shipped(Kind, to.Language).Fill(Words(message, round, to, day));
        var mailed = new MailMessage
        {
            Kind = Kind,
            AccountId = to.Account,
            Name = to.Name,
            Address = to.Email!,
            Subject = text.Subject.Length <= MailMessage.LongestSubject ? text.Subject : text.Subject[..MailMessage.LongestSubject],
            Text = text.Text,
            Html = text.Html,
            At = day.Now,
        };
        MailOut.Write(db, mailed);
        foreach (var reminder in message.Reminders)
        {
            var about = round.WorkOf(reminder.Task);
            db.TaskReminders.Add(
                new TaskReminder
                {
                    TaskId = day.Tasks[(about.Hire.Id, about.Task.Key)],
                    OwnerId = about.Owner,
                    Kind = reminder.Kind,
                    Day = reminder.Day,
                    MessageId = mailed.Id,
                }
            );
        }
    }

    // What the text names. Of a newcomer it says what its reader may see.
    private object Words(ChaseMessage message, ReminderRound round, AccountRoles to, Day day)
    {
        var rights = HeldRights.Of(day.Fields.Roles, to.AllOf(day.Fields.Roles));
        var german = to.Language == "de";
        var culture = CultureInfo.GetCultureInfo(german ? "de-DE" : "en-IE");
        var lines = message.Reminders.Select(r => (r.Kind, Line: Line(r))).ToList();
        return new
        {
            name = to.Name.Split(' ')[0],
            firm = day.Firm.Name,
            count = lines.Count,
            first = lines[0].Line,
            link = new Uri(mail.Site, "tasks").ToString(),
            parts = lines.GroupBy(l => l.Kind, l => l.Line).Select(g => new { title = Title(g.Key, german), reminders = g.ToArray() }).ToArray(),
        };

        ReminderLine Line(Reminder reminder)
        {
            var about = round.WorkOf(reminder.Task);
            return new ReminderLine(
                german ? about.Task.NameDe ?? about.Task.Name : about.Task.Name,
                Reader.Names(rights.On(day.Fields.Set, day.Targets[about.Hire.EmploymentId].ReachedBy(to, day.Fields.Roles)))
                    ? about.Hire.FullName
                    : about.Hire.Number,
                about.Due.ToString("ddd d MMM", culture),
                Math.Max(reminder.Days, 0),
                reminder.For is { } owner ? round.AccountOf(owner).Name : null
            );
        }
    }

    private static string Title(ReminderKind kind, bool german) =>
        kind switch
        {
            ReminderKind.Escalation => german ? "So spät, dass Sie es wissen sollten" : "So late that you should know",
            ReminderKind.Overdue => german ? "Verspätet" : "Late",
            ReminderKind.Due => german ? "Heute fällig" : "Due today",
            _ => german ? "Bald fällig" : "Due soon",
        };

    private static List<CurrentRecord> Records(ReminderRound round) =>
        [.. round.Chase.Messages.SelectMany(m => m.Reminders).Select(r => round.WorkOf(r.Task).Hire).DistinctBy(h => h.Id).Select(h => h.Record)];

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

    // What all messages of a round have in common.
    private sealed record Day(
        Firm Firm,
        LiveFields Fields,
        IReadOnlyDictionary<Guid, ReachTarget> Targets,
        Dictionary<(Guid, string), Guid> Tasks,
        Instant Now
    );

    // One task, as a text names it.
    private sealed record ReminderLine(string task, string hire, string due, int late, string? owner);
}

public sealed record RemindOwnersRequest;
