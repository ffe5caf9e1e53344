using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.People;

/// <summary>Checks what was entered into fields of records: by who may enter it, by the fields' definitions, and by what the firm's
/// lists, its people, its files and other records hold, asked for all of them together.</summary>
public sealed class EnteredValues(FidDb db, UniqueValues unique)
{
    /// <summary>What was entered into one record.</summary>
    public async Task<Entered> CheckAsync(LiveFields fields, EnteredRecord record, CancellationToken cancellation) =>
        (await CheckAsync(fields, [record], cancellation))[0];

    /// <summary>The values to store of each record, and what is wrong with the others.</summary>
    public async Task<IReadOnlyList<Entered>> CheckAsync(LiveFields fields, IReadOnlyList<EnteredRecord> records, CancellationToken cancellation)
    {
        var found = records.Select(_ => new Entered([], [])).ToList();
        var fitting = new List<Fitting>();
        for (var i = 0; i < records.Count; i++)
            foreach (var (key, json) in records[i].Values.SelectMany(v => WithRows(fields.Set, v.Key, v.Value)))
            {
                var (field, value, problem) = Read(fields, key, json, records[i].Rights);
                if (problem is not null)
                    found[i].Problems.Add(problem);
                else if (value is { } there)
                    fitting.Add(new Fitting(i, Canonical(key), field!, there));
                else
                    found[i].Values[Canonical(key)] = null;
            }
        var references = await LoadAsync(fitting, cancellation);
        var claims = new List<Fitting>();
        foreach (var one in fitting)
        {
            var (value, problem) = Refer(one, references, records[one.Record]);
            if (problem is not null)
                found[one.Record].Problems.Add(problem with { Path = $"/{one.Address}" });
            else
            {
                found[one.Record].Values[one.Address] = value;
                if (one.Field.Unique)
                    claims.Add(one with { Value = value });
            }
        }
        foreach (var taken in await unique.FindTakenAsync(claims.ConvertAll(c => new UniqueClaim(c.Field, c.Value, records[c.Record].Person)), cancellation))
        {
            found[claims[taken].Record].Values.Remove(claims[taken].Address);
            found[claims[taken].Record].Problems.Add(UniqueValues.Taken(claims[taken].Address));
        }
        return found;
    }

    private static (FieldDefinition? Field, JsonElement? Value, Problem? Problem) Read(LiveFields fields, string key, JsonElement json, FieldRights rights)
    {
        // A field that may not be seen is no field to the user who may not see it.
        if (fields.Set.Find(key) is not { } field || !field.StandsAt(FieldAddress.Read(key)) || rights.On(key) is var access && access == FieldAccess.None)
            return (null, null, new Problem($"/{key}", "unknown-field", "There is no such field."));
        if (access != FieldAccess.Edit)
            return (field, null, new Problem($"/{key}", "read-only", "You may read this and not change it."));
        var (value, problem) = ValueCheck.Check(field, json);
        return (field, value, problem is null ? null : problem with { Path = $"/{key}" });
    }

    private static string Canonical(string key) => FieldAddress.Read(key) is { RowId: { } row, Field: var field } ? FieldAddress.Of(field, row) : key;

    // A row is taken away with all that stands in it, by somebody who may change all of it.
    private static IEnumerable<(string Key, JsonElement Value)> WithRows(FieldSet set, string key, JsonElement value) =>
        value.ValueKind == JsonValueKind.Null && FieldAddress.Read(key) is { RowId: not null } at && set.Find(at.Field) is { Type: FieldType.Rows } rows
            ? rows.ColumnsAsFields().Where(c => c.Type != FieldType.Computed).Select(c => ((at with { Field = c.Key }).ToString(), value))
            : [(key, value)];

    private static (JsonElement Value, Problem? Problem) Refer(Fitting one, References references, EnteredRecord record)
    {
        var (field, value) = (one.Field, one.Value);
        if (field.List is { } list)
        {
            var named = FieldValues.Texts(value).Select(code => references.Entries.GetValueOrDefault((list, code.Trim().ToLowerInvariant()))).ToArray();
            if (named.Contains(null))
                return (value, new Problem($"/{field.Key}", "unknown-entry", "Choose an entry of the list."));
            // However it was capitalised, it is stored as the list has it.
            value = field.Type == FieldType.Choices ? JsonSerializer.SerializeToElement(named) : JsonSerializer.SerializeToElement(named[0]);
        }
        if (field.Type == FieldType.Person)
        {
            var id = Guid.Parse(value.GetString()!);
            if (id == record.Employment)
                return (value, new Problem($"/{field.Key}", "self", "Choose somebody other than the person themselves."));
            if (!references.People.Contains(id))
                return (value, new Problem($"/{field.Key}", "unknown-person", "Choose a person."));
        }
        if (field.Type != FieldType.File)
            return (value, null);
        // A file that no other record names: whoever knows the id of a fresh one has given it.
        return references.Files.TryGetValue(Guid.Parse(value.GetString()!), out var file) && file.Holders.TrueForAll(p => p == record.Person)
            ? (value, FileFit.Check(field, file.Size, file.Group))
            : (value, new Problem($"/{field.Key}", "unknown-file", "The file is not there any more. Choose it again."));
    }

    private async Task<References> LoadAsync(List<Fitting> fitting, CancellationToken cancellation)
    {
        var wanted = fitting
            .Where(f => f.Field.List is not null)
            .SelectMany(f => FieldValues.Texts(f.Value).Select(code => (List: f.Field.List!, Code: code.Trim().ToLowerInvariant())))
            .Distinct()
            .ToArray();
        var (lists, codes) = (wanted.Select(w => w.List).ToArray(), wanted.Select(w => w.Code).ToArray());
        var entries =
            wanted.Length == 0
                ? []
                : await db
                    .Database.SqlQuery<FoundEntry>(
                        $"""
                        select distinct e.list, e.code from unnest({lists}, {codes}) w(list, code) join list_entries e on e.list = w.list
                          and lower(e.code) = w.code
                        """
                    )
                    .ToDictionaryAsync(e => (e.List, e.Code.ToLowerInvariant()), e => e.Code, cancellation);
        var named = Ids(FieldType.Person);
        var people = named.Length == 0 ? [] : await db.Employments.Where(e => named.Contains(e.Id)).Select(e => e.Id).ToListAsync(cancellation);
        return new References(entries, [.. people], await FilesAsync(Ids(FieldType.File), cancellation));

        Guid[] Ids(FieldType type) => [.. fitting.Where(f => f.Field.Type == type).Select(f => Guid.Parse(f.Value.GetString()!)).Distinct()];
    }

    private async Task<Dictionary<Guid, FoundFile>> FilesAsync(Guid[] ids, CancellationToken cancellation)
    {
        if (ids.Length == 0)
            return [];
        var stored = await db
            .StoredFiles.Where(f => ids.Contains(f.Id))
            .Select(f => new
            {
                f.Id,
                f.Size,
                f.Group,
            })
            .ToListAsync(cancellation);
        var texts = ids.Select(i => i.ToString()).ToArray();
        var holders = await db
            .Database.SqlQuery<FileHolder>(
                $"""
                select distinct v.value #>> array[]::text[] as file, coalesce(e.person_id, m.kept_id, v.owner_id) as person from record_values v
                left join employments e on e.id = v.owner_id left join person_merges m on m.other_id = v.owner_id and not m.undone
                where v.value #>> array[]::text[] = any({texts}) and length(v.value #>> array[]::text[]) = 36
                """
            )
            .ToListAsync(cancellation);
        return stored.ToDictionary(f => f.Id, f => new FoundFile(f.Size, f.Group, holders.FindAll(h => h.File == f.Id.ToString()).ConvertAll(h => h.Person)));
    }

    /// <summary>A value that fits its field, of the record at a place.</summary>
    private sealed record Fitting(int Record, string Address, FieldDefinition Field, JsonElement Value);

    private sealed record References(Dictionary<(string List, string Code), string> Entries, HashSet<Guid> People, Dictionary<Guid, FoundFile> Files);

    private sealed record FoundEntry(string List, string Code);

    private sealed record FileHolder(string File, Guid Person);

    /// <summary>A file, and the people whose records name it.</summary>
    private sealed record FoundFile(int Size, FileGroup? Group, List<Guid> Holders);
}

/// <summary>What is entered into a record.</summary>
/// <param name="Values">By address; a whole row with null takes it away.</param>
/// <param name="Person">Whose record it is; any fresh id for somebody new.</param>
/// <param name="Employment">Whose employment it is; null for one that does not exist yet.</param>
/// <param name="Rights">What the user who enters it may do with its fields.</param>
public sealed record EnteredRecord(IReadOnlyDictionary<string, JsonElement> Values, Guid Person, Guid? Employment, FieldRights Rights);

/// <summary>What was entered.</summary>
/// <param name="Values">The values that can be stored; null empties a field.</param>
/// <param name="Problems">The paths are a slash and the field's key.</param>
public sealed record Entered(Dictionary<string, JsonElement?> Values, List<Problem> Problems);
