using Fid.Acts.Chasing;
using Fid.Acts.Fields;
using Fid.Acts.Mail;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Acts.Tasks;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Invitations;

/// <summary>Invites the newcomer and whoever does it to tasks that have a time: as soon as their day is known, again when anything of it changes, and
/// says so when it is off. What is past is left alone.</summary>
public sealed class SendInvitations(FidDb db, MailSettings mail)
{
    /// <summary>The job that does it for one hire: the database asks for it when something of the hire changes.</summary>
    public const string Kind = "invitations";

    // Few enough that others who change one of these hires wait only for a moment.
    private const int Together = 100;

    /// <returns>How many messages were written.</returns>
    public async Task<ActResult<int>> DoAsync(SendInvitationsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        if (!mail.IsSet)
            return 0;
        var written = 0;
        foreach (var hires in (await ConcernedAsync(request.Hires, cancellation)).Chunk(Together))
        {
            written += await SendAsync(request, hires, actor, cancellation);
            db.ChangeTracker.Clear();
        }
        return written;
    }

    // Of those asked for, or of all, the hires whose tasks have people meet or had them.
    private Task<List<Guid>> ConcernedAsync(IReadOnlyList<Guid>? hires, CancellationToken cancellation) =>
        db
            .Hires.Where(h => hires == null || hires.Contains(h.Id))
            .Where(h => (h.Closed == null && h.Tasks.Any(t => t.MeetsAt != null)) || db.TaskInvitations.Any(i => i.HireId == h.Id && !i.Cancelled))
            .OrderBy(h => h.Id)
            .Select(h => h.Id)
            .ToListAsync(cancellation);

    private async Task<int> SendAsync(SendInvitationsRequest request, Guid[] hires, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request, cancellation);
        await Locks.HiresAsync(db, hires, cancellation);
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        var found = await FoundWork.LoadAsync(db, all => all.Where(h => hires.Contains(h.Id)), actor.Today, cancellation);
        var accounts = await InvitedAsync(found, hires, actor.Today, cancellation);
        var tasks = await db.HireTasks.AsNoTracking().Where(t => hires.Contains(t.HireId) && t.MeetsAt != null).ToDictionaryAsync(TaskRef.Of, cancellation);
        var meetings = await MeetingsAsync(found, accounts, tasks, actor.Today, cancellation);
        var known = await db.TaskInvitations.Where(i => hires.Contains(i.HireId)).ToDictionaryAsync(Place.Of, cancellation);
        var changed = new List<TaskInvitation>();
        foreach (var (place, meeting) in meetings)
            if (Invited(known.GetValueOrDefault(place), place, meeting) is { } invitation)
                changed.Add(invitation);
        foreach (var (place, invitation) in known)
            // What was done is over: nobody is told that it is off.
            if (!invitation.Cancelled && invitation.Day >= actor.Today && !meetings.ContainsKey(place) && !IsOver(place))
            {
                (invitation.Cancelled, invitation.Sequence) = (true, invitation.Sequence + 1);
                changed.Add(invitation);
            }
        var written = await WriteAsync(changed, accounts, firm, actor, cancellation);
        await act.CommitAsync(cancellation);
        return written;

        bool IsOver(Place place) => tasks.GetValueOrDefault(new TaskRef(place.Hire, place.Task)) is { Done: not null };
    }

    // Those who sign in, and the newcomers, though nobody has invited them to sign in yet: they are expected all the same.
    private async Task<List<AccountRoles>> InvitedAsync(FoundWork found, Guid[] hires, LocalDate today, CancellationToken cancellation)
    {
        var newcomers = await db
            .Hires.Where(h => hires.Contains(h.Id))
            .Join(db.CurrentRecords, h => h.EmploymentId, r => r.EmploymentId, (_, r) => (Guid?)r.PersonId)
            .ToArrayAsync(cancellation);
        var asleep = await AccountRoles
            .On(db, today)
            .Where(a => newcomers.Contains(a.Person) && !a.HasPassword && !a.IsDisabled && a.Email != null)
            .OrderBy(a => a.Account)
            .ToListAsync(cancellation);
        return [.. found.Accounts, .. asleep];
    }

    // Also what nobody who signs in does: the newcomer is expected there.
    private static IEnumerable<ChasedWork> All(FoundWork found) => found.Work.Values.Concat(found.Unowned);

    // Whom the tasks of some hires have meet, and when.
    private async Task<Dictionary<Place, Meeting>> MeetingsAsync(
        FoundWork found,
        List<AccountRoles> accounts,
        Dictionary<TaskRef, HireTask> tasks,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var targets = await ReachTarget.LoadAsync(db, [.. All(found).Select(w => w.Hire).DistinctBy(h => h.Id).Select(h => h.Record)], cancellation);
        var meetings = new Dictionary<Place, Meeting>();
        foreach (var work in All(found))
        {
            if (work.Due is not { } day || day < today || work.Task.Kind != TaskKind.Attend)
                continue;
            if (!tasks.TryGetValue(new TaskRef(work.Hire.Id, work.Task.Key), out var task))
                continue;
            var newcomer = accounts.Find(a => a.Person == work.Hire.PersonId);
            foreach (var account in accounts.Where(a => a.Account == work.Owner || a == newcomer))
            {
                var rights = HeldRights.Of(fields.Roles, account.AllOf(fields.Roles));
                var names = Reader.Names(rights.On(fields.Set, targets[work.Hire.EmploymentId].ReachedBy(account, fields.Roles)));
                meetings[new Place(work.Hire.Id, task.Key, account.Account)] = new Meeting(
                    account.Language == "de" ? task.NameDe ?? task.Name : task.Name,
                    account == newcomer ? null
                        : names ? work.Hire.FullName
                        : work.Hire.Number,
                    day,
                    task.MeetsAt!.Value,
                    task.Minutes ?? Meeting.UsualMinutes,
                    task.Place
                );
            }
        }
        return meetings;
    }

    private TaskInvitation? Invited(TaskInvitation? before, Place place, Meeting meeting)
    {
        if (before is null)
            return db
                .TaskInvitations.Add(
                    new TaskInvitation
                    {
                        HireId = place.Hire,
                        TaskKey = place.Task,
                        AccountId = place.Account,
                        What = meeting.What,
                        Whom = meeting.Whom,
                        Day = meeting.Day,
                        At = meeting.At,
                        Minutes = meeting.Minutes,
                        Place = meeting.Place,
                    }
                )
                .Entity;
        if (!before.Cancelled && meeting == new Meeting(before.What, before.Whom, before.Day, before.At, before.Minutes, before.Place))
            return null;
        (before.What, before.Whom, before.Day, before.At) = (meeting.What, meeting.Whom, meeting.Day, meeting.At);
        (before.Minutes, before.Place, before.Cancelled, before.Sequence) = (meeting.Minutes, meeting.Place, false, before.Sequence + 1);
        return before;
    }

    private async Task<int> WriteAsync(List<TaskInvitation> changed, List<AccountRoles> accounts, Firm firm, Actor actor, CancellationToken cancellation)
    {
        var texts = await MailTexts.LoadAsync(db, MailKinds.Invitations, cancellation);
        var written = 0;
        foreach (var invitation in changed)
        {
            // Whose account is disabled is told nothing.
            if (accounts.Find(a => a.Account == invitation.AccountId) is not { Email: { } address } account)
                continue;
            var to = new MailTo(account.Account, account.Name, address, account.Language);
            var words = InvitationWords.Of(invitation, to, firm.Name, new Uri(mail.Site, $"hires/{invitation.HireId}/checklist"));
            var calendar = InvitationWords.Calendar(invitation, to, firm, mail.From, actor.Clock.Now);
            MailOut.Write(db, MailOut.Filled(MailKinds.Invitations, texts, to, words, actor.Clock.Now, calendar));
            written++;
        }
        return written;
    }

    // Of whom an invitation is, and to what.
    private readonly record struct Place(Guid Hire, string Task, Guid Account)
    {
        public static Place Of(TaskInvitation invitation) => new(invitation.HireId, invitation.TaskKey, invitation.AccountId);
    }
}

/// <param name="Hires">Whose tasks are looked at; null for those of all.</param>
public sealed record SendInvitationsRequest(IReadOnlyList<Guid>? Hires);
