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
    IReadOnlyDictionary<Guid, ReachTarget> targets,
    MailTexts texts
)
{
    public static async Task<ReminderMail> LoadAsync(FidDb db, MailSettings mail, Firm firm, ReminderRound round, CancellationToken cancellation) =>
        new(
            db,
            mail,
            firm,
            round,
            await new LiveFieldsLoader(db).LiveAsync(cancellation),
            await ReachTarget.LoadAsync(db, Records(round), cancellation),
            await MailTexts.LoadAsync(db, MailKinds.Reminders, cancellation)
        );

    /// <summary>Puts a message of the round into the context, to go out now. One that the firm's text cannot be filled for stays, and says why.</summary>
    /// <param name="asker">Who asks for it; null where the day does.</param>
    public MailMessage Write(ChaseMessage message, Instant now, string? asker = null)
    {
        var to = round.AccountOf(message.To);
        var mailed = MailOut.Filled(MailKinds.Reminders, texts, new MailTo(to.Account, to.Name, to.Email!, to.Language), Words(message, to, asker), now);
        MailOut.Write(db, mailed);
        return mailed;
    }

    // Of a newcomer it says what its reader may see.
    private object Words(ChaseMessage message, AccountRoles to, string? asker)
    {
        var rights = HeldRights.Of(fields.Roles, to.AllOf(fields.Roles));
        return new ReminderWords(to.Language).Of(to.Name, firm.Name, new Uri(mail.Site, "tasks"), [.. message.Reminders.Select(Line)], asker);

        RemindedLine Line(Reminder reminder)
        {
            var about = round.WorkOf(reminder.Task);
            return new RemindedLine(
                reminder.Kind,
                about.Task.Name,
                about.Task.NameDe,
                Reader.Names(rights.On(fields.Set, targets[about.Hire.EmploymentId].ReachedBy(to, fields.Roles))) ? about.Hire.FullName : about.Hire.Number,
                about.Due,
                reminder.Days,
                reminder.For is { } owner ? round.AccountOf(owner).Name : null
            );
        }
    }

    private static List<CurrentRecord> Records(ReminderRound round) =>
        [.. round.Chase.Messages.SelectMany(m => m.Reminders).Select(r => round.WorkOf(r.Task).Hire).DistinctBy(h => h.Id).Select(h => h.Record)];
}
