using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Fields;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>Checks what was entered into a record's fields: by who may enter it, by the fields' definitions, and by what the
/// firm's lists and other records hold.</summary>
internal static class EnteredValues
{
    /// <summary>The values to store, and what is wrong, by field.</summary>
    /// <param name="roles">The roles of whoever entered them.</param>
    /// <param name="employment">The employment they are for; null for one that does not exist yet.</param>
    /// <param name="person">The person a new employment is of; null for a new person.</param>
    /// <param name="references">What entered values refer to, read beforehand for many at once; null to read it for these.</param>
    public static async Task<Entered> CheckAsync(
        FidDb db, SensitiveValues sensitive, LiveFields fields, Dictionary<string, JsonElement> entered, IReadOnlyCollection<string> roles, Employment? employment, CancellationToken cancellation,
        Guid? person = null, EnteredReferences? references = null)
    {
        // What a person had in an earlier stint is theirs to have again.
        Guid[] own = (person ?? employment?.PersonId) is { } whose
            ? [.. await db.Employments.Where(e => e.PersonId == whose).Select(e => e.Id).ToListAsync(cancellation), whose] : [];
        references ??= await EnteredReferences.LoadAsync(db, fields, [entered], cancellation);
        var values = new Dictionary<string, JsonElement?>();
        var problems = new List<Problem>();
        foreach (var (key, json) in entered)
        {
            // A field that may not be seen is no field to whoever may not see it.
            if (fields.Set.Find(key) is not { } field || field.AccessOf(roles) is var access && access == FieldAccess.None)
            {
                problems.Add(new Problem($"/{key}", "unknown-field", "There is no such field."));
                continue;
            }
            if (access != FieldAccess.Edit)
            {
                problems.Add(new Problem($"/{key}", "read-only", "You may read this and not change it."));
                continue;
            }
            var (value, problem) = ValueCheck.Check(field, json);
            if (problem is null && value is { } fitting) (value, problem) = await CheckReferencesAsync(db, sensitive, field, fitting, references, employment, own, cancellation);
            if (problem is not null) problems.Add(problem);
            else values[key] = value;
        }
        return new Entered(values, problems);
    }

    private static async Task<(JsonElement? Value, Problem? Problem)> CheckReferencesAsync(
        FidDb db, SensitiveValues sensitive, FieldDefinition field, JsonElement value, EnteredReferences references, Employment? employment, Guid[] own, CancellationToken cancellation)
    {
        if (field.List is { } list)
        {
            var named = FieldValues.Texts(value).Select(code => references.Entry(list, code)).ToArray();
            if (named.Contains(null)) return (null, new Problem($"/{field.Key}", "unknown-entry", "Choose an entry of the list."));
            // However it was capitalised, it is stored as the list has it.
            value = field.Type == FieldType.Choices ? JsonSerializer.SerializeToElement(named) : JsonSerializer.SerializeToElement(named[0]);
        }
        if (field.Type == FieldType.Person)
        {
            var id = Guid.Parse(value.GetString()!);
            if (id == employment?.Id) return (null, new Problem($"/{field.Key}", "self", "Choose somebody other than the person themselves."));
            if (!references.IsPerson(id)) return (null, new Problem($"/{field.Key}", "unknown-person", "Choose a person."));
        }
        if (field.Type == FieldType.File && await CheckFileAsync(db, field, Guid.Parse(value.GetString()!), own, cancellation) is { } misfit) return (null, misfit);
        if (field.Unique && await IsTakenAsync(db, sensitive, field, value, own, cancellation))
            return (null, new Problem($"/{field.Key}", "not-unique", "Another record has this already. Enter one that nobody has."));
        return (value, null);
    }

    // A file that no other record names: whoever knows the id of a fresh one has given it.
    private static async Task<Problem?> CheckFileAsync(FidDb db, FieldDefinition field, Guid file, Guid[] own, CancellationToken cancellation)
    {
        var text = file.ToString();
        var stored = await db.StoredFiles.Where(f => f.Id == file).Select(f => new { f.Size, f.Group }).FirstOrDefaultAsync(cancellation);
        return stored is null || await db.Database.SqlQuery<int>($"""
            select 1 as "Value" from record_values where value #>> array[]::text[] = {text} and length(value #>> array[]::text[]) = 36 and owner_id <> all({own}) limit 1
            """).AnyAsync(cancellation)
            ? new Problem($"/{field.Key}", "unknown-file", "The file is not there any more. Choose it again.") : FileFit.Check(field, stored.Size, stored.Group);
    }

    private static async Task<bool> IsTakenAsync(FidDb db, SensitiveValues sensitive, FieldDefinition field, JsonElement value, Guid[] own, CancellationToken cancellation)
    {
        var text = value.GetRawText();
        if (field.Sensitive)
        {
            var start = SealedText.Start(await sensitive.HashAsync(db, field.Key, value.ToString(), cancellation));
            return await db.RecordValues.AnyAsync(v => v.Field == field.Key && v.Known.UpperBoundInfinite && !own.Contains(v.OwnerId)
                && v.SealedStart == start, cancellation);
        }
        return await db.Database.SqlQuery<int>($"""
            select 1 as "Value" from record_values
            where field = {field.Key} and md5(value #>> array[]::text[]) = md5({text}::jsonb #>> array[]::text[]) and value = {text}::jsonb and upper_inf(known) and owner_id <> all({own}) limit 1
            """).AnyAsync(cancellation);
    }
}

/// <summary>What was entered.</summary>
/// <param name="Values">The values that can be stored; null empties a field.</param>
/// <param name="Problems">The paths are a slash and the field's key.</param>
internal sealed record Entered(Dictionary<string, JsonElement?> Values, List<Problem> Problems);
