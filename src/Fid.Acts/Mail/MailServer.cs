using Fid.Data.Mail;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;

namespace Fid.Acts.Mail;

/// <summary>The firm's mail server, spoken to by SMTP (RFC 5321).</summary>
public sealed class MailServer(MailSettings settings)
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    /// <summary>Gives it a message. Throws where it cannot be reached, or asks to be tried later.</summary>
    /// <returns>Why it does not take the message at all, in its own words; null where it took it.</returns>
    public async Task<string?> SendAsync(MailMessage message, CancellationToken cancellation)
    {
        var server = settings.Server ?? throw new InvalidOperationException("No mail server is set.");
        if (!MailboxAddress.TryParse(message.Address, out _))
            return "This is no address that mail can be sent to.";
        using var client = new SmtpClient { Timeout = (int)Patience.TotalMilliseconds };
        await client.ConnectAsync(
            server.Host,
            server.Port > 0 ? server.Port : 25,
            server.Scheme == "smtps" ? SecureSocketOptions.SslOnConnect : SecureSocketOptions.StartTlsWhenAvailable,
            cancellation
        );
        if (settings.User is { } user)
            await client.AuthenticateAsync(user, settings.Password ?? "", cancellation);
        try
        {
            await client.SendAsync(Mime(message), cancellation);
        }
        // A reply of 500 and above is for good (RFC 5321, 4.2.1); one of 400 asks to come again.
        catch (SmtpCommandException refused) when ((int)refused.StatusCode >= 500)
        {
            return refused.Message;
        }
        // It has taken the message: whether it says good-bye changes nothing.
        try
        {
            await client.DisconnectAsync(true, cancellation);
        }
        catch (Exception e) when (e is IOException or MailKit.ProtocolException or OperationCanceledException) { }
        return null;
    }

    // What a program understands best stands last (RFC 2046, 5.1.4).
    private static MultipartAlternative Body(MailMessage message)
    {
        var body = new MultipartAlternative
        {
            new TextPart("plain") { Text = message.Text },
            new TextPart("html") { Text = message.Html },
        };
        if (message is { Calendar: { } calendar, CalendarMethod: { } method })
        {
            var part = new TextPart("calendar") { Text = calendar };
            part.ContentType.Parameters["method"] = method;
            body.Add(part);
        }
        return body;
    }

    private MimeMessage Mime(MailMessage message)
    {
        var mime = new MimeMessage
        {
            MessageId = $"{message.Id}@{settings.Site.Host}",
            Subject = message.Subject,
            Date = message.At.ToDateTimeOffset(),
            Body = Body(message),
        };
        mime.From.Add(new MailboxAddress("Fid", settings.From));
        mime.To.Add(new MailboxAddress(message.Name, message.Address));
        // Nobody's absence notice is to answer it (RFC 3834).
        mime.Headers.Add("Auto-Submitted", "auto-generated");
        return mime;
    }
}
