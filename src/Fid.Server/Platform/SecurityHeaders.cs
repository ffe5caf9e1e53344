using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Microsoft.Extensions.FileProviders;

namespace Fid.Server.Platform;

/// <summary>Headers that keep a browser from doing what no page of ours asks for.</summary>
internal static partial class SecurityHeaders
{
    public static void UseFidSecurityHeaders(this WebApplication app, IFileInfo page)
    {
        var policy =
            $"default-src 'self'; script-src 'self'{InlineHashes(page)}; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
            + "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";
        app.Use(
            (http, next) =>
            {
                var headers = http.Response.Headers;
                headers.ContentSecurityPolicy = policy;
                headers.XContentTypeOptions = "nosniff";
                headers["Referrer-Policy"] = "same-origin";
                headers["Permissions-Policy"] = "camera=(), geolocation=(), microphone=(), payment=()";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                if (http.Request.Path.StartsWithSegments("/api"))
                    headers.CacheControl = "no-store";
                return next();
            }
        );
    }

    // The page starts the application with one script of its own. It is allowed by its hash, and no other is.
    private static string InlineHashes(IFileInfo page)
    {
        if (!page.Exists)
            return "";
        using var reader = new StreamReader(page.CreateReadStream());
        var hashes = InlineScript()
            .Matches(reader.ReadToEnd())
            .Select(m => $" 'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(m.Groups[1].Value)))}'");
        return string.Concat(hashes);
    }

    [GeneratedRegex(@"<script(?![^>]*\ssrc=)[^>]*>(.*?)</script>", RegexOptions.Singleline)]
    private static partial Regex InlineScript();
}
