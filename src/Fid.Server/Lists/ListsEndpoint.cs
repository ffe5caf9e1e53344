using Fid.Data;
using Fid.Data.Lists;
using Fid.Core.Calendars;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Lists;

/// <summary>What pickers offer, and dates as people type them.</summary>
internal static class ListsEndpoint
{
    public static void MapLists(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/lists", Show).WhoMay(Access.SeesArrivals);
        app.MapGet("/api/dates", ReadDate).WhoMay(Access.SignedIn).ProducesProblem(StatusCodes.Status400BadRequest);
    }

    /// <summary>Every entry of every list that a record can refer to.</summary>
    public static IQueryable<ListOption> Options(FidDb db) =>
        Of(db.Sites, "sites")
            .Concat(Of(db.Departments, "departments")).Concat(Of(db.Jobs, "jobs")).Concat(Of(db.CostCentres, "costCentres"))
            .Concat(Of(db.PayGroups, "payGroups")).Concat(Of(db.ShiftPatterns, "shiftPatterns")).Concat(Of(db.ClockDevices, "clockDevices"))
            .Concat(Of(db.HolidayCalendars, "calendars")).Concat(Of(db.Teams, "teams"));

    private static IQueryable<ListOption> Of<T>(IQueryable<T> entries, string list)
        where T : ListEntry => entries.Select(e => new ListOption(list, e.Code, e.Name, e.Retired));

    private static async Task<Ok<ListOption[]>> Show(FidDb db, CancellationToken cancellation) =>
        TypedResults.Ok((await Options(db).ToListAsync(cancellation)).OrderBy(o => o.List, StringComparer.Ordinal).ThenBy(o => o.Name, StringComparer.Ordinal).ToArray());

    private static async Task<Results<Ok<DateResponse>, ProblemHttpResult>> ReadDate(string text, string? calendar, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var today = await clock.TodayAsync(db, cancellation);
        var calendars = await CalendarBook.LoadAsync(db, cancellation);
        if (text.Length > 100 || DateEntry.Read(text, today, calendars[calendar]) is not { } date || !ValueCheck.IsSensible(date))
            return Problems.Invalid(new Problem("/text", "bad-date", "Enter a date, such as 8/3, 8 Mar, next Monday or +10wd."));
        return TypedResults.Ok(new DateResponse(date, Period.DaysBetween(today, date)));
    }
}

/// <summary>A date that was typed.</summary>
/// <param name="Date">The date meant.</param>
/// <param name="DaysAhead">Days from today to it; negative in the past.</param>
public sealed record DateResponse(LocalDate Date, int DaysAhead);
