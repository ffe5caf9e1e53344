using System.Text.Json;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Adds a shared task, or changes it in every template that has it.</summary>
public sealed class SaveSharedTask(FidDb db)
{
    public async Task<ActResult<SharedTask>> DoAsync(SaveSharedTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        if (!TemplateCode.IsOne(request.Key))
            return Refusal.Invalid("/key", "bad-value", "A key has up to 40 small letters, digits and hyphens.");
        if (Reason.Check(request.Why) is { } reason)
            return Refusal.Invalid(reason);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var sent = new TemplateEntry(request.Key, request.Properties);
        if (reader.Forbidden(sent, "/properties").ToList() is { Count: > 0 } forbidden)
            return Refusal.Invalid(forbidden);
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.TemplatesAsync(db, cancellation);
        var review = await TemplateReview.LoadAsync(db, reader.Fields, await TemplateSet.LoadAsync(db, cancellation), cancellation);
        if (review.OfTask(sent).ToList() is { Count: > 0 } wrong)
            return Refusal.Invalid([.. wrong.Select(f => new Problem($"/properties/{f.Property}", f.Code, f.Message))]);
        var (author, why) = (actor.Author("templates"), Reason.Clean(request.Why));
        var task = await db.SharedTasks.SingleOrDefaultAsync(t => t.Key == request.Key, cancellation);
        if (act.IsDoneAlready && task is not null)
            return task;
        var before = task is null ? null : sent with { Properties = task.Properties };
        sent = reader.WithUnseen(sent, before);
        if (reader.ChangesForbidden(before is null ? [] : [before], [sent]))
            return Refusal.Forbidden;
        if (task is null)
            db.SharedTasks.Add(task = new SharedTask { Key = request.Key, Properties = sent.Properties });
        else if (request.Version != task.RowVersion)
            return Refusal.ChangedMeanwhile;
        else
            await new SharedTasks(db).ChangeAsync(task, sent.Properties, author, why, cancellation);
        act.Note(author.Change("sharedTask.saved", await db.Firms.Select(f => f.Id).SingleAsync(cancellation), request.Key, why));
        await act.CommitAsync(cancellation);
        return task;
    }
}

/// <param name="Version">The version that was seen; null for a new one.</param>
public sealed record SaveSharedTaskRequest(string Key, Dictionary<string, JsonElement> Properties, string? Why, uint? Version);
