using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Mail;

/// <summary>The texts of a kind of message as the firm has them: its own, or those that ship.</summary>
public sealed class MailTexts
{
    private readonly MailKind _kind;
    private readonly Dictionary<string, MailText> _own;

    private MailTexts(MailKind kind, Dictionary<string, MailText> own) => (_kind, _own) = (kind, own);

    public static async Task<MailTexts> LoadAsync(FidDb db, MailKind kind, CancellationToken cancellation) =>
        new(kind, await db.OwnMailTexts.AsNoTracking().Where(t => t.Kind == kind.Key).ToDictionaryAsync(t => t.Language, MailText.Of, cancellation));

    /// <summary>The text for whoever reads in a language; in English for any that there is no text in.</summary>
    public MailText Of(string language)
    {
        var known = MailKinds.Languages.Contains(language) ? language : MailKinds.Languages[0];
        return _own.GetValueOrDefault(known) ?? _kind.Shipped(known);
    }
}
