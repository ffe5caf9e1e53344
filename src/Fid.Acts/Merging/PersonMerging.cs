using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Merging;

/// <summary>Makes two records one person, value by value, and parts them again.</summary>
public sealed class PersonMerging(FidDb db, RecordWriter records, SensitiveValues sensitive)
{
    /// <summary>The current values of a person, as they are stored.</summary>
    public Task<Dictionary<string, JsonElement>> ValuesAsync(Guid person, LocalDate today, CancellationToken cancellation) =>
        db
            .RecordValues.AsNoTracking()
            .Where(v => v.OwnerId == person && v.Known.UpperBoundInfinite && v.Effective.Contains(today))
            .ToDictionaryAsync(v => v.Address, v => v.Value, cancellation);

    /// <summary>Puts the other's stints on the kept person's side, with those of the other's values that are to be taken. What the kept
    /// person has nothing for is taken in any case. The other person stays, with nothing, for the trail.</summary>
    /// <returns>The merge, or what does not go together with the paths of fields; nothing is to be kept then.</returns>
    public async Task<(PersonMerge? Merge, IReadOnlyList<Problem> Problems)> MergeAsync(
        Guid kept,
        Guid other,
        IReadOnlyCollection<string> take,
        Author author,
        string? why,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var stints = await LockAsync([kept, other], cancellation);
        var through = stints.Where(s => s.PersonId == kept).OrderByDescending(s => s.Start).First();
        var moved = stints.Where(s => s.PersonId == other).ToList();
        var change = author.Change("person.merged", through.Id, string.Join(' ', moved.Select(m => m.Number)), why);
        db.Changes.Add(change);
        var set = (await new LiveFieldsLoader(db).LiveAsync(cancellation)).Set;
        var (mine, theirs) = (await ValuesAsync(kept, today, cancellation), await ValuesAsync(other, today, cancellation));
        var edits = new List<FieldEdit>();
        foreach (var (field, value) in theirs.Where(v => set.Find(v.Key) is not null && (!mine.ContainsKey(v.Key) || take.Contains(v.Key))))
            // Sealed for its owner: it is opened, and sealed anew by the save.
            edits.Add(new FieldEdit(field, SealedText.IsSealed(value) ? sensitive.Open(other, FieldAddress.FieldOf(field), value) : value, "merged", null));
        var now = await db.CurrentRecords.Where(r => r.PersonId == kept || r.PersonId == other).ToDictionaryAsync(r => r.EmploymentId, cancellation);
        var users = await db.Users.Where(u => u.PersonId == other).ToListAsync(cancellation);
        var merge = new PersonMerge
        {
            KeptId = kept,
            OtherId = other,
            Employments = [.. moved.Select(m => m.Id)],
            Users = [.. users.Select(u => u.Id)],
            Through = through.Id,
            ChangeId = change.Id,
            At = author.At,
            ByName = author.Name,
        };
        db.Add(merge);
        // Saved first: what only one may have, the two are one in having.
        await db.SaveChangesAsync(cancellation);
        if (
            await records.SaveAsync([new RecordEdit(through, now[through.Id], edits, change) { IsAgreed = true }], today, cancellation) is
            { Count: > 0 } problems
        )
            return (null, [.. problems.Select(p => p.Problem)]);
        foreach (var user in users)
            user.PersonId = kept;
        foreach (var stint in moved)
            (stint.PersonId, now[stint.Id].PersonId) = (kept, kept);
        foreach (var stint in stints.Where(s => s != through))
            await records.RefreshAsync(stint, now[stint.Id], change.At, today, cancellation);
        return (merge, []);
    }

    /// <summary>Parts them again. Returns why they cannot be, where a value that was taken has been changed since.</summary>
    public async Task<Problem?> UndoAsync(PersonMerge merge, Author author, LocalDate today, CancellationToken cancellation)
    {
        var stints = await LockAsync([merge.KeptId, merge.OtherId], cancellation);
        var through = stints.Single(s => s.Id == merge.Through);
        var now = await db.CurrentRecords.Where(r => r.PersonId == merge.KeptId).ToDictionaryAsync(r => r.EmploymentId, cancellation);
        var made = await db.Changes.SingleAsync(c => c.Id == merge.ChangeId, cancellation);
        var change = author.Change("person.parted", through.Id, made.Part);
        if (
            await records.TouchedBy(through, made).AnyAsync(cancellation)
            && await records.TakeBackAsync(through, now[through.Id], made, change, today, cancellation) is { } problem
        )
            return problem;
        db.Changes.Add(change);
        foreach (var stint in stints.Where(s => merge.Employments.Contains(s.Id)))
            (stint.PersonId, now[stint.Id].PersonId) = (merge.OtherId, merge.OtherId);
        foreach (var user in await db.Users.Where(u => merge.Users.Contains(u.Id)).ToListAsync(cancellation))
            user.PersonId = merge.OtherId;
        foreach (var stint in stints.Where(s => s != through))
            await records.RefreshAsync(stint, now[stint.Id], change.At, today, cancellation);
        merge.Undone = true;
        return null;
    }

    /// <summary>Holds the records of some people, and hires of theirs that are closed or gone on with besides: before anything else, in the order in
    /// which locks are taken.</summary>
    public async Task HoldAsync(Guid[] people, IReadOnlyCollection<Guid> hires, CancellationToken cancellation)
    {
        await LockAsync(people, cancellation);
        await Locks.HiresAsync(db, hires, cancellation);
    }

    private async Task<List<Employment>> LockAsync(Guid[] people, CancellationToken cancellation)
    {
        await Locks.RecordsAsync(db, await db.Employments.Where(e => people.Contains(e.PersonId)).Select(e => e.Id).ToListAsync(cancellation), cancellation);
        return await db.Employments.Where(e => people.Contains(e.PersonId)).ToListAsync(cancellation);
    }
}
