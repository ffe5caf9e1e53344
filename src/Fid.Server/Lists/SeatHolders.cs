using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Lists;

/// <summary>How many people hold each seat: those with its job in its department.</summary>
internal static class SeatHolders
{
    public static Task<Dictionary<string, int>> CountAsync(FidDb db, LocalDate today, CancellationToken cancellation) => db.Database.SqlQuery<Row>($"""
        select s.code, count(r.employment_id)::int as held
        from list_entries s left join records_now r on r.job_code = s.values ->> 'job' and r.department_code = s.values ->> 'department'
          and not exists (select 1 from employments e where e.id = r.employment_id and e."end" < {today})
        where s.list = 'seats' group by s.code
        """).ToDictionaryAsync(r => r.Code, r => r.Held, cancellation);

    private sealed record Row(string Code, int Held);
}
