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
        var ids = await MembersAsync(db, group, entries["jobs"], from, cancellation);
        if (ids.Length > Most)
            return Result<RevisionPreview>.Failed(new Problem("/group", "too-many", $"These are {ids.Length} people. Choose {Most} at most."));
        var (revised, leftOut) = await SortedAsync(db, reader, group, from, ids, new JobBands(entries, fullTime), cancellation);
        return await PreviewAsync(db, reader, question, revised, leftOut, today, cancellation);
    }

    // Those of the group whose pay may be seen, by name: who has a rate that the user may change, and who is left out.
    private static async Task<(List<Revised> Revised, List<LeftOutPerson> LeftOut)> SortedAsync(
        FidDb db,
        Reader reader,
        RevisedGroup group,
        LocalDate from,
        Guid[] members,
        JobBands bands,
        CancellationToken cancellation
    )
    {
        var found = await reader
            .Readable(db.CurrentRecords.AsNoTracking())
            .Where(r => members.Contains(r.EmploymentId))
            .Join(db.Employments.AsNoTracking(), r => r.EmploymentId, e => e.Id, (record, employment) => new { record, employment })
            .OrderBy(f => f.record.FamilyName)
            .ThenBy(f => f.record.GivenName)
            .ThenBy(f => f.employment.Number)
            .ToListAsync(cancellation);
        // Who is found tells what the group is described by.
        string[] read = [.. PayReading.Fields, "job", .. group.Site is null ? Array.Empty<string>() : ["site"]];
        found.RemoveAll(f => !read.All(reader.On(f.record).Sees));
        var rates = await RatesAsync(db, [.. found.Select(f => f.employment.Id)], from, cancellation);
        var (revised, leftOut) = (new List<Revised>(), new List<LeftOutPerson>());
        foreach (var of in found)
        {
            var rate = rates[of.employment.Id];
            if (!reader.On(of.record).MayEdit(Rate))
                leftOut.Add(new LeftOutPerson(of.employment, of.record, LeftOutReason.NotYours));
            else if (
                rate.Stated is var (amount, per, hours)
                && PayRate.Of(amount, per, hours, bands.FullTimeHours, PayReading.WorkingDaysPerWeek, PayPeriod.Year).Answer is not null
            )
                revised.Add(
                    new Revised(
                        new RevisedPerson(of.employment, of.record, rate.Job, per, rate.Ahead),
                        new PaidPerson(
                            of.employment.Id.ToString(),
                            amount,
                            per,
                            hours,
                            bands.FullTimeHours,
                            PayReading.WorkingDaysPerWeek,
                            bands.Of(rate.Job, from)?.Max
                        )
                    )
                );
            else
                leftOut.Add(new LeftOutPerson(of.employment, of.record, LeftOutReason.NoRate));
        }
        return (revised, leftOut);
    }

    // Whether others have to agree to somebody's rate hangs on what it becomes.
    private static async Task<Result<RevisionPreview>> PreviewAsync(
        FidDb db,
        Reader reader,
        RevisionQuestion question,
        List<Revised> people,
        List<LeftOutPerson> leftOut,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var worked = PayRevision.Of(question.Rule, people.ConvertAll(p => p.Paid));
        if (worked.Answer is not { } pay)
            return Result<RevisionPreview>.Failed(worked.Problems);
        if (!reader.Fields.Approvals.All.Any(a => a.IsAbout(Rate)))
            return new RevisionPreview(people.ConvertAll(p => p.Person), pay, leftOut);
        var ids = people.Select(p => p.Person.Employment.Id).ToArray();
        var held = (await ActiveRecords.LoadAsync(db, today, cancellation, on: question.From, former: true, only: ids)).Records;
        var distances = await PayDistances.LoadAsync(db, reader.Fields.Approvals, ids, question.From, cancellation);
        var agreed = people.Where((p, i) => !Asks(p.Person, pay.People[i])).ToList();
        return new RevisionPreview(
            agreed.ConvertAll(p => p.Person),
            PayRevision.Of(question.Rule, agreed.ConvertAll(p => p.Paid)).Answer!,
            [.. leftOut, .. people.Except(agreed).Select(p => new LeftOutPerson(p.Person.Employment, p.Person.Record, LeftOutReason.NeedsApproval))]
        );

        bool Asks(RevisedPerson person, RevisedPay becomes)
        {
            if (becomes.After == becomes.Before)
                return false;
            var values = held[person.Employment.Id].Values;
            var change = RequestedChange.Of(Rate, values.TryGetValue(Rate, out var there) ? there : null, JsonSerializer.SerializeToElement(becomes.After));
            return reader.Fields.Approvals.Asks(change, PayDistances.Read(distances, person.Employment.Id, values, [change]), today);
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

    private sealed record Revised(RevisedPerson Person, PaidPerson Paid);

    private sealed record RateOnDay((decimal Amount, PayPeriod Per, decimal Hours)? Stated, string? Job, LocalDate? Ahead);
}
