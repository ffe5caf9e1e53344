using Microsoft.EntityFrameworkCore;

namespace Fid.Data.Changes;

/// <summary>Whose values were written since a place in the chain of changes: by it, what is kept in memory is brought up to date.</summary>
public static class ChangedOwners
{
    /// <summary>Beyond so many changed people it is quicker to read everybody anew.</summary>
    public const int MostToFollow = 2_000;

    /// <summary>The last place. Every change has one, given in the order in which transactions end: what comes after it is new.</summary>
    public static async Task<long> LastPlaceAsync(FidDb db, CancellationToken cancellation) =>
        (await db.Seals.MaxAsync(s => (long?)s.Position, cancellation)) ?? 0;

    /// <summary>The people and employments of whom a value of some fields was written or ended after a place.</summary>
    public static Task<Guid[]> SinceAsync(FidDb db, string[] fields, long place, CancellationToken cancellation) =>
        db
            .Database.SqlQuery<Guid>(
                $"""
                select v.owner_id as "Value" from seals s join record_values v on v.change_id = s.change_id where s.position > {place}
                  and v.field = any({fields})
                union select v.owner_id from seals s join record_values v on v.ended_by = s.change_id where s.position > {place} and v.field = any({fields})
                """
            )
            .ToArrayAsync(cancellation);
}
