using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Json;

namespace Fid.Server.Platform;

/// <summary>Refuses a null where a list or a map of a request holds things that are never null. For properties the serializer sees to
/// that itself; for what stands in lists it does not.</summary>
internal static class NoNulls
{
    private const int Deepest = 12;

    private static readonly ConcurrentDictionary<Type, Part[]> Known = new();

    /// <summary>Looks through what an endpoint was given.</summary>
    public static async ValueTask<object?> Filter(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        foreach (var argument in context.Arguments)
            if (argument is not null && IsOurs(argument.GetType()) && Find(argument, "", 0) is { } pointer)
                return Problems.Invalid(new Problem(pointer, "missing", "This cannot be empty here."));
        return await next(context);
    }

    private static string? Find(object value, string path, int depth)
    {
        if (depth > Deepest)
            return null;
        foreach (var part in Known.GetOrAdd(value.GetType(), PartsOf))
            if (part.Property.GetValue(value) is { } held && In(held, $"{path}/{part.Name}", part.IsSure, depth + 1) is { } pointer)
                return pointer;
        return null;
    }

    private static string? In(object held, string path, bool sure, int depth)
    {
        if (held is IDictionary map)
        {
            foreach (DictionaryEntry entry in map)
                if (One(entry.Value, $"{path}/{JsonPointer.Escape(entry.Key.ToString()!)}") is { } pointer)
                    return pointer;
            return null;
        }
        if (held is IEnumerable list and not string)
        {
            var at = 0;
            foreach (var item in list)
                if (One(item, $"{path}/{at++}") is { } pointer)
                    return pointer;
            return null;
        }
        return IsOurs(held.GetType()) ? Find(held, path, depth) : null;

        string? One(object? item, string pointer) =>
            item is null
                ? sure
                    ? pointer
                    : null
                : item is string or JsonElement || item.GetType().IsPrimitive
                    ? null
                    : In(item, pointer, sure, depth + 1);
    }

    private static bool IsOurs(Type type) => type.Namespace?.StartsWith("Fid.", StringComparison.Ordinal) == true && IsRequest(type);

    // Records that are bound from a body; not the services an endpoint is given.
    private static bool IsRequest(Type type) => type.GetMethod("<Clone>$", BindingFlags.Public | BindingFlags.Instance) is not null;

    private static Part[] PartsOf(Type type)
    {
        var nullability = new NullabilityInfoContext();
        return
        [
            .. type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                .Where(p =>
                    p.GetIndexParameters().Length == 0
                    && p.CanRead
                    && !p.PropertyType.IsPrimitive
                    && p.PropertyType != typeof(string)
                    && p.PropertyType != typeof(JsonElement)
                    && (typeof(IEnumerable).IsAssignableFrom(p.PropertyType) || IsOurs(p.PropertyType))
                    && !typeof(System.Text.Json.Nodes.JsonNode).IsAssignableFrom(p.PropertyType)
                )
                .Select(p => new Part(p, JsonNamingPolicy.CamelCase.ConvertName(p.Name), IsSure(nullability.Create(p)))),
        ];
    }

    private static bool IsSure(NullabilityInfo info) =>
        (info.ElementType ?? info.GenericTypeArguments.LastOrDefault()) is not { } item || item.ReadState != NullabilityState.Nullable;

    /// <summary>A property that holds others.</summary>
    /// <param name="IsSure">Whether what stands in it is never null.</param>
    private sealed record Part(PropertyInfo Property, string Name, bool IsSure);
}
