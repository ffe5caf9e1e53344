using Fid.Data;
using Fid.Data.Mail;
using Fid.Data.Work;
using NodaTime;

namespace Fid.Acts.Mail;

/// <summary>Puts messages into the context, with the job that sends each: both are there when the act is committed, or neither.</summary>
public static class MailOut
{
    /// <summary>A message in the language of whoever gets it. One that its text cannot be filled for says so, and is not sent.</summary>
    /// <param name="with">What the text names.</param>
    public static MailMessage Filled(MailKind kind, MailTexts texts, MailTo to, object with, Instant now, CalendarPart? calendar = null)
    {
        var (filled, trouble) = (new MailText(kind.Label.En, "", ""), (string?)null);
        try
        {
            filled = texts.Of(to.Language).Fill(with);
        }
        catch (MailTextException e)
        {
            trouble = MailMessage.Cut($"The text cannot be filled: {e.Message}");
        }
        return new MailMessage
        {
            Kind = kind.Key,
            AccountId = to.Account,
            Name = to.Name,
            Address = to.Address,
            Subject = filled.Subject.Length <= MailMessage.LongestSubject ? filled.Subject : filled.Subject[..MailMessage.LongestSubject],
            Text = filled.Text,
            Html = filled.Html,
            Calendar = calendar?.Content,
            CalendarMethod = calendar?.Method,
            At = now,
            Refused = trouble,
        };
    }

    public static void Write(FidDb db, MailMessage message)
    {
        db.MailMessages.Add(message);
        if (message.Refused is null)
            Send(db, message, message.At);
    }

    /// <summary>Asks for a message to be sent, from a moment on.</summary>
    internal static void Send(FidDb db, MailMessage message, Instant at) => db.Jobs.Add(Job.Once(SendMail.Kind, message.Id, at));
}

/// <summary>An invitation that goes with a message.</summary>
/// <param name="Content">As iCalendar (RFC 5545).</param>
/// <param name="Method">What is done with it (RFC 5546): "REQUEST" or "CANCEL".</param>
public sealed record CalendarPart(string Content, string Method);

/// <summary>Somebody who is written to.</summary>
/// <param name="Language">"en" or "de".</param>
public sealed record MailTo(Guid Account, string Name, string Address, string Language);
