using Fid.Acts.People;
using Fid.Data;
using Fid.Data.Changes;
using NodaTime;

namespace Fid.Demo;

/// <summary>Saves records of the demo firm within its one transaction, where acts that lock cannot be done.</summary>
internal sealed class DemoRecords(FidDb db, RecordWriter writer, Author author, LocalDate today)
{
    /// <param name="kind">The kind of the change: "record.fixed", "record.changed" or "record.imported".</param>
    public async Task SaveAsync(Guid employment, string kind, IReadOnlyList<FieldEdit> edits, string? why = null)
    {
        var (employments, records) = await writer.ReadAsync([employment], default);
        var change = author.Change(kind, employment, why: why);
        db.Changes.Add(change);
        var problems = await writer.SaveAsync([new RecordEdit(employments[employment], records[employment], edits, change)], today, default);
        if (problems.Count > 0)
            throw new InvalidOperationException(problems[0].Problem.Message);
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
    }
}
