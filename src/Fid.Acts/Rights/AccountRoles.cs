using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Rights;

/// <summary>What is held with an account on a day: by grants that count then, and by rule through the groups of its person.</summary>
/// <param name="StandsInFor">The accounts of those for whom they stand in on the day, also by way of others who are away.</param>
/// <param name="HasPassword">Whether somebody can sign in with it, unless it is disabled.</param>
/// <param name="Employments">All employments of the person, by which records name them as manager.</param>
/// <param name="Present">Those that have begun and have not ended: by rule, a role is of those who work here, from their first day to their last.</param>
/// <param name="Roles">The roles that were granted to it.</param>
/// <param name="Groups">The groups that the person is in by the records of present employments.</param>
/// <param name="Rights">The hash of the roles and groups that are live; null for what ships.</param>
public sealed record AccountRoles(
    Guid Account,
    string Name,
    string? Email,
    string Language,
    Guid? Person,
    string[] Teams,
    bool IsDisabled,
    bool HasPassword,
    Guid[] Employments,
    Guid[] Present,
    Guid[] StandsInFor,
    Guid[] StoodInEmployments,
    string[] StoodInTeams,
    string[] Roles,
    string[] Groups,
    string? Rights
)
{
    /// <summary>What is held with every account, to be narrowed.</summary>
    public static IQueryable<AccountRoles> On(FidDb db, LocalDate day) =>
        db.Database.SqlQuery<AccountRoles>(
            $"""
            select u.id as account, u.display_name as name, u.email, u.language, u.person_id as person, u.teams, u.disabled_at is not null as is_disabled,
              u.password_hash is not null as has_password,
              array(select e.id from employments e where e.person_id = u.person_id) as employments,
              array(select e.id from employments e where e.person_id = u.person_id and e.start <= {day} and (e."end" is null or e."end" >= {day})) as present,
              s.accounts as stands_in_for,
              s.employments as stood_in_employments,
              s.teams as stood_in_teams,
              array(select distinct g.role from role_grants g where g.account_id = u.id and (g."from" is null or g."from" <= {day})
                and (g."to" is null or g."to" >= {day}) order by 1) as roles,
              array(select distinct unnest(r.groups) from employments e join records_now r on r.employment_id = e.id
                where e.person_id = u.person_id and e.start <= {day} and (e."end" is null or e."end" >= {day})) as groups,
              (select hash from rights_versions order by version desc limit 1) as rights
            from users u, lateral standing_in(u.id, {day}) s
            """
        );

    /// <summary>The same of those with which somebody can sign in, by name.</summary>
    public static Task<List<AccountRoles>> OfWhoSignsInAsync(FidDb db, LocalDate day, CancellationToken cancellation) =>
        On(db, day).Where(a => !a.IsDisabled && a.HasPassword).OrderBy(a => a.Name).ThenBy(a => a.Account).ToListAsync(cancellation);

    /// <summary>Whose tasks they do.</summary>
    public TaskOwners Tasks => new([Account, .. StandsInFor], Person, [.. Employments, .. StoodInEmployments], [.. Teams, .. StoodInTeams]);

    /// <summary>The roles that are held, granted and by rule.</summary>
    public IEnumerable<string> AllOf(RoleSet set) => Roles.Concat(ByRule(set).Select(r => r.Role));

    /// <summary>The roles that are held by rule.</summary>
    public IEnumerable<RoleByRule> ByRule(RoleSet set) => set.ByRule(Groups, Present.Length > 0);
}
