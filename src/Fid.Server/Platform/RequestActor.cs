using System.Security.Claims;
using Fid.Acts;
using Fid.Core;
using Fid.Data;

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

    /// <summary>For requests to the interface of somebody who is signed in, where the endpoint asks for who it is.</summary>
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
                    http.Features.Set(Of(http.User, clock, await clock.TodayAsync(db, http.RequestAborted), key));
                }
                await next(http);
            }
        );

    /// <summary>The signed-in user as an actor.</summary>
    private static Actor Of(ClaimsPrincipal user, FirmClock clock, NodaTime.LocalDate today, Guid? key) =>
        new()
        {
            Kind = ActorKind.Person,
            AccountId = user.Id(),
            Name = user.FindFirstValue(FidClaims.DisplayName) ?? "",
            RoleNames = [.. Data.Firms.Roles.All.Where(user.IsInRole)],
            PersonId = Guid.TryParse(user.FindFirstValue(FidClaims.Person), out var person) ? person : null,
            Teams = [.. user.FindAll(FidClaims.Team).Select(c => c.Value)],
            Key = key,
            Clock = clock,
            Today = today,
        };

    private static bool Asks(Endpoint endpoint) =>
        endpoint.Metadata.GetMetadata<System.Reflection.MethodInfo>()?.GetParameters().Any(p => p.ParameterType == typeof(Actor)) == true;
}
