using System.Text.Json;
using Fid.Acts.People;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>What somebody has earned and will earn, as it is believed today: what is entered ahead too.</summary>
internal static class PayOverTime
{
    /// <summary>A step for each day on which it changes; of an employment whose rate the reader may see.</summary>
    public static async Task<PayStep[]> LoadAsync(FidDb db, PayReading pay, Employment employment, CancellationToken cancellation)
    {
        var stored = await db
            .RecordValues.AsNoTracking()
            .Where(v => v.OwnerId == employment.Id && PayReading.Fields.Contains(v.Field) && v.Known.UpperBoundInfinite)
            .Select(v => new
            {
                v.Field,
                v.Value,
                v.Effective,
            })
            .ToListAsync(cancellation);
        var values = stored.ConvertAll(v => (v.Field, Value: (JsonElement?)v.Value, Days: EffectiveRange.FromDatabase(v.Effective)));
        var steps = new List<PayStep>();
        foreach (var day in values.Select(v => v.Days.From).Distinct().Order())
        {
            // What is believed of one field holds on one day in one way.
            var then = values.Where(v => v.Days.From <= day && !(v.Days.To < day)).ToDictionary(v => v.Field, v => v.Value);
            if (pay.Rate(then) is { } rate && steps.LastOrDefault()?.Annual != rate.Annual)
                steps.Add(new PayStep(day, rate.Annual, rate.Hourly));
        }
        return [.. steps];
    }
}

/// <summary>What somebody earns from a day on.</summary>
public sealed record PayStep(LocalDate From, decimal Annual, decimal Hourly);
