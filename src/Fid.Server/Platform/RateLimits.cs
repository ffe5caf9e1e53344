using System.Threading.RateLimiting;

namespace Fid.Server.Platform;

/// <summary>How often something may be asked for.</summary>
internal static class RateLimits
{
    /// <summary>The limit of endpoints that take much of the server.</summary>
    public const string Costly = "costly";

    /// <summary>The limit of tries to sign in, and of all that is open to somebody who is not.</summary>
    public const string SignIn = "sign-in";

    // A quick typist never comes near it.
    private const int CostlyAtOnce = 120;

    public static void AddFidRateLimits(this IServiceCollection services, IConfiguration configuration)
    {
        var costlyAtOnce = configuration.GetValue("Fid:CostlyAtOnce", CostlyAtOnce);
        services.AddRateLimiter(options =>
        {
            options.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
            options.OnRejected = async (rejected, _) =>
            {
                var wait = rejected.Lease.TryGetMetadata(MetadataName.RetryAfter, out var after)
                    ? NodaTime.Duration.FromTimeSpan(after)
                    : NodaTime.Duration.FromSeconds(5);
                await Problems.Wait(rejected.HttpContext, wait).ExecuteAsync(rejected.HttpContext);
            };
            // What takes much is given out by the account: a quick typist never meets the limit, a loop does at once.
            options.AddPolicy(Costly, http =>
                RateLimitPartition.GetTokenBucketLimiter(
                    http.User.Identity?.IsAuthenticated == true ? http.User.Id().ToString() : http.Connection.RemoteIpAddress?.ToString() ?? "",
                    _ => new TokenBucketRateLimiterOptions
                    {
                        TokenLimit = costlyAtOnce,
                        TokensPerPeriod = 4,
                        ReplenishmentPeriod = TimeSpan.FromSeconds(1),
                        QueueLimit = 0,
                    }
                )
            );
            options.AddPolicy(SignIn, http =>
                RateLimitPartition.GetFixedWindowLimiter(http.Connection.RemoteIpAddress?.ToString() ?? "", _ => new FixedWindowRateLimiterOptions
                {
                    PermitLimit = 60,
                    Window = TimeSpan.FromMinutes(1),
                })
            );
        });
    }
}
