using Fid.Acts;
using Fid.Acts.Rights;
using Fid.Core;
using Fid.Data;
using Microsoft.AspNetCore.Authorization;

namespace Fid.Server.Platform;

/// <summary>Makes the actor of a request from the signed-in user and what the request says, for the endpoint to hand to its act.</summary>
internal static class RequestActor
{
    /// <summary>The key under which a browser sends an act, so that it can send it again when it does not know what became of it: the
    /// Idempotency-Key header field of the IETF's HTTP API working group.</summary>
    public const string KeyHeader = "Idempotency-Key";

    public static void AddRequestActor(this IServiceCollection services) =>
        services.AddScoped(provider =>
            provider.GetRequiredService<IHttpContextAccessor>().HttpContext?.Features.Get<Actor>()
            ?? throw new InvalidOperationException("Only whoever is signed in acts here.")
        );

    /// <summary>For requests of somebody who is signed in, where the endpoint is for those who may something, or asks for who it is. It comes before
    /// the endpoint's policy is asked.</summary>
    public static void UseRequestActor(this WebApplication app) =>
        app.Use(
            async (http, next) =>
            {
                if (http.User.Identity?.IsAuthenticated == true && http.GetEndpoint() is { } endpoint && Asks(endpoint))
                {
                    Guid? key = null;
                    if (http.Request.Headers[KeyHeader].ToString() is { Length: > 0 } text)
                    {
                        if (!Guid.TryParse(text.Trim('"'), out var sent))
                        {
                            await Problems.Invalid(new Problem("/" + KeyHeader, "bad-value", "A key is a UUID.")).ExecuteAsync(http);
                            return;
                        }
                        key = sent;
                    }
                    var (clock, db) = (http.RequestServices.GetRequiredService<FirmClock>(), http.RequestServices.GetRequiredService<FidDb>());
                    var (account, today) = (http.User.Shown(), await clock.TodayAsync(db, http.RequestAborted));
                    var holder = await AccountHolder.FindAsync(db, account, today, http.RequestAborted);
                    // Whoever looks as somebody else does proves nothing for them.
                    if (account == http.User.Id() && SecondFactorGate.Lacking(http, holder?.NeedsSecondFactor == true) is { } lacking)
                    {
                        await lacking.ExecuteAsync(http);
                        return;
                    }
                    http.Features.Set(Actor.Of(holder, account, null, key, clock, today));
                }
                await next(http);
            }
        );

    private static bool Asks(Endpoint endpoint) =>
        endpoint.Metadata.GetMetadata<IAuthorizeData>()?.Policy is not (null or Access.Anybody or Access.SignedIn)
        || endpoint.Metadata.GetMetadata<System.Reflection.MethodInfo>()?.GetParameters().Any(p => p.ParameterType == typeof(Actor)) == true;
}
