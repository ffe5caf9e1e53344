using System.Text.Json;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>Finds what is known of a hire before anybody types: of a person who was here before, or of a colleague it is to be like.</summary>
public sealed class HireOrigins(FidDb db)
{
    /// <summary>Facts of an earlier stint that can be taken over into a new one.</summary>
    public static IReadOnlyList<string> Reusable { get; } = ["badge"];

    private static readonly Dictionary<string, string> SectionOf = new()
    {
        ["job"] = "work",
        ["pay"] = "pay",
        ["clock"] = "clock",
    };

    /// <summary>What is known; problems where the person or the colleague is not there.</summary>
    public async Task<(HireOrigin? Answer, IReadOnlyList<Problem> Problems)> OfAsync(
        NewHireRequest request,
        Reader reader,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var fields = reader.Fields;
        var given = new Dictionary<string, (JsonElement, string)>(StringComparer.Ordinal);
        if (request.Person is { } person)
        {
            if (await LastStintAsync(person, cancellation) is not { } last || (await reader.KnownAsync(db, [person], cancellation)).Count == 0)
                return (null, [new Problem("/person", "unknown-person", "Choose a person.")]);
            var values = await ValuesAsync(last, cancellation);
            foreach (var (field, value) in values)
                if (fields.Set.Find(field) is { Of: FieldOwner.Person })
                    given[field] = (value, HireOrigin.FromPerson);
                else if (Reusable.Contains(field) && reader.Sees(field) && request.Reuse?.Contains(field) == true)
                    given[field] = (value, HireOrigin.Reused);
        }
        if (request.Like is not { } like)
            return (new HireOrigin(request.Person, given), []);
        if (await ColleagueAsync(like.Employment, reader, cancellation) is not { } colleague)
            return (null, [new Problem("/like", "unknown-person", "Choose a colleague.")]);
        var sections = like.Parts.Where(SectionOf.ContainsKey).Select(p => SectionOf[p]).ToHashSet();
        foreach (var (field, value) in await ValuesAsync(colleague, cancellation))
            // Dates are one person's own, even where a template may set them.
            if (
                fields.Set.Find(field) is { Of: FieldOwner.Employment } known
                && known.Type != FieldType.Date
                && sections.Contains(known.Section)
                && TemplateFields.MaySet(known)
                && reader.Sees(field)
            )
                given.TryAdd(field, (value, HireOrigin.LikePrefix + colleague.Number));
        var hire = await db
            .Hires.AsNoTracking()
            .Include(h => h.Tasks)
            .Include(h => h.Entries)
            .AsSplitQuery()
            .OrderByDescending(h => h.Start)
            .FirstOrDefaultAsync(h => h.EmploymentId == colleague.Id && h.Occasion == Occasion.Arrival, cancellation);
        return (
            new HireOrigin(
                request.Person,
                given,
                like.Parts.Contains("checklist") && hire is not null ? [.. hire.Tasks.OrderBy(t => t.Position).Select(t => t.Copy(afresh: true))] : null,
                like.Parts.Contains("items") && hire is not null ? [.. hire.Entries.Select(e => e.Copy())] : null,
                HireOrigin.LikePrefix + colleague.Number
            ),
            []
        );

        Task<Dictionary<string, JsonElement>> ValuesAsync(Employment stint, CancellationToken token) => HireOrigins.ValuesAsync(db, stint, today, token);
    }

    /// <summary>
    /// The template that hires can be opened from and a colleague last was; for one who was here before there were templates, the one
    /// that gives their job. Null where there is none, or several give it.
    /// </summary>
    public async Task<string?> TemplateOfAsync(Guid colleague, TemplateSet templates, Reader reader, LocalDate today, CancellationToken cancellation)
    {
        if (await ColleagueAsync(colleague, reader, cancellation) is not { } stint)
            return null;
        var last = await db
            .Hires.Where(h => h.EmploymentId == colleague && h.Occasion == Occasion.Arrival)
            .OrderByDescending(h => h.Start)
            .Select(h => h.TemplateCode)
            .FirstOrDefaultAsync(cancellation);
        if (last is not null && templates.Find(last) is { Opens: true })
            return last;
        if (!reader.Sees("job") || !(await ValuesAsync(db, stint, today, cancellation)).TryGetValue("job", out var job))
            return null;
        var giving = templates
            .Opening.Where(t =>
                templates.Alone(t, today).Answer is { } alone && alone.Values.TryGetValue("job", out var given) && JsonElement.DeepEquals(given.Value, job)
            )
            .ToArray();
        return giving is [var one] ? one.Code : null;
    }

    // An employment whose record the reader may open.
    private async Task<Employment?> ColleagueAsync(Guid id, Reader reader, CancellationToken cancellation)
    {
        var readable = reader.Readable(db.CurrentRecords);
        return await db.Employments.AsNoTracking().SingleOrDefaultAsync(e => e.Id == id && readable.Any(r => r.EmploymentId == id), cancellation);
    }

    private Task<Employment?> LastStintAsync(Guid person, CancellationToken cancellation) =>
        db.Employments.AsNoTracking().Where(e => e.PersonId == person).OrderByDescending(e => e.Start).FirstOrDefaultAsync(cancellation);

    /// <summary>The values of a stint, sealed ones left out, as they are today or were on its last day.</summary>
    public static async Task<Dictionary<string, JsonElement>> ValuesAsync(FidDb db, Employment stint, LocalDate today, CancellationToken cancellation) =>
        (await ValuesAsync(db, [stint], today, cancellation))[stint.Id];

    /// <summary>The same of several stints, by employment.</summary>
    public static async Task<Dictionary<Guid, Dictionary<string, JsonElement>>> ValuesAsync(
        FidDb db,
        IReadOnlyCollection<Employment> stints,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var days = stints.Select(s => s.End is { } end && end < today ? LocalDate.Max(end, s.Start) : LocalDate.Max(today, s.Start)).ToArray();
        var rows = await db
            .Database.SqlQuery<Held>(
                $"""
                with s as (select * from unnest({stints.Select(s => s.Id).ToArray()}, {stints.Select(s => s.PersonId).ToArray()}, {days}) s(id, person, day))
                select s.id as stint, v.field, v.value from s join record_values v on v.owner_id = s.id and v.effective @> s.day where upper_inf(v.known)
                  and v.row_id is null
                union all select s.id, v.field, v.value from s join record_values v on v.owner_id = s.person and v.effective @> {today} where upper_inf(v.known)
                  and v.row_id is null
                """
            )
            .ToListAsync(cancellation);
        var values = stints.ToDictionary(s => s.Id, _ => new Dictionary<string, JsonElement>(StringComparer.Ordinal));
        foreach (var row in rows.Where(r => !SealedText.IsSealed(r.Value)))
            values[row.Stint][row.Field] = row.Value;
        return values;
    }

    private sealed record Held(Guid Stint, string Field, JsonElement Value);
}
