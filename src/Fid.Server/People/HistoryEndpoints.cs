using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Requests;
using Fid.Acts.Templates;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Data.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Every value a record had: when it was true, when it was believed, who set it and why.</summary>
internal static class HistoryEndpoints
{
    public static void MapHistory(this IEndpointRouteBuilder app)
    {
        var record = app.MapGroup("/api/records/{id:guid}");
        record.MapGet("/history", Show).WhoMay(Actions.See, Things.Record).ProducesProblem(404);
        record.MapGet("/compare", Compare).WhoMay(Actions.See, Things.Record).ProducesProblem(400).ProducesProblem(404);
        record.MapPost("/changes/{change:guid}/explanations", Explain).WhoMay(Actions.Correct, Things.Record).ProducesProblem(400).ProducesProblem(404);
        record
            .MapPost("/changes/{change:guid}/take-back", TakeBack)
            .WhoMay(Actions.Correct, Things.Record)
            .ProducesProblem(400)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static async Task<Results<Ok<HistoryResponse>, ProblemHttpResult>> Show(Guid id, Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (await RecordAccess.FindAsync(actor, db, id, tracked: false, cancellation) is not var (employment, record))
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var (fields, rights) = (reader.Fields, reader.On(record));
        var rows = (await Values(db, employment).ToListAsync(cancellation)).Where(v => rights.Sees(v.Field)).ToList();
        var ids = rows.Select(r => r.ChangeId).Distinct().ToArray();
        // Changes that only emptied fields have no values of their own; they are known by when they happened.
        var changes = await db
            .Changes.AsNoTracking()
            .Where(c => ids.Contains(c.Id) || c.SubjectId == id)
            .OrderByDescending(c => c.At)
            .ToListAsync(cancellation);
        var touched = changes.ToDictionary(
            c => c.Id,
            c =>
                c.Action == RevealValue.Action
                    ? rights.Sees(c.Part!)
                        ? [c.Part!]
                        : []
                    : rows.Where(r => r.ChangeId == c.Id || r.EndedBy == c.Id).Select(r => r.Address).Distinct().ToArray()
        );
        var agreed = await AgreedAsync(db, changes, cancellation);
        var explanations = changes.Where(c => c.Action == ExplainChange.Action && c.Part is not null).ToLookup(c => c.Part!);
        var names = await ValueNames.LoadAsync(db, reader, rows.Select(r => (r.Field, r.Value)), cancellation);
        var sources = await SourceNames.LoadAsync(
            db,
            await TemplateSet.LoadAsync(db, cancellation),
            rows.Select(r => r.Source),
            reader.SeesNames,
            cancellation
        );
        var order = fields.Set.FieldsAndColumns.Select((f, i) => (f.Key, i)).ToDictionary(f => f.Key, f => f.i);
        var label = LabelsIn(fields, names, rows.Where(r => r.Known.UpperBoundInfinite).Concat(rows));
        return TypedResults.Ok(
            new HistoryResponse(
                [
                    .. rows.OrderBy(r => order[r.Field])
                        .ThenBy(r => r.RowId)
                        .ThenBy(r => r.Effective.LowerBound)
                        .ThenBy(r => r.Known.LowerBound)
                        .Select(r => Value(r)),
                ],
                [
                    .. changes
                        .Where(c => c.Action != ExplainChange.Action && touched[c.Id].Length > 0)
                        .Select(c => new HistoryChange(
                            c.Id,
                            c.At,
                            c.ByName,
                            c.Origin,
                            c.Action,
                            c.Why,
                            touched[c.Id],
                            c.Action == RevealValue.Action || rows.Exists(r => r.ChangeId == c.Id && r.Known.UpperBoundInfinite),
                            TakeBackChange.CanBeTakenBack.Contains(c.Action),
                            [.. explanations[c.Id.ToString()].OrderBy(e => e.At).Select(e => new Explanation(e.ByName, e.At, e.Why!))],
                            agreed.GetValueOrDefault(c.Id, [])
                        )),
                ]
            )
        );

        HistoryValue Value(RecordValue row)
        {
            var (from, to) = EffectiveRange.FromDatabase(row.Effective);
            return new HistoryValue(
                row.Id,
                row.Address,
                label(row.Address),
                SealedText.Shown(row.Value),
                names.Of(row.Field, row.Value),
                sources.Of(row.Source),
                from,
                to,
                row.Known.LowerBound,
                row.Known.UpperBoundInfinite ? null : row.Known.UpperBound,
                row.ChangeId,
                row.EndedBy
            );
        }
    }

    /// <summary>What differs between two states of a record: each is what was true on a day, as believed at the end of a day.</summary>
    private static async Task<Results<Ok<StateDifference[]>, ProblemHttpResult>> Compare(
        Guid id,
        LocalDateParameter on,
        LocalDateParameter? known,
        LocalDateParameter with,
        LocalDateParameter? withKnown,
        Actor actor,
        FidDb db,
        CancellationToken cancellation
    )
    {
        if (await RecordAccess.FindAsync(actor, db, id, tracked: false, cancellation) is not var (employment, record))
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var (fields, rights) = (reader.Fields, reader.On(record));
        var zone = Firm.ZoneOf(await db.Firms.Select(f => f.TimeZone).SingleAsync(cancellation));
        var rows = (await Values(db, employment).ToListAsync(cancellation)).Where(v => rights.Sees(v.Field)).ToList();
        var (before, after) = (State(on.Date, known?.Date), State(with.Date, withKnown?.Date));
        var names = await ValueNames.LoadAsync(db, reader, rows.Select(r => (r.Field, r.Value)), cancellation);
        var label = LabelsIn(fields, names, after.Values.Concat(before.Values));
        var order = fields.Set.FieldsAndColumns.Select((f, i) => (f.Key, i)).ToDictionary(f => f.Key, f => f.i);
        return TypedResults.Ok(
            before
                .Keys.Union(after.Keys)
                .Where(k => Raw(before, k) != Raw(after, k))
                .OrderBy(k => order[FieldAddress.FieldOf(k)])
                .ThenBy(k => k, StringComparer.Ordinal)
                .Select(k => new StateDifference(k, label(k), Shown(before, k), Shown(after, k)))
                .ToArray()
        );

        Dictionary<string, RecordValue> State(LocalDate day, LocalDate? asKnownOn)
        {
            var moment = asKnownOn is { } knownDay ? knownDay.PlusDays(1).AtStartOfDayInZone(zone).ToInstant() : Instant.MaxValue;
            return rows.Where(r => r.HoldsOn(day) && r.Known.LowerBound < moment && (r.Known.UpperBoundInfinite || r.Known.UpperBound >= moment))
                .GroupBy(r => r.Address)
                .ToDictionary(g => g.Key, g => g.MaxBy(r => r.Known.LowerBound)!);
        }

        string? Raw(Dictionary<string, RecordValue> state, string key) => state.TryGetValue(key, out var value) ? SealedText.Comparable(value.Value) : null;

        StateValue? Shown(Dictionary<string, RecordValue> state, string key) =>
            state.TryGetValue(key, out var value)
                ? new StateValue(SealedText.Shown(value.Value), names.Of(key, value.Value), EffectiveRange.FromDatabase(value.Effective).From)
                : null;
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Explain(
        Guid id,
        Guid change,
        WhyRequest request,
        Actor actor,
        ExplainChange explain,
        CancellationToken cancellation
    ) => (await explain.DoAsync(new ExplainChangeRequest(id, change, request.Why), actor, cancellation)).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBack(
        Guid id,
        Guid change,
        WhyRequest request,
        Actor actor,
        TakeBackChange takeBack,
        CancellationToken cancellation
    ) => (await takeBack.DoAsync(new TakeBackChangeRequest(id, change, request.Why), actor, cancellation)).Answer();

    // Who agreed to what was asked for, by the change it came to.
    private static async Task<Dictionary<Guid, string[]>> AgreedAsync(FidDb db, List<Change> changes, CancellationToken cancellation)
    {
        var asked = changes.Where(c => c.Origin == AgreeToRequest.Origin && Guid.TryParse(c.Part, out _)).ToDictionary(c => c.Id, c => Guid.Parse(c.Part!));
        if (asked.Count == 0)
            return [];
        var requests = await db.RecordRequests.AsNoTracking().Where(r => asked.Values.Contains(r.Id)).ToDictionaryAsync(r => r.Id, cancellation);
        return asked
            .Where(a => requests.ContainsKey(a.Value))
            .ToDictionary(a => a.Key, a => requests[a.Value].Steps.Select(s => s.AgreedByName).OfType<string>().Distinct().ToArray());
    }

    private static IQueryable<RecordValue> Values(FidDb db, Employment employment) =>
        db.RecordValues.AsNoTracking().Where(v => v.OwnerId == employment.Id || v.OwnerId == employment.PersonId);

    // How values are called: one in a row by the field, and what the row is about as the first of some values says it.
    private static Func<string, Labels> LabelsIn(LiveFields fields, ValueNames names, IEnumerable<RecordValue> values)
    {
        var about = values.Where(v => v.RowId is not null).DistinctBy(v => v.Address).ToDictionary(v => v.Address, v => v.Value);
        return address =>
        {
            var labels = fields.Set.Find(address)!.Labels;
            if (fields.Set.AboutOf(address) is not { } at || !about.TryGetValue(at, out var value))
                return Labels.Of(labels);
            var name = names.Of(at, value) ?? value.ToString();
            return Labels.Of(labels.ToDictionary(l => l.Key, l => $"{l.Value} ({name})"));
        };
    }
}

/// <summary>Every value a record had, as far as the reader may see the fields.</summary>
/// <param name="Values">By field, then by when they are true.</param>
/// <param name="Changes">The saves they came with, the latest first.</param>
public sealed record HistoryResponse(HistoryValue[] Values, HistoryChange[] Changes);

/// <param name="To">The last day it is true for, included; null for no end.</param>
/// <param name="KnownTo">When it stopped being believed; null while it is.</param>
/// <param name="EndedBy">The change with which it stopped.</param>
public sealed record HistoryValue(
    Guid Id,
    string Field,
    Labels Label,
    JsonElement Value,
    string? Display,
    ValueSource Source,
    LocalDate From,
    LocalDate? To,
    Instant KnownFrom,
    Instant? KnownTo,
    Guid ChangeId,
    Guid? EndedBy
);

/// <param name="Fields">The fields it touched.</param>
/// <param name="Stands">Whether something of it is still believed.</param>
/// <param name="AgreedBy">Who agreed to it, where it was asked for.</param>
/// <param name="CanBeTakenBack">Whether it is of a kind that can be taken back; what a later change touched cannot be all the same.</param>
public sealed record HistoryChange(
    Guid Id,
    Instant At,
    string By,
    string Origin,
    string Action,
    string? Why,
    string[] Fields,
    bool Stands,
    bool CanBeTakenBack,
    Explanation[] Explanations,
    string[] AgreedBy
);

public sealed record Explanation(string By, Instant At, string Why);

/// <summary>A field that differs between two states; null where it had no value.</summary>
public sealed record StateDifference(string Field, Labels Label, StateValue? Before, StateValue? After);

/// <param name="Since">The day from which the value holds.</param>
public sealed record StateValue(JsonElement Value, string? Display, LocalDate Since);

public sealed record WhyRequest(string? Why);
