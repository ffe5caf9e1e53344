using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Acts;
using Fid.Acts.FieldDrafts;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Requests;
using Fid.Core.Approvals;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Server.Platform;
using Fid.Server.Requests;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;

namespace Fid.Server.Fields;

/// <summary>The approvals of a draft, tried on somebody's record: who would be asked if the reader asked for a change of it. Nothing is saved.</summary>
internal static class ApprovalTrial
{
    public static async Task<Results<Ok<RouteResponse>, ProblemHttpResult>> Try(
        TryApprovalsRequest request,
        Actor actor,
        FidDb db,
        RequestedChanges requested,
        RequestRoute routes,
        CancellationToken cancellation
    )
    {
        var read = SaveFieldDraft.Read(request.Configuration);
        if (read.Answer is not { } configuration)
            return Problems.Invalid(read.Problems);
        if (await RecordAccess.FindAsync(actor, db, request.Employment, tracked: true, cancellation) is not var (employment, record))
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var wrong = ApprovalCheck.Of(configuration, [.. reader.Fields.Roles.Roles.Select(r => r.Id)]);
        if (wrong.Count > 0)
            return Problems.Invalid([.. wrong.Select(f => new Core.Problem($"/configuration/{f.Part}", f.Code, f.Message))]);
        var fields = reader.Fields with { Approvals = LiveApprovals.Of(configuration.Approvals) };
        // Whatever may be seen can be tried, also what the reader may not change.
        var seen = reader.On(record);
        var entering = FieldRights.Of(fields.Set, f => seen.Sees(f.Key) ? FieldAccess.Edit : FieldAccess.None);
        var of = new AskedRecord(fields, employment, record);
        var change = actor.Author("fields").Change("request.asked", request.Employment);
        var asked = await requested.ReadAsync(of, entering, request.Changes, request.From, change, actor.Today, cancellation);
        if (asked.Entered is null)
            return Problems.Invalid([.. asked.Problems.Select(p => p.Under("/changes"))]);
        var route = await routes.OfAsync(of, asked, actor.Account, entering, actor.Today, cancellation);
        return TypedResults.Ok(new RouteResponse(RequestReader.Steps(fields, route.Steps.Zip(route.Who), route.Book, seen), [.. route.Direct]));
    }
}

/// <param name="Configuration">A configuration as its JSON Schema has it.</param>
/// <param name="Employment">On whose record it is tried.</param>
/// <param name="Changes">New values by address; null empties one.</param>
/// <param name="From">The day from which they are to hold; null to correct what is there.</param>
public sealed record TryApprovalsRequest(JsonObject Configuration, Guid Employment, Dictionary<string, JsonElement> Changes, LocalDate? From);
