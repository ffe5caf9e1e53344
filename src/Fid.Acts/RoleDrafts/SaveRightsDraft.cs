using System.Text;
using System.Text.Json.Nodes;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Rights;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.RoleDrafts;

/// <summary>Keeps the draft of the firm's roles and groups. Its first save needs no version; later ones say which they saw.</summary>
public sealed class SaveRightsDraft(FidDb db)
{
    public async Task<ActResult<RightsDraft>> DoAsync(SaveRightsDraftRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Role))
            return Refusal.Forbidden;
        var read = Read(request.Configuration);
        if (read.Answer is not { } configuration)
            return Refusal.Invalid(read.Problems);
        var text = Encoding.UTF8.GetString(configuration.Write());
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.RightsDraftAsync(db, cancellation);
        var there = await db.RightsDrafts.SingleOrDefaultAsync(cancellation);
        if (act.IsDoneAlready && there is not null)
            return there;
        if (DraftVersion.Check(there?.RowVersion, request.Version) is { } stale)
            return stale;
        var author = actor.Author("admin");
        if (there is null)
            db.RightsDrafts.Add(
                there = new RightsDraft
                {
                    Configuration = text,
                    BasedOn = await RightsReview.LiveVersionAsync(db, cancellation),
                    At = author.At,
                    ById = actor.Account,
                    ByName = author.Name,
                }
            );
        else
            (there.Configuration, there.At, there.ById, there.ByName, there.AskedById, there.AskedByName) = (
                text,
                author.At,
                actor.Account,
                author.Name,
                null,
                null
            );
        await act.CommitAsync(cancellation);
        return there;
    }

    /// <summary>A configuration as it was sent; its problems are told with paths under /configuration.</summary>
    public static Result<RightsConfiguration> Read(JsonObject configuration)
    {
        var read = RightsConfiguration.Read(Encoding.UTF8.GetBytes(configuration.ToJsonString()));
        return read.Succeeded ? read : Result<RightsConfiguration>.Failed([.. read.Problems.Select(p => p.Under("/configuration"))]);
    }
}

/// <param name="Configuration">A configuration as its JSON Schema has it.</param>
/// <param name="Version">The version of the draft that was seen; null where there was none.</param>
public sealed record SaveRightsDraftRequest(JsonObject Configuration, uint? Version);
