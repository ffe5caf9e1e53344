using Fid.Acts.Mail;

namespace Fid.Server.Platform;

/// <summary>Reads from the server's settings how mail leaves: Fid:Mail:Server (smtp://host:port, or smtps), From, Site, User and Password.</summary>
internal static class MailConfiguration
{
    public static void AddMail(this IServiceCollection services, IConfiguration configuration)
    {
        var mail = configuration.GetSection("Fid:Mail");
        services.AddSingleton(
            new MailSettings(
                mail["Server"] is { Length: > 0 } server ? Address("Server", server, "smtp", "smtps") : null,
                mail["From"] is { Length: > 0 } from ? from : "fid@localhost",
                Address("Site", mail["Site"] is { Length: > 0 } site ? site : "http://localhost", "http", "https"),
                mail["User"] is { Length: > 0 } user ? user : null,
                mail["Password"]
            )
        );
        services.AddSingleton<MailServer>();
        if (mail["Server"] is { Length: > 0 })
            services.AddMailJobs();
    }

    private static Uri Address(string setting, string text, params string[] schemes) =>
        Uri.TryCreate(text, UriKind.Absolute, out var uri) && schemes.Contains(uri.Scheme)
            ? uri
            : throw new InvalidOperationException($"Fid:Mail:{setting} is to begin with {string.Join(" or ", schemes.Select(s => s + "://"))}, not {text}.");
}
