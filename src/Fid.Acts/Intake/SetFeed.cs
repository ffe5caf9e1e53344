using Fid.Core.Rights;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Intake;

/// <summary>Says where the recruiting feed is, or that there is none.</summary>
public sealed class SetFeed(FidDb db)
{
    private const int LongestAddress = 500;

    public async Task<ActResult> DoAsync(SetFeedRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Connection))
            return Refusal.Forbidden;
        var address = request.Address?.Trim();
        if (
            !string.IsNullOrEmpty(address)
            && (address.Length > LongestAddress || !Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https"))
        )
            return Refusal.Invalid("/address", "bad-value", "Enter an address that begins with https:// or http://.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        var firm = await db.Firms.SingleAsync(cancellation);
        firm.FeedAddress = string.IsNullOrEmpty(address) ? null : address;
        act.Note(actor.Author("exchange").Change("feed.address", firm.Id, firm.FeedAddress));
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }
}

/// <param name="Address">Where it is; null for none.</param>
public sealed record SetFeedRequest(string? Address);
