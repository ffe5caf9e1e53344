using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Approvals;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Revisions;

/// <summary>Reads what a rule would make of the rates of a group, of those whose pay the user may see.</summary>
public static class RevisionReading
{
    /// <summary>The most people a rule can be about.</summary>
    public const int Most = 20_000;

    private const string Rate = "pay_rate";

    /// <returns>Problems by path: "unknown-entry" for what describes the group, "bad-date", "too-many", and those of <see cref="PayRevision.Of"/>.</returns>
    public static async Task<Result<RevisionPreview>> LoadAsync(
        FidDb db,
        Reader reader,
        RevisionQuestion question,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var (group, from) = (question.Group, question.From);
        var entries = (
            await db
                .ListEntries.AsNoTracking()
                .Where(e => e.List == "jobs" || e.List == "grades" || e.List == "sites" || e.List == "payGroups")
                .ToListAsync(cancellation)
        ).ToLookup(e => e.List, e => e.Content());
        List<Problem> problems = [.. Unknown(group, entries)];
        if (!ValueCheck.IsSensible(from))
            problems.Add(new Problem("/from", "bad-date", "Enter a date from 1900 to 2199."));
        if (problems.Count > 0)
            return Result<RevisionPreview>.Failed(problems);

        var fullTime = await db.Firms.Select(f => f.FullTimeHours).SingleAsync(cancellation);
        var jobs = entries["jobs"].ToDictionary(j => j.Code, StringComparer.Ordinal);
        var grades = entries["grades"].ToDictionary(g => g.Code, StringComparer.Ordinal);
        var ids = await MembersAsync(db, group, jobs.Values, from, cancellation);
        if (ids.Length > Most)
            return Result<RevisionPreview>.Failed(new Problem("/group", "too-many", $"These are {ids.Length} people. Choose {Most} at most."));
        var found = await reader
            .Readable(db.CurrentRecords.AsNoTracking())
            .Where(r => ids.Contains(r.EmploymentId))
            .Join(db.Employments.AsNoTracking(), r => r.EmploymentId, e => e.Id, (record, employment) => new { record, employment })
            .OrderBy(f => f.record.FamilyName)
            .ThenBy(f => f.record.GivenName)
            .ThenBy(f => f.employment.Number)
            .ToListAsync(cancellation);
        // Who is found tells what the group is described by.
        string[] read = [.. PayReading.Fields, "job", .. group.Site is null ? Array.Empty<string>() : ["site"]];
        found.RemoveAll(f => !read.All(reader.On(f.record).Sees));
        ids = [.. found.Select(f => f.employment.Id)];
        var rates = await RatesAsync(db, ids, from, cancellation);
        var whole = reader.Fields.Approvals.All.Any(a => a.IsAbout(Rate)) ? await WholeAsync(db, ids, from, today, cancellation) : null;

        var (people, paid, leftOut) = (new List<RevisedPerson>(), new List<PaidPerson>(), new List<LeftOutPerson>());
        foreach (var of in found)
        {
            var rate = rates[of.employment.Id];
            if (!reader.On(of.record).MayEdit(Rate))
                leftOut.Add(new LeftOutPerson(of.employment, of.record, LeftOutReason.NotYours));
            else if (rate.Stated is not var (amount, per, hours))
                leftOut.Add(new LeftOutPerson(of.employment, of.record, LeftOutReason.NoRate));
            else
            {
                var band =
                    rate.Job is { } code
                    && jobs.GetValueOrDefault(code) is { } job
                    && job.Text("grade") is { } grade
                    && grades.GetValueOrDefault(grade) is { } graded
                        ? JobBand.Of(job, graded, from, fullTime)
                        : null;
                paid.Add(new PaidPerson(of.employment.Id.ToString(), amount, per, hours, fullTime, PayReading.WorkingDaysPerWeek, band?.Max));
                people.Add(new RevisedPerson(of.employment, of.record, per, rate.Ahead));
            }
        }
        var revised = PayRevision.Of(question.Rule, paid);
        if (revised.Answer is not { } pay || whole is null)
            return revised.Answer is { } all ? new RevisionPreview(people, all, leftOut) : Result<RevisionPreview>.Failed(revised.Problems);

        // Whether others have to agree hangs on what the rate becomes.
        var asked = Enumerable.Range(0, people.Count).Where(i => pay.People[i].After > pay.People[i].Before && Asks(people[i], pay.People[i])).ToHashSet();
        leftOut.AddRange(asked.Select(i => new LeftOutPerson(people[i].Employment, people[i].Record, LeftOutReason.NeedsApproval)));
        return new RevisionPreview(
            [.. people.Where((_, i) => !asked.Contains(i))],
            PayRevision.Of(question.Rule, [.. paid.Where((_, i) => !asked.Contains(i))]).Answer!,
            leftOut
        );

        bool Asks(RevisedPerson person, RevisedPay becomes)
        {
            var held = whole[person.Employment.Id].Values;
            var change = RequestedChange.Of(Rate, held.TryGetValue(Rate, out var there) ? there : null, JsonSerializer.SerializeToElement(becomes.After));
            return reader.Fields.Approvals.Asks(change, held, today);
        }
    }

    private static IEnumerable<Problem> Unknown(RevisedGroup group, ILookup<string, EntryContent> entries)
    {
        (string Path, string List, string? Code)[] named =
        [
            ("/group/grade", "grades", group.Grade),
            ("/group/job", "jobs", group.Job),
            ("/group/site", "sites", group.Site),
            ("/group/payGroup", "payGroups", group.PayGroup),
        ];
        return named
            .Where(n => n.Code is not null && entries[n.List].All(e => e.Code != n.Code))
            .Select(n => new Problem(n.Path, "unknown-entry", "There is no such entry. Choose one from the list."));
    }

    // Whom all that is named describes on the day, as far as they work here then.
    private static async Task<Guid[]> MembersAsync(FidDb db, RevisedGroup group, IEnumerable<EntryContent> jobs, LocalDate from, CancellationToken cancellation)
    {
        var wanted = new List<(string Field, string Codes)>();
        if (group.Grade is { } grade)
            wanted.Add(("job", JsonSerializer.Serialize(jobs.Where(j => j.Text("grade") == grade).Select(j => j.Code))));
        foreach (var (field, code) in new[] { ("job", group.Job), ("site", group.Site), ("pay_group", group.PayGroup) })
            if (code is not null)
                wanted.Add((field, JsonSerializer.Serialize(new[] { code })));
        var (fields, codes) = (wanted.Select(w => w.Field).ToArray(), wanted.Select(w => w.Codes).ToArray());
        return await db
            .Database.SqlQuery<Guid>(
                $"""
                select e.id as "Value" from employments e
                where e.start <= {from} and (e."end" is null or e."end" >= {from})
                  and not exists (
                    select from unnest({fields}, {codes}) w(field, codes)
                    where not exists (
                      select from record_values v
                      where v.owner_id = e.id and v.field = w.field and v.row_id is null and upper_inf(v.known) and v.effective @> {from}
                        and w.codes::jsonb @> v.value))
                """
            )
            .ToArrayAsync(cancellation);
    }

    private static async Task<Dictionary<Guid, RateOnDay>> RatesAsync(FidDb db, Guid[] ids, LocalDate from, CancellationToken cancellation)
    {
        string[] fields = [.. PayReading.Fields, "job"];
        var stored = await db
            .RecordValues.AsNoTracking()
            .Where(v => ids.Contains(v.OwnerId) && fields.Contains(v.Field) && v.Known.UpperBoundInfinite)
            .Where(v => v.Effective.Contains(from) || (v.Field == Rate && v.Effective.LowerBound > from))
            .ToListAsync(cancellation);
        var byOwner = stored.ToLookup(v => v.OwnerId);
        return ids.ToDictionary(
            id => id,
            id =>
            {
                var values = byOwner[id].Where(v => v.HoldsOn(from)).ToDictionary(v => v.Field, v => (JsonElement?)v.Value, StringComparer.Ordinal);
                var ahead = byOwner[id].Where(v => !v.HoldsOn(from)).Select(v => (LocalDate?)v.Effective.LowerBound).Min();
                return new RateOnDay(PayReading.Typed(values), values.Text("job"), ahead);
            }
        );
    }

    private static async Task<IReadOnlyDictionary<Guid, ActiveRecord>> WholeAsync(
        FidDb db,
        Guid[] ids,
        LocalDate from,
        LocalDate today,
        CancellationToken cancellation
    ) => (await ActiveRecords.LoadAsync(db, today, cancellation, on: from, former: true, only: ids)).Records;

    private sealed record RateOnDay((decimal Amount, PayPeriod Per, decimal Hours)? Stated, string? Job, LocalDate? Ahead);
}
