namespace Fid.Server.Platform;

/// <summary>Headers that keep a browser from doing what no page of ours asks for.</summary>
internal static class SecurityHeaders
{
    // What the page itself may load stands in it, with the hash of its one script; this is what only a header can say.
    private const string OfThePage = "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    // What the interface answers is data. Whatever a browser takes it for, nothing of it runs.
    private const string OfData = "default-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

    public static void UseFidSecurityHeaders(this WebApplication app) =>
        app.Use(
            (http, next) =>
            {
                var (headers, isData) = (http.Response.Headers, http.Request.Path.StartsWithSegments("/api"));
                headers.ContentSecurityPolicy = isData ? OfData : OfThePage;
                headers.XContentTypeOptions = "nosniff";
                headers["Referrer-Policy"] = "same-origin";
                headers["Permissions-Policy"] = "camera=(), geolocation=(), microphone=(), payment=()";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                if (isData)
                    headers.CacheControl = "no-store";
                return next();
            }
        );
}
