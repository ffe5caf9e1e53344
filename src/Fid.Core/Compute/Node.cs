using System.Globalization;
using System.Text.Json;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>A place in a question being read: the JSON there, and the way to it. Mistakes are noted with that way, and reading
/// goes on with a harmless value, so that one run names them all.</summary>
internal readonly struct Node(JsonElement json, Way way, List<Problem> problems)
{
    public JsonElement Json { get; } = json;

    public List<Problem> Problems { get; } = problems;

    public bool IsThere => Json.ValueKind is not JsonValueKind.Undefined;

    public Node Item(JsonElement item, int index) => new(item, new Way(way, null, index), Problems);

    public Node Member(JsonElement member, string name) => new(member, new Way(way, name, -1), Problems);

    /// <summary>Reads an object that may hold the shape's properties and no others.</summary>
    public Members Object(Shape shape)
    {
        var values = new JsonElement[shape.Names.Length];
        if (Expect(JsonValueKind.Object, "an object"))
        {
            var next = 0;
            foreach (var property in Json.EnumerateObject())
            {
                var at = shape.IndexOf(property, next);
                if (at < 0)
                    Report("unknown-property", $"There is no property {property.Name} here. Known: {string.Join(", ", shape.Names)}.", property.Name);
                else if (values[at].ValueKind != JsonValueKind.Undefined)
                    Report("duplicate-property", "This property stands twice. Keep one.", property.Name);
                else
                    (values[at], next) = (property.Value, at + 1);
            }
        }
        return new Members(this, shape, values);
    }

    /// <summary>The properties of an object whose names are the asker's own.</summary>
    public IEnumerable<(string Name, Node Value)> Named()
    {
        if (!Expect(JsonValueKind.Object, "an object of names and values")) yield break;
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var property in Json.EnumerateObject())
        {
            if (seen.Add(property.Name)) yield return (property.Name, Member(property.Value, property.Name));
            else Report("duplicate-property", "This property stands twice. Keep one.", property.Name);
        }
    }

    public T[] Items<T>(Func<Node, T> read)
    {
        if (!Expect(JsonValueKind.Array, "a list")) return [];
        var items = new T[Json.GetArrayLength()];
        var i = 0;
        foreach (var item in Json.EnumerateArray()) items[i] = read(Item(item, i++));
        return items;
    }

    public string Text() => Expect(JsonValueKind.String, "a text") ? Json.GetString()! : "";

    /// <summary>A text that names something, so not an empty one.</summary>
    public string Id()
    {
        var text = Text();
        if (text.Length == 0 && Json.ValueKind == JsonValueKind.String) Report("bad-value", "An id cannot be empty.");
        return text;
    }

    public bool YesNo()
    {
        if (Json.ValueKind is JsonValueKind.True or JsonValueKind.False) return Json.GetBoolean();
        Report("wrong-type", "This is to be true or false.");
        return false;
    }

    public int Whole(int least, int most)
    {
        if (!Expect(JsonValueKind.Number, "a whole number")) return Math.Max(least, 0);
        if (!Json.TryGetDecimal(out var number) || number != decimal.Truncate(number))
            Report("wrong-type", "This is to be a whole number.");
        else if (number < least || number > most)
            Report("out-of-range", $"This is to be from {least} to {most}.");
        else
            return (int)number;
        return Math.Max(least, 0);
    }

    public decimal Number()
    {
        if (!Expect(JsonValueKind.Number, "a number")) return 0;
        if (Json.TryGetDecimal(out var number)) return number;
        Report("out-of-range", "This number is too large or too long.");
        return 0;
    }

    public LocalDate Date()
    {
        if (!Expect(JsonValueKind.String, "a date")) return default;
        if (Json.TryGetDateOnly() is { } date) return LocalDate.FromDateOnly(date);
        Report("bad-date", "A date is written year-month-day, such as 2027-03-22, and must exist.");
        return default;
    }

    public T Choice<T>(Choices<T> choices)
        where T : struct
    {
        if (!Expect(JsonValueKind.String, "a text")) return default;
        if (choices.Find(Json) is { } value) return value;
        Report("bad-value", $"This is to be one of {choices.Known}.");
        return default;
    }

    public void Report(string code, string message, string? member = null) =>
        Problems.Add(new Problem((member is null ? way : new Way(way, member, -1)).ToString(), code, message));

    private bool Expect(JsonValueKind kind, string what)
    {
        if (Json.ValueKind == kind) return true;
        Report("wrong-type", $"This is to be {what}.");
        return false;
    }
}

/// <summary>A JSON Pointer (RFC 6901) that is only written out when there is a mistake to report.</summary>
internal sealed record Way(Way? Parent, string? Name, int Index)
{
    public static readonly Way Root = new(null, null, -1);

    public override string ToString() => Parent is null
        ? ""
        : $"{Parent}/{Name?.Replace("~", "~0", StringComparison.Ordinal).Replace("/", "~1", StringComparison.Ordinal) ?? Index.ToString(CultureInfo.InvariantCulture)}";
}

internal static class DateReading
{
    /// <summary>A date written as ISO 8601 year-month-day with four digits of year, in the years 1 to 9999; else null.</summary>
    public static DateOnly? TryGetDateOnly(this JsonElement json)
    {
        if (json.TryGetDateTime(out var moment) && moment.TimeOfDay == TimeSpan.Zero && json.GetRawText().Length == 12)
            return DateOnly.FromDateTime(moment);
        return null;
    }
}
