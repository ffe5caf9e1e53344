using System.Text.Json;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Mail;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Mail;

/// <summary>Makes the text of a kind of message the firm's own in one language, or goes back to the one that ships.</summary>
public sealed class SetMailText(FidDb db)
{
    public async Task<ActResult> DoAsync(SetMailTextRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Settings))
            return Refusal.Forbidden;
        if (MailKinds.Find(request.Kind) is null || !MailKinds.Languages.Contains(request.Language))
            return Refusal.NotFound;
        if (request.Text?.Problems().ToList() is { Count: > 0 } problems)
            return Refusal.Invalid(problems);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        await Locks.MailTextsAsync(db, cancellation);
        var own = await db.OwnMailTexts.SingleOrDefaultAsync(t => t.Kind == request.Kind && t.Language == request.Language, cancellation);
        if (own?.Version != request.Seen)
            return Refusal.ChangedMeanwhile;
        var before = own is null ? null : MailText.Of(own);
        if (before == request.Text)
            return ActResult.Done;
        var author = actor.Author("admin");
        if (request.Text is not { } text)
            db.OwnMailTexts.Remove(own!);
        else if (own is null)
            db.OwnMailTexts.Add(
                new OwnMailText
                {
                    Kind = request.Kind,
                    Language = request.Language,
                    Subject = text.Subject,
                    Text = text.Text,
                    Html = text.Html,
                    At = author.At,
                    ByName = author.Name,
                }
            );
        else
            (own.Subject, own.Text, own.Html, own.At, own.ByName) = (text.Subject, text.Text, text.Html, author.At, author.Name);
        var firm = await db.Firms.Select(f => f.Id).SingleAsync(cancellation);
        act.Note(
            author.Change(request.Text is null ? "mailText.shippedAgain" : "mailText.changed", firm, $"{request.Kind} {request.Language}") with
            {
                Details = JsonSerializer.Serialize(new { before, after = request.Text }, JsonSerializerOptions.Web),
            }
        );
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Text">Null to go back to the text that ships.</param>
/// <param name="Seen">The version of the firm's own text that the user saw; null where there was none.</param>
public sealed record SetMailTextRequest(string Kind, string Language, MailText? Text, uint? Seen);
