using System.Text;
using System.Text.Json;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.FieldDrafts;

/// <summary>Makes the draft of the fields live. Findings that are only advice need to be accepted; where it lets more be seen of what is
/// guarded, one asks for it and another agrees.</summary>
public sealed class PublishFields(FidDb db)
{
    /// <returns>The version that is live now; null inside where somebody else has to agree first.</returns>
    public async Task<ActResult<PublishedFields>> DoAsync(PublishFieldsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Fields))
            return Refusal.Forbidden;
        if (Reason.Check(request.Why) is { } reason)
            return Refusal.Invalid(reason);
        // Every record's projection is brought up to it.
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.FieldDraftAsync(db, cancellation);
        var publishing = new FieldPublishing(db);
        if (act.IsDoneAlready)
            return new PublishedFields(await publishing.LiveVersionAsync(cancellation));
        var draft = await db.FieldDrafts.SingleOrDefaultAsync(cancellation);
        if (draft is null)
            return DraftVersion.Gone;
        if (DraftVersion.Check(draft.RowVersion, request.Version) is { } stale)
            return stale;
        if (draft.BasedOn != await publishing.LiveVersionAsync(cancellation))
            return Refusal.Conflict(
                "published-meanwhile",
                "Another version was published since this draft was begun. Compare with it, and save the draft anew."
            );
        var configuration = FieldConfiguration.Read(Encoding.UTF8.GetBytes(draft.Configuration)).Answer!;
        var review = await publishing.ReviewAsync(configuration, actor.Today, (await Reader.OfAsync(actor, db, cancellation)).Sees, cancellation);
        if (review.Findings.Any(FieldPublishing.Blocks) || (review.Findings.Count > 0 && !request.Despite))
            return Refusal.Invalid([.. review.Findings.Select(f => new Problem($"/{f.Fields[0]}", f.Code, f.Message))]);
        var (author, why) = (actor.Author("fields"), Reason.Clean(request.Why));
        if (review.Widened.Count > 0 && (draft.AskedById is not { } asked || asked == actor.AccountId))
        {
            if (draft.AskedById is not null)
                return Refusal.Conflict("second-person-needed", "More would be seen of pay or of sensitive fields. Somebody else has to agree to it.");
            (draft.AskedById, draft.AskedByName) = (actor.Account, author.Name);
            var opened = string.Join(", ", review.Widened.Select(w => $"{w.Field} → {string.Join(' ', w.Roles)}"));
            act.Note(
                author.Change("fields.widenAsked", await db.Firms.Select(f => f.Id).SingleAsync(cancellation), null, why) with
                {
                    Details = JsonSerializer.Serialize(new { opened }),
                }
            );
            await act.CommitAsync(cancellation);
            return new PublishedFields(null);
        }
        db.Entry(draft).State = EntityState.Detached;
        var version = await publishing.PublishAsync(configuration, review.Differences, author, why, cancellation);
        await act.CommitAsync(cancellation);
        return new PublishedFields(version);
    }
}

/// <param name="Despite">Whether findings that are only advice are accepted.</param>
/// <param name="Version">The version of the draft that was seen.</param>
public sealed record PublishFieldsRequest(string? Why, bool Despite, uint? Version);

/// <param name="Version">The version that is live now; null where somebody else has to agree first.</param>
public sealed record PublishedFields(int? Version);
