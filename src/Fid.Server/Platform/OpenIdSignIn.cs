using System.Security.Claims;
using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Data;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;

namespace Fid.Server.Platform;

/// <summary>Signing in where the firm's people sign in anyway: by OpenID Connect, with the authorization code and PKCE (RFC 7636). Who that is here
/// is for <see cref="SignInByIssuer"/> to say.</summary>
internal static class OpenIdSignIn
{
    private const string Scheme = "openid",
        CallbackPath = "/api/session/openid/callback";

    /// <summary>Adds it where an issuer is named in the settings: Fid:OpenId with Issuer, Client, and Secret where the client has one.</summary>
    public static void AddOpenIdSignIn(this IServiceCollection services, IConfiguration configuration)
    {
        var settings = configuration.GetSection("Fid:OpenId").Get<OpenIdSettings>() ?? new OpenIdSettings();
        services.AddSingleton(settings);
        if (settings.Issuer is not { Length: > 0 } issuer)
            return;
        services
            .AddAuthentication()
            .AddOpenIdConnect(Scheme, options =>
            {
                (options.Authority, options.ClientId, options.ClientSecret) = (issuer, settings.Client, settings.Secret);
                // Only on one's own machine is a line without TLS good enough.
                options.RequireHttpsMetadata = !(Uri.TryCreate(issuer, UriKind.Absolute, out var uri) && uri.IsLoopback);
                options.CallbackPath = CallbackPath;
                (options.ResponseType, options.ResponseMode) = (OpenIdConnectResponseType.Code, OpenIdConnectResponseMode.Query);
                options.UsePkce = true;
                (options.MapInboundClaims, options.SaveTokens) = (false, false);
                options.Scope.Clear();
                foreach (var scope in new[] { "openid", "email", "profile" })
                    options.Scope.Add(scope);
                foreach (var cookie in new[] { options.CorrelationCookie, options.NonceCookie })
                    (cookie.SameSite, cookie.SecurePolicy) = (SameSiteMode.Lax, CookieSecurePolicy.SameAsRequest);
                options.Events.OnTicketReceived = ReceivedAsync;
                options.Events.OnRemoteFailure = failed =>
                {
                    failed.Response.Redirect(To("issuer-failed"));
                    failed.HandleResponse();
                    return Task.CompletedTask;
                };
            });
    }

    public static void MapOpenIdSignIn(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/session/ways", (OpenIdSettings settings) => TypedResults.Ok(new SignInWays(settings.Issuer is null ? null : settings.Name)))
            .WhoMay(Access.Anybody);
        app.MapGet("/api/session/openid", Begin).WhoMay(Access.Anybody).RequireRateLimiting(RateLimits.SignIn).ProducesProblem(404).ProducesProblem(429);
    }

    private static Results<ChallengeHttpResult, ProblemHttpResult> Begin(string? to, OpenIdSettings settings) =>
        settings.Issuer is null ? Problems.NotFound() : TypedResults.Challenge(new AuthenticationProperties { RedirectUri = IsOurs(to) ? to : "/" }, [Scheme]);

    // Nobody is signed in by the issuer's word alone: it says who they are, and the account is found by the rule.
    private static async Task ReceivedAsync(TicketReceivedContext received)
    {
        var http = received.HttpContext;
        var (db, clock) = (http.RequestServices.GetRequiredService<FidDb>(), http.RequestServices.GetRequiredService<FirmClock>());
        received.HandleResponse();
        if (Vouched(received.Principal!, received.Options) is not { } vouched)
        {
            http.Response.Redirect(To("issuer-failed"));
            return;
        }
        var result = await http.RequestServices.GetRequiredService<SignInByIssuer>().DoAsync(vouched, Actor.Visitor(clock), http.RequestAborted);
        if (!result.IsDone(out var account, out var refusal))
        {
            await SecurityTrail.NoteAsync(db, clock, http, SecurityTrail.IssuerRefused, null, refusal.Code, http.RequestAborted);
            http.Response.Redirect(To(refusal.Code));
            return;
        }
        await Session.BeginAsync(account.Id, account.Name, db, clock, http, http.RequestAborted);
        http.Response.Redirect(IsOurs(received.ReturnUri) ? received.ReturnUri! : "/");
    }

    private static VouchedFor? Vouched(ClaimsPrincipal principal, RemoteAuthenticationOptions options) =>
        principal.FindFirst("sub") is { Value.Length: > 0 and <= 255 } subject
            ? new VouchedFor(
                ((OpenIdConnectOptions)options).Authority!,
                subject.Value,
                principal.FindFirstValue("email"),
                principal.FindFirstValue("email_verified") is { } verified && bool.TryParse(verified, out var isVerified) && isVerified
            )
            : null;

    private static string To(string problem) => $"/sign-in?problem={problem}";

    // A path of this server, and no other place that looks like one.
    private static bool IsOurs(string? path) => path is ['/', .. var rest] && rest is not ['/', ..] and not ['\\', ..] && !path.Any(char.IsControl);
}

/// <summary>How else than by a password somebody can sign in.</summary>
/// <param name="OpenId">What the place is called where the firm's people sign in anyway; null where there is none.</param>
public sealed record SignInWays(string? OpenId);

/// <summary>The issuer whose word is taken.</summary>
public sealed record OpenIdSettings
{
    /// <summary>Its address; null for none.</summary>
    public string? Issuer { get; init; }

    /// <summary>What Fid is called there.</summary>
    public string Client { get; init; } = "fid";

    /// <summary>The secret of the client; null for one without.</summary>
    public string? Secret { get; init; }

    /// <summary>What it is called on the page for signing in.</summary>
    public string Name { get; init; } = "OpenID";
}
