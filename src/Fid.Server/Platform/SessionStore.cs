using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using Fid.Acts;
using Fid.Data;
using Fid.Data.Firms;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>Keeps sessions in the database. The cookie holds a random name of one, which says nothing and ends nothing.</summary>
internal sealed class SessionStore(IServiceScopeFactory scopes, FirmClock clock, IHttpContextAccessor http) : ITicketStore
{
    /// <summary>How long a session lasts at most: a working day.</summary>
    public static readonly Duration Lifetime = Duration.FromHours(12);

    /// <summary>How long ended sessions are kept, to be looked up.</summary>
    private static readonly Duration Kept = Duration.FromDays(90);

    private const int KeyBytes = 32;

    public async Task<string> StoreAsync(AuthenticationTicket ticket)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FidDb>();
        var (key, now, request) = (Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(KeyBytes)), clock.Now, http.HttpContext?.Request);
        db.UserSessions.Add(
            new UserSession
            {
                KeyHash = Hash(key),
                UserId = ticket.Principal.Id(),
                StartedAt = now,
                EndsAt = now + Lifetime,
                Address = Short(http.HttpContext?.Connection.RemoteIpAddress?.ToString() ?? "", 100),
                Browser = Short(request?.Headers.UserAgent.ToString() ?? "", 300),
            }
        );
        await db.SaveChangesAsync();
        await db.UserSessions.Where(s => s.EndsAt < now - Kept).ExecuteDeleteAsync();
        return key;
    }

    // A session has one end, and nothing of it is renewed.
    public Task RenewAsync(string key, AuthenticationTicket ticket) => Task.CompletedTask;

    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FidDb>();
        var (hash, now) = (Hash(key), clock.Now);
        var found = await db
            .UserSessions.AsNoTracking()
            .Where(s => s.KeyHash == hash && s.EndedAt == null && s.EndsAt > now)
            .Join(
                db.Users.Where(u => u.DisabledAt == null),
                s => s.UserId,
                u => u.Id,
                (s, u) =>
                    new
                    {
                        s.Id,
                        s.UserId,
                        u.DisplayName,
                        s.StartedAt,
                        s.EndsAt,
                        s.ViewsAsId,
                        s.ProvedAt,
                        u.SecondFactorSince,
                    }
            )
            .SingleOrDefaultAsync();
        if (found is null)
            return null;
        var principal = SessionPrincipal.Of(found.UserId, found.DisplayName);
        principal.Identities.First().AddClaim(new Claim(FidClaims.Session, found.Id.ToString()));
        if (found.ViewsAsId is { } other)
            principal.Identities.First().AddClaim(new Claim(FidClaims.ViewsAs, other.ToString()));
        if (found.SecondFactorSince is not null)
            principal.Identities.First().AddClaim(new Claim(FidClaims.HasFactor, "true"));
        if (found.ProvedAt is { } proved)
            principal
                .Identities.First()
                .AddClaim(new Claim(FidClaims.ProvedAt, proved.ToUnixTimeSeconds().ToString(System.Globalization.CultureInfo.InvariantCulture)));
        var properties = new AuthenticationProperties { IssuedUtc = found.StartedAt.ToDateTimeOffset(), ExpiresUtc = found.EndsAt.ToDateTimeOffset() };
        return new AuthenticationTicket(principal, properties, IdentityConstants.ApplicationScheme);
    }

    public async Task RemoveAsync(string key)
    {
        await using var scope = scopes.CreateAsyncScope();
        var (hash, now) = (Hash(key), clock.Now);
        await scope
            .ServiceProvider.GetRequiredService<FidDb>()
            .UserSessions.Where(s => s.KeyHash == hash && s.EndedAt == null)
            .ExecuteUpdateAsync(s => s.SetProperty(x => x.EndedAt, now));
    }

    /// <summary>Whether the session a request came with still goes on.</summary>
    public static async Task<bool> GoesOnAsync(ClaimsPrincipal user, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var now = clock.Now;
        return Guid.TryParse(user.FindFirstValue(FidClaims.Session), out var id)
            && await db.UserSessions.AnyAsync(s => s.Id == id && s.EndedAt == null && s.EndsAt > now, cancellation);
    }

    private static byte[] Hash(string key) => SHA256.HashData(Encoding.UTF8.GetBytes(key));

    private static string Short(string text, int longest) => text.Length <= longest ? text : text[..longest];
}
