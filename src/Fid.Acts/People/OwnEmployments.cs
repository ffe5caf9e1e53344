using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>The actor's own employments: what the manager field of a record names.</summary>
public static class OwnEmployments
{
    public static async Task<Guid[]> OfAsync(Actor actor, FidDb db, CancellationToken cancellation) =>
        actor.PersonId is { } person ? await db.Employments.Where(e => e.PersonId == person).Select(e => e.Id).ToArrayAsync(cancellation) : [];
}
