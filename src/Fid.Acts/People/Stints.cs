using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>All stints of a person.</summary>
public static class Stints
{
    /// <summary>Whether one of them goes on on a day, or begins later.</summary>
    /// <param name="except">The employment that does not count; null where all do.</param>
    public static async Task<bool> AnyGoesOnAsync(FidDb db, Guid person, LocalDate day, Guid? except, CancellationToken cancellation) =>
        (await db.Employments.AsNoTracking().Where(e => e.PersonId == person && e.Id != except).ToListAsync(cancellation)).Exists(e => e.Stint.GoesOn(day));
}
