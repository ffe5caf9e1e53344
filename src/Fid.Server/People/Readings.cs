using System.Text.Json;
using Fid.Acts;
using Fid.Acts.People;
using Fid.Acts.Rosters;
using Fid.Core.Checklists;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Data;
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
        var held = await ShownValues.OfAsync(db, employment, today, cancellation);
        var stored = held.ToDictionary(v => v.Key, v => v.Value.Value);
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

        var pay = await PayReading.LoadAsync(db, cancellation);
        var firm = pay.Firm;
        var job = await JobBand.JobAsync(db, values.Text("job"), cancellation);
        var pattern = await Rostered.PatternAsync(db, values.Text("shift_pattern"), cancellation);
        var (seesRate, seesPay) = (PayReading.Fields.All(rights.Sees), reader.SeesPay(rights));
        var band = seesRate ? await JobBand.OfAsync(db, job, today, firm.FullTimeHours, cancellation) : null;
        var paid = new PaidCase(
            pay,
            values,
            job,
            band,
            band is null ? [] : await ColleagueRates.LoadAsync(db, reader, pay, employment.Id, band.Job, values.Text("site"), today, cancellation),
            pattern,
            seesPay
        );
        var rate = paid.Rate();
        // The first pay of those who have settled is history.
        var isArriving =
            rate is not null
            && await db.Hires.AnyAsync(h => h.EmploymentId == employment.Id && h.Closed == null && h.Occasion == Occasion.Arrival, cancellation);
        // What is missing still is taken to be entered today.
        var since = await PayKnownSince.LoadAsync(db, isArriving ? [employment.Id] : [], cancellation);
        var asIfToday = !since.ContainsKey(employment.Id);
        var approved = asIfToday ? today : LocalDate.Min(today, since[employment.Id].InZone(firm.Zone).Date);
        var names = await ListNames.EntriesAsync(db, cancellation, reader.SeesNames);
        return new ReadingsResponse(
            rate,
            paid.AgainstBand(),
            seesRate ? TemplateRate(await TemplateRates.LoadAsync(db, [employment.Id], cancellation), employment.Id, values) : null,
            isArriving ? paid.FirstPay(employment.Start, approved, asIfToday) : null,
            // Of those who are here already what they cost from now on.
            paid.Cost(LocalDate.Max(employment.Start, today)),
            seesRate ? await PayOverTime.LoadAsync(db, pay, employment, cancellation) : [],
            CostReading.Leave(values, employment.Start, firm.FullTimeHours),
            await ServiceReading.LoadAsync(db, reader, read, values, firm.BridgeDays, cancellation),
            values.Text("badge") is { } badge
                ? (await BadgeReading.LoadAsync(db, reader, employment, badge, cancellation)).Clashes(employment.Start, firm.BadgeRestDays)
                : [],
            job is null ? null : FactsOf(job, names),
            rosterFrom is { } from && pattern is not null
                ? RosterReading.Of(
                    new Rostered(pattern, firm.Zone, pay.Calendars, values.Text("holiday_calendar")),
                    values.Number("weekly_hours"),
                    LocalDate.Max(from, employment.Start)
                )
                : null,
            await EvaluationResponse.OfAsync(db, fields, evaluated, names, cancellation)
        );
    }

    private static decimal? TemplateRate(TemplateRates templates, Guid employment, Dictionary<string, JsonElement?> values) =>
        templates.Of(employment, values.Text("paid_by")) is { } rate && values.Number("pay_rate") is { } paid && rate != paid ? rate : null;

    private static JobFacts FactsOf(EntryContent job, ListNames names) =>
        new(
            job.Code,
            names.Of("jobFamilies", job.Text("family")),
            job.Text("classification"),
            job.Is("safety_critical"),
            ShippedLists.Get("jobs").Find("overtime")!.Options!.FirstOrDefault(o => o.Value == job.Text("overtime"))?.Label,
            [.. (job.Values.GetValueOrDefault("items") as string[] ?? []).Select(i => names.Of("items", i)!)],
            [.. job.Parts<Requirement>("certificates").Select(c => new JobCertificate(names.Of("certificates", c.Certificate)!, c.Essential))]
        );
}

/// <summary>A record for which readings are worked out.</summary>
/// <param name="Entering">By which what is typed is taken in; what is shown of it is for the reader's own rights to say.</param>
/// <param name="RosterFrom">The day from which the roster is worked out, or the start where that is later; null where none is wanted.</param>
internal sealed record ReadRecord(Employment Employment, CurrentRecord Record, Core.Fields.FieldRights Entering, LocalDate? RosterFrom);

/// <summary>What is typed and not yet saved, by field key.</summary>
public sealed record ReadingsRequest(Dictionary<string, JsonElement> Changes);

/// <summary>What follows from a record; null where something is missing to work it out.</summary>
/// <param name="TemplateRate">The rate that the template of a newcomer gives, where the record has another.</param>
public sealed record ReadingsResponse(
    RateResponse? Rate,
    BandResponse? Band,
    decimal? TemplateRate,
    FirstPayslipResponse? FirstPay,
    CostResponse? Cost,
    PayStep[] PayOverTime,
    LeaveResponse? Leave,
    ServiceResponse? Service,
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

/// <summary>What somebody is paid.</summary>
/// <param name="Stated">Over the times for which it can be stated.</param>
/// <param name="FullTimeAnnual">A year's pay scaled to full-time hours.</param>
/// <param name="PerPeriod">What a whole pay period pays.</param>
/// <param name="Every">How long that is.</param>
public sealed record RateResponse(StatedRate Stated, decimal FullTimeAnnual, decimal PerPeriod, PayPeriod Every);

/// <summary>Pay against the band of the job's grade.</summary>
/// <param name="Colleagues">Full-time annual pay of others with the job at the site whose records the reader may open, ascending; null where they
/// are too few for any of them to stay unknown.</param>
/// <param name="FromColleagues">How far pay lies from their middle, in percent; null likewise.</param>
public sealed record BandResponse(
    string Job,
    string Grade,
    decimal Min,
    decimal Mid,
    decimal Max,
    decimal? Pay,
    decimal? CompaRatio,
    BandPosition? Position,
    decimal[]? Colleagues,
    decimal? FromColleagues
);
