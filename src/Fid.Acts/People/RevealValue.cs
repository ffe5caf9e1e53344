using System.Text.Json;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>Shows a sealed value to somebody who may see it and asks for it. That they did is in the audit trail first.</summary>
public sealed class RevealValue(FidDb db, SensitiveValues sensitive)
{
    /// <summary>The action of the entry in the audit trail; its part is the field.</summary>
    public const string Action = "field.revealed";

    public async Task<ActResult<JsonElement>> DoAsync(RevealValueRequest request, Actor actor, CancellationToken cancellation)
    {
        if (await RecordAccess.FindAsync(actor, db, request.Employment, tracked: false, cancellation) is not var (employment, record))
            return Refusal.NotFound;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (reader.Fields.Set.Find(request.Field) is not { Sensitive: true } field || !reader.On(record).Sees(request.Field))
            return Refusal.NotFound;
        var (key, row) = (field.Key, FieldAddress.Read(request.Field).RowId);
        var value = request.Value is { } one
            ? await db
                .RecordValues.AsNoTracking()
                .FirstOrDefaultAsync(
                    v => v.Id == one && v.Field == key && v.RowId == row && (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId),
                    cancellation
                )
            : (await ShownValues.OfAsync(db, employment, actor.Today, cancellation)).GetValueOrDefault(request.Field);
        if (value is null || !SealedText.IsSealed(value.Value))
            return Refusal.NotFound;
        // Each look is an entry of its own, under whatever key.
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request, cancellation);
        act.Note(actor.Author("record").Change(Action, request.Employment, request.Field));
        await act.CommitAsync(cancellation);
        return sensitive.Open(value.OwnerId, key, value.Value);
    }
}

/// <param name="Value">An earlier value of the record's history; null for the present one.</param>
public sealed record RevealValueRequest(Guid Employment, string Field, Guid? Value);
