using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts;

/// <summary>The firm's date and the moment. The date can be held still for demonstrations, pictures and tests.</summary>
public sealed class FirmClock(IClock clock, LocalDate? fixedToday)
{
    private const string ZoneBeforeThereIsAFirm = "Europe/Dublin";

    /// <summary>Now, in whole microseconds: all that the database keeps.</summary>
    public Instant Now
    {
        get
        {
            var now = clock.GetCurrentInstant();
            return Instant.FromUnixTimeTicks(now.ToUnixTimeTicks() / 10 * 10);
        }
    }

    /// <summary>Today, where the firm is.</summary>
    public async Task<LocalDate> TodayAsync(FidDb db, CancellationToken cancellation)
    {
        if (fixedToday is { } today)
            return today;
        var name = await db.Firms.Select(f => f.TimeZone).SingleOrDefaultAsync(cancellation) ?? ZoneBeforeThereIsAFirm;
        return clock.GetCurrentInstant().InZone(Firm.ZoneOf(name)).Date;
    }
}
