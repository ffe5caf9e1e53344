using Fid.Acts.People;
using Fid.Core.Clock;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Who else carries somebody's badge, as far as a reader may look them up.</summary>
internal sealed class BadgeReading
{
    // More have never carried one badge.
    private const int MostOthers = 200;

    private readonly Employment _employment;
    private readonly string _badge;
    private readonly BadgeAssignment[] _others;
    private readonly Dictionary<string, string?> _names;

    private BadgeReading(Employment employment, string badge, BadgeAssignment[] others, Dictionary<string, string?> names) =>
        (_employment, _badge, _others, _names) = (employment, badge, others, names);

    public static async Task<BadgeReading> LoadAsync(FidDb db, Reader reader, Employment employment, string badge, CancellationToken cancellation)
    {
        var others = await (
            from record in db.CurrentRecords.AsNoTracking()
            join other in db.Employments on record.EmploymentId equals other.Id
            where record.Badge == badge && record.EmploymentId != employment.Id
            orderby record.EmploymentId
            select new
            {
                record,
                other.Number,
                other.Start,
                other.End,
            }
        )
            .Take(MostOthers)
            .ToListAsync(cancellation);
        return new BadgeReading(
            employment,
            badge,
            [.. others.Select(o => new BadgeAssignment(o.record.EmploymentId.ToString(), badge, "", o.record.PersonId.ToString(), o.Start, o.End))],
            others.ToDictionary(o => o.record.EmploymentId.ToString(), o => reader.MayOpen(o.record) ? reader.NameOf(o.record, o.Number) : null)
        );
    }

    /// <summary>Where it clashes, should they start on a day.</summary>
    /// <param name="restDays">Full days a badge should lie unused before another person gets it.</param>
    public BadgeClash[] Clashes(LocalDate start, int restDays)
    {
        var own = _employment.Id.ToString();
        var assignments = _others
            .Prepend(new BadgeAssignment(own, _badge, "", _employment.PersonId.ToString(), start, _employment.End))
            .Where(a => a.To is null || a.To >= a.From)
            .ToArray();
        var conflicts = Badges.Check(assignments, restDays).Answer ?? [];
        return [.. conflicts.Where(c => c.Ids.Contains(own)).Select(c => new BadgeClash(c.Kind, _badge, _names[c.Ids.First(i => i != own)]))];
    }
}

/// <param name="Other">Whose badge it is as well; null for somebody the reader may not look up.</param>
public sealed record BadgeClash(BadgeConflictKind Kind, string Badge, string? Other);
