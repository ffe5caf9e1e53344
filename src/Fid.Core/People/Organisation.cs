namespace Fid.Core.People;

/// <summary>Who reports to whom, all through the firm. Only managers make it; dotted lines must lead to somebody, and count for
/// nothing.</summary>
/// <param name="Loops">People who report to each other in a ring: each once, from the one who stands first, on to their manager.</param>
/// <param name="Depth">How many managers stand above each: 0 for those at the top. Who is in a loop, or under one, has none.</param>
/// <param name="Direct">How many report to each.</param>
/// <param name="All">How many stand under each, however far; in a loop, the others of it among them.</param>
/// <param name="Tops">Those without a manager.</param>
public sealed record Organisation(
    IReadOnlyList<IReadOnlyList<string>> Loops,
    IReadOnlyDictionary<string, int> Depth,
    IReadOnlyDictionary<string, int> Direct,
    IReadOnlyDictionary<string, int> All,
    IReadOnlyList<string> Tops
)
{
    /// <summary>Works the organisation out. Every property lists people in the order in which they were given.</summary>
    /// <returns>Problems, with paths into the people: "duplicate-id"; "unknown-person", for a manager, or somebody reported to by a dotted line, who is not
    /// there.</returns>
    public static Result<Organisation> Of(IReadOnlyList<OrganisationMember> people)
    {
        var places = new Dictionary<string, int>(StringComparer.Ordinal);
        var problems = new List<Problem>();
        for (var i = 0; i < people.Count; i++)
            if (!places.TryAdd(people[i].Id, i))
                problems.Add(new Problem($"/people/{i}/id", "duplicate-id", $"The id {people[i].Id} stands twice. Keep one."));
        for (var i = 0; i < people.Count; i++)
        {
            if (people[i].Manager is { } manager && !places.ContainsKey(manager))
                problems.Add(new Problem($"/people/{i}/manager", "unknown-person", $"There is nobody {manager}."));
            for (var d = 0; d < people[i].Dotted.Count; d++)
                if (!places.ContainsKey(people[i].Dotted[d]))
                    problems.Add(new Problem($"/people/{i}/dotted/{d}", "unknown-person", $"There is nobody {people[i].Dotted[d]}."));
        }
        if (problems.Count > 0)
            return Result<Organisation>.Failed(problems);

        var managers = people.Select(p => p.Manager is { } manager ? places[manager] : -1).ToArray();
        var loops = Rings(managers);
        var inLoop = new bool[people.Count];
        foreach (var member in loops.SelectMany(l => l))
            inLoop[member] = true;
        var reports = Enumerable.Range(0, people.Count).ToLookup(i => managers[i]);
        var (depth, all) = (new int?[people.Count], new int[people.Count]);
        // From the tops down; then, each after those under them, up again.
        var order = new List<int>(reports[-1]);
        foreach (var top in order)
            depth[top] = 0;
        Spread(order, reports, i => depth[i] = depth[managers[i]] + 1);
        var under = new List<int>(loops.SelectMany(l => l));
        Spread(under, reports, _ => { }, inLoop);
        foreach (var i in Enumerable.Reverse(order).Concat(Enumerable.Reverse(under).Where(i => !inLoop[i])))
            if (managers[i] >= 0)
                all[managers[i]] += all[i] + 1;
        foreach (var loop in loops)
        {
            var whole = loop.Sum(i => all[i]) + loop.Count - 1;
            foreach (var member in loop)
                all[member] = whole;
        }
        return new Organisation(
            [.. loops.Select(l => (IReadOnlyList<string>)[.. l.Select(i => people[i].Id)])],
            Enumerable.Range(0, people.Count).Where(i => depth[i] is not null).ToDictionary(i => people[i].Id, i => depth[i]!.Value, StringComparer.Ordinal),
            Enumerable.Range(0, people.Count).ToDictionary(i => people[i].Id, i => reports[i].Count(), StringComparer.Ordinal),
            Enumerable.Range(0, people.Count).ToDictionary(i => people[i].Id, i => all[i], StringComparer.Ordinal),
            [.. reports[-1].Select(i => people[i].Id)]
        );
    }

    // Adds to a list all who report to those in it, and to these, level by level.
    private static void Spread(List<int> people, ILookup<int, int> reports, Action<int> reached, bool[]? stop = null)
    {
        for (var at = 0; at < people.Count; at++)
            foreach (var report in reports[people[at]])
            {
                if (stop?[report] == true)
                    continue;
                people.Add(report);
                reached(report);
            }
    }

    private static List<List<int>> Rings(int[] managers)
    {
        var (loops, seen) = (new List<List<int>>(), new int[managers.Length]); // the walk that came by, from 1
        for (var start = 0; start < managers.Length; start++)
        {
            var at = start;
            while (at >= 0 && seen[at] == 0)
            {
                seen[at] = start + 1;
                at = managers[at];
            }
            if (at < 0 || seen[at] != start + 1)
                continue;
            var loop = new List<int>();
            for (var i = at; loop.Count == 0 || i != at; i = managers[i])
                loop.Add(i);
            var first = loop.IndexOf(loop.Min());
            loops.Add([.. loop[first..], .. loop[..first]]);
        }
        return [.. loops.OrderBy(l => l[0])];
    }
}

/// <summary>Somebody in an organisation.</summary>
/// <param name="Manager">The id of whom they report to; null for nobody.</param>
/// <param name="Dotted">The ids of whom they report to besides.</param>
public sealed record OrganisationMember(string Id, string? Manager, IReadOnlyList<string> Dotted);
