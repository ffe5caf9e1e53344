using Fid.Acts;
using Fid.Acts.Lists;
using Fid.Acts.ListUse;
using Fid.Acts.People;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Lists;

/// <summary>Who uses an entry, and retiring one: those who have it keep it, or move to another from a day on.</summary>
internal static class EntryUse
{
    private const int MostShown = 500;

    public static void MapEntryUse(this IEndpointRouteBuilder list)
    {
        list.MapGet("/{code}/users", Users).WhoMay(Actions.See, Things.List).ProducesProblem(404);
        list.MapPost("/{code}/retire", Retire).WhoMay(Actions.Edit, Things.List).ProducesProblem(400).ProducesProblem(404);
        list.MapPost("/{code}/restore", Restore).WhoMay(Actions.Edit, Things.List).ProducesProblem(404);
    }

    private static async Task<Results<Ok<EntryUsers>, ProblemHttpResult>> Users(string list, string code, Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (await EntryRequest.FindAsync(db.ListEntries.AsNoTracking(), list, code, cancellation) is not var (definition, entry))
            return Problems.NotFound();
        var today = actor.Today;
        // Who has an entry is told as far as the field that holds it may be seen.
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var fields = reader.SeesNames ? reader.Fields.FieldsOf(definition.Key).Where(reader.Sees).ToArray() : [];
        var (ofAll, only) = (reader.OpensAll, await reader.ReadableAsync(db, cancellation) ?? []);
        var people = await db
            .Database.SqlQuery<EntryPerson>(
                $"""
                with held as (
                  select owner_id, min(field) as field from record_values
                  where field = any({fields}) and value ? {entry.Code} and upper_inf(known) and (upper_inf(effective) or upper(effective) > {today})
                    group by 1),
                who as (
                  select e.id, h.field from held h join employments e on e.id = h.owner_id
                  -- What is a fact of the person is told of their last stint.
                  union select (select e.id from employments e where e.person_id = h.owner_id order by e.start desc limit 1), h.field from held h
                    join people p on p.id = h.owner_id)
                select r.employment_id, e.number, r.given_name, r.family_name, min(w.field) as field
                from who w join employments e on e.id = w.id join records_now r on r.employment_id = e.id
                  where {ofAll} or e.id = any({only}) group by 1, 2, 3, 4
                  order by r.family_name, r.given_name limit {MostShown}
                """
            )
            .ToArrayAsync(cancellation);
        var usage = new ListUsage(db, today);
        var templates = (await usage.TemplatesAsync(definition, cancellation))
            .Where(t => t.Code == entry.Code)
            .Select(t => new EntryTemplate(t.Template.Code, t.Template.Name))
            .ToArray();
        var entries = (await usage.EntriesAsync(definition, cancellation))
            .Where(e => e.Code == entry.Code)
            .Select(e => new EntryReference(e.Entry.List, e.Entry.Code, e.Entry.Name))
            .ToArray();
        return TypedResults.Ok(new EntryUsers(people, templates, entries));
    }

    private static async Task<Results<Ok<EntryResponse>, ProblemHttpResult>> Retire(
        string list,
        string code,
        RetireRequest request,
        Actor actor,
        FidDb db,
        EntryHolders holders,
        RetireEntry retire,
        CancellationToken cancellation
    ) =>
        (await retire.DoAsync(new RetireEntryRequest(list, code, request.MoveTo, request.From, request.Why), actor, cancellation)).Refusal is { } refusal
            ? Problems.Of(refusal)
            : TypedResults.Ok(await EntriesEndpoints.DescribeAsync(db, holders, list, code, actor, cancellation));

    private static async Task<Results<Ok<EntryResponse>, ProblemHttpResult>> Restore(
        string list,
        string code,
        Actor actor,
        FidDb db,
        EntryHolders holders,
        RestoreEntry restore,
        CancellationToken cancellation
    ) =>
        (await restore.DoAsync(new RestoreEntryRequest(list, code), actor, cancellation)).Refusal is { } refusal
            ? Problems.Of(refusal)
            : TypedResults.Ok(await EntriesEndpoints.DescribeAsync(db, holders, list, code, actor, cancellation));
}

/// <summary>An entry to retire.</summary>
/// <param name="MoveTo">The code of the entry its users move to; null to leave it to those who have it.</param>
/// <param name="From">The day from which people have the other; today when left out.</param>
public sealed record RetireRequest(string? MoveTo = null, LocalDate? From = null, string? Why = null);

/// <summary>Who and what uses an entry; of people the first 500.</summary>
public sealed record EntryUsers(EntryPerson[] People, EntryTemplate[] Templates, EntryReference[] Entries);

public sealed record EntryPerson(Guid EmploymentId, string Number, string GivenName, string FamilyName, string Field);

public sealed record EntryTemplate(string Code, string Name);

public sealed record EntryReference(string List, string Code, string Name);
