using System.Text.Json;

namespace Fid.Core.Json;

/// <summary>Values as JSON, where there may be none.</summary>
public static class JsonValues
{
    /// <summary>The JSON value null, for where a value has to stand.</summary>
    public static JsonElement Null { get; } = JsonElement.Parse("null");

    /// <summary>Whether two values are the same, or there is neither.</summary>
    public static bool Same(JsonElement? one, JsonElement? other) => one is { } a ? other is { } b && JsonElement.DeepEquals(a, b) : other is null;
}
