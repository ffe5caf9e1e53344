using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Lists;

/// <summary>How many people hold each seat: those with its job in its department. All who ever did less those who left: the first
/// are counted by an index, the second are few.</summary>
internal static class SeatHolders
{
    public static Task<Dictionary<string, int>> CountAsync(FidDb db, LocalDate today, CancellationToken cancellation) =>
        db
            .Database.SqlQuery<Row>(
                $"""
                with ever as (select job_code, department_code, count(*) as people from records_now group by 1, 2),
                gone as (select r.job_code, r.department_code, count(*) as people from employments e join records_now r on r.employment_id = e.id
                  where e."end" < {today} group by 1, 2)
                select s.code, (coalesce(a.people, 0) - coalesce(g.people, 0))::int as held
                from list_entries s
                left join ever a on a.job_code = s.values ->> 'job' and a.department_code = s.values ->> 'department'
                left join gone g on g.job_code = a.job_code and g.department_code = a.department_code
                where s.list = 'seats'
                """
            )
            .ToDictionaryAsync(r => r.Code, r => r.Held, cancellation);

    private sealed record Row(string Code, int Held);
}
