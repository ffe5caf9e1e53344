namespace Fid.Core.Fields;

/// <summary>Defaults, computed fields and rules that lead back to themselves.</summary>
internal static class RingFindings
{
    public static void Find(ConfigurationCheck check)
    {
        var (fields, compiled) = (check.Set.Fields, check.Set.Compiled);
        // What each field is worked out from: what its default or formula reads, and the fields whose change sets it.
        var from = compiled.Select(c => new SortedSet<int>((c.Default?.Names ?? []).Select(check.Set.Place).Where(p => p >= 0))).ToArray();
        for (var i = 0; i < fields.Count; i++)
            foreach (var (set, _) in compiled[i].OnChange)
                if (check.Set.Place(set) is var target and >= 0)
                    from[target].Add(i);
        var edges = from.Select(f => f.ToArray()).ToArray();
        var components = DependencySort.Components(edges);
        foreach (var ring in Enumerable.Range(0, fields.Count).GroupBy(i => components[i]))
        {
            var members = ring.ToList();
            if (members.Count == 1 && !edges[members[0]].Contains(members[0]))
                continue;
            var inOrder = Ring(members, edges).Select(i => fields[i]).ToList();
            var message =
                inOrder.Count == 1
                    ? $"{ConfigurationCheck.Name(inOrder[0])} is worked out from itself, so it can never be. Take it out of its own formula."
                    : $"{ConfigurationCheck.Names(inOrder)} are worked out from each other in a ring, so none of them can be first. Break the "
                        + "ring at one of them.";
            check.Add(members[0], new Finding("circular", [.. inOrder.Select(f => f.Key)], message, Part: "default"));
        }
    }

    // One ring through the first member, each worked out from the next; with the members it misses behind.
    private static IEnumerable<int> Ring(List<int> members, int[][] edges)
    {
        var inside = members.ToHashSet();
        var (first, before, open) = (members[0], new Dictionary<int, int>(), new Queue<int>([members[0]]));
        while (open.TryDequeue(out var at))
            foreach (var to in edges[at].Where(inside.Contains))
                if (before.TryAdd(to, at) && to != first)
                    open.Enqueue(to);
        var ring = new List<int>();
        for (var at = before[first]; at != first; at = before[at])
            ring.Insert(0, at);
        return ring.Prepend(first).Concat(members.Except(ring.Append(first)));
    }
}
