namespace Fid.Core.Lists;

/// <summary>The lists that ship with Fid.</summary>
public static class ShippedLists
{
    /// <summary>All lists, in the order they are shown, which is also an order in which a firm can fill them.</summary>
    public static IReadOnlyList<ListDefinition> All { get; } =
    [.. TimeLists.Calendars, .. PlaceLists.All, .. PayLists.All, .. WorkLists.All, .. TimeLists.All, .. ItemLists.All];

    private static readonly Dictionary<string, ListDefinition> ByKey = All.ToDictionary(l => l.Key, StringComparer.Ordinal);

    /// <summary>The list with a key, or null.</summary>
    public static ListDefinition? Find(string key) => ByKey.GetValueOrDefault(key);

    /// <summary>The list with a key, which must be one of <see cref="All"/>.</summary>
    public static ListDefinition Get(string key) => ByKey[key];
}
