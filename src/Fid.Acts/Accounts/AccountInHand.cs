using System.Text.Json;
using Fid.Acts.Rights;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using RoleGrant = Fid.Data.Rights.RoleGrant;

namespace Fid.Acts.Accounts;

/// <summary>What acts on accounts have in common: one account held, and its roles.</summary>
internal static class AccountInHand
{
    /// <summary>An account, while nobody else changes who may sign in; null where there is none.</summary>
    public static async Task<FidUser?> TakeAsync(FidDb db, Guid account, CancellationToken cancellation)
    {
        await Locks.AccountsAsync(db, cancellation);
        return await db.Users.SingleOrDefaultAsync(u => u.Id == account, cancellation);
    }

    /// <summary>The roles it has for good, in order.</summary>
    public static Task<List<string>> RolesAsync(FidDb db, Guid account, CancellationToken cancellation) =>
        db.RoleGrants.Where(g => g.AccountId == account && g.From == null && g.To == null).Select(g => g.Role).OrderBy(r => r).ToListAsync(cancellation);

    /// <summary>Gives it these roles for good and no others; what it has for a time stays. Tracked, to be saved with the rest.</summary>
    public static async Task SetRolesAsync(FidDb db, Guid account, IReadOnlyCollection<string> roles, Author author, CancellationToken cancellation)
    {
        var there = await db.RoleGrants.Where(g => g.AccountId == account && g.From == null && g.To == null).ToListAsync(cancellation);
        db.RoleGrants.RemoveRange(there.Where(g => !roles.Contains(g.Role)));
        db.RoleGrants.AddRange(roles.Distinct(StringComparer.Ordinal).Except(there.Select(g => g.Role)).Select(r => Grant(account, r, author.At, author.Name)));
    }

    /// <summary>What is wrong with granting a role; null for nothing.</summary>
    public static Problem? CheckRole(string pointer, string role, RoleSet known) =>
        known.Find(role) is null ? new Problem(pointer, "unknown-role", "There is no such role.")
        : RoleSet.IsByRuleAlone(role) ? new Problem(pointer, "by-rule-alone", "Everybody who works here has this role anyway. Choose another one.")
        : null;

    /// <summary>A role given to an account for good.</summary>
    public static RoleGrant Grant(Guid account, string role, Instant at, string by) =>
        new()
        {
            AccountId = account,
            Role = role,
            At = at,
            ByName = by,
        };

    /// <summary>Whether somebody else can sign in who may give roles and invite, for good. Without one nobody could ever be given anything again.</summary>
    public static async Task<bool> LeavesAdministratorAsync(FidDb db, Guid account, CancellationToken cancellation)
    {
        var administering = (await LiveRights.LiveAsync(db, cancellation)).Administering;
        return await db
            .Users.Where(u => u.Id != account && u.DisabledAt == null && u.PasswordHash != null)
            .AnyAsync(u => db.RoleGrants.Any(g => g.AccountId == u.Id && g.From == null && g.To == null && administering.Contains(g.Role)), cancellation);
    }

    /// <summary>Why the last administrator stays one.</summary>
    public static Refusal LastAdministrator { get; } =
        Refusal.Conflict("last-administrator", "Nobody else can sign in as administrator. Invite another one first.");

    /// <summary>An entry about an account, with whose it is and what there is now.</summary>
    public static Change Entry(Author author, string action, FidUser account, object? now = null) =>
        author.Change(action, account.Id, account.DisplayName) with
        {
            Details = now is null ? null : JsonSerializer.Serialize(now),
        };
}
