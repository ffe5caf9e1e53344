namespace Fid.Acts.Mail;

/// <summary>How mail leaves, as whoever runs the server has set it.</summary>
/// <param name="Server">Where the mail server is, such as smtp://mail.example:587; smtps for one that speaks TLS from the first word. Null where
/// there is none: then no mail is written.</param>
/// <param name="From">The address that messages come from.</param>
/// <param name="Site">Where Fid itself is, for the links in messages.</param>
/// <param name="User">The user name at the mail server; null where it asks for none.</param>
/// <param name="Password">The password there.</param>
public sealed record MailSettings(Uri? Server, string From, Uri Site, string? User, string? Password)
{
    /// <summary>Whether there is a mail server.</summary>
    public bool IsSet => Server is not null;

    /// <summary>The server alone: what a record tells of itself would tell the password.</summary>
    public override string ToString() => Server?.ToString() ?? "";
}
