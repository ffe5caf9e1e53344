using Fid.Core;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Lists;
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

    /// <summary>Every entry of every list that a record can refer to, in one round trip.</summary>
    public static IQueryable<ListOption> Options(FidDb db) => db.Database.SqlQuery<ListOption>($"""
        select 'sites' as list, code, name, retired from sites
        union all select 'departments', code, name, retired from departments
        union all select 'jobs', code, name, retired from jobs
        union all select 'costCentres', code, name, retired from cost_centres
        union all select 'payGroups', code, name, retired from pay_groups
        union all select 'shiftPatterns', code, name, retired from shift_patterns
        union all select 'clockDevices', code, name, retired from clock_devices
        union all select 'calendars', code, name, retired from holiday_calendars
        union all select 'teams', code, name, retired from teams
        """);

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
