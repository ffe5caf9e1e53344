using Fid.Acts.Calendars;
using Fid.Acts.Chasing;
using Fid.Acts.Mail;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Rights;
using Fid.Core.Chasing;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Invitations;

/// <summary>What a text would be filled with in the case of a hire, as somebody who may see that hire would read it.</summary>
public sealed class MailExample(FidDb db, MailSettings mail)
{
    private const int MostTasks = 6;

    /// <param name="hire">The hire; null for the next to start that the actor sees.</param>
    /// <returns>Null where there is no such hire, or nothing is left to do of it.</returns>
    public async Task<object?> OfAsync(MailKind kind, string language, Guid? hire, Actor actor, CancellationToken cancellation)
    {
        var reached = await ReachedHires.NarrowAsync(actor, db, Actions.See, Things.Hire, cancellation);
        var wanted = reached(db.Hires).Where(h => h.Closed == null && h.Tasks.Any(t => t.Done == null && t.SkippedWhy == null));
        if (await wanted.Where(h => hire == null || h.Id == hire).OrderBy(h => h.Start).ThenBy(h => h.Id).FirstOrDefaultAsync(cancellation) is not { } found)
            return null;
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        var underWay = (await HiresUnderWay.LoadAsync(db, all => all.Where(h => h.Id == found.Id), cancellation)).Single();
        var plan = HirePlan.Of(
            underWay.Question(actor.Today, await CalendarSet.LoadAsync(db, cancellation), await StagePlans.LoadAsync(db, cancellation)),
            SoonestSearch.Never
        );
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var called = Reader.Names(reader.On(underWay.Head.Record)) ? underWay.Head.FullName : underWay.Head.Number;
        var lines = underWay
            .Tasks.Zip(plan.Tasks)
            .Where(t => t.Second.Unfinished)
            .OrderBy(t => t.Second.Due ?? t.Second.LatestFinish)
            .Take(MostTasks)
            .Select(t => (Task: t.First, Due: t.Second.Due ?? t.Second.LatestFinish))
            .Select(t => new RemindedLine(
                t.Due < actor.Today ? ReminderKind.Overdue
                    : t.Due == actor.Today ? ReminderKind.Due
                    : t.Due is null ? ReminderKind.Opened
                    : ReminderKind.Before,
                t.Task.Name,
                t.Task.NameDe,
                called,
                t.Due,
                t.Due is { } due ? NodaTime.Period.DaysBetween(due, actor.Today) : 0,
                null
            ))
            .ToList();
        if (kind == MailKinds.Invitations)
            return InvitationWords.Of(Meeting(lines[0], actor, language), new MailTo(actor.Account, actor.Name, mail.From, language), firm.Name, mail.Site);
        return new ReminderWords(language).Of(actor.Name, firm.Name, new Uri(mail.Site, "tasks"), lines, null);
    }

    // One meets for the first of them, somewhere, so that a text shows all it can.
    private static TaskInvitation Meeting(RemindedLine line, Actor actor, string language) =>
        new()
        {
            HireId = Guid.Empty,
            TaskKey = "",
            AccountId = actor.Account,
            What = language == "de" ? line.TaskDe ?? line.Task : line.Task,
            Whom = line.Hire,
            Day = line.Due ?? actor.Today,
            At = new NodaTime.LocalTime(9, 30),
            Minutes = 90,
            Place = language == "de" ? "Hafenbüro" : "Harbour office",
        };
}
