using Fid.Data;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.People;

/// <summary>Records that were changed in one go: the changes bear the id of the run as their part.</summary>
/// <param name="Id">The run.</param>
/// <param name="Why">What is said of it in everybody's history.</param>
public sealed record RecordRun(Guid Id, string? Why)
{
    /// <summary>So many records are saved together.</summary>
    public const int SavedAtOnce = 250;

    /// <summary>Takes back what the run changed of records. The caller's context tracks nothing afterwards.</summary>
    /// <param name="keep">Whether what could be taken back is kept, as long as all could.</param>
    /// <returns>The numbers of those that were changed since; nothing is to be kept where there are any.</returns>
    public async Task<IReadOnlyList<string>> TakeBackAsync(
        FidDb db,
        RecordWriter writer,
        IEnumerable<Guid> employments,
        bool keep,
        Author author,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var (part, touched) = (Id.ToString(), new List<string>());
        foreach (var ids in employments.Distinct().Chunk(SavedAtOnce))
        {
            var (of, records) = await writer.ReadAsync(ids, cancellation);
            var changes = await db
                .Changes.AsNoTracking()
                .Where(c => ids.Contains(c.SubjectId) && c.Part == part && (c.Action == "record.fixed" || c.Action == "record.changed"))
                .ToListAsync(cancellation);
            List<TakenBack> back =
            [
                .. changes.Select(taken => new TakenBack(
                    of[taken.SubjectId],
                    records[taken.SubjectId],
                    taken,
                    author.Change(TakeBackChange.Action, taken.SubjectId, taken.Id.ToString(), Why)
                )),
            ];
            db.Changes.AddRange(back.Select(b => b.Change));
            touched.AddRange((await writer.TakeBackAsync(back, today, cancellation)).Select(p => back[p.Record].Employment.Number));
            if (keep && touched.Count == 0)
                await db.SaveManyAsync(cancellation);
            db.ChangeTracker.Clear();
        }
        return touched;
    }
}
