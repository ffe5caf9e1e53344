using Fid.Acts.Rights;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Accounts;

/// <summary>Gives a role to an account for a time. What is for good stands with the account itself.</summary>
public sealed class GrantRole(FidDb db)
{
    /// <returns>The grant.</returns>
    public async Task<ActResult<Guid>> DoAsync(GrantRoleRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Grant, Things.Role))
            return Refusal.Forbidden;
        if (request.Account == actor.AccountId)
            return Refusal.Conflict("own-rights", "This is your own account. Somebody else has to give you more.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        var problems = Check(request, actor.Today).ToList();
        if (AccountInHand.CheckRole("/role", request.Role, await LiveRights.LiveAsync(db, cancellation)) is { } wrong)
            problems.Add(wrong);
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        if (await AccountInHand.TakeAsync(db, request.Account, cancellation) is not { } account)
            return Refusal.NotFound;
        var there = await db.RoleGrants.AsNoTracking().Where(g => g.AccountId == account.Id && g.Role == request.Role).ToListAsync(cancellation);
        if (act.IsDoneAlready && there.Find(g => g.From == request.From && g.To == request.To) is { } done)
            return done.Id;
        if (there.Exists(g => !(g.To < request.From) && !(g.From > request.To)))
            return Refusal.Invalid("/role", "granted-already", "They have this role then already. Look at what they have, and end that first.");
        var author = actor.Author("admin");
        var grant = new Data.Rights.RoleGrant
        {
            AccountId = account.Id,
            Role = request.Role,
            From = request.From,
            To = request.To,
            At = author.At,
            ByName = author.Name,
        };
        db.RoleGrants.Add(grant);
        account.Version++;
        act.Note(AccountInHand.Entry(author, "role.granted", account, Words(grant)) with { Why = Reason.Clean(request.Why) });
        await act.CommitAsync(cancellation);
        return grant.Id;
    }

    internal static object Words(Data.Rights.RoleGrant grant) =>
        new
        {
            role = grant.Role,
            from = grant.From?.ToString("uuuu-MM-dd", null),
            to = grant.To?.ToString("uuuu-MM-dd", null),
        };

    private static IEnumerable<Problem> Check(GrantRoleRequest request, LocalDate today)
    {
        if (request.From is { } from && !ValueCheck.IsSensible(from))
            yield return new Problem("/from", "bad-date", "Enter a date from 1900 to 2199.");
        if (request.To is { } to && !ValueCheck.IsSensible(to))
            yield return new Problem("/to", "bad-date", "Enter a date from 1900 to 2199.");
        else if (request.From is null && request.To is null)
            yield return new Problem("/to", "missing", "Say from when, or until when. What is for good is chosen with the account.");
        else if (request.To < request.From)
            yield return new Problem("/to", "not-in-order", "It does not end before it begins.");
        else if (request.To < today)
            yield return new Problem("/to", "past", "That day is over. Choose today or a later one.");
        if (Reason.Check(request.Why) is { } reason)
            yield return reason;
    }
}

/// <param name="From">The first day, included; null for from now on.</param>
/// <param name="To">The last day, included; null for good.</param>
public sealed record GrantRoleRequest(Guid Account, string Role, LocalDate? From, LocalDate? To, string? Why);
