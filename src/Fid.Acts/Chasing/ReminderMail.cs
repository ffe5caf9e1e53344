using System.Globalization;
using Fid.Acts.Fields;
using Fid.Acts.Mail;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Chasing;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.Mail;
using Fid.Data.People;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>The messages that tell people of their tasks, in the language of each, with what its reader may see.</summary>
internal sealed class ReminderMail(
    FidDb db,
    MailSettings mail,
    Firm firm,
    ReminderRound round,
    LiveFields fields,
    IReadOnlyDictionary<Guid, ReachTarget> targets
)
{
    private const string Kind = "reminders";

    public static async Task<ReminderMail> LoadAsync(FidDb db, MailSettings mail, Firm firm, ReminderRound round, CancellationToken cancellation)
    {
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        return new ReminderMail(db, mail, firm, round, fields, await ReachTarget.LoadAsync(db, Records(round), cancellation));
    }

    /// <summary>Puts a message of the round into the context, to go out now.</summary>
    /// <param name="asker">Who asks for it; null where the day does.</param>
    public MailMessage Write(ChaseMessage message, Instant now, string? asker = null)
    {
        var to = round.AccountOf(message.To);
        var text = MailText.Shipped(Kind, to.Language).Fill(Words(message, to, asker));
        var mailed = new MailMessage
        {
            Kind = Kind,
            AccountId = to.Account,
            Name = to.Name,
            Address = to.Email!,
            Subject = text.Subject.Length <= MailMessage.LongestSubject ? text.Subject : text.Subject[..MailMessage.LongestSubject],
            Text = text.Text,
            Html = text.Html,
            At = now,
        };
        MailOut.Write(db, mailed);
        return mailed;
    }

    // What the text names. Of a newcomer it says what its reader may see.
    private object Words(ChaseMessage message, AccountRoles to, string? asker)
    {
        var rights = HeldRights.Of(fields.Roles, to.AllOf(fields.Roles));
        var german = to.Language == "de";
        var culture = CultureInfo.GetCultureInfo(german ? "de-DE" : "en-IE");
        var lines = message.Reminders.Select(r => (r.Kind, Line: Line(r))).ToList();
        return new
        {
            name = to.Name.Split(' ')[0],
            firm = firm.Name,
            count = lines.Count,
            first = lines[0].Line,
            link = new Uri(mail.Site, "tasks").ToString(),
            parts = lines
                .GroupBy(l => l.Kind, l => l.Line)
                .Select(g => new { title = asker is null ? Title(g.Key, german) : Asked(asker, german), reminders = g.ToArray() })
                .ToArray(),
        };

        ReminderLine Line(Reminder reminder)
        {
            var about = round.WorkOf(reminder.Task);
            return new ReminderLine(
                german ? about.Task.NameDe ?? about.Task.Name : about.Task.Name,
                Reader.Names(rights.On(fields.Set, targets[about.Hire.EmploymentId].ReachedBy(to, fields.Roles))) ? about.Hire.FullName : about.Hire.Number,
                about.Due?.ToString("ddd d MMM", culture),
                asker is null ? Math.Max(reminder.Days, 0) : 0,
                reminder.For is { } owner ? round.AccountOf(owner).Name : null
            );
        }
    }

    private static string Asked(string asker, bool german) => german ? $"{asker} bittet Sie darum" : $"{asker} asks you for this";

    private static string Title(ReminderKind kind, bool german) =>
        kind switch
        {
            ReminderKind.Escalation => german ? "So spät, dass Sie es wissen sollten" : "So late that you should know",
            ReminderKind.Overdue => german ? "Verspätet" : "Late",
            ReminderKind.Due => german ? "Heute fällig" : "Due today",
            ReminderKind.Opened => german ? "Neu für Sie" : "New for you",
            _ => german ? "Bald fällig" : "Due soon",
        };

    private static List<CurrentRecord> Records(ReminderRound round) =>
        [.. round.Chase.Messages.SelectMany(m => m.Reminders).Select(r => round.WorkOf(r.Task).Hire).DistinctBy(h => h.Id).Select(h => h.Record)];

    // One task, as a text names it.
    private sealed record ReminderLine(string task, string hire, string? due, int late, string? owner);
}
