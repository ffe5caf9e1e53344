using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Json;
using Fid.Core.Templates;
using Fid.Data.Hires;
using Fid.Data.People;

namespace Fid.Acts.Templates;

/// <summary>
/// What a template says somebody must hold or be given, as rows of their record: one for each certificate and each item, known by its key.
/// What is filled in there later, such as a number or the day of issue, is the record's own.
/// </summary>
internal static class TemplateRows
{
    // By the list of the template: the rows, and the column each property fills.
    private static readonly Dictionary<string, (string Field, IReadOnlyDictionary<string, string> Columns)> Tables = new()
    {
        [TemplateLists.Certificates] = ("certificates", new Dictionary<string, string> { ["need"] = "need", ["note"] = "note" }),
        [TemplateLists.Items] = ("items", new Dictionary<string, string> { ["quantity"] = "quantity", ["note"] = "note" }),
    };

    /// <summary>The values that entries put into rows, by address with the entry's key for the row.</summary>
    public static IEnumerable<FieldValue> Of(FieldSet set, IEnumerable<HireEntry> entries, Func<HireEntry, string, string> source) =>
        entries.SelectMany(entry => Of(set, entry).Select(c => new FieldValue(c.Address, c.Value, source(entry, c.Property))));

    /// <summary>What becomes of a record's rows when an entry of its hire comes, changes or goes. What somebody changed or filled in stays.</summary>
    /// <param name="before">The entry as it is; null where it comes.</param>
    /// <param name="after">The entry as it will be; null where it goes.</param>
    /// <param name="held">What the record holds now, by address.</param>
    public static IEnumerable<FieldEdit> Change(
        FieldSet set,
        Employment employment,
        HireEntry? before,
        HireEntry? after,
        IReadOnlyDictionary<string, RecordValue> held,
        string source
    )
    {
        var (was, will) = (Placed(before), Placed(after));
        if (after is null && was.Count > 0 && !IsAsMade(set, employment, before!, held))
            yield break;
        // One that somebody took away does not come back because a note about it changed.
        if (before is not null && after is not null && !was.Keys.Any(held.ContainsKey))
            yield break;
        foreach (var address in was.Keys.Union(will.Keys))
        {
            var (old, wanted) = (Find(was, address), Find(will, address));
            var mine = held.GetValueOrDefault(address)?.Value;
            if (JsonValues.Same(old, wanted) || JsonValues.Same(mine, wanted) || !JsonValues.Same(mine, old))
                continue;
            yield return new FieldEdit(address, wanted, source, null);
        }

        Dictionary<string, JsonElement> Placed(HireEntry? entry) =>
            entry is null ? [] : Of(set, entry).ToDictionary(c => OwnAddress(set, c.Address, employment), c => c.Value);

        static JsonElement? Find(Dictionary<string, JsonElement> values, string address) => values.TryGetValue(address, out var value) ? value : null;
    }

    /// <summary>The address in a record of a value that a template gives: where it stands in a row, that of the record's own row.</summary>
    public static string OwnAddress(FieldSet set, string address, Employment employment) =>
        FieldAddress.IsInRow(address) && set.Find(address) is { } field
            ? FieldAddress.Read(address).For(field.Of == FieldOwner.Person ? employment.PersonId : employment.Id).ToString()
            : address;

    /// <summary>What rows of a template are about, of those that some addresses are of: a template that fills in any column of a row means that there
    /// is one.</summary>
    public static IEnumerable<(string Address, JsonElement About, string By)> Abouts(FieldSet set, IEnumerable<string> addresses) =>
        addresses
            .Where(a => FieldAddress.Read(a) is { Row: not null, RowId: null })
            .Select(a => (Address: set.AboutOf(a), By: a))
            .Where(a => a.Address is not null)
            .DistinctBy(a => a.Address)
            .Select(a => (a.Address!, JsonSerializer.SerializeToElement(FieldAddress.Read(a.By).Row), a.By));

    // Whether nothing stands in the row but what the entry put there.
    private static bool IsAsMade(FieldSet set, Employment employment, HireEntry entry, IReadOnlyDictionary<string, RecordValue> held)
    {
        var made = Of(set, entry).ToDictionary(c => OwnAddress(set, c.Address, employment), c => c.Value);
        var at = made.Keys.Select(FieldAddress.Read).First();
        return held.All(h =>
            FieldAddress.Read(h.Key) is var one
            && (one.Row != at.Row || one.Whole != at.Whole || (made.TryGetValue(h.Key, out var value) && JsonElement.DeepEquals(value, h.Value.Value)))
        );
    }

    private static IEnumerable<(string Address, JsonElement Value, string Property)> Of(FieldSet set, HireEntry entry)
    {
        if (!Tables.TryGetValue(entry.List, out var table) || set.Find(table.Field) is not { Type: FieldType.Rows, RowKey: { } key } rows)
            yield break;
        yield return (At(key), JsonSerializer.SerializeToElement(entry.Key), key);
        foreach (var (property, column) in table.Columns)
            if (
                entry.Properties.TryGetValue(property, out var value)
                && !FieldValues.IsEmpty(value)
                && rows.ColumnsAsFields().FirstOrDefault(c => FieldAddress.Read(c.Key).Column == column) is { } field
                && ValueCheck.Check(field, value).Value is { } fit
            )
                yield return (At(column), fit, property);

        string At(string column) => FieldAddress.Cell(table.Field, column, entry.Key).ToString();
    }
}
