using System.Text.Json;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

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

    /// <summary>The names of its roles, in order.</summary>
    public static Task<List<string>> RolesAsync(FidDb db, Guid account, CancellationToken cancellation) =>
        db
            .UserRoles.Where(r => r.UserId == account)
            .Join(db.Roles, u => u.RoleId, r => r.Id, (_, role) => role.Name!)
            .OrderBy(n => n)
            .ToListAsync(cancellation);

    /// <summary>Gives it these roles and no others. Tracked, to be saved with the rest.</summary>
    public static async Task SetRolesAsync(FidDb db, Guid account, IReadOnlyCollection<string> roles, CancellationToken cancellation)
    {
        var wanted = await db.Roles.Where(r => roles.Contains(r.Name!)).Select(r => r.Id).ToListAsync(cancellation);
        var there = await db.UserRoles.Where(r => r.UserId == account).ToListAsync(cancellation);
        db.UserRoles.RemoveRange(there.Where(r => !wanted.Contains(r.RoleId)));
        db.UserRoles.AddRange(wanted.Except(there.Select(r => r.RoleId)).Select(r => new IdentityUserRole<Guid> { UserId = account, RoleId = r }));
    }

    /// <summary>Whether somebody else can sign in as administrator. Without one nobody could ever be invited again.</summary>
    public static Task<bool> LeavesAdministratorAsync(FidDb db, Guid account, CancellationToken cancellation) =>
        db
            .Users.Where(u => u.Id != account && u.DisabledAt == null && u.PasswordHash != null)
            .AnyAsync(
                u => db.UserRoles.Any(r => r.UserId == u.Id && db.Roles.Any(role => role.Id == r.RoleId && role.Name == Roles.Administrator)),
                cancellation
            );

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
