using System.Text.Json;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>What a change of job or a leaving says in the record: the new job from its day on, or the last day. It goes with the day that the
/// checklist is planned around. Nothing is saved here.</summary>
public sealed class OccasionRecord(FidDb db, RecordWriter records)
{
    /// <summary>The last day, in the record.</summary>
    public const string LastDay = "end_date";

    private const string LeavingReason = "end_reason";

    /// <summary>The entry of the trail for a value that holds from a day on.</summary>
    private const string Changed = "record.changed";

    /// <summary>The entry of the trail for a value that is put right.</summary>
    private const string Fixed = "record.fixed";

    /// <summary>Whether a checklist may be opened with a value for a field: of a leaving the reason, of a change of job what the stint says of
    /// the work. What has a day of its own, or is sealed, is entered into the record itself.</summary>
    public static bool Takes(Occasion occasion, FieldDefinition field) =>
        occasion switch
        {
            Occasion.Leaving => field.Key == LeavingReason,
            Occasion.JobChange => field is { Of: FieldOwner.Employment, IsColumn: false, Sensitive: false, Type: not (FieldType.Rows or FieldType.Computed) }
                && field.Key is not (StartCorrection.Field or LastDay or LeavingReason),
            _ => false,
        };

    /// <summary>Enters what somebody's checklist is opened with.</summary>
    /// <param name="values">What was entered besides the day, by field.</param>
    /// <returns>The entry of the trail that tells of it, null where the record says so already; and what is wrong, by a slash and the field's
    /// key.</returns>
    internal async Task<(Change? Change, IReadOnlyList<Problem> Problems)> EnterAsync(
        RecordInHand what,
        OccasionDay day,
        IReadOnlyDictionary<string, JsonElement> values,
        ActAuthor by,
        CancellationToken cancellation
    )
    {
        var (employment, record) = what;
        var edits = values.Select(v => new FieldEdit(v.Key, v.Value, Layer.Typed, day.Occasion == Occasion.JobChange ? day.Date : null)).ToList();
        if (day.Occasion == Occasion.Leaving && employment.End != day.Date)
            edits.Add(new FieldEdit(LastDay, DateOf(day.Date), Layer.Typed, null));
        if (edits.Count == 0)
            return (null, []);
        var change = by.Author.Change(day.Occasion == Occasion.JobChange ? Changed : Fixed, employment.Id, null, by.Why);
        db.Changes.Add(change);
        return (change, await SaveAsync(employment, record, edits, change, by.Today, cancellation));
    }

    /// <summary>Makes the record say the same of another day.</summary>
    internal async Task<IReadOnlyList<Problem>> MoveAsync(HireInHand what, LocalDate to, ActAuthor by, CancellationToken cancellation)
    {
        var (hire, employment, record) = what;
        if (hire.Occasion == Occasion.Leaving)
            return (await EnterAsync(new RecordInHand(employment, record), new OccasionDay(hire.Occasion, to), NoValues, by, cancellation)).Problems;
        if (await MadeByAsync(hire, cancellation) is not { } made)
            return [];
        var values = await ValuesOfAsync(employment, made, hire.Start, cancellation);
        if (await TakeBackAsync(what, made, by, cancellation) is { } problem)
            return [problem];
        // Entered into what taking it back leaves.
        await db.SaveChangesAsync(cancellation);
        return await EnterAgainAsync(what, to, values, by, cancellation);
    }

    /// <summary>Takes out of the record what the checklist brought with it: nobody leaves, or nothing changes.</summary>
    internal async Task<IReadOnlyList<Problem>> CallOffAsync(HireInHand what, ActAuthor by, CancellationToken cancellation)
    {
        var (hire, employment, record) = what;
        if (hire.Occasion == Occasion.JobChange)
            return await MadeByAsync(hire, cancellation) is { } made && await TakeBackAsync(what, made, by, cancellation) is { } problem ? [problem] : [];
        // Where the record says another day by now, somebody has decided so since.
        if (employment.End != hire.Start)
            return [];
        var change = by.Author.Change(Fixed, employment.Id, null, by.Why);
        db.Changes.Add(change);
        return await SaveAsync(
            employment,
            record,
            [new FieldEdit(LastDay, null, Layer.Typed, null), new FieldEdit(LeavingReason, null, Layer.Typed, null)],
            change,
            by.Today,
            cancellation
        );
    }

    /// <summary>Makes the record say again what it said before it was called off.</summary>
    internal async Task<IReadOnlyList<Problem>> GoOnAsync(HireInHand what, ActAuthor by, CancellationToken cancellation)
    {
        var (hire, employment, record) = what;
        if (hire.Occasion == Occasion.Leaving)
            return (await EnterAsync(new RecordInHand(employment, record), new OccasionDay(hire.Occasion, hire.Start), NoValues, by, cancellation)).Problems;
        return await MadeByAsync(hire, cancellation) is { } made
            ? await EnterAgainAsync(what, hire.Start, await ValuesOfAsync(employment, made, hire.Start, cancellation), by, cancellation)
            : [];
    }

    private static readonly Dictionary<string, JsonElement> NoValues = [];

    private async Task<IReadOnlyList<Problem>> EnterAgainAsync(
        HireInHand what,
        LocalDate day,
        Dictionary<string, JsonElement> values,
        ActAuthor by,
        CancellationToken cancellation
    )
    {
        var held = new RecordInHand(what.Employment, what.Record);
        var (change, problems) = await EnterAsync(held, new OccasionDay(what.Hire.Occasion, day), values, by, cancellation);
        what.Hire.RecordChangeId = change?.Id;
        return problems;
    }

    private Task<Change?> MadeByAsync(Hire hire, CancellationToken cancellation) =>
        db.Changes.AsNoTracking().SingleOrDefaultAsync(c => c.Id == hire.RecordChangeId, cancellation);

    private async Task<Problem?> TakeBackAsync(HireInHand what, Change made, ActAuthor by, CancellationToken cancellation)
    {
        var change = by.Author.Change(TakeBackChange.Action, what.Employment.Id, made.Id.ToString(), by.Why);
        db.Changes.Add(change);
        return await records.TakeBackAsync(what.Employment, what.Record, made, change, by.Today, cancellation);
    }

    // What rules set follows again by itself.
    private async Task<Dictionary<string, JsonElement>> ValuesOfAsync(Employment employment, Change made, LocalDate day, CancellationToken cancellation) =>
        (await RecordWriter.TouchedBy(db, employment, made).AsNoTracking().Where(v => v.ChangeId == made.Id).ToListAsync(cancellation))
            .Where(v => v.Source == Layer.Typed && EffectiveRange.FromDatabase(v.Effective).From == day)
            .ToDictionary(v => v.Address, v => v.Value, StringComparer.Ordinal);

    private async Task<IReadOnlyList<Problem>> SaveAsync(
        Employment employment,
        CurrentRecord record,
        IReadOnlyList<FieldEdit> edits,
        Change change,
        LocalDate today,
        CancellationToken cancellation
    ) => [.. (await records.SaveAsync([new RecordEdit(employment, record, edits, change)], today, cancellation)).Select(p => p.Problem)];

    private static JsonElement DateOf(LocalDate date) => JsonSerializer.SerializeToElement(date.ToString("uuuu-MM-dd", null));
}

/// <summary>A stint and its record, tracked and locked.</summary>
internal sealed record RecordInHand(Employment Employment, CurrentRecord Record);

/// <summary>The day that a checklist is planned around.</summary>
internal sealed record OccasionDay(Occasion Occasion, LocalDate Date);

/// <summary>Who acts, why, and on which day.</summary>
internal sealed record ActAuthor(Author Author, string? Why, LocalDate Today);
