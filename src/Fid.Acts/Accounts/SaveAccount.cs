using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Accounts;

/// <summary>Changes what an account is: name, address, roles, teams, whose record. What its user may changes at once, also where they
/// are signed in.</summary>
public sealed class SaveAccount(FidDb db)
{
    public async Task<ActResult> DoAsync(SaveAccountRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Account))
            return Refusal.Forbidden;
        if (request.Seen is not { } seen)
            return Refusal.VersionNeeded;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await AccountInHand.TakeAsync(db, request.Account, cancellation) is not { } account)
            return Refusal.NotFound;
        if (account.Version != seen)
            return Refusal.ChangedMeanwhile;
        var before = await AccountInHand.RolesAsync(db, account.Id, cancellation);
        var was = Words(account, before);
        if (await request.Facts.PutIntoAsync(account, db, cancellation) is { Count: > 0 } problems)
            return Refusal.Invalid(problems);
        if (!actor.May(Actions.Grant, Things.Role) && !before.ToHashSet(StringComparer.Ordinal).SetEquals(request.Facts.Roles))
            return Refusal.Invalid("/roles", "may-not-grant", "You may not give roles, nor take them away.");
        var administering = (await LiveRights.LiveAsync(db, cancellation)).Administering;
        var losesAdministering = before.Exists(administering.Contains) && !request.Facts.Roles.Any(administering.Contains);
        if (losesAdministering && !await AccountInHand.LeavesAdministratorAsync(db, account.Id, cancellation))
            return AccountInHand.LastAdministrator;
        if (account.Id == actor.AccountId && WidensOwn(account, before, db, request.Facts))
            return Refusal.Conflict("own-rights", "This is your own account. Somebody else has to give you more, or say who you are.");
        await AccountInHand.SetRolesAsync(db, account.Id, [.. request.Facts.Roles], actor.Author("admin"), cancellation);
        if (db.ChangeTracker.HasChanges())
        {
            account.Version++;
            act.Note(
                AccountInHand.Entry(
                    actor.Author("admin"),
                    "account.changed",
                    account,
                    new { was, now = Words(account, request.Facts.Roles.Distinct().Order(StringComparer.Ordinal)) }
                )
            );
        }
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    // More roles, other teams, and another person, whose reports would be theirs.
    private static bool WidensOwn(FidUser account, List<string> before, FidDb db, AccountFacts facts)
    {
        var entry = db.Entry(account);
        var teams = (string[])entry.OriginalValues[nameof(FidUser.Teams)]!;
        return facts.Roles.Except(before).Any()
            || facts.Teams.Except(teams).Any()
            || (account.PersonId is not null && account.PersonId != (Guid?)entry.OriginalValues[nameof(FidUser.PersonId)]);
    }

    private static object Words(FidUser account, IEnumerable<string> roles) =>
        new
        {
            name = account.DisplayName,
            email = account.Email,
            roles = roles.ToArray(),
            teams = account.Teams,
            person = account.PersonId,
            language = account.Language,
        };
}

/// <param name="Seen">The version that was looked at; null where it is not said.</param>
public sealed record SaveAccountRequest(Guid Account, AccountFacts Facts, uint? Seen);
