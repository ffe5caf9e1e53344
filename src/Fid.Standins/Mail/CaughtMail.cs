using System.Buffers;
using System.Collections.Concurrent;
using MimeKit;
using SmtpServer;
using SmtpServer.Mail;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace Fid.Standins.Mail;

/// <summary>Takes every message that comes by SMTP, and keeps it until the program ends. The same message that comes twice, by its Message-ID,
/// is kept once with how often it came.</summary>
public sealed class CaughtMail(TimeProvider clock) : MessageStore, IMailboxFilter
{
    private const int Most = 5000;
    private static readonly TimeSpan Slowness = TimeSpan.FromSeconds(20);

    private readonly ConcurrentDictionary<string, CaughtMessage> _messages = new(StringComparer.Ordinal);

    /// <summary>How the mail server feels.</summary>
    public MailMood Mood { get; set; }

    /// <summary>Told of each message that comes.</summary>
    public event Action? Came;

    /// <summary>What came, the latest first.</summary>
    public IReadOnlyList<CaughtMessage> All() => [.. _messages.Values.OrderByDescending(m => m.At).ThenBy(m => m.To, StringComparer.Ordinal)];

    public CaughtMessage? Find(string id) => _messages.GetValueOrDefault(id);

    public override async Task<SmtpResponse> SaveAsync(
        ISessionContext context,
        IMessageTransaction transaction,
        ReadOnlySequence<byte> buffer,
        CancellationToken cancellationToken
    )
    {
        if (Mood == MailMood.Slow)
            await Task.Delay(Slowness, clock, cancellationToken);
        using var stream = new MemoryStream(buffer.ToArray());
        var message = await MimeMessage.LoadAsync(stream, cancellationToken);
        var caught = new CaughtMessage(
            message.MessageId ?? Guid.NewGuid().ToString(),
            string.Join(", ", transaction.To.Select(t => t.AsAddress())),
            message.From.ToString(),
            message.Subject ?? "",
            message.TextBody ?? "",
            message.HtmlBody ?? "",
            message.BodyParts.OfType<TextPart>().FirstOrDefault(p => p.ContentType.IsMimeType("text", "calendar"))?.Text,
            clock.GetUtcNow(),
            1
        );
        if (_messages.Count >= Most && !_messages.ContainsKey(caught.Id))
            return new SmtpResponse(SmtpReplyCode.InsufficientStorage, "full");
        _messages.AddOrUpdate(caught.Id, caught, (_, there) => there with { Times = there.Times + 1 });
        Came?.Invoke();
        return SmtpResponse.Ok;
    }

    public Task<bool> CanAcceptFromAsync(ISessionContext context, IMailbox from, int size, CancellationToken cancellationToken) =>
        Mood == MailMood.Down
            ? throw new SmtpResponseException(new SmtpResponse(SmtpReplyCode.ServiceUnavailable, "closed for now"), true)
            : Task.FromResult(true);

    public Task<bool> CanDeliverToAsync(ISessionContext context, IMailbox to, IMailbox from, CancellationToken cancellationToken) =>
        // Somebody who has left, at any firm: of them a mail server says that there is no such mailbox.
        Mood == MailMood.Refusing
        || to.User.StartsWith("gone", StringComparison.OrdinalIgnoreCase)
            ? throw new SmtpResponseException(SmtpResponse.MailboxUnavailable)
            : Task.FromResult(true);
}

/// <summary>How the mail server feels.</summary>
public enum MailMood
{
    Well,
    Down,
    Slow,
    Refusing,
}

/// <summary>A message that came.</summary>
/// <param name="Id">Its Message-ID.</param>
/// <param name="Calendar">The invitation that came with it, as iCalendar (RFC 5545).</param>
/// <param name="Times">How often it came.</param>
public sealed record CaughtMessage(string Id, string To, string From, string Subject, string Text, string Html, string? Calendar, DateTimeOffset At, int Times);
