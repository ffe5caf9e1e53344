using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Requests;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Fid.Data.Requests;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Requests;

/// <summary>Requests as their reader may see them, read in a few queries, however many they are.</summary>
internal sealed class RequestReader
{
    private readonly FidDb _db;
    private readonly Actor _actor;
    private readonly Reader _reader;

    private RequestReader(FidDb db, Actor actor, Reader reader) => (_db, _actor, _reader) = (db, actor, reader);

    public static async Task<RequestReader> OfAsync(FidDb db, Actor actor, CancellationToken cancellation) =>
        new(db, actor, await Reader.OfAsync(actor, db, cancellation));

    /// <summary>Those of some requests that the reader asked for or is asked about.</summary>
    public async Task<RequestResponse[]> ReadAsync(IQueryable<RecordRequest> which, CancellationToken cancellation)
    {
        var found = await (
            from request in which.AsNoTracking()
            join employment in _db.Employments.AsNoTracking() on request.EmploymentId equals employment.Id
            join record in _db.CurrentRecords.AsNoTracking() on request.EmploymentId equals record.EmploymentId
            select new
            {
                request,
                employment,
                record,
            }
        ).ToListAsync(cancellation);
        // Who else could be asked is worked out only of what the reader may see: for most that is nothing.
        found = found.FindAll(f => f.request.AskedById == _actor.AccountId || RequestInHand.Sees(f.request, f.record, _reader));
        if (found.Count == 0)
            return [];
        var book = await ApproverBook.LoadAsync(
            _db,
            _reader.Fields,
            [.. found.Select(f => f.record).DistinctBy(r => r.EmploymentId)],
            [.. found.Select(f => f.request.AskedById)],
            found.SelectMany(f => f.request.Steps).Select(s => s.By),
            _actor.Today,
            cancellation
        );
        var shown = found
            .Select(f => new ShownRequest(f.request, f.employment, f.record, RequestInHand.IsAskedOf(f.request, f.record, _actor, _reader, book)))
            .Where(f => f.IsAsked || f.Request.AskedById == _actor.AccountId)
            .ToList();
        if (shown.Count == 0)
            return [];
        var held = await RequestedChanges.HeldAsync(_db, [.. shown.Select(s => (s.Request, s.Employment))], _actor.Today, cancellation);
        var names = await ValueNames.LoadAsync(_db, _reader, shown.SelectMany(s => Values(s.Request, held[s.Request.Id])), cancellation);
        var ids = shown.Select(s => s.Request.Id).ToArray();
        var said = (await _db.Changes.AsNoTracking().Where(c => ids.Contains(c.SubjectId)).OrderBy(c => c.At).ToListAsync(cancellation)).ToLookup(c =>
            c.SubjectId
        );
        var facts = new VisibleFacts(_reader, names.Entries);
        return [.. shown.Select(s => Response(s, book, held[s.Request.Id], names, facts, said[s.Request.Id]))];
    }

    private RequestResponse Response(
        ShownRequest shown,
        ApproverBook book,
        IReadOnlyDictionary<string, JsonElement> held,
        ValueNames names,
        VisibleFacts facts,
        IEnumerable<Change> said
    )
    {
        var (request, employment, record, isAsked) = shown;
        var rights = _reader.On(record);
        var isMine = request.AskedById == _actor.AccountId;
        var waits = request.State == RequestState.Waiting;
        var next = request.Next;
        return new RequestResponse(
            request.Id,
            Versions.Tag(request.RowVersion),
            record.EmploymentId,
            _reader.NameOf(record, employment.Number),
            facts.On(record).Job(record.JobCode),
            request.AskedByName,
            request.AskedAt,
            request.From,
            request.Why,
            request.State,
            request.AskedAgain,
            request.Ended,
            [
                .. request
                    .Changes.Where(c => rights.Sees(c.Field) && _reader.Fields.Set.Find(c.Field) is not null)
                    .Select(c => new RequestedChangeResponse(
                        c.Field,
                        Label(c.Field),
                        _reader.Fields.Set.Find(c.Field)!.Type,
                        Value(c.Field, c.Old),
                        Value(c.Field, c.New),
                        Value(c.Field, c.Before),
                        waits && RequestedChanges.IsStale(c, held) ? Value(c.Field, held.TryGetValue(c.Field, out var now) ? now : null, always: true) : null
                    )),
            ],
            Steps(_reader.Fields, request.Steps.Select(s => (s, waits && s.AgreedAt is null ? book.Who(request, s, record) : [])), book, rights),
            [.. said.Select(c => new RequestSaid(c.ByName, c.At, c.Action, c.Why))],
            isAsked,
            isMine && waits
        );

        RequestedValueResponse? Value(string address, JsonElement? value, bool always = false) =>
            value is { ValueKind: not JsonValueKind.Null } there ? new RequestedValueResponse(SealedText.Shown(there), names.Of(address, there))
            : always ? new RequestedValueResponse(null, null)
            : null;
    }

    /// <summary>Steps as they are shown: who is asked by name, and about which fields, as far as the reader may see them.</summary>
    public static RequestStepResponse[] Steps(
        LiveFields fields,
        IEnumerable<(RequestStep Step, IReadOnlyList<string> Who)> steps,
        ApproverBook book,
        FieldRights rights
    ) =>
        [
            .. steps.Select(s => new RequestStepResponse(
                LabelOf(fields, s.Step.Rule),
                [.. s.Step.Fields.Where(f => rights.Sees(f) && fields.Set.Find(f) is not null).Select(f => Labels.Of(fields.Set.Find(f)!.Labels)).Distinct()],
                [.. s.Who.Select(book.NameOf).OfType<string>().Order(StringComparer.CurrentCulture)],
                s.Step.AgreedByName,
                s.Step.AgreedAt
            )),
        ];

    // One that is no longer configured is called by its id.
    private static Labels? LabelOf(LiveFields fields, string rule) =>
        rule.Length == 0 ? null
        : fields.Approvals.Find(rule) is { } approval ? new Labels(approval.Label("en"), approval.Label("de"))
        : new Labels(rule, rule);

    private Labels Label(string address) => Labels.Of(_reader.Fields.Set.Find(address)!.Labels);

    private static IEnumerable<(string, JsonElement)> Values(RecordRequest request, IReadOnlyDictionary<string, JsonElement> held) =>
        request
            .Changes.SelectMany(c => new[] { (c.Field, c.Old), (c.Field, c.New), (c.Field, c.Before) })
            .Where(v => v.Item2 is not null)
            .Select(v => (v.Field, v.Item2!.Value))
            .Concat(held.Select(h => (h.Key, h.Value)));

    private sealed record ShownRequest(RecordRequest Request, Employment Employment, CurrentRecord Record, bool IsAsked);
}
