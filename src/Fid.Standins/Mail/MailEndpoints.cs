using System.Net;
using SmtpServer;

namespace Fid.Standins.Mail;

/// <summary>A mail server that delivers nothing, and a page that shows every message as it would look.</summary>
public static class MailEndpoints
{
    /// <summary>Listens for SMTP on loopback.</summary>
    /// <param name="port">The port it listens on.</param>
    public static async Task ListenAsync(CaughtMail mail, int port, CancellationToken cancellation)
    {
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add((SmtpServer.Storage.IMessageStore)mail);
        services.Add((SmtpServer.Storage.IMailboxFilter)mail);
        var options = new SmtpServerOptionsBuilder()
            .ServerName("mail.halyard.example")
            .Endpoint(endpoint => endpoint.Endpoint(new IPEndPoint(IPAddress.Loopback, port)))
            .Build();
        await new SmtpServer.SmtpServer(options, services).StartAsync(cancellation);
    }

    public static void MapMail(this IEndpointRouteBuilder app)
    {
        var mail = app.MapGroup("/mail");
        mail.MapGet("", () => Results.Stream(typeof(MailEndpoints).Assembly.GetManifestResourceStream("mail.html")!, "text/html; charset=utf-8"));
        mail.MapGet("/page/messages", (CaughtMail caught) => new
            {
                mood = caught.Mood.ToString(),
                messages = caught
                    .All()
                    .Select(m => new
                    {
                        m.Id,
                        m.To,
                        m.Subject,
                        m.At,
                        m.Times,
                        m.Text,
                        m.Calendar,
                    }),
            });
        mail.MapGet("/page/messages/{id}", (string id, CaughtMail caught) =>
            caught.Find(id) is { } message ? Results.Text(message.Html, "text/html; charset=utf-8") : Results.NotFound()
        );
        mail.MapPut("/page/mood/{mood}", (MailMood mood, CaughtMail caught) =>
        {
            caught.Mood = mood;
            return Results.NoContent();
        });
    }
}
