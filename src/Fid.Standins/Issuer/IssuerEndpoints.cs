using System.Security.Claims;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore;
using Microsoft.AspNetCore.Http.HttpResults;
using OpenIddict.Abstractions;
using OpenIddict.Server;
using OpenIddict.Server.AspNetCore;
using static OpenIddict.Abstractions.OpenIddictConstants;

namespace Fid.Standins.Issuer;

/// <summary>An issuer of OpenID Connect (Core 1.0, authorization code with PKCE) that lets anybody be whoever they say: for trying out, and for
/// nothing else. It keeps nothing: its keys end with it.</summary>
public static class IssuerEndpoints
{
    /// <summary>The one client it knows.</summary>
    public const string Client = "fid";

    private const string Authorize = "/issuer/authorize";

    public static void AddIssuer(this IServiceCollection services) =>
        services
            .AddOpenIddict()
            .AddServer(server =>
            {
                server.SetAuthorizationEndpointUris(Authorize).SetTokenEndpointUris("/issuer/token");
                server.AllowAuthorizationCodeFlow().RequireProofKeyForCodeExchange();
                server.RegisterScopes(Scopes.Email, Scopes.Profile);
                server.AddEphemeralEncryptionKey().AddEphemeralSigningKey();
                // Without a store there are no clients to look up: what is asked is looked at here.
                server.EnableDegradedMode();
                server.AddEventHandler<OpenIddictServerEvents.ValidateAuthorizationRequestContext>(handler =>
                    handler.UseInlineHandler(asked =>
                    {
                        if (asked.ClientId != Client)
                            asked.Reject(Errors.InvalidClient, "This issuer knows one client, fid.");
                        else if (!Uri.TryCreate(asked.RedirectUri, UriKind.Absolute, out var uri) || !uri.IsLoopback)
                            asked.Reject(Errors.InvalidRequest, "This issuer sends nobody further than this machine.");
                        return default;
                    })
                );
                server.AddEventHandler<OpenIddictServerEvents.ValidateTokenRequestContext>(handler =>
                    handler.UseInlineHandler(asked =>
                    {
                        if (asked.ClientId != Client)
                            asked.Reject(Errors.InvalidClient, "This issuer knows one client, fid.");
                        return default;
                    })
                );
                server.UseAspNetCore().EnableAuthorizationEndpointPassthrough().DisableTransportSecurityRequirement();
            });

    // Who somebody says they are comes with what was asked: first the page, which sends both, then the answer.
    public static void MapIssuer(this IEndpointRouteBuilder app) =>
        app.MapGet(Authorize, IResult (HttpContext http) =>
            http.Request.Query.ContainsKey("email") ? SignIn(http, http.Request.Query) : Page(http.Request.Query)
        );

    private static ContentHttpResult Page(IQueryCollection asked)
    {
        using var page = new StreamReader(typeof(IssuerEndpoints).Assembly.GetManifestResourceStream("issuer.html")!);
        var hidden = asked.Select(a => $"""<input type="hidden" name="{Encoded(a.Key)}" value="{Encoded(a.Value.ToString())}" />""");
        return TypedResults.Text(page.ReadToEnd().Replace("<!-- what was asked -->", string.Concat(hidden), StringComparison.Ordinal), "text/html");

        static string Encoded(string text) => HtmlEncoder.Default.Encode(text);
    }

    private static IResult SignIn(HttpContext http, IQueryCollection said)
    {
        var request = http.GetOpenIddictServerRequest() ?? throw new InvalidOperationException("This is no request of OpenID Connect.");
        var email = said["email"].ToString().Trim();
        var identity = new ClaimsIdentity("issuer", Claims.Name, Claims.Role);
        identity
            .SetClaim(Claims.Subject, said["subject"].ToString() is { Length: > 0 } subject ? subject : $"subject of {email}")
            .SetClaim(Claims.Email, email)
            .SetClaim(Claims.EmailVerified, said["verified"].Count > 0);
        identity.SetScopes(request.GetScopes());
        identity.SetDestinations(_ => [Destinations.IdentityToken]);
        return Results.SignIn(new ClaimsPrincipal(identity), properties: null, OpenIddictServerAspNetCoreDefaults.AuthenticationScheme);
    }
}
