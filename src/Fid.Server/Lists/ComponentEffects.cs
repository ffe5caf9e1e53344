using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Pay;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Lists;

/// <summary>What a change of a pay component would come to: example people before and after it, and everybody whose pay it touches. Nothing is saved.</summary>
internal static class ComponentEffects
{
    // The example amount of base pay is multiplied by these.
    private static readonly decimal[] Samples = [0.5m, 1, 2, 4];

    /// <summary>The most people who are listed; all are counted.</summary>
    private const int MostListed = 200;

    public static void MapComponentEffects(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/lists/payComponents/effects", Read)
            .WhoMay(Actions.See, Things.List)
            .OnlyReads()
            .RequireRateLimiting(RateLimits.Costly)
            .ProducesProblem(400);

    private static async Task<Results<Ok<ComponentEffectsResponse>, ProblemHttpResult>> Read(
        ComponentEffectsRequest request,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (request.On is { } on && !ValueCheck.IsSensible(on))
            return Problems.Invalid(new Core.Problem("/on", "bad-date", "Enter a date from 1900 to 2199."));
        var edited = await EditedComponents.ReadAsync(db, request.Entry, cancellation);
        if (edited.Problems.Count > 0)
            return Problems.Invalid(EntryRequest.Problems(edited.Problems));
        var day = request.On ?? actor.Today;
        var before = await PayReading.LoadAsync(db, cancellation);
        var after = before.With(edited.After);
        return TypedResults.Ok(
            new ComponentEffectsResponse(
                day,
                [.. SamplesOf(before, after, edited.After, day)],
                actor.May(Actions.See, Things.Pay) ? await PeopleAsync(db, actor, before, after, day, cancellation) : null
            )
        );
    }

    private static IEnumerable<ComponentSample> SamplesOf(PayReading before, PayReading after, IReadOnlyList<EntryContent> components, LocalDate day)
    {
        var example = components.FirstOrDefault(PayComponentEntry.StandsForBasePay)?.Number("amount") ?? 0;
        if (example == 0)
            yield break;
        foreach (var group in before.Groups.Values)
        foreach (var times in Samples)
        {
            var (every, amount) = (PayGroupEntry.Every(group), Money.Round(example * times));
            var (was, will) = (Whole(before), Whole(after));
            if (was is not null || will is not null)
                yield return new ComponentSample(group.NameIn(ReaderLanguage.Code), every, amount, PeriodSums.Of(was), PeriodSums.Of(will));

            PayPreview? Whole(PayReading pay) => pay.Components(group, [], day)?.Whole(every, amount, day).Answer;
        }
    }

    // All who work on the day, whose pay the reader may see.
    private static async Task<ComponentPeople> PeopleAsync(
        FidDb db,
        Actor actor,
        PayReading before,
        PayReading after,
        LocalDate day,
        CancellationToken cancellation
    )
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var found = await reader
            .Readable(db.CurrentRecords.AsNoTracking())
            .Join(
                db.Employments.Where(e => e.Start <= day && (e.End == null || e.End >= day)),
                r => r.EmploymentId,
                e => e.Id,
                (record, employment) => new { record, employment.Number }
            )
            .ToListAsync(cancellation);
        found.RemoveAll(f => !reader.SeesPay(reader.On(f.record)));
        var ids = found.ConvertAll(f => f.record.EmploymentId);
        var values = (
            await db
                .RecordValues.AsNoTracking()
                .Where(v => ids.Contains(v.OwnerId) && PayReading.AllFields.Contains(v.Field) && v.Known.UpperBoundInfinite && v.Effective.Contains(day))
                .ToListAsync(cancellation)
        ).ToLookup(v => v.OwnerId);
        var (touched, considered, lost) = (new List<TouchedPerson>(), 0, 0);
        decimal net = 0,
            cost = 0;
        foreach (var of in found)
        {
            var held = values[of.record.EmploymentId].ToDictionary(v => v.Address, v => (JsonElement?)v.Value, StringComparer.Ordinal);
            if (Whole(before, held) is not { } was)
                continue;
            considered++;
            if (Whole(after, held) is not { } will)
            {
                lost++;
                continue;
            }
            if ((was.Net, was.EmployerCost) == (will.Net, will.EmployerCost))
                continue;
            var group = before.Group(held)!;
            var periods = PayRate.PeriodsPerYear(PayGroupEntry.Every(group));
            net += (will.Net - was.Net) * periods;
            cost += (will.EmployerCost - was.EmployerCost) * periods;
            touched.Add(
                new TouchedPerson(
                    of.record.EmploymentId,
                    reader.NameOf(of.record, of.Number),
                    group.NameIn(ReaderLanguage.Code),
                    PeriodSums.Of(was)!,
                    PeriodSums.Of(will)!
                )
            );
        }
        // Those first for whom most changes.
        var listed = touched
            .OrderByDescending(t => Math.Abs(t.After.Net - t.Before.Net))
            .ThenByDescending(t => Math.Abs(t.After.EmployerCost - t.Before.EmployerCost))
            .ThenBy(t => t.Name, StringComparer.Ordinal)
            .Take(MostListed);
        return new ComponentPeople(considered, touched.Count, lost, net, cost, [.. listed]);

        PayPreview? Whole(PayReading pay, Dictionary<string, JsonElement?> held) =>
            pay.Rate(held) is { } rate && pay.Group(held) is { } group && pay.Components(held, day, day) is { } components
                ? components.Whole(PayGroupEntry.Every(group), rate.PerPeriod, day).Answer
                : null;
    }
}

/// <param name="On">The day that says which components hold, and who works here; today where left out.</param>
public sealed record ComponentEffectsRequest(EntryRequest Entry, LocalDate? On);

/// <param name="Samples">Example people of every pay group, before and after.</param>
/// <param name="People">Everybody whose pay it is; null for those who do not see pay.</param>
public sealed record ComponentEffectsResponse(LocalDate Day, ComponentSample[] Samples, ComponentPeople? People);

/// <summary>An example person; null where their pay cannot be worked out.</summary>
/// <param name="Amount">The base pay of a period.</param>
public sealed record ComponentSample(string PayGroup, PayPeriod Every, decimal Amount, PeriodSums? Before, PeriodSums? After);

/// <summary>What a whole period comes to.</summary>
public sealed record PeriodSums(decimal Gross, decimal Net, decimal EmployerCost)
{
    internal static PeriodSums? Of(PayPreview? period) => period is null ? null : new(period.Gross, period.Net, period.EmployerCost);
}

/// <param name="Considered">How many can be paid by the components as they are.</param>
/// <param name="Touched">For how many a period comes to something else.</param>
/// <param name="NotWorkedOut">For how many it could not be worked out any more.</param>
/// <param name="AnnualNet">What all are paid more in a year, negative for less.</param>
/// <param name="AnnualCost">What the firm pays more in a year.</param>
/// <param name="First">Those for whom most changes.</param>
public sealed record ComponentPeople(int Considered, int Touched, int NotWorkedOut, decimal AnnualNet, decimal AnnualCost, TouchedPerson[] First);

public sealed record TouchedPerson(Guid EmploymentId, string Name, string PayGroup, PeriodSums Before, PeriodSums After);
