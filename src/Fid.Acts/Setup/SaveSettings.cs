using System.Text.Json;
using Fid.Acts.Lists;
using Fid.Core;
using Fid.Core.People;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Setup;

/// <summary>Changes the firm's settings.</summary>
public sealed class SaveSettings(FidDb db)
{
    private const int HoursOfAWeek = 168,
        MostDays = 3650;

    public async Task<ActResult> DoAsync(SettingsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Settings))
            return Refusal.Forbidden;
        if (Check(request).ToList() is { Count: > 0 } problems)
            return Refusal.Invalid(problems);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        var firm = await db.Firms.SingleAsync(cancellation);
        var before = JsonSerializer.Serialize(SettingsRequest.Of(firm), JsonSerializerOptions.Web);
        (firm.FullTimeHours, firm.LegalWeeklyHours, firm.BadgeRestDays, firm.BridgeDays, firm.NumberPattern) = (
            request.FullTimeHours,
            request.LegalWeeklyHours,
            request.BadgeRestDays,
            request.BridgeDays,
            request.NumberPattern
        );
        act.Note(
            actor.Author("setup").Change("firm.settings", firm.Id) with
            {
                Details = ListWriter.Details(before, JsonSerializer.Serialize(request, JsonSerializerOptions.Web)),
            }
        );
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private static IEnumerable<Problem> Check(SettingsRequest request)
    {
        foreach (var (hours, pointer) in new[] { (request.FullTimeHours, "/fullTimeHours"), (request.LegalWeeklyHours, "/legalWeeklyHours") })
            if (hours is <= 0 or > HoursOfAWeek)
                yield return new Problem(pointer, "out-of-range", $"Enter a number above 0, at most {HoursOfAWeek}.");
        foreach (var (days, pointer) in new[] { (request.BadgeRestDays, "/badgeRestDays"), (request.BridgeDays, "/bridgeDays") })
            if (days is < 0 or > MostDays)
                yield return new Problem(pointer, "out-of-range", $"Enter a number from 0 to {MostDays}.");
        foreach (var problem in EmployeeNumberPattern.Read(request.NumberPattern).Problems)
            yield return problem with
            {
                Path = "/numberPattern",
            };
    }
}

/// <summary>The firm's settings.</summary>
/// <param name="BridgeDays">The longest break between two stints over which service counts on.</param>
/// <param name="NumberPattern">How employee numbers are written: see <see cref="EmployeeNumberPattern"/>.</param>
public sealed record SettingsRequest(decimal FullTimeHours, decimal LegalWeeklyHours, int BadgeRestDays, int BridgeDays, string NumberPattern)
{
    public static SettingsRequest Of(Firm firm) => new(firm.FullTimeHours, firm.LegalWeeklyHours, firm.BadgeRestDays, firm.BridgeDays, firm.NumberPattern);
}
