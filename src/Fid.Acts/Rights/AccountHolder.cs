using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rights;

/// <summary>Whose an account is, and what they may: read anew for every request, so that what is given or taken holds at once.</summary>
/// <param name="Employments">All employments of the person, by which records name them as manager.</param>
public sealed record AccountHolder(
    Guid AccountId,
    string Name,
    string? Email,
    string Language,
    Guid? PersonId,
    string[] Teams,
    Guid[] Employments,
    HeldRights Rights
)
{
    /// <summary>Who holds an account; null for one that is gone or disabled.</summary>
    /// <param name="today">The day on which their roles are to count.</param>
    public static async Task<AccountHolder?> FindAsync(FidDb db, Guid account, LocalDate today, CancellationToken cancellation)
    {
        // By rule, a role is of those who work here: from their first day to their last.
        var found = await db
            .Database.SqlQuery<Row>(
                $"""
                with me as (select id, display_name, email, language, person_id, teams from users where id = {account} and disabled_at is null),
                  mine as (select e.id, e.start, e."end" from me join employments e on e.person_id = me.person_id)
                select me.display_name, me.email, me.language, me.person_id, me.teams, array(select id from mine) as employments,
                  array(select distinct g.role from role_grants g where g.account_id = me.id and (g."from" is null or g."from" <= {today})
                    and (g."to" is null or g."to" >= {today}) order by 1) as roles,
                  array(select distinct unnest(r.groups) from mine join records_now r on r.employment_id = mine.id
                    where mine.start <= {today} and (mine."end" is null or mine."end" >= {today})) as groups,
                  (select hash from rights_versions order by version desc limit 1) as rights
                from me
                """
            )
            .ToListAsync(cancellation);
        if (found.Count == 0)
            return null;
        var row = found[0];
        var set = await LiveRights.OfAsync(db, row.Rights, cancellation);
        var roles = row.Roles.Concat(set.RolesOf(row.Groups));
        return new AccountHolder(account, row.DisplayName, row.Email, row.Language, row.PersonId, row.Teams, row.Employments, HeldRights.Of(set, roles));
    }

    private sealed record Row(
        string DisplayName,
        string? Email,
        string Language,
        Guid? PersonId,
        string[] Teams,
        Guid[] Employments,
        string[] Roles,
        string[] Groups,
        string? Rights
    );
}
