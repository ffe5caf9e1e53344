using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Opening the checklist of somebody who works here and changes jobs, or leaves.</summary>
internal static class ChecklistEndpoints
{
    public static void MapChecklists(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/people/{id:guid}/checklists/offer", Offer).WhoMay(Actions.Open, Things.Hire).ProducesProblem(404);
        app.MapPost("/api/people/{id:guid}/checklists", Open).WhoMay(Actions.Open, Things.Hire).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
    }

    // What can be chosen, and what can be entered with it.
    private static async Task<Results<Ok<ChecklistOffer>, ProblemHttpResult>> Offer(
        Guid id,
        OccasionParameter occasion,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (await RecordAccess.FindAsync(actor, db, id, tracked: false, cancellation) is not var (employment, record))
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (!reader.May(Actions.Open, Things.Hire, record))
            return Problems.NotFound();
        var rights = reader.On(record);
        return TypedResults.Ok(
            new ChecklistOffer(
                [
                    .. (await TemplateSet.LoadAsync(db, cancellation))
                        .OpeningFor(occasion.Occasion)
                        .Select(t => new OfferedTemplate(t.Code, t.Name))
                        .OrderBy(t => t.Name, StringComparer.Ordinal),
                ],
                [.. reader.Fields.Set.Fields.Where(f => OccasionRecord.Takes(occasion.Occasion, f) && rights.MayEdit(f.Key)).Select(f => f.Key)],
                occasion.Occasion == Occasion.Leaving && rights.Sees(OccasionRecord.LastDay) ? employment.End : null
            )
        );
    }

    private static async Task<Results<Ok<OpenedChecklist>, ProblemHttpResult>> Open(
        Guid id,
        ChecklistRequest request,
        Actor actor,
        OpenChecklist open,
        CancellationToken cancellation
    ) =>
        (
            await open.DoAsync(
                new OpenChecklistRequest(request.Id, id, request.Occasion, request.Template, request.Day, request.Values, request.Why),
                actor,
                cancellation
            )
        ).IsDone(out var opened, out var refusal)
            ? TypedResults.Ok(new OpenedChecklist(opened))
            : Problems.Of(refusal);
}

/// <param name="Templates">The templates that one can be opened from.</param>
/// <param name="Fields">The fields that the reader may enter a value into with it.</param>
/// <param name="LastDay">The last day, where the record says one already.</param>
public sealed record ChecklistOffer(OfferedTemplate[] Templates, string[] Fields, LocalDate? LastDay);

public sealed record OfferedTemplate(string Code, string Name);

/// <param name="Id">The checklist's id, chosen by the user who opens it: sent twice, it is opened once.</param>
/// <param name="Day">The first day in the new job, or the last day.</param>
/// <param name="Values">What the record says from that day on, by field.</param>
public sealed record ChecklistRequest(Guid Id, Occasion Occasion, string Template, LocalDate Day, Dictionary<string, JsonElement>? Values, string? Why);

public sealed record OpenedChecklist(Guid Id);
