using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Fid.Server.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Reads a record as its reader may see it.</summary>
internal static class RecordReader
{
    /// <summary>The record as the user may see it; null where they may not open it, or it is not there.</summary>
    public static async Task<RecordResponse?> DescribeAsync(FidDb db, Guid id, Actor actor, LocalDate today, CancellationToken cancellation)
    {
        if (await RecordParts.LoadAsync(db, id, today, cancellation) is not { } parts)
            return null;
        var reader = await Reader.OfAsync(actor, db, parts.Fields, cancellation);
        if (!reader.MayOpen(parts.Record))
            return null;
        var (fields, employment, record, asOf, rights) = (parts.Fields, parts.Employment, parts.Record, parts.AsOf, reader.On(parts.Record));
        var (values, names) = (parts.Values, parts.Names);
        var seen = await ShownRecord.EvaluateAsync(
            db,
            fields,
            values.ToDictionary(v => v.Key, v => v.Value.Value),
            rights,
            fields.Set.Keys,
            [],
            parts.Stage,
            today,
            cancellation
        );
        var facts = new VisibleFacts(reader, names).On(record);
        var sources = await SourceNames.LoadAsync(db, parts.Templates, values.Values.Select(v => v.Source), reader.SeesNames, cancellation);
        var coming = parts.Coming.Where(v => seen.Access.ContainsKey(v.Field)).ToLookup(v => v.Address);

        var closedHire = employment.Stint.NeverWas
            ? await db
                .Hires.Where(h => h.EmploymentId == id && h.Occasion == Occasion.Arrival && h.Outcome != null)
                .Select(h => new ClosedHire(h.Id, h.Outcome!.Value, h.OutcomeWhy!, h.Closed!.Value))
                .SingleOrDefaultAsync(cancellation)
            : null;

        var sections = fields
            .Sections.Select(section => new SectionResponse(
                section.Key,
                Labels.Of(section.Labels),
                [
                    .. fields
                        .Set.Fields.Where(f => f.Section == section.Key && seen.Access.ContainsKey(f.Key))
                        .Select(f => f.Type == FieldType.Rows ? WithRows(f) : Field(f, f.Key)),
                ]
            ))
            .Where(s => s.Fields.Length > 0)
            .ToArray();
        return new RecordResponse(
            employment.Id,
            employment.Number,
            facts.Name ? record.GivenName : "",
            facts.Name ? record.FamilyName : employment.Number,
            facts.Job(record.JobCode),
            facts.Kind(record.Kind),
            facts.Site(record.SiteCode),
            employment.Start,
            asOf,
            today,
            Platform.Versions.Tag(record.Version),
            parts.Hire,
            parts.Settled,
            reader.May(Actions.See, Things.Hire, record) ? [.. parts.Later] : [],
            closedHire,
            fields.Version,
            sections,
            await EvaluationResponse.OfAsync(db, fields, seen, names, cancellation),
            [.. parts.OtherStints.Select(s => s with { Job = facts.Job(s.Job) })],
            [.. parts.Waiting.SelectMany(Waiting)]
        );

        IEnumerable<WaitingValue> Waiting(WaitingParts asked) =>
            asked
                .Changes.Where(c => seen.Access.ContainsKey(FieldAddress.FieldOf(c.Field)))
                .Select(c => new WaitingValue(
                    asked.Id,
                    c.Field,
                    c.New is { } value ? SealedText.Shown(value) : null,
                    c.New is { } named ? DisplayOf(fields.Set.Find(c.Field)!, named) : null,
                    asked.From,
                    asked.By,
                    asked.At
                ));

        string? DisplayOf(FieldDefinition field, JsonElement value) =>
            field.List is { } list && names.Joined(list, value) is { Length: > 0 } entries ? entries
            : field.Type is FieldType.Person or FieldType.File ? parts.Named(value, reader.SeesNames)
            : null;

        FieldResponse Field(FieldDefinition field, string address)
        {
            var value = values.GetValueOrDefault(address);
            var change = value is null ? null : parts.Changes.GetValueOrDefault(value.ChangeId);
            var access =
                field.Key == StartCorrection.Field && StartCorrection.IsOpenTo(reader, employment, record, parts.Hire is not null)
                    ? FieldAccess.Edit
                    : seen.Access[field.Key];
            return Bare(field, access) with
            {
                Key = address,
                Value = seen.Values.TryGetValue(address, out var held) ? held : null,
                Display = held.ValueKind == JsonValueKind.Undefined ? null : DisplayOf(field, held),
                Source = value is null ? null : sources.Of(value.Source),
                Change = change is null ? null : new ChangeResponse(change.ByName, change.At, change.Origin, change.Why),
                Since = value is null ? null : EffectiveRange.FromDatabase(value.Effective).From,
                Coming =
                [
                    .. coming[address]
                        .Select(c => new ComingValue(
                            EffectiveRange.FromDatabase(c.Effective).From,
                            SealedText.Shown(c.Value),
                            field.List is { } list ? names.Joined(list, c.Value) : null
                        )),
                ],
            };
        }

        FieldResponse WithRows(FieldDefinition field)
        {
            var columns = field.ColumnsAsFields().Where(c => seen.Access.ContainsKey(c.Key)).ToList();
            var standings = RowStandings.Of(field, seen.Values, today);
            return Bare(field, seen.Access[field.Key]) with
            {
                Value = seen.Values.TryGetValue(field.Key, out var about) ? about : null,
                Rows = new RowsResponse(
                    [.. columns.Select(c => Bare(c, seen.Access[c.Key]) with { Label = OwnLabel(field, c) })],
                    Column(field, field.RowKey),
                    Column(field, field.Dates?.From),
                    Column(field, field.Dates?.Until),
                    field.ColumnsAsFields().Where(c => c.Type != FieldType.Computed).All(c => seen.Access.GetValueOrDefault(c.Key) == FieldAccess.Edit),
                    [
                        .. parts
                            .All.Select(v => v.RowId is { } id && FieldAddress.Read(v.Field).Whole == field.Key ? id : (Guid?)null)
                            .OfType<Guid>()
                            .Distinct()
                            .Select(id => new RowResponse(
                                id,
                                [
                                    .. columns
                                        .Where(c => seen.Values.ContainsKey(FieldAddress.Of(c.Key, id)) || coming.Contains(FieldAddress.Of(c.Key, id)))
                                        .Select(c => Field(c, FieldAddress.Of(c.Key, id)) with { Label = OwnLabel(field, c) }),
                                ],
                                standings.GetValueOrDefault(id)
                            ))
                            .Where(r => r.Cells.Length > 0)
                            .OrderBy(r => About(r, field.RowKey), StringComparer.CurrentCultureIgnoreCase)
                            .ThenBy(r => About(r, field.Dates?.From), StringComparer.Ordinal)
                            .ThenBy(r => r.Id),
                    ]
                ),
            };

            string? About(RowResponse row, string? column) =>
                column is not null && Array.Find(row.Cells, c => FieldAddress.Read(c.Key).Column == column) is { } cell
                    ? cell.Display ?? cell.Value?.ToString()
                    : null;
        }

        // Within its rows a column is called by its own name alone.
        static Labels OwnLabel(FieldDefinition rows, FieldDefinition column) =>
            Labels.Of(rows.Columns!.First(c => c.Key == FieldAddress.Read(column.Key).Column).Labels);

        static string? Column(FieldDefinition rows, string? column) => column is null ? null : FieldAddress.ColumnKey(rows.Key, column);
    }

    /// <summary>A field without a value.</summary>
    public static FieldResponse Bare(FieldDefinition field, FieldAccess access) =>
        new(
            field.Key,
            field.Type,
            Labels.Of(field.Labels),
            field.List,
            field.Options?.Select(o => new OptionResponse(o.Value, Labels.Of(o.Labels), o.Retired, o.Within?.ToArray())).ToArray(),
            field.Parent,
            field.Required.Kind == RequirementKind.Always ? "always" : field.Required.Stage,
            access,
            field.Unique,
            field.Sensitive,
            field.ChangesOverTime,
            field.Type == FieldType.File ? new FileTerms(field.Accepts?.ToArray(), FileFit.MostBytes(field)) : null,
            null,
            null,
            null,
            null,
            null,
            []
        );

    /// <summary>How list entries and people are called, by field; other values are shown as they are.</summary>
    /// <param name="called">What people are called, read beforehand for many at once; null to read it for these.</param>
    public static async Task<Dictionary<string, string>> DisplayAsync(
        FidDb db,
        LiveFields fields,
        IEnumerable<(string Field, JsonElement Value)> values,
        ListNames names,
        CancellationToken cancellation,
        IReadOnlyDictionary<Guid, string>? called = null
    )
    {
        var display = new Dictionary<string, string>();
        var (people, files) = (new Dictionary<string, Guid>(), new Dictionary<string, Guid>());
        foreach (var (key, value) in values)
        {
            if (fields.Set.Find(key) is not { } field)
                continue;
            if (field.List is { } list && names.Joined(list, value) is { Length: > 0 } entries)
                display[key] = entries;
            else if (
                field.Type is FieldType.Person or FieldType.File
                && value.ValueKind == JsonValueKind.String
                && Guid.TryParse(value.GetString(), out var id)
            )
                (field.Type == FieldType.Person ? people : files)[key] = id;
        }
        var known = await Files.NamesAsync(db, files.Values, cancellation);
        foreach (var (key, id) in files)
            if (known.TryGetValue(id, out var name))
                display[key] = name;
        if (people.Count == 0)
            return display;
        var ids = people.Values.ToArray();
        var named = called ?? await PeopleNames.LoadAsync(db, ids, names.OfPeople, cancellation);
        foreach (var (key, id) in people)
            if (named.TryGetValue(id, out var name))
                display[key] = name;
        return display;
    }
}
