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
internal sealed class ReminderMail
{
    private readonly FidDb _db;
    private readonly MailSettings _mail;
    private readonly Firm _firm;
    private readonly ReminderRound _round;
    private readonly LiveFields _fields;
    private readonly IReadOnlyDictionary<Guid, ReachTarget> _targets;
    private readonly MailTexts _texts;

    private ReminderMail(
        FidDb db,
        MailSettings mail,
        Firm firm,
        ReminderRound round,
        LiveFields fields,
        IReadOnlyDictionary<Guid, ReachTarget> targets,
        MailTexts texts
    ) => (_db, _mail, _firm, _round, _fields, _targets, _texts) = (db, mail, firm, round, fields, targets, texts);

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
        var to = _round.AccountOf(message.To);
        var mailed = MailOut.Filled(MailKinds.Reminders, _texts, new MailTo(to.Account, to.Name, to.Email!, to.Language), Words(message, to, asker), now);
        MailOut.Write(_db, mailed);
        return mailed;
    }

    // Of a newcomer it says what its reader may see.
    private object Words(ChaseMessage message, AccountRoles to, string? asker)
    {
        var rights = HeldRights.Of(_fields.Roles, to.AllOf(_fields.Roles));
        return new ReminderWords(to.Language).Of(to.Name, _firm.Name, new Uri(_mail.Site, "tasks"), [.. message.Reminders.Select(Line)], asker);

        RemindedLine Line(Reminder reminder)
        {
            var about = _round.WorkOf(reminder.Task);
            return new RemindedLine(
                reminder.Kind,
                about.Task.Name,
                about.Task.NameDe,
                Reader.Names(rights.On(_fields.Set, _targets[about.Hire.EmploymentId].ReachedBy(to, _fields.Roles))) ? about.Hire.FullName : about.Hire.Number,
                about.Due,
                reminder.Days,
                reminder.For is { } owner ? _round.AccountOf(owner).Name : null
            );
        }
    }

    private static List<CurrentRecord> Records(ReminderRound round) =>
        [.. round.Chase.Messages.SelectMany(m => m.Reminders).Select(r => round.WorkOf(r.Task).Hire).DistinctBy(h => h.Id).Select(h => h.Record)];
}
