using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.People;
using Fid.Server.Lists;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>Checks what was entered into a record's fields, by their definitions and by what the firm's lists hold.</summary>
internal static class EnteredValues
{
    /// <summary>The values to store, and what is wrong, by field.</summary>
    /// <param name="employment">The employment they are for; null for one that does not exist yet.</param>
    public static async Task<Entered> CheckAsync(FidDb db, Dictionary<string, JsonElement> entered, Employment? employment, CancellationToken cancellation)
    {
        var names = await ListNames.LoadAsync(db, cancellation);
        var values = new Dictionary<string, JsonElement?>();
        var problems = new List<Problem>();
        foreach (var (key, json) in entered)
        {
            if (ShippedFields.Find(key) is not { } field)
            {
                problems.Add(new Problem($"/{key}", "unknown-field", "There is no such field."));
                continue;
            }
            if (field.ReadOnly)
            {
                problems.Add(new Problem($"/{key}", "read-only", "This follows from something else and is not entered here."));
                continue;
            }
            var (value, problem) = ValueCheck.Check(field, json);
            problem ??= value is { ValueKind: JsonValueKind.String } text ? await CheckReferenceAsync(db, field, text.GetString()!, names, employment, cancellation) : null;
            if (problem is not null) problems.Add(problem);
            else values[key] = value;
        }
        return new Entered(values, problems);
    }

    private static async Task<Problem?> CheckReferenceAsync(
        FidDb db, RecordField field, string value, ListNames names, Employment? employment, CancellationToken cancellation)
    {
        if (field.Type == FieldType.ListEntry && !names.Has(field.List!, value))
            return new Problem($"/{field.Key}", "unknown-entry", "Choose an entry of the list.");
        if (field.Type == FieldType.Person)
        {
            var id = Guid.Parse(value);
            if (id == employment?.Id) return new Problem($"/{field.Key}", "self", "Choose somebody other than the person themselves.");
            if (!await db.Employments.AnyAsync(e => e.Id == id, cancellation)) return new Problem($"/{field.Key}", "unknown-person", "Choose a person.");
        }
        return null;
    }
}

/// <summary>What was entered.</summary>
/// <param name="Values">The values that can be stored; null empties a field.</param>
/// <param name="Problems">The paths are a slash and the field's key.</param>
internal sealed record Entered(Dictionary<string, JsonElement?> Values, List<Problem> Problems);
