using System.Text.Json;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.People;
using Fid.Data.Templates;
using Fid.Server.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.People;

/// <summary>Reads a record as it is shown.</summary>
internal static class RecordReader
{
    /// <summary>The values that hold on the day the record is shown for, by field.</summary>
    public static async Task<Dictionary<string, RecordValue>> ValuesAsync(FidDb db, Employment employment, LocalDate today, CancellationToken cancellation)
    {
        var asOf = RecordWriter.AsOf(employment, today);
        return await db.RecordValues.AsNoTracking()
            .Where(v => (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId) && v.Known.UpperBoundInfinite && v.Effective.Contains(asOf))
            .ToDictionaryAsync(v => v.Field, cancellation);
    }

    public static async Task<RecordResponse> DescribeAsync(FidDb db, Employment employment, RecordNow record, LocalDate today, CancellationToken cancellation)
    {
        var values = await ValuesAsync(db, employment, today, cancellation);
        var names = await ListNames.LoadAsync(db, cancellation);
        var templates = await TemplateBook.LoadAsync(db, cancellation);
        var display = await DisplayAsync(db, values.Select(v => (v.Key, v.Value.Value)), names, cancellation);
        var changeIds = values.Values.Select(v => v.ChangeId).Distinct().ToArray();
        var changes = await db.Changes.AsNoTracking().Where(c => changeIds.Contains(c.Id)).ToDictionaryAsync(c => c.Id, cancellation);
        var hire = await db.Hires.AsNoTracking().Where(h => h.EmploymentId == employment.Id && h.Closed == null)
            .Select(h => new HireLink(h.Id, h.Tasks.Count(t => t.DayOne && t.Required && t.Done != null), h.Tasks.Count(t => t.DayOne && t.Required && t.SkippedWhy == null)))
            .FirstOrDefaultAsync(cancellation);

        var sections = Enum.GetValues<FieldSection>().Select(section => new SectionResponse(
            section,
            [.. ShippedFields.All.Where(f => f.Section == section).Select(f => Field(f, values.GetValueOrDefault(f.Key)))])).ToArray();
        return new RecordResponse(
            employment.Id, employment.Number, record.GivenName, record.FamilyName, names.Job(record.JobCode), record.Kind, names.Site(record.SiteCode),
            employment.Start, RecordWriter.AsOf(employment, today), today, Platform.Versions.Tag(record.Version), hire, sections, record.Filled, ShippedFields.All.Count, record.Missing);

        FieldResponse Field(RecordField field, RecordValue? value)
        {
            var change = value is null ? null : changes.GetValueOrDefault(value.ChangeId);
            return new FieldResponse(
                field.Key, field.Type, new Labels(field.English, field.German), field.List,
                field.Options?.Select(o => new OptionResponse(o.Value, new Labels(o.English, o.German))).ToArray(),
                field.RequiredFrom, field.ReadOnly, value?.Value, display.GetValueOrDefault(field.Key),
                value is null ? null : ValueSource.Of(value.Source, templates),
                change is null ? null : new ChangeResponse(change.ByName, change.At, change.Origin, change.Why),
                value is null ? null : EffectiveRange.FromDatabase(value.Effective).From);
        }
    }

    /// <summary>How list entries and people are called, by field; other values are shown as they are.</summary>
    public static async Task<Dictionary<string, string>> DisplayAsync(
        FidDb db, IEnumerable<(string Field, JsonElement Value)> values, ListNames names, CancellationToken cancellation)
    {
        var display = new Dictionary<string, string>();
        foreach (var (key, value) in values)
        {
            if (ShippedFields.Find(key) is not { } field || value.ValueKind != JsonValueKind.String) continue;
            var text = value.GetString()!;
            if (field.Type == FieldType.ListEntry)
                display[key] = names.Of(field.List!, text)!;
            else if (field.Type == FieldType.Person && Guid.TryParse(text, out var id)
                && await db.RecordsNow.AsNoTracking().FirstOrDefaultAsync(r => r.EmploymentId == id, cancellation) is { } person)
                display[key] = person.FullName;
        }
        return display;
    }
}

/// <summary>A record.</summary>
/// <param name="AsOf">The day it is shown for: today, or the first day of somebody who has not started.</param>
/// <param name="Hire">The hire under way, if any.</param>
/// <param name="Version">What to send as If-Match when saving.</param>
/// <param name="Missing">Keys of fields needed before day one and empty.</param>
public sealed record RecordResponse(
    Guid EmploymentId, string Number, string GivenName, string FamilyName, string? Job, string? Kind, string? Site, LocalDate Start, LocalDate AsOf, LocalDate Today,
    string Version, HireLink? Hire, SectionResponse[] Sections, int Filled, int Of, string[] Missing);

public sealed record HireLink(Guid Id, int Done, int Of);

public sealed record SectionResponse(FieldSection Section, FieldResponse[] Fields);

/// <summary>A field and its value.</summary>
/// <param name="Display">What to show for a list entry or a person.</param>
/// <param name="Since">The day from which the value holds.</param>
public sealed record FieldResponse(
    string Key, FieldType Type, Labels Label, string? List, OptionResponse[]? Options, string? RequiredFrom, bool ReadOnly,
    JsonElement? Value, string? Display, ValueSource? Source, ChangeResponse? Change, LocalDate? Since);

/// <summary>A label in each language.</summary>
public sealed record Labels(string En, string De);

public sealed record OptionResponse(string Value, Labels Label);

/// <summary>Who set a value, when, from where, and why.</summary>
public sealed record ChangeResponse(string By, Instant At, string Origin, string? Why);
