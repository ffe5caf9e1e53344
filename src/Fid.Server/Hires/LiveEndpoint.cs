using System.Security.Claims;
using Fid.Acts;
using Fid.Acts.Exchange;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Hires;

/// <summary>Live changes over HTTP: to each listener those of what they may read.</summary>
internal static class LiveEndpoint
{
    public static void MapLive(this IEndpointRouteBuilder app) =>
        app.MapGet(
                "/api/live",
                (LiveChanges live, IServiceScopeFactory scopes, FirmClock clock, IHostApplicationLifetime lifetime, ClaimsPrincipal user, HttpContext http) =>
                {
                    var ends = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted, lifetime.ApplicationStopping);
                    http.Response.RegisterForDispose(ends);
                    return TypedResults.ServerSentEvents(live.ListenAsync(new LiveListener(user, scopes, clock), ends.Token));
                }
            )
            .WhoMay(Access.SignedIn)
            .ExcludeFromDescription();

    /// <summary>Reads rights anew for each change: a stream stays open longer than many of them last.</summary>
    private sealed class LiveListener(ClaimsPrincipal user, IServiceScopeFactory scopes, FirmClock clock) : ILiveListener
    {
        private const string Hire = "hire:",
            Record = "record:",
            Import = "import:",
            Intake = "intake",
            Templates = "templates";

        public async Task<IReadOnlyList<string>?> MayHearAsync(IReadOnlyList<string> changes, CancellationToken cancellation)
        {
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<FidDb>();
            if (!await SessionStore.GoesOnAsync(user, db, clock, cancellation))
                return null;
            // What they may is read anew: a role can have ended since the last change.
            var (account, today) = (user.Shown(), await clock.TodayAsync(db, cancellation));
            if (await AccountHolder.FindAsync(db, account, today, cancellation) is not { } holder)
                return null;
            var actor = Actor.Of(holder, account, null, null, clock, today);
            // That a session ended is for this server alone.
            changes = [.. changes.Where(c => !c.StartsWith("session:", StringComparison.Ordinal))];
            var (hires, records, imports) = (Ids(changes, Hire), Ids(changes, Record), Ids(changes, Import));
            if (hires.Count > 0 && !actor.Rights.MayToAll(Actions.See, Things.Hire))
            {
                var visible = await HireAccess.VisibleAsync(actor, db, cancellation);
                var asked = db.Hires.Where(h => hires.Contains(h.Id));
                hires =
                [
                    .. await visible(asked).Select(h => h.Id).Union(new OwnTasks(actor, db).Concerning(asked).Select(h => h.Id)).ToListAsync(cancellation),
                ];
            }
            if (records.Count > 0 && !actor.Rights.MayToAll(Actions.See, Things.Record))
                records =
                [
                    .. await (await Reader.OfAsync(actor, db, cancellation))
                        .Readable(db.CurrentRecords)
                        .Where(r => records.Contains(r.EmploymentId))
                        .Select(r => r.EmploymentId)
                        .ToListAsync(cancellation),
                ];
            if (imports.Count > 0)
            {
                var by = account;
                imports = actor.May(Actions.Edit, Things.Sheet)
                    ?
                    [
                        .. await db
                            .ImportRuns.Where(r =>
                                imports.Contains(r.Id) && ((r.List != PeopleTarget.Key && !r.List.StartsWith(RowsTarget.Prefix)) || r.ById == by)
                            )
                            .Select(r => r.Id)
                            .ToListAsync(cancellation),
                    ]
                    : [];
            }
            return
            [
                .. changes.Where(c =>
                    (
                        !c.Contains(':', StringComparison.Ordinal)
                        && (c != Intake || actor.May(Actions.Edit, Things.Candidate))
                        && (c != Templates || actor.May(Actions.See, Things.Template))
                    )
                    || Of(c, Hire, hires)
                    || Of(c, Record, records)
                    || Of(c, Import, imports)
                ),
            ];
        }

        private static HashSet<Guid> Ids(IReadOnlyList<string> changes, string kind) =>
            [
                .. changes
                    .Where(c => c.StartsWith(kind, StringComparison.Ordinal))
                    .Select(c => Guid.TryParse(c.AsSpan(kind.Length), out var id) ? id : Guid.Empty),
            ];

        private static bool Of(string change, string kind, HashSet<Guid> heard) =>
            change.StartsWith(kind, StringComparison.Ordinal) && Guid.TryParse(change.AsSpan(kind.Length), out var id) && heard.Contains(id);
    }
}
