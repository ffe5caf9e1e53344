using Fid.Core.Lists;
using Fid.Data.Fields;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Data.Exchange;

/// <summary>Everything a sheet can go into.</summary>
public sealed class ImportTargets(FidDb db, RecordWriter writer, HireOpening opening, HireClosing closing, PeopleIndex people)
{
    /// <summary>What a key names, for somebody: of the people it takes what they may see, and changes what they may edit.</summary>
    public async Task<ImportTarget?> FindAsync(string key, Guid user, CancellationToken cancellation) =>
        key == PeopleTarget.Key ? await PeopleAsync(user, cancellation)
        : ShippedLists.Find(key) is { } list ? new ListTarget(db, list) : null;

    /// <summary>What a run goes into, for whoever began it.</summary>
    public async Task<ImportTarget> OfAsync(ImportRun run, CancellationToken cancellation) =>
        await FindAsync(run.List, run.ById, cancellation) ?? throw new InvalidOperationException($"There is nothing called {run.List} to import into.");

    /// <summary>The people, for somebody.</summary>
    public async Task<PeopleTarget> PeopleAsync(Guid user, CancellationToken cancellation)
    {
        var roles = await db.UserRoles.Where(r => r.UserId == user).Join(db.Roles, u => u.RoleId, r => r.Id, (_, role) => role.Name!).ToListAsync(cancellation);
        return new PeopleTarget(db, writer, opening, closing, people, await new FieldBook(db).LiveAsync(cancellation), roles);
    }
}
