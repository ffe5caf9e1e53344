using Fid.Acts.Hires;
using Fid.Core;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Tasks;

/// <summary>Who can be given tasks.</summary>
public static class TaskOwnerFinder
{
    private static readonly string[] OfHire = [OwnTasks.Newcomer, OwnTasks.Manager, OwnTasks.Buddy, OwnTasks.Coordinator];

    /// <summary>That nobody is meant.</summary>
    public static Problem Unknown { get; } = new("/owner", "unknown-owner", "Choose who does it.");

    /// <summary>The owner who is meant; null where there is none such.</summary>
    public static async Task<FoundOwner?> FindAsync(FidDb db, string? owner, CancellationToken cancellation)
    {
        if (owner is null)
            return null;
        if (OfHire.Contains(owner))
            return new FoundOwner(owner, null);
        if (HireTask.TeamOf(owner) is { } team)
            return await db.ListEntries.AnyAsync(e => e.List == "teams" && e.Code == team, cancellation) ? new FoundOwner(owner, null) : null;
        return HireTask.PersonOf(owner) is { } person
            ? await db
                .CurrentRecords.Where(r => r.EmploymentId == person)
                .Select(r => new FoundOwner(HireTask.PersonPrefix + person, r.CalendarCode))
                .SingleOrDefaultAsync(cancellation)
            : null;
    }
}

/// <summary>Somebody who can be given tasks.</summary>
/// <param name="Owner">As tasks name them.</param>
/// <param name="Calendar">The calendar they work on; null where the task says.</param>
public sealed record FoundOwner(string Owner, string? Calendar);
