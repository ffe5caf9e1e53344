using Fid.Acts;
using Fid.Acts.Invitations;
using Fid.Acts.Mail;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Admin;

/// <summary>The texts of what goes out by mail: as they ship, as the firm has made them its own, and as they would look in the case of a hire.</summary>
internal static class MailTextsEndpoints
{
    public static void MapMailTexts(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/mail-texts", Show).WhoMay(Actions.Edit, Things.Settings);
        app.MapPut("/api/mail-texts/{kind}/{language}", Set)
            .WhoMay(Actions.Edit, Things.Settings)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(412)
            .ProducesProblem(422);
        app.MapPost("/api/mail-texts/{kind}/{language}/shown", Preview)
            .WhoMay(Actions.Edit, Things.Settings)
            .OnlyReads()
            .ProducesProblem(400)
            .ProducesProblem(404);
    }

    private static async Task<Ok<MailKindResponse[]>> Show(FidDb db, CancellationToken cancellation)
    {
        var own = await db.OwnMailTexts.AsNoTracking().ToListAsync(cancellation);
        return TypedResults.Ok(
            MailKinds
                .All.Select(k => new MailKindResponse(
                    k.Key,
                    k.Label,
                    k.About,
                    [.. k.Fields],
                    [
                        .. MailKinds.Languages.Select(language =>
                        {
                            var text = own.Find(t => t.Kind == k.Key && t.Language == language);
                            return new MailTextResponse(
                                language,
                                text is null ? k.Shipped(language) : MailText.Of(text),
                                k.Shipped(language),
                                text?.Version,
                                text?.At,
                                text?.ByName
                            );
                        }),
                    ]
                ))
                .ToArray()
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Set(
        string kind,
        string language,
        MailTextRequest request,
        Actor actor,
        SetMailText set,
        CancellationToken cancellation
    ) =>
        (
            await set.DoAsync(
                new SetMailTextRequest(kind, language, request.IsShipped ? null : TextOf(request.Subject, request.Text, request.Html), request.Seen),
                actor,
                cancellation
            )
        ).Answer();

    /// <summary>How a text would look to the reader in the case of a hire, with a mark wherever it names something that there is not.</summary>
    private static async Task<Results<Ok<MailShown>, ProblemHttpResult>> Preview(
        string kind,
        string language,
        MailPreviewRequest request,
        Actor actor,
        MailExample example,
        CancellationToken cancellation
    )
    {
        if (MailKinds.Find(kind) is not { } found || !MailKinds.Languages.Contains(language))
            return Problems.NotFound();
        var text = TextOf(request.Subject, request.Text, request.Html);
        if (text.Problems().ToList() is { Count: > 0 } wrong)
            return Problems.Invalid(wrong);
        if (await example.OfAsync(found, language, request.Hire, actor, cancellation) is not { } with)
            return Problems.Invalid(new Problem("/hire", "unknown-hire", "Choose a hire that is under way and has a task left."));
        try
        {
            var marked = text.FillMarking(with);
            return TypedResults.Ok(new MailShown(marked.Mail.Subject, marked.Mail.Text, marked.Mail.Html, [.. marked.Missing]));
        }
        catch (MailTextException e)
        {
            return Problems.Invalid(new Problem("/text", "unreadable", $"This cannot be filled: {e.Message}"));
        }
    }

    private static MailText TextOf(string? subject, string? text, string? html) => new(subject ?? "", text ?? "", html ?? "");
}

/// <param name="About">When it goes out.</param>
/// <param name="Fields">What its text can name.</param>
public sealed record MailKindResponse(string Key, Label Label, Label About, MailField[] Fields, MailTextResponse[] Languages);

/// <param name="Text">As it goes out.</param>
/// <param name="Shipped">As it ships.</param>
/// <param name="Version">Of the firm's own text; null where it has none.</param>
/// <param name="At">When the firm made it its own.</param>
public sealed record MailTextResponse(string Language, MailText Text, MailText Shipped, uint? Version, Instant? At, string? By);

/// <param name="IsShipped">Whether to go back to the text that ships; the others are not looked at then.</param>
/// <param name="Seen">The version that the user saw; null where there was none.</param>
public sealed record MailTextRequest(string? Subject, string? Text, string? Html, uint? Seen, bool IsShipped = false);

/// <param name="Hire">The hire in whose case it is shown; null for any.</param>
public sealed record MailPreviewRequest(string? Subject, string? Text, string? Html, Guid? Hire);

/// <param name="Missing">What it names that there is not.</param>
public sealed record MailShown(string Subject, string Text, string Html, string[] Missing);
