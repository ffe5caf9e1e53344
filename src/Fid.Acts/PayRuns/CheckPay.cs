using Fid.Acts.People;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.PayRuns;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>Says of people that what a run pays them was looked at and is right, or takes that back.</summary>
public sealed class CheckPay(FidDb db)
{
    /// <summary>The most that are ticked at once.</summary>
    public const int Most = 1000;

    public async Task<ActResult> DoAsync(CheckPayRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Pay))
            return Refusal.Forbidden;
        if (request.People.Count is 0 or > Most)
            return Refusal.Invalid("/people", "out-of-range", $"Say whose pay it is: of 1 to {Most} people.");
        if (request.People.Select(p => p.Employment).Distinct().Count() != request.People.Count)
            return Refusal.Invalid("/people", "duplicate", "Somebody is named twice. Leave one out.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        Guid[] people = [.. request.People.Select(p => p.Employment)];
        // Nobody saves these records meanwhile: what is ticked is what was seen.
        await Locks.RecordsAsync(db, people, cancellation);
        var pay = await PayReading.LoadAsync(db, cancellation);
        if (pay.Groups.GetValueOrDefault(request.PayGroup) is not { } group || CheckedRun.On(pay, group, request.Period) is not { } run)
            return Refusal.NotFound;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var lines = (await PayRunLines.LoadAsync(db, reader, pay, actor.Today, [run], cancellation, people)).ToDictionary(l => l.Employment.Id);
        if (!people.All(lines.ContainsKey))
            return Refusal.NotFound;
        if (request.People.Any(p => lines[p.Employment].Version != p.Seen))
            return Refusal.ChangedMeanwhile;
        var checks = await db
            .PayChecks.Where(c => c.PayGroup == request.PayGroup && c.Period == run.Run.Start && people.Contains(c.EmploymentId))
            .ToDictionaryAsync(c => c.EmploymentId, cancellation);
        var author = actor.Author("payCheck");
        foreach (var line in people.Select(p => lines[p]).Where(l => l.IsChecked != request.Checked))
        {
            act.Note(author.Change(request.Checked ? "pay.checked" : "pay.unchecked", line.Employment.Id, $"{request.PayGroup} {run.Run.Start:uuuu-MM-dd}"));
            var check = checks.GetValueOrDefault(line.Employment.Id);
            if (!request.Checked)
                db.PayChecks.Remove(check!);
            else if (check is not null)
                (check.Seen, check.At, check.ByName) = (line.Facts, author.At, author.Name);
            else
                db.PayChecks.Add(
                    new PayCheck
                    {
                        EmploymentId = line.Employment.Id,
                        PayGroup = request.PayGroup,
                        Period = run.Run.Start,
                        Seen = line.Facts,
                        At = author.At,
                        ByName = author.Name,
                    }
                );
        }
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Period">A day of the run's period.</param>
/// <param name="Checked">Whether it is right; else that it is was said too early.</param>
public sealed record CheckPayRequest(string PayGroup, LocalDate Period, IReadOnlyList<CheckedPerson> People, bool Checked);

/// <summary>Somebody whose pay was looked at.</summary>
/// <param name="Seen">The version of what was seen, as the line said it.</param>
public sealed record CheckedPerson(Guid Employment, string Seen);
