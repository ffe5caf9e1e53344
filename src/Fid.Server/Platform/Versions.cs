using System.Globalization;

namespace Fid.Server.Platform;

/// <summary>Versions of what is saved, as ETag and If-Match (RFC 9110, 8.8.3 and 13.1.1).</summary>
public static class Versions
{
    public static string Tag(uint version) => string.Create(CultureInfo.InvariantCulture, $"\"{version}\"");

    /// <summary>The version the client saw; null when it does not say, or says something that is no version of ours.</summary>
    public static uint? Seen(HttpRequest request) =>
        uint.TryParse(request.Headers.IfMatch.ToString().Trim('"'), NumberStyles.None, CultureInfo.InvariantCulture, out var version) ? version : null;

    public static void Show(HttpResponse response, uint version) => response.Headers.ETag = Tag(version);
}
