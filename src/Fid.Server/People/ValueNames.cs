using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Server.Lists;

namespace Fid.Server.People;

/// <summary>What values of records are called that are shown by another name than they are stored by, for any number of them.</summary>
internal sealed class ValueNames
{
    private readonly LiveFields _fields;
    private readonly ListNames _entries;
    private readonly Dictionary<string, string> _named;

    private ValueNames(LiveFields fields, ListNames entries, Dictionary<string, string> named) => (_fields, _entries, _named) = (fields, entries, named);

    /// <summary>Reads the names of the entries, people and files that some values stand for.</summary>
    public static async Task<ValueNames> LoadAsync(
        FidDb db,
        Reader reader,
        IEnumerable<(string Address, JsonElement Value)> values,
        CancellationToken cancellation
    )
    {
        var ids = values
            .Where(v => reader.Fields.Set.Find(v.Address)?.Type is FieldType.Person or FieldType.File)
            .Select(v => Guid.TryParse(v.Value.ToString(), out var id) ? id : Guid.Empty)
            .Distinct()
            .ToArray();
        var named = new Dictionary<string, string>(StringComparer.Ordinal);
        if (ids.Length > 0)
        {
            foreach (var (id, name) in await PeopleNames.LoadAsync(db, ids, reader.SeesNames, cancellation))
                named[id.ToString()] = name;
            foreach (var (id, name) in await Files.NamesAsync(db, ids, cancellation))
                named[id.ToString()] = name;
        }
        return new ValueNames(reader.Fields, await ListNames.LoadAsync(db, cancellation, reader.SeesNames), named);
    }

    /// <summary>What a value at an address is called; null where it is shown as it is.</summary>
    public string? Of(string address, JsonElement value)
    {
        var field = _fields.Set.Find(address)!;
        return field.List is { } list ? _entries.Joined(list, value)
            : field.Type is FieldType.Person or FieldType.File ? _named.GetValueOrDefault(value.ToString())
            : field.Options is { } options ? Chosen(options, value)
            : null;
    }

    /// <summary>The names of list entries.</summary>
    public ListNames Entries => _entries;

    // What is sealed is no option's value, and stays so.
    private static string? Chosen(IReadOnlyList<FieldOption> options, JsonElement value)
    {
        var chosen = value.ValueKind == JsonValueKind.Array ? value.EnumerateArray() : Enumerable.Repeat(value, 1);
        var labels = chosen
            .Select(v => options.FirstOrDefault(o => v.ValueKind == JsonValueKind.String && v.ValueEquals(o.Value))?.Label(ReaderLanguage.Code))
            .ToArray();
        return labels.Contains(null) ? null : string.Join(", ", labels);
    }
}
