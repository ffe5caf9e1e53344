using System.Text;
using System.Text.Json;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>The properties an object of a question may have. A name with a question mark may be left out.</summary>
internal sealed class Shape
{
    private readonly byte[][] _utf8;

    public Shape(params string[] names)
    {
        Names = [.. names.Select(n => string.Intern(n.TrimEnd('?')))];
        Optional = [.. names.Select(n => n.EndsWith('?'))];
        _utf8 = [.. Names.Select(Encoding.UTF8.GetBytes)];
    }

    public string[] Names { get; }

    public bool[] Optional { get; }

    /// <summary>Where a property stands in the shape; looked for from the place expected, since properties mostly come in order.</summary>
    public int IndexOf(JsonProperty property, int expected)
    {
        for (var k = 0; k < _utf8.Length; k++)
        {
            var i = expected + k;
            if (i >= _utf8.Length) i -= _utf8.Length;
            if (property.NameEquals(_utf8[i])) return i;
        }
        return -1;
    }

    public int IndexOf(string name)
    {
        for (var i = 0; i < Names.Length; i++)
            if (ReferenceEquals(Names[i], name)) return i; // both are literals of this assembly, so the same object
        return Array.IndexOf(Names, name);
    }
}

/// <summary>The properties of an object that was read by a <see cref="Shape"/>.</summary>
internal readonly struct Members(Node owner, Shape shape, JsonElement[] values)
{
    /// <summary>A property by its name; noted as missing when it must be there and is not. An optional property that is null
    /// counts as left out.</summary>
    public Node this[string name]
    {
        get
        {
            var at = shape.IndexOf(name);
            var value = values[at];
            if (value.ValueKind == JsonValueKind.Undefined)
            {
                if (!shape.Optional[at] && owner.Json.ValueKind == JsonValueKind.Object)
                    owner.Report("missing-property", $"The property {name} is needed here.", name);
                return default;
            }
            if (shape.Optional[at] && value.ValueKind == JsonValueKind.Null) return default;
            return owner.Member(value, name);
        }
    }

    public bool Has(string name) => this[name].IsThere;

    public string Id(string name) => this[name] is { IsThere: true } node ? node.Id() : "";

    public LocalDate Date(string name) => this[name] is { IsThere: true } node ? node.Date() : default;

    public LocalDate? DateOrNull(string name) => this[name] is { IsThere: true } node ? node.Date() : null;

    public bool YesNo(string name, bool otherwise) => this[name] is { IsThere: true } node ? node.YesNo() : otherwise;

    public int Whole(string name, int least, int most, int otherwise = 0) =>
        this[name] is { IsThere: true } node ? node.Whole(least, most) : otherwise;

    public decimal Number(string name) => this[name] is { IsThere: true } node ? node.Number() : 0;

    public T Choice<T>(string name, Choices<T> choices)
        where T : struct => this[name] is { IsThere: true } node ? node.Choice(choices) : default;

    public T[] Items<T>(string name, Func<Node, T> read) => this[name] is { IsThere: true } node ? node.Items(read) : [];

    public T? Optional<T>(string name, Func<Node, T> read)
        where T : class => this[name] is { IsThere: true } node ? read(node) : null;
}

/// <summary>The words for the values of an enumeration, as questions and answers write them.</summary>
internal sealed class Choices<T>(params (string Word, T Value)[] words)
    where T : struct
{
    public string Known { get; } = string.Join(", ", words.Select(w => w.Word));

    public T? Find(JsonElement json)
    {
        foreach (var (word, value) in words)
            if (json.ValueEquals(word)) return value;
        return null;
    }

    public string Word(T value) => words.First(w => EqualityComparer<T>.Default.Equals(w.Value, value)).Word;
}
