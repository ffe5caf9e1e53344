using Microsoft.AspNetCore.Antiforgery;

namespace Fid.Server.Platform;

/// <summary>Antiforgery for a single-page application: the token is handed out in a cookie that script can read, and has to come
/// back in a header on every unsafe method.</summary>
internal static class CrossSite
{
    public const string Cookie = "fid-xsrf";
    public const string Header = "X-Fid-Xsrf";

    public static void AddFidAntiforgery(this IServiceCollection services) =>
        services.AddAntiforgery(options =>
        {
            options.HeaderName = Header;
            options.Cookie.Name = "fid-antiforgery";
            options.Cookie.SameSite = SameSiteMode.Strict;
        });

    /// <summary>Hands out a token for the user of this request, or of the session that begins with it.</summary>
    public static void HandOut(HttpContext http)
    {
        var tokens = http.RequestServices.GetRequiredService<IAntiforgery>().GetAndStoreTokens(http);
        http.Response.Cookies.Append(
            Cookie,
            tokens.RequestToken!,
            new CookieOptions
            {
                HttpOnly = false,
                SameSite = SameSiteMode.Strict,
                Secure = http.Request.IsHttps,
                Path = "/",
            }
        );
    }

    public static void UseFidAntiforgery(this WebApplication app) =>
        app.Use(
            async (http, next) =>
            {
                var safe = HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method) || HttpMethods.IsOptions(http.Request.Method);
                if (!safe && !await http.RequestServices.GetRequiredService<IAntiforgery>().IsRequestValidAsync(http))
                {
                    await Problems.Make(StatusCodes.Status400BadRequest, "stale-page", "This page has been open too long. Load it again.").ExecuteAsync(http);
                    return;
                }
                await next();
            }
        );
}
