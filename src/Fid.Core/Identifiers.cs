namespace Fid.Core;

/// <summary>Ids by which the parts of a question name each other.</summary>
internal static class Identifiers
{
    /// <summary>The members of a list by their ids; of those with one id the first. "duplicate-id" is noted of each other one.</summary>
    /// <param name="list">The path to the list.</param>
    /// <param name="property">The property that holds the id.</param>
    public static Dictionary<string, T> Index<T>(IEnumerable<T> all, Func<T, string> id, string list, List<Problem> problems, string property = "id")
    {
        var indexed = new Dictionary<string, T>(StringComparer.Ordinal);
        var i = 0;
        foreach (var one in all)
        {
            if (!indexed.TryAdd(id(one), one))
                problems.Add(new Problem($"{list}/{i}/{property}", "duplicate-id", $"The id {id(one)} stands twice. Keep one."));
            i++;
        }
        return indexed;
    }
}
