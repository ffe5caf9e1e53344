using System.Text;
using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Fields;
using Fid.Data.Lists;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.FieldDrafts;

/// <summary>
/// Takes certificates, items and allowances that are stored in fields of their own over into rows, and a configuration of the firm's own with
/// them: once, after records have got such rows. Each value keeps its days and where it came from; what was stored before stays in the trail.
/// </summary>
public sealed class CarryIntoRows(FidDb db)
{
    /// <summary>The name of the job.</summary>
    public const string Kind = "rows";

    private const string Origin = "update";

    private readonly FieldPublishing _publishing = new(db);

    /// <returns>How many values were taken over.</returns>
    public async Task<ActResult<int>> DoAsync(CarryIntoRowsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request, cancellation);
        var author = actor.Author(Origin);
        await CarryConfigurationAsync(author, cancellation);
        var set = (await new LiveFieldsLoader(db).LiveAsync(cancellation)).Set;
        var fields = CarriedField.All.Where(c => set.Find(c.Key) is null && set.Find(c.Rows) is { Type: FieldType.Rows, RowKey: not null }).ToList();
        var carried = await CarryValuesAsync(set, fields, author, cancellation);
        await db.SaveManyAsync(cancellation);
        // Which fields there are is other than it was, whether anything was stored in them or not.
        await RecordReprojection.DoAsync(db, cancellation);
        await act.CommitAsync(cancellation);
        return carried;
    }

    private async Task CarryConfigurationAsync(Author author, CancellationToken cancellation)
    {
        await Locks.FieldDraftAsync(db, cancellation);
        if (await _publishing.LiveVersionAsync(cancellation) is not (> 0 and var version))
            return;
        var live = (await _publishing.VersionAsync(version, cancellation))!;
        var whole = CarriedField.Replace(live);
        if (ConfigurationDifference.Of(live, whole) is not { Count: > 0 } differences)
            return;
        var draft = await db.FieldDrafts.AsNoTracking().SingleOrDefaultAsync(cancellation);
        var published = await _publishing.PublishAsync(whole, differences, author, null, cancellation);
        // Whoever is at work on a draft goes on with it.
        if (draft is not null && FieldConfiguration.Read(Encoding.UTF8.GetBytes(draft.Configuration)).Answer is { } begun)
            db.FieldDrafts.Add(
                new FieldDraft
                {
                    Configuration = Encoding.UTF8.GetString(CarriedField.Replace(begun).Write()),
                    BasedOn = published,
                    At = draft.At,
                    ById = draft.ById,
                    ByName = draft.ByName,
                }
            );
    }

    private async Task<int> CarryValuesAsync(FieldSet set, List<CarriedField> fields, Author author, CancellationToken cancellation)
    {
        var keys = fields.ConvertAll(f => f.Key);
        var owners = db.RecordValues.Where(v => keys.Contains(v.Field) && v.RowId == null && v.Known.UpperBoundInfinite).Select(v => v.OwnerId);
        var stints = await db
            .Employments.AsNoTracking()
            .Where(e => owners.Contains(e.Id) || owners.Contains(e.PersonId))
            .OrderBy(e => e.Start)
            .ToListAsync(cancellation);
        if (stints.Count == 0)
            return 0;
        await Locks.RecordsAsync(db, stints.ConvertAll(s => s.Id), cancellation);
        var codes = await CodesAsync(fields, cancellation);
        var values = await db.RecordValues.Where(v => keys.Contains(v.Field) && v.RowId == null && v.Known.UpperBoundInfinite).ToListAsync(cancellation);
        foreach (var owner in values.GroupBy(v => v.OwnerId))
        {
            // What is a fact of the person is told of their last stint.
            var stint = stints.FindLast(s => s.Id == owner.Key || s.PersonId == owner.Key)!;
            var change = author.Change("record.fixed", stint.Id);
            db.Changes.Add(change);
            foreach (var value in owner)
                value.End(change);
            db.RecordValues.AddRange(
                owner
                    .SelectMany(v => Cells(set, fields.First(f => f.Key == v.Field), v, codes, change))
                    .GroupBy(c => c.Address)
                    .SelectMany(cells => Joined(cells, change))
            );
        }
        return values.Count;
    }

    // What two fields say of one row at one time is said once.
    private static List<RecordValue> Joined(IEnumerable<RecordValue> cells, Change change)
    {
        var kept = new List<RecordValue>();
        foreach (var cell in cells.OrderBy(c => c.Effective.LowerBound))
        {
            var (from, to) = EffectiveRange.FromDatabase(cell.Effective);
            if (kept is not [.., var last])
                kept.Add(cell);
            else if (EffectiveRange.FromDatabase(last.Effective).To is { } end && (to is null || to > end))
                kept.Add(RecordValue.Begun(cell.Place, cell.Value, cell.Source, EffectiveRange.ToDatabase(LocalDate.Max(from, end.PlusDays(1)), to), change));
        }
        return kept;
    }

    private static IEnumerable<RecordValue> Cells(FieldSet set, CarriedField field, RecordValue value, Dictionary<string, string> codes, Change change)
    {
        var rows = set.Find(field.Rows)!;
        foreach (var (about, said) in field.RowsOf(value.Value, codes.GetValueOrDefault(field.Key)))
        {
            yield return Cell(rows.RowKey!, JsonSerializer.SerializeToElement(about));
            if (said is { } one && rows.Columns!.Any(c => c.Key == field.Column))
                yield return Cell(field.Column!, one);

            RecordValue Cell(string column, JsonElement json) =>
                RecordValue.Begun(
                    new ValuePlace(value.OwnerId, value.Of, FieldAddress.Cell(field.Rows, column, about).For(value.OwnerId)),
                    json,
                    value.Source,
                    value.Effective,
                    change
                );
        }
    }

    // By field, the code of the entry its rows are about: the firm's own where it has one like it, else a new one.
    private async Task<Dictionary<string, string>> CodesAsync(List<CarriedField> fields, CancellationToken cancellation)
    {
        var lists = fields.Select(f => f.Rows).Distinct().ToList();
        var entries = await db.ListEntries.AsNoTracking().Where(e => lists.Contains(e.List)).ToListAsync(cancellation);
        var codes = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var field in fields.Where(f => f.Entry is not null))
        {
            if (!await db.RecordValues.AnyAsync(v => v.Field == field.Key && v.RowId == null && v.Known.UpperBoundInfinite, cancellation))
                continue;
            var wanted = field.Entry!;
            var alike = new[] { wanted.Code, wanted.Name, wanted.NameDe }.Concat(wanted.Others).Select(TextRules.Fold).ToHashSet();
            var found = entries.Find(e => e.List == field.Rows && new[] { e.Code, e.Name, e.NameDe ?? e.Name }.Any(t => alike.Contains(TextRules.Fold(t))));
            if (found is null)
            {
                found = ListEntry.Of(ShippedLists.Get(field.Rows), new EntryContent(wanted.Code, wanted.Name, wanted.NameDe, new Dictionary<string, object>()));
                db.ListEntries.Add(found);
                entries.Add(found);
            }
            codes[field.Key] = found.Code;
        }
        return codes;
    }
}

public sealed record CarryIntoRowsRequest;
