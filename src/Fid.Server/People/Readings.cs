using System.Text.Json;
using Fid.Acts;
using Fid.Acts.People;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Data;
using Fid.Data.Lists;
using Fid.Data.People;
using Fid.Server.Lists;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>What follows from a record, worked out while somebody types: pay against its band and colleagues, and badge checks.</summary>
internal static class Readings
{
    private const int MostColleagues = 200;

    public static async Task<Results<Ok<ReadingsResponse>, ProblemHttpResult>> Read(
        Guid id,
        ReadingsRequest request,
        Actor actor,
        FidDb db,
        EnteredValues enteredValues,
        CancellationToken cancellation
    )
    {
        if (await RecordAccess.FindAsync(actor, db, id, tracked: false, cancellation) is not var (employment, record))
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        // What may be asked for is read as if it were entered.
        var entering = reader.On(record).ForAsking();
        return TypedResults.Ok(
            await OfAsync(db, reader, new ReadRecord(employment, record, entering, null), request.Changes, enteredValues, actor.Today, cancellation)
        );
    }

    /// <summary>What follows from a record with certain changes, as far as its reader may see.</summary>
    public static async Task<ReadingsResponse> OfAsync(
        FidDb db,
        Reader reader,
        ReadRecord read,
        Dictionary<string, JsonElement> changes,
        EnteredValues enteredValues,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var (employment, record, entering, rosterFrom) = read;
        var (fields, rights) = (reader.Fields, reader.On(record));
        var stored = (await ShownValues.OfAsync(db, employment, today, cancellation)).ToDictionary(v => v.Key, v => v.Value.Value);
        // What is typed and cannot be right yet simply gives no reading; the field itself says what is wrong.
        var entered = (await enteredValues.CheckAsync(fields, new EnteredRecord(changes, employment.PersonId, employment.Id, entering), cancellation)).Values;
        foreach (var (key, value) in entered)
        {
            if (value is { } there)
                stored[key] = there;
            else
                stored.Remove(key);
        }
        // Rules act on what is being typed; defaults are for new records, so here what is empty stays empty.
        var evaluated = await ShownRecord.EvaluateAsync(
            db,
            fields,
            stored,
            rights,
            [.. entered.Keys, .. fields.Set.Fields.Where(f => !stored.ContainsKey(f.Key) && !fields.Set.IsSetByRule(f.Key)).Select(f => f.Key)],
            [.. entered.Keys],
            await ShownRecord.StageAsync(db, fields, employment.Id, cancellation),
            today,
            cancellation
        );
        // Nothing is worked out for somebody from what they may not see, of this person or of others.
        var values = evaluated.Values.ToDictionary(v => v.Key, v => (JsonElement?)v.Value);

        var firm = await db.Firms.AsNoTracking().SingleAsync(cancellation);
        var groups = (await db.ListEntries.AsNoTracking().Where(e => e.List == "payGroups").ToListAsync(cancellation))
            .Select(e => e.Content())
            .ToDictionary(g => g.Code, PayGroupEntry.Every);
        var rate = PayReading.Rate(values, groups, firm.FullTimeHours);
        var grade = values.Text("job") is { } code ? await GradeAsync(db, code, today, firm.FullTimeHours, cancellation) : null;
        return new ReadingsResponse(
            rate is null
                ? null
                : new RateResponse(
                    rate.Annual,
                    rate.FullTimeAnnual,
                    rate.Hourly,
                    rate.PerPeriod,
                    values.Text("pay_group") is { } group ? groups.GetValueOrDefault(group) : default
                ),
            grade is null || !PayReading.Fields.All(rights.Sees)
                ? null
                : await BandAsync(db, reader, employment, grade, rate, groups, firm.FullTimeHours, today, cancellation),
            values.Text("badge") is { } badge
                ? (await BadgeReading.LoadAsync(db, reader, employment, badge, cancellation)).Clashes(employment.Start, firm.BadgeRestDays)
                : [],
            values.Text("job") is { } job ? await JobFactsAsync(db, job, cancellation) : null,
            rosterFrom is { } from && values.Text("shift_pattern") is { } pattern
                ? await RosterReading.OfAsync(
                    db,
                    firm,
                    pattern,
                    values.Text("holiday_calendar"),
                    values.Number("weekly_hours"),
                    LocalDate.Max(from, employment.Start),
                    cancellation
                )
                : null,
            await EvaluationResponse.OfAsync(db, fields, evaluated, await ListNames.LoadAsync(db, cancellation, reader.SeesNames), cancellation)
        );
    }

    // A band stated per hour is compared as the pay of somebody full-time for a year.
    private static async Task<JobBand?> GradeAsync(FidDb db, string job, LocalDate today, decimal fullTimeHours, CancellationToken cancellation)
    {
        var entries = (
            await db.ListEntries.AsNoTracking().Where(e => (e.List == "jobs" && e.Code == job) || e.List == "grades").ToListAsync(cancellation)
        ).ToLookup(e => e.List);
        var grade = entries["jobs"].FirstOrDefault()?.Content().Text("grade");
        var band = entries["grades"].FirstOrDefault(g => g.Code == grade)?.Content().Parts<BandFrom>("bands").Where(b => b.From <= today).MaxBy(b => b.From);
        if (grade is null || band is null)
            return null;
        var times = band.Per == "hour" ? fullTimeHours * 52 : 1;
        return new JobBand(job, grade, band.Min * times, band.Mid * times, band.Max * times);
    }

    private sealed record JobBand(string Job, string Grade, decimal Min, decimal Mid, decimal Max);

    private static async Task<BandResponse> BandAsync(
        FidDb db,
        Reader reader,
        Employment employment,
        JobBand grade,
        PayRate? rate,
        Dictionary<string, PayPeriod> groups,
        decimal fullTimeHours,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        // Of colleagues, as far as their pay may be seen, whoever they are.
        var colleaguesShown = PayReading.Fields.All(reader.Sees) && reader.Sees("job");
        var holders = reader
            .Readable(db.CurrentRecords)
            .Where(r => colleaguesShown && r.JobCode == grade.Job && r.EmploymentId != employment.Id)
            .OrderBy(r => r.EmploymentId)
            .Take(MostColleagues)
            .Select(r => r.EmploymentId);
        var rows = await db
            .RecordValues.AsNoTracking()
            .Where(v => holders.Contains(v.OwnerId) && PayReading.Fields.Contains(v.Field) && v.Known.UpperBoundInfinite && v.Effective.Contains(today))
            .Select(v => new
            {
                v.OwnerId,
                v.Field,
                v.Value,
            })
            .ToListAsync(cancellation);
        var colleagues = rows.GroupBy(r => r.OwnerId)
            .Select(person => PayReading.Rate(person.ToDictionary(r => r.Field, r => (JsonElement?)r.Value), groups, fullTimeHours)?.FullTimeAnnual)
            .OfType<decimal>()
            .Order()
            .ToArray();
        var band = rate is null ? null : PayBand.Of(rate.FullTimeAnnual, grade.Min, grade.Mid, grade.Max).Answer;
        return new BandResponse(
            grade.Job,
            grade.Grade,
            grade.Min,
            grade.Mid,
            grade.Max,
            rate?.FullTimeAnnual,
            band?.CompaRatio,
            band?.Position,
            colleagues.Length < Reader.FewestTogether ? null : colleagues
        );
    }

    private static async Task<JobFacts?> JobFactsAsync(FidDb db, string code, CancellationToken cancellation)
    {
        if ((await db.ListEntries.AsNoTracking().Coded("jobs", code).FirstOrDefaultAsync(cancellation))?.Content() is not { } job)
            return null;
        var names = await ListNames.LoadAsync(db, cancellation);
        return new JobFacts(
            job.Code,
            names.Of("jobFamilies", job.Text("family")),
            job.Text("classification"),
            job.Is("safety_critical"),
            ShippedLists.Get("jobs").Find("overtime")!.Options!.FirstOrDefault(o => o.Value == job.Text("overtime"))?.Label,
            [.. (job.Values.GetValueOrDefault("items") as string[] ?? []).Select(i => names.Of("items", i)!)],
            [.. job.Parts<Requirement>("certificates").Select(c => new JobCertificate(names.Of("certificates", c.Certificate)!, c.Essential))]
        );
    }
}

/// <summary>A record for which readings are worked out.</summary>
/// <param name="Entering">By which what is typed is taken in; what is shown of it is for the reader's own rights to say.</param>
/// <param name="RosterFrom">The day from which the roster is worked out, or the start where that is later; null where none is wanted.</param>
internal sealed record ReadRecord(Employment Employment, CurrentRecord Record, Core.Fields.FieldRights Entering, LocalDate? RosterFrom);

/// <summary>What is typed and not yet saved, by field key.</summary>
public sealed record ReadingsRequest(Dictionary<string, JsonElement> Changes);

/// <summary>What follows from a record; null where something is missing to work it out.</summary>
public sealed record ReadingsResponse(
    RateResponse? Rate,
    BandResponse? Band,
    BadgeClash[] Badges,
    JobFacts? Job,
    RosterResponse? Roster,
    EvaluationResponse Evaluation
);

/// <summary>What the record has by its job, and nobody types.</summary>
public sealed record JobFacts(
    string Code,
    string? Family,
    string? Classification,
    bool SafetyCritical,
    Label? Overtime,
    string[] Items,
    JobCertificate[] Certificates
);

public sealed record JobCertificate(string Name, bool Essential);

public sealed record RateResponse(decimal Annual, decimal FullTimeAnnual, decimal Hourly, decimal PerPeriod, PayPeriod Every);

/// <summary>Pay against the band of the job's grade.</summary>
/// <param name="Colleagues">Full-time annual pay of others with the job whose records the reader may open, ascending; null where they
/// are too few for any of them to stay unknown.</param>
public sealed record BandResponse(
    string Job,
    string Grade,
    decimal Min,
    decimal Mid,
    decimal Max,
    decimal? Pay,
    decimal? CompaRatio,
    BandPosition? Position,
    decimal[]? Colleagues
);
