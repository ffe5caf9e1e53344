using Fid.Acts;
using Fid.Acts.Chasing;
using Fid.Acts.Mail;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Chasing;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Mail;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Server.Exchange;

/// <summary>Whom Fid writes to about their tasks: what goes out on a day, what went out, and when the firm reminds at all.</summary>
internal static class RemindersEndpoints
{
    private static readonly LocalTimePattern TimeOfDay = LocalTimePattern.CreateWithInvariantCulture("HH:mm");

    private const int MostDaysAhead = 60,
        MostMessages = 200,
        MostUnowned = 200;

    public static void MapReminders(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/reminders", Show).WhoMay(Actions.Edit, Things.Task).ProducesProblem(400);
        app.MapGet("/api/reminders/sent", Sent).WhoMay(Actions.Edit, Things.Task);
        app.MapPut("/api/reminders/sent/{id:guid}", Settle).WhoMay(Actions.Edit, Things.Task).ProducesProblem(404).ProducesProblem(409);
        app.MapPut("/api/reminders/settings", Set).WhoMay(Actions.Edit, Things.Settings).ProducesProblem(400);
    }

    /// <summary>What goes out on a day as things are now: tomorrow, where no day is said. Of a day later than tomorrow it says what would go out
    /// if nothing went out before it.</summary>
    private static async Task<Results<Ok<RemindersResponse>, ProblemHttpResult>> Show(
        LocalDateParameter? on,
        Actor actor,
        FidDb db,
        MailSettings mail,
        CancellationToken cancellation
    )
    {
        var day = on?.Date ?? actor.Today.PlusDays(1);
        if (day < actor.Today || day > actor.Today.PlusDays(MostDaysAhead))
            return Problems.Invalid(new Problem("/on", "out-of-range", $"Choose a day from today on, at most {MostDaysAhead} ahead."));
        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        var round = await ReminderRound.LoadAsync(db, firm, day, cancellation);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var unowned = round.Unowned.Where(IsSeen).ToList();
        return TypedResults.Ok(
            new RemindersResponse(
                day,
                mail.IsSet,
                new ReminderSettings(
                    firm.RemindBefore,
                    firm.RemindOnDue,
                    firm.RemindEvery,
                    firm.RemindMost,
                    firm.EscalateAfter,
                    TimeOfDay.Format(firm.RemindAt),
                    firm.RemindersPaused
                ),
                [
                    .. round
                        .Chase.Messages.Select(m => new ReminderMessage(
                            round.AccountOf(m.To).Name,
                            round.AccountOf(m.To).Email!,
                            [
                                .. m
                                    .Reminders.Where(r => IsSeen(round.WorkOf(r.Task)))
                                    .Select(r => new ReminderLine(
                                        About(round.WorkOf(r.Task)),
                                        r.Kind,
                                        r.Days,
                                        r.For is { } owner ? round.AccountOf(owner).Name : null
                                    )),
                            ]
                        ))
                        .Where(m => m.Lines.Length > 0)
                        .OrderBy(m => m.Name, StringComparer.Ordinal),
                ],
                [
                    .. round
                        .Chase.Waiting.Where(w => w.Why is WaitingReason.RestDay or WaitingReason.NoManager && IsSeen(round.WorkOf(w.Task)))
                        .Select(w => new UnsentReminder(About(round.WorkOf(w.Task)), w.Why, round.AccountOf(round.WorkOf(w.Task).Owner.ToString()).Name)),
                ],
                unowned.Count,
                [.. unowned.Take(MostUnowned).Select(About)]
            )
        );

        bool IsSeen(ChasedWork work) => reader.May(Actions.See, Things.Hire, work.Hire.Record);

        RemindedTask About(ChasedWork work) =>
            new(work.Hire.Id, Reader.Names(reader.On(work.Hire.Record)) ? work.Hire.FullName : work.Hire.Number, work.Task.Called, work.Due);
    }

    /// <summary>The messages that came back and nobody has dealt with, and those that went out last, or are to, the latest first.</summary>
    private static async Task<Ok<SentMessage[]>> Sent(Actor actor, FidDb db, CancellationToken cancellation)
    {
        // A message is whole: who does not see every hire might read in it of one they do not see.
        if (!actor.Rights.MayToAll(Actions.See, Things.Hire) || !(await Reader.OfAsync(actor, db, cancellation)).SeesNames)
            return TypedResults.Ok(Array.Empty<SentMessage>());
        var messages = await db
            .MailMessages.AsNoTracking()
            .OrderBy(m => m.Refused != null && m.SettledAt == null ? 0 : 1)
            .ThenByDescending(m => m.At)
            .ThenBy(m => m.Id)
            .Take(MostMessages)
            .ToListAsync(cancellation);
        var ids = messages.ConvertAll(m => m.Id.ToString());
        var trouble = await db
            .Jobs.Where(j => j.Kind == SendMail.Kind && ids.Contains(j.Argument!) && j.Trouble != null)
            .ToDictionaryAsync(j => j.Argument!, j => j.Trouble, cancellation);
        return TypedResults.Ok(messages.Select(m => SentMessage.Of(m, trouble.GetValueOrDefault(m.Id.ToString()))).ToArray());
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Settle(
        Guid id,
        MailBackRequest request,
        Actor actor,
        SettleMail settle,
        CancellationToken cancellation
    ) => (await settle.DoAsync(new SettleMailRequest(id, request.Again), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> Set(
        ReminderSettings request,
        Actor actor,
        SetReminders set,
        CancellationToken cancellation
    )
    {
        if (TimeOfDay.Parse(request.At ?? "") is not { Success: true, Value: var at })
            return Problems.Invalid(new Problem("/at", "bad-value", "Enter a time of day, such as 07:00."));
        return (
            await set.DoAsync(
                new SetRemindersRequest(request.Before ?? [], request.OnDue, request.Every, request.Most, request.EscalateAfter, at, request.Paused),
                actor,
                cancellation
            )
        ).Answer();
    }
}

/// <param name="HasServer">Whether a mail server is set: without one nothing goes out.</param>
/// <param name="Messages">One for each person who is written to.</param>
/// <param name="Waiting">What does not go out although its moment has come.</param>
/// <param name="UnownedCount">How many tasks nobody owns who can sign in.</param>
/// <param name="Unowned">Some of them.</param>
public sealed record RemindersResponse(
    LocalDate On,
    bool HasServer,
    ReminderSettings Settings,
    ReminderMessage[] Messages,
    UnsentReminder[] Waiting,
    int UnownedCount,
    RemindedTask[] Unowned
);

/// <param name="Before">How many working days before it is due, each.</param>
/// <param name="OnDue">Whether on the day.</param>
/// <param name="Every">Every how many working days after it.</param>
/// <param name="Most">How often after it at most.</param>
/// <param name="EscalateAfter">How many working days after it the owner's manager is told; null for never.</param>
/// <param name="At">From when on, in the firm's zone: HH:mm.</param>
/// <param name="Paused">Whether nobody is reminded for now.</param>
public sealed record ReminderSettings(int[]? Before, bool OnDue, int Every, int Most, int? EscalateAfter, string? At, bool Paused);

public sealed record ReminderMessage(string Name, string Address, ReminderLine[] Lines);

/// <param name="Days">Working days of the owner from the due date: negative before it.</param>
/// <param name="For">Whose task it is, where somebody else is told.</param>
public sealed record ReminderLine(RemindedTask Task, ReminderKind Kind, int Days, string? For);

/// <param name="Due">By when it is to be done; null for by no day.</param>
public sealed record RemindedTask(Guid HireId, string Hire, string Name, LocalDate? Due);

/// <param name="Owner">Whose task it is.</param>
public sealed record UnsentReminder(RemindedTask Task, WaitingReason Why, string Owner);

/// <param name="Again">Whether a message that came back is sent once more; else it is laid aside.</param>
public sealed record MailBackRequest(bool Again);

/// <param name="SentAt">When the mail server took it; null while it has not.</param>
/// <param name="Refused">Why it cannot be delivered; null where nothing is known to be wrong.</param>
/// <param name="Trouble">What went wrong last, where it is tried again.</param>
/// <param name="IsBack">Whether it came back, and nobody has dealt with it.</param>
/// <param name="CanGoAgain">Whether it can be sent once more: one that could not be written cannot.</param>
public sealed record SentMessage(
    Guid Id,
    string Name,
    string Address,
    string Subject,
    string Text,
    Instant At,
    Instant? SentAt,
    string? Refused,
    string? Trouble,
    Guid AccountId,
    bool IsBack,
    bool CanGoAgain
)
{
    internal static SentMessage Of(MailMessage message, string? trouble) =>
        new(
            message.Id,
            message.Name,
            message.Address,
            message.Subject,
            message.Text,
            message.At,
            message.SentAt,
            message.Refused,
            trouble,
            message.AccountId,
            message is { Refused: not null, SettledAt: null },
            message.Text.Length > 0
        );
}
