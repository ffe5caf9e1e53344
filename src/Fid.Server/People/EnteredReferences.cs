using System.Text.Json;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Fields;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>The list entries and the people that entered values refer to, looked up by key in two questions, however many there are.</summary>
internal sealed class EnteredReferences
{
    private readonly Dictionary<(string List, string Code), string> _entries;
    private readonly HashSet<Guid> _people;

    private EnteredReferences(Dictionary<(string, string), string> entries, HashSet<Guid> people) => (_entries, _people) = (entries, people);

    /// <summary>Looks up what the values of some records refer to.</summary>
    public static async Task<EnteredReferences> LoadAsync(FidDb db, LiveFields fields, IEnumerable<IReadOnlyDictionary<string, JsonElement>> entered, CancellationToken cancellation)
    {
        var (lists, codes, people) = (new List<string>(), new List<string>(), new HashSet<Guid>());
        foreach (var (key, value) in entered.SelectMany(e => e))
        {
            if (fields.Set.Find(key) is not { } field) continue;
            // What is of another kind is refused before it is looked up.
            if (field.List is { } list && ValueCheck.Check(field, value).Value is { } fitting)
                foreach (var code in FieldValues.Texts(fitting))
                {
                    lists.Add(list);
                    codes.Add(code.Trim().ToLowerInvariant());
                }
            if (field.Type == FieldType.Person && value.ValueKind == JsonValueKind.String && Guid.TryParse(value.GetString(), out var id)) people.Add(id);
        }
        var entries = codes.Count == 0 ? [] : await db.Database.SqlQuery<Entered>($"""
            select distinct e.list, e.code from unnest({lists.ToArray()}, {codes.ToArray()}) w(list, code) join list_entries e on e.list = w.list and lower(e.code) = w.code
            """).ToDictionaryAsync(e => (e.List, e.Code.ToLowerInvariant()), e => e.Code, cancellation);
        var there = people.Count == 0 ? [] : await db.Employments.Where(e => people.Contains(e.Id)).Select(e => e.Id).ToListAsync(cancellation);
        return new EnteredReferences(entries, [.. there]);
    }

    /// <summary>The entry's own code for one written in whatever capitals; null where there is none.</summary>
    public string? Entry(string list, string code) => _entries.GetValueOrDefault((list, code.Trim().ToLowerInvariant()));

    /// <summary>Whether there is such an employment.</summary>
    public bool IsPerson(Guid employment) => _people.Contains(employment);

    private sealed record Entered(string List, string Code);
}
