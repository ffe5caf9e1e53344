using System.Text;
using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Rights;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.RoleDrafts;

/// <summary>Makes the draft of roles and groups live. Where somebody may get more by it, one asks for it and another agrees; and nobody gives
/// themselves more.</summary>
public sealed class PublishRights(FidDb db)
{
    /// <returns>The version that is live now; null inside where somebody else has to agree first.</returns>
    public async Task<ActResult<PublishedRights>> DoAsync(PublishRightsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Role))
            return Refusal.Forbidden;
        if (Reason.Check(request.Why) is { } reason)
            return Refusal.Invalid(reason);
        // Every record is looked at for the groups it is in.
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.RightsDraftAsync(db, cancellation);
        var live = await RightsReview.LiveVersionAsync(db, cancellation);
        if (act.IsDoneAlready)
            return new PublishedRights(live);
        var draft = await db.RightsDrafts.SingleOrDefaultAsync(cancellation);
        if (draft is null)
            return DraftVersion.Gone;
        if (DraftVersion.Check(draft.RowVersion, request.Version) is { } stale)
            return stale;
        if (draft.BasedOn != live)
            return Refusal.Conflict(
                "published-meanwhile",
                "Other roles were made live since this draft was begun. Compare with them, and save the draft anew."
            );
        var configuration = LiveRights.Read(draft.Configuration);
        var review = await RightsReview.OfAsync(db, configuration, actor.Today, cancellation);
        if (review.Problems.Count > 0)
            return Refusal.Invalid([.. review.Problems.Select(p => p.Under("/configuration"))]);
        var (author, why) = (actor.Author("admin"), Reason.Clean(request.Why));
        if (review.Widens && (draft.AskedById is not { } asked || asked == actor.AccountId))
        {
            if (draft.AskedById is not null)
                return Refusal.Conflict("second-person-needed", "Somebody would get more by this. Somebody else has to agree to it.");
            (draft.AskedById, draft.AskedByName) = (actor.Account, author.Name);
            act.Note(author.Change("rights.widenAsked", await FirmAsync(cancellation), null, why) with { Details = Details(review) });
            await act.CommitAsync(cancellation);
            return new PublishedRights(null);
        }
        if (review.WidensFor(actor.AccountId))
            return Refusal.Conflict("own-rights", "You would get more by this yourself. Somebody who does not has to agree to it.");
        var version = await MakeLiveAsync(configuration, draft, review, author, why, cancellation);
        await act.CommitAsync(cancellation);
        return new PublishedRights(version);
    }

    private async Task<int> MakeLiveAsync(
        RightsConfiguration configuration,
        RightsDraft draft,
        RightsReview review,
        Author author,
        string? why,
        CancellationToken cancellation
    )
    {
        var written = configuration.Write();
        var (version, hash) = (draft.BasedOn + 1, LiveFieldsLoader.HashOf(written));
        db.RightsVersions.Add(
            new RightsVersion
            {
                Version = version,
                Configuration = Encoding.UTF8.GetString(written),
                Hash = hash,
                At = author.At,
                ByName = author.Name,
                AskedByName = draft.AskedByName,
                Why = why,
            }
        );
        db.Changes.Add(
            author.Change("rights.published", await FirmAsync(cancellation), version.ToString(System.Globalization.CultureInfo.InvariantCulture), why) with
            {
                // So that the chain of changes vouches for the configuration too.
                Details = Details(review, hash),
            }
        );
        db.RightsDrafts.Remove(draft);
        // A role of the same name, made later, is another.
        string[] gone = [.. review.Roles.Where(r => r.IsGone).Select(r => r.Role)];
        db.RoleGrants.RemoveRange(await db.RoleGrants.Where(g => gone.Contains(g.Role)).ToListAsync(cancellation));
        await db.SaveChangesAsync(cancellation);
        if (review.Groups.Count > 0)
            await RecordReprojection.DoAsync(db, cancellation);
        return version;
    }

    private async Task<Guid> FirmAsync(CancellationToken cancellation) => await db.Firms.Select(f => f.Id).SingleAsync(cancellation);

    private static string Details(RightsReview review, string? hash = null) =>
        JsonSerializer.Serialize(
            new
            {
                sha256 = hash,
                roles = review.Roles.Select(r => new
                {
                    role = r.Role,
                    gained = r.Difference.Gained.Select(Words),
                    lost = r.Difference.Lost.Select(Words),
                }),
                groups = review.Groups.Select(g => new
                {
                    group = g.Group,
                    before = g.Before,
                    after = g.After,
                }),
            }
        );

    private static string Words(Right right) => $"{right.Action} {right.On}";
}

/// <param name="Version">The version of the draft that was seen.</param>
public sealed record PublishRightsRequest(string? Why, uint? Version);

/// <param name="Version">The version that is live now; null where somebody else has to agree first.</param>
public sealed record PublishedRights(int? Version);
