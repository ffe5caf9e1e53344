using System.Text;
using System.Text.Json.Nodes;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Fields;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.FieldDrafts;

/// <summary>Keeps the draft of the next configuration of fields. Its first save needs no version; later ones say which they saw.</summary>
public sealed class SaveFieldDraft(FidDb db)
{
    public async Task<ActResult<FieldDraft>> DoAsync(SaveFieldDraftRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Fields))
            return Refusal.Forbidden;
        var read = Read(request.Configuration);
        if (read.Answer is not { } configuration)
            return Refusal.Invalid(read.Problems);
        var text = Encoding.UTF8.GetString(configuration.Write());
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.FieldDraftAsync(db, cancellation);
        var there = await db.FieldDrafts.SingleOrDefaultAsync(cancellation);
        if (act.IsDoneAlready && there is not null)
            return there;
        if (DraftVersion.Check(there?.RowVersion, request.Version) is { } stale)
            return stale;
        var author = actor.Author("fields");
        if (there is null)
            db.FieldDrafts.Add(
                there = new FieldDraft
                {
                    Configuration = text,
                    BasedOn = await new FieldPublishing(db).LiveVersionAsync(cancellation),
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
    public static Result<FieldConfiguration> Read(JsonObject configuration)
    {
        var read = FieldConfiguration.Read(Encoding.UTF8.GetBytes(configuration.ToJsonString()));
        return read.Succeeded ? read : Result<FieldConfiguration>.Failed([.. read.Problems.Select(p => p.Under("/configuration"))]);
    }
}

/// <param name="Configuration">A configuration as its JSON Schema has it.</param>
/// <param name="Version">The version of the draft that was seen; null where there was none.</param>
public sealed record SaveFieldDraftRequest(JsonObject Configuration, uint? Version);
