using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Fid.Acts.Tasks;

/// <summary>What an act changed of a task, as the trail keeps it: each property as it was and as it became. By that it can be taken back.</summary>
/// <param name="Before">By property; null where the task was not there.</param>
/// <param name="After">By property; null where the task is there no more.</param>
public sealed record TaskFacts(JsonObject? Before, JsonObject? After)
{
    private static readonly JsonSerializerOptions Json = new JsonSerializerOptions(JsonSerializerDefaults.Web).ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);

    /// <summary>Whether the task was added by it.</summary>
    public bool IsAddition => Before is null;

    /// <summary>Reads what an entry of the trail keeps; null where it keeps nothing.</summary>
    public static TaskFacts? Read(string? details) =>
        details is not null && JsonNode.Parse(details) is JsonObject { Count: > 0 } facts && (facts.ContainsKey("before") || facts.ContainsKey("after"))
            ? new TaskFacts(facts["before"] as JsonObject, facts["after"] as JsonObject)
            : null;

    /// <summary>As the trail keeps it.</summary>
    public string Write() => new JsonObject { ["before"] = Before?.DeepClone(), ["after"] = After?.DeepClone() }.ToJsonString();

    /// <summary>What is about to be saved of a task that is there already; null where nothing is.</summary>
    internal static TaskFacts? OfChange(FidDb db, HireTask task)
    {
        var changed = db.Entry(task).Properties.Where(p => p.IsModified && !p.Metadata.IsShadowProperty()).ToList();
        return changed.Count == 0 ? null : new TaskFacts(Values(changed, p => p.OriginalValue), Values(changed, p => p.CurrentValue));
    }

    /// <summary>A task that is about to be added.</summary>
    internal static TaskFacts OfAddition(HireTask task) => new(null, new JsonObject { ["name"] = task.Name, ["owner"] = task.Owner });

    /// <summary>Whether a task still is as the act left it.</summary>
    internal bool StillHolds(FidDb db, HireTask task) =>
        IsAddition
            ? task is { Done: null, SkippedWhy: null }
            // One that is gone does not come back.
            : After is not null && After.All(a => JsonNode.DeepEquals(Value(db.Entry(task).Property(Name(a.Key)).CurrentValue), a.Value));

    /// <summary>What taking it back does, as the trail keeps it.</summary>
    internal TaskFacts Reversed(HireTask task) => IsAddition ? new TaskFacts(new JsonObject { ["name"] = task.Name }, null) : new TaskFacts(After, Before);

    /// <summary>Makes a task what it was before.</summary>
    internal void TakeBack(FidDb db, HireTask task)
    {
        if (IsAddition)
        {
            db.Remove(task);
            return;
        }
        foreach (var (key, value) in Before!)
        {
            var property = db.Entry(task).Property(Name(key));
            property.CurrentValue = value.Deserialize(property.Metadata.ClrType, Json);
        }
    }

    private static JsonObject Values(IEnumerable<PropertyEntry> properties, Func<PropertyEntry, object?> which) =>
        new(properties.Select(p => KeyValuePair.Create(JsonNamingPolicy.CamelCase.ConvertName(p.Metadata.Name), Value(which(p)))));

    private static JsonNode? Value(object? value) => JsonSerializer.SerializeToNode(value, Json);

    private static string Name(string key) => char.ToUpperInvariant(key[0]) + key[1..];
}
