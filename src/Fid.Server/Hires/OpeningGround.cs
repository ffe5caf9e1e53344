using System.Security.Claims;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.Lists;
using Fid.Data.Templates;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>What hires are opened on, read once for all that are opened together.</summary>
/// <param name="Reader">Whoever opens them.</param>
internal sealed record OpeningGround(LocalDate Today, Reader Reader, TemplateBook Templates)
{
    public static async Task<OpeningGround> LoadAsync(ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation) => new(
        await clock.TodayAsync(db, cancellation), await Reader.OfAsync(user, db, cancellation), await TemplateBook.LoadAsync(db, cancellation));
}

/// <summary>What it takes besides to show hires before they are opened.</summary>
/// <param name="Called">What people that values name are called; null to look each up.</param>
internal sealed record PreviewBooks(ListNames Names, CalendarBook Calendars, IReadOnlyList<PlanStage> Stages, IReadOnlyDictionary<Guid, string>? Called = null)
{
    public static async Task<PreviewBooks> LoadAsync(Reader reader, FidDb db, CancellationToken cancellation) =>
        new(await ListNames.LoadAsync(db, cancellation, reader.SeesNames), await CalendarBook.LoadAsync(db, cancellation), await Stage.PlanAsync(db, cancellation));
}
