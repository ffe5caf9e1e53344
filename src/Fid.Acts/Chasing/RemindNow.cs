using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Acts.Mail;
using Fid.Acts.Tasks;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Chasing;

/// <summary>Reminds the owners of tasks at once, one message a person, because somebody asks for it.</summary>
public sealed class RemindNow(FidDb db, MailSettings mail)
{
    /// <summary>As the trail names it.</summary>
    public const string Action = "task.reminded";

    private static readonly Refusal Nobody = Refusal.Conflict("nobody", "Nobody who signs in and has an address does it. Give it to somebody who does.");

    /// <returns>The entries in the trail, and the tasks of which nobody was reminded.</returns>
    public async Task<ActResult<TasksChanged>> DoAsync(RemindNowRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Task))
            return Refusal.Forbidden;
        if (TaskChanges.Check(request.Tasks) is { } bad)
            return Refusal.Invalid(bad);
        if (!mail.IsSet)
            return Refusal.Conflict("no-mail", "No mail server is set. Nobody can be written to.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return new TasksChanged([], []);
        var (held, left) = await TasksInHand.TakeAsync(db, actor, [.. request.Tasks.Distinct()], ownToo: false, cancellation);
        var leaving = left.ToList();
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        var round = await ReminderRound.AskedAsync(db, [.. held.Select(TaskRef.Of)], actor.Today, cancellation);
        var letters = await ReminderMail.LoadAsync(db, mail, firm, round, cancellation);
        var (told, unwritten) = (new Dictionary<TaskRef, List<string>>(), (Refusal?)null);
        foreach (var message in round.Chase.Messages)
        {
            if (letters.Write(message, actor.Clock.Now, actor.Name) is { Refused: { } trouble })
            {
                unwritten ??= Refusal.Conflict("no-text", trouble);
                continue;
            }
            foreach (var about in message.Reminders.Select(r => round.WorkOf(r.Task)))
            {
                var task = new TaskRef(about.Hire.Id, about.Task.Key);
                if (!told.TryGetValue(task, out var names))
                    told[task] = names = [];
                names.Add(round.AccountOf(message.To).Name);
            }
        }
        var (entries, author) = (new List<Change>(), actor.Author("checklist"));
        foreach (var task in held)
        {
            var about = TaskRef.Of(task);
            if (told.TryGetValue(about, out var names))
                entries.Add(
                    act.Note(author.Change(Action, task.HireId, task.Key) with { Details = JsonSerializer.Serialize(new { to = names.Distinct().Order() }) })
                );
            else
                leaving.Add(new TaskLeft(about, task.Done is not null || task.SkippedWhy is not null ? TasksInHand.IsNotOpen : unwritten ?? Nobody));
        }
        if (entries.Count == 0)
            return leaving[0].Why;
        await act.CommitAsync(cancellation);
        return new TasksChanged([.. entries.Select(e => e.Id)], leaving);
    }

    /// <summary>Who was told, as the trail keeps it of an act of this kind; nobody for others.</summary>
    public static string[] ToldBy(string? details) =>
        details is not null && JsonNode.Parse(details)?["to"] is JsonArray to ? [.. to.Select(n => n!.GetValue<string>())] : [];
}

public sealed record RemindNowRequest(IReadOnlyList<TaskRef> Tasks);
