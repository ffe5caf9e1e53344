using System.Globalization;
using System.Text;
using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Calendar = Ical.Net.Calendar;

namespace Fid.Server.Arrivals;

/// <summary>Who arrives when, for a calendar program that reads it by a user's private link (RFC 5545). What a link holds stands in its address,
/// since such programs know nothing else: whoever has it sees what its user sees of starts, and its user can end it at any time.</summary>
internal static class ArrivalsCalendar
{
    private const int LongestToken = 100;

    public static void MapArrivalsCalendar(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/arrivals/calendar-link", Show).WhoMay(Actions.See, Things.Hire);
        app.MapPost("/api/arrivals/calendar-link", Make).WhoMay(Actions.See, Things.Hire).AsksAgain();
        app.MapDelete("/api/arrivals/calendar-link", End).WhoMay(Access.SignedIn).ProducesProblem(404);
        app.MapGet("/api/calendars/{token}/arrivals.ics", Read)
            .WhoMay(Access.Anybody)
            .RequireRateLimiting(RateLimits.SignIn)
            .ProducesProblem(404)
            .ProducesProblem(429);
    }

    private static async Task<Ok<CalendarLinkResponse>> Show(Actor actor, FidDb db, CancellationToken cancellation) =>
        TypedResults.Ok(
            new CalendarLinkResponse(
                await db.CalendarLinks.Where(l => l.UserId == actor.Account).Select(l => (Instant?)l.MadeAt).SingleOrDefaultAsync(cancellation)
            )
        );

    private static async Task<Results<Ok<CalendarLinkMade>, ProblemHttpResult>> Make(Actor actor, MakeCalendarLink make, CancellationToken cancellation) =>
        (await make.DoAsync(new MakeCalendarLinkRequest(), actor, cancellation)).IsDone(out var token, out var refusal)
            ? TypedResults.Ok(new CalendarLinkMade($"/api/calendars/{token}/arrivals.ics"))
            : Problems.Of(refusal);

    private static async Task<Results<NoContent, ProblemHttpResult>> End(Actor actor, EndCalendarLink end, CancellationToken cancellation) =>
        (await end.DoAsync(new EndCalendarLinkRequest(), actor, cancellation)).Answer();

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Read(
        string token,
        FidDb db,
        FirmClock clock,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (token.Length > LongestToken || await MakeCalendarLink.FindAccountAsync(db, token, cancellation) is not { } account)
            return Problems.NotFound();
        var reader = await Actor.OfAccountAsync(account, "calendar", clock, db, cancellation);
        if (!reader.May(Actions.See, Things.Hire))
            return Problems.NotFound();
        var language = await db.Users.Where(u => u.Id == account).Select(u => u.Language).SingleAsync(cancellation);
        // Whoever reads is a program: it is spoken to as its user is.
        CultureInfo.CurrentUICulture = CultureInfo.GetCultureInfo(language);
        var calendar = await CalendarAsync(reader, db, cancellation);
        http.Response.Headers.CacheControl = "private, no-store";
        return TypedResults.File(Encoding.UTF8.GetBytes(new CalendarSerializer().SerializeToString(calendar)!), "text/calendar; charset=utf-8", "arrivals.ics");
    }

    private static async Task<Calendar> CalendarAsync(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation, reader.SeesNames);
        var facts = new VisibleFacts(reader, names);
        var firm = await db.Firms.Select(f => f.Name).SingleAsync(cancellation);
        var calendar = new Calendar { ProductId = "-//Fid//Arrivals//EN", Scale = "GREGORIAN" };
        calendar.AddProperty("X-WR-CALNAME", ReaderLanguage.IsGerman ? $"{firm}: Wer kommt" : $"{firm}: arrivals");
        var visible = await HireAccess.VisibleAsync(actor, db, cancellation);
        foreach (var hire in await HiresUnderWay.HeadsAsync(db, visible(db.Hires.Where(h => h.Occasion == Occasion.Arrival && h.Closed == null)), cancellation))
        {
            var head = facts.Of(hire);
            var name = head.FullName is { Length: > 0 } full ? full : head.Number;
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = $"{head.Id:N}@fid",
                    Summary = ReaderLanguage.IsGerman ? $"{name} beginnt" : $"{name} starts",
                    Description = string.Join(", ", new[] { names.Job(head.JobCode), names.Kind(head.Kind), head.CoordinatorName }.OfType<string>()),
                    Location = names.Site(head.SiteCode),
                    Start = Day(head.Start),
                    End = Day(head.Start.PlusDays(1)),
                    Transparency = Ical.Net.TransparencyType.Transparent,
                    DtStamp = new CalDateTime(actor.Clock.Now.ToDateTimeUtc()),
                }
            );
        }
        return calendar;
    }

    private static CalDateTime Day(LocalDate day) => new(day.Year, day.Month, day.Day);
}

/// <param name="MadeAt">When the user's link was made; null where there is none.</param>
public sealed record CalendarLinkResponse(Instant? MadeAt);

/// <param name="Path">The path of the link on this server. It is shown this once.</param>
public sealed record CalendarLinkMade(string Path);
