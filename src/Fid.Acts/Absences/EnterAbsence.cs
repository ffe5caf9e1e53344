using Fid.Acts.Accounts;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Absences;

/// <summary>Says when somebody is away, and who does their tasks and decides in their place: they themselves, or whoever looks after accounts.</summary>
public sealed class EnterAbsence(FidDb db)
{
    /// <summary>How many that are not over one account can have.</summary>
    public const int Most = 50;

    /// <returns>The absence.</returns>
    public async Task<ActResult<Guid>> DoAsync(EnterAbsenceRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!AbsenceInHand.MayChange(actor, request.Account))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        var problems = Check(request, actor.Today).ToList();
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        if (await AccountInHand.TakeAsync(db, request.Account, cancellation) is not { } account)
            return Refusal.NotFound;
        var there = await db.AccountAbsences.AsNoTracking().Where(a => a.AccountId == account.Id && a.To >= actor.Today).ToListAsync(cancellation);
        if (act.IsDoneAlready && there.Find(a => a.From == request.From && a.To == request.To) is { } done)
            return done.Id;
        if (there.Find(a => a.From <= request.To && a.To >= request.From) is { } same)
            return Refusal.Invalid("/from", "away-already", $"An absence from {Iso(same.From)} to {Iso(same.To)} is entered already. Take it away first.");
        if (there.Count >= Most)
            return Refusal.Conflict("too-many-absences", $"There can be {Most} absences that are not over. Take one away first.");
        var standIn = request.StandIn is null ? null : await StandInAsync(request.StandIn.Value, cancellation);
        if (request.StandIn is not null && standIn is null)
            return Refusal.Invalid("/standIn", "cannot-sign-in", "This person cannot sign in. Choose somebody else.");
        if (standIn == account.Id)
            return Refusal.Invalid("/standIn", "stands-in-for-self", "Nobody stands in for themselves. Choose somebody else, or nobody.");
        var author = actor.Author("tasks");
        var absence = new AccountAbsence
        {
            AccountId = account.Id,
            From = request.From,
            To = request.To,
            StandInId = standIn,
            At = author.At,
            ByName = author.Name,
        };
        db.AccountAbsences.Add(absence);
        act.Note(AccountInHand.Entry(author, "absence.entered", account, await AbsenceInHand.WordsAsync(db, absence, cancellation)));
        await act.CommitAsync(cancellation);
        return absence.Id;
    }

    private static IEnumerable<Problem> Check(EnterAbsenceRequest request, LocalDate today)
    {
        if (!ValueCheck.IsSensible(request.From))
            yield return new Problem("/from", "bad-date", "Enter a date from 1900 to 2199.");
        if (!ValueCheck.IsSensible(request.To))
            yield return new Problem("/to", "bad-date", "Enter a date from 1900 to 2199.");
        else if (request.To < request.From)
            yield return new Problem("/to", "not-in-order", "An absence does not end before it begins.");
        else if (request.To < today)
            yield return new Problem("/to", "past", "That day is over. Choose today or a later one.");
    }

    // The account of somebody who is chosen by an employment of theirs, as records name people.
    private Task<Guid?> StandInAsync(Guid employment, CancellationToken cancellation) =>
        db
            .Users.Where(u => u.DisabledAt == null && u.PasswordHash != null && db.Employments.Any(e => e.Id == employment && e.PersonId == u.PersonId))
            .OrderBy(u => u.Id)
            .Select(u => (Guid?)u.Id)
            .FirstOrDefaultAsync(cancellation);

    private static string Iso(LocalDate date) => date.ToString("uuuu-MM-dd", null);
}

/// <param name="Account">Whose account it is.</param>
/// <param name="From">The first day, included.</param>
/// <param name="To">The last day, included.</param>
/// <param name="StandIn">An employment of who acts in their place; null for nobody.</param>
public sealed record EnterAbsenceRequest(Guid Account, LocalDate From, LocalDate To, Guid? StandIn);
