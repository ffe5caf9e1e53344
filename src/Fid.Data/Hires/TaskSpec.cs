using System.Text.Json;
using System.Text.Json.Serialization;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Core.Templates;
using NodaTime;
using NodaTime.Text;

namespace Fid.Data.Hires;

/// <summary>A task as templates describe it.</summary>
public sealed record TaskSpec(
    string Name,
    string Stage,
    string Owner,
    string Calendar = HireTask.OwnCalendar,
    int Work = 1,
    OffsetSpec? Opens = null,
    OffsetSpec? Due = null,
    TaskLink[]? After = null,
    bool Required = true,
    bool DayOne = false,
    string? Instructions = null,
    string? Contact = null,
    string? ContactWhy = null,
    Guid[]? Attachments = null,
    string? NameDe = null,
    string? InstructionsDe = null,
    string? ContactWhyDe = null,
    TaskKind Kind = TaskKind.ToDo,
    string[]? About = null,
    string? When = null,
    string? At = null,
    int? Minutes = null,
    string? Place = null,
    TaskStep[]? Steps = null,
    FieldSetting[]? Sets = null
)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        RespectRequiredConstructorParameters = true,
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        NumberHandling = JsonNumberHandling.Strict,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase), new TaskLinkConverter() },
    };

    /// <summary>A time of day as it is shown, such as 09:30.</summary>
    public static LocalTimePattern TimeOfDay { get; } = LocalTimePattern.CreateWithInvariantCulture("HH:mm");

    private static readonly LocalTimePattern Typed = LocalTimePattern.CreateWithInvariantCulture("H:mm");

    /// <summary>A time of day as somebody types it, such as 9:30; null for what is none.</summary>
    public static LocalTime? TimeOf(string typed) => Typed.Parse(typed.Trim()) is { Success: true, Value: var time } ? time : null;

    /// <summary>A task that layers came to. Throws <see cref="JsonException"/> where a property does not fit, naming it.</summary>
    public static TaskSpec Read(LayeredEntry task) => Read(task.Properties.ToDictionary(p => p.Key, p => p.Value.Value));

    /// <summary>The same of plain properties.</summary>
    public static TaskSpec Read(IReadOnlyDictionary<string, JsonElement> properties) =>
        JsonSerializer.SerializeToElement(properties.Where(p => p.Value.ValueKind != JsonValueKind.Null).ToDictionary()).Deserialize<TaskSpec>(Json)!;

    public HireTask ToHireTask(string key, int position, IReadOnlySet<string> keys)
    {
        // A task whose predecessor an add-on dropped waits for nothing in its place.
        TaskLink[] after = [.. (After ?? []).Where(a => keys.Contains(a.Id))];
        return new HireTask
        {
            Key = key,
            Position = position,
            Name = Name,
            NameDe = NameDe,
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
            After = [.. after.Select(a => a.Id)],
            Lags = [.. after.Select(a => a.Lag)],
            Required = Required,
            DayOne = DayOne,
            Kind = Kind,
            About = About ?? [],
            When = When,
            Instructions = Instructions,
            InstructionsDe = InstructionsDe,
            Contact = Contact,
            ContactWhy = ContactWhy,
            ContactWhyDe = ContactWhyDe,
            Steps = [.. (Steps ?? []).Select(s => s.Name)],
            StepsDe = Steps?.Any(s => s.NameDe is not null) == true ? [.. Steps.Select(s => s.NameDe ?? s.Name)] : [],
            SetFields = [.. (Sets ?? []).Select(s => s.Field)],
            SetFormulas = [.. (Sets ?? []).Select(s => s.Formula)],
            MeetsAt = At is null ? null : TimeOf(At),
            Minutes = Minutes,
            Place = Place,
            Attachments = Attachments ?? [],
        };
    }
}

/// <summary>An offset as templates describe it.</summary>
public sealed record OffsetSpec(string Anchor, int Offset, OffsetUnit Unit);

/// <summary>One step of a task that is a group of them.</summary>
public sealed record TaskStep(string Name, string? NameDe = null);

/// <summary>A task that another comes after.</summary>
/// <param name="Lag">The days to wait, in working days of the later one.</param>
public sealed record TaskLink(string Id, int Lag = 0);

/// <summary>Reads a link as plans write it: the id alone, or an object with a lag.</summary>
internal sealed class TaskLinkConverter : JsonConverter<TaskLink>
{
    public override TaskLink Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        if (reader.TokenType == JsonTokenType.String)
            return new TaskLink(reader.GetString()!);
        using var document = JsonDocument.ParseValue(ref reader);
        return document.RootElement is { ValueKind: JsonValueKind.Object } link && link.TryGetProperty("id", out var id) && id.ValueKind == JsonValueKind.String
            ? new TaskLink(id.GetString()!, link.TryGetProperty("lag", out var lag) && lag.TryGetInt32(out var days) ? days : 0)
            : throw new JsonException("A task that another comes after is named by its key.");
    }

    public override void Write(Utf8JsonWriter writer, TaskLink value, JsonSerializerOptions options)
    {
        writer.WriteStartObject();
        writer.WriteString("id", value.Id);
        writer.WriteNumber("lag", value.Lag);
        writer.WriteEndObject();
    }
}
