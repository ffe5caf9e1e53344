using System.Text.Json;
using Fid.Core.Planning;
using Fid.Core.Templates;

namespace Fid.Data.Hires;

/// <summary>A task as templates describe it.</summary>
internal sealed record TaskSpec(
    string Name,
    string Stage,
    string Owner,
    string Calendar = HireTask.OwnCalendar,
    int Work = 1,
    OffsetSpec? Opens = null,
    OffsetSpec? Due = null,
    string[]? After = null,
    bool Required = true,
    bool DayOne = false,
    string? Instructions = null)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        RespectRequiredConstructorParameters = true,
        Converters = { new System.Text.Json.Serialization.JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public static TaskSpec Read(LayeredEntry task) =>
        JsonSerializer.SerializeToElement(task.Properties.ToDictionary(p => p.Key, p => p.Value.Value)).Deserialize<TaskSpec>(Json)!;

    public HireTask ToHireTask(string key, int position, IReadOnlySet<string> keys)
    {
        // A task whose predecessor an add-on dropped waits for nothing in its place.
        string[] after = [.. (After ?? []).Where(keys.Contains)];
        return new HireTask
        {
            Key = key,
            Position = position,
            Name = Name,
            StageKey = Stage,
            Owner = Owner,
            CalendarCode = Calendar,
            Work = Work,
            OpensAnchor = Opens?.Anchor,
            OpensAmount = Opens?.Offset ?? 0,
            OpensUnit = Opens?.Unit ?? default,
            DueAnchor = Due?.Anchor,
            DueAmount = Due?.Offset ?? 0,
            DueUnit = Due?.Unit ?? default,
            After = after,
            Lags = new int[after.Length],
            Required = Required,
            DayOne = DayOne,
            Instructions = Instructions,
        };
    }
}

/// <summary>An offset as templates describe it.</summary>
internal sealed record OffsetSpec(string Anchor, int Offset, OffsetUnit Unit);
