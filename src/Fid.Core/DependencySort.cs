namespace Fid.Core;

/// <summary>Puts things that depend on each other in order.</summary>
internal static class DependencySort
{
    /// <summary>An order of the nodes in which each comes after all it depends on; or, where there is none, a ring of nodes each of
    /// which depends on the next, and the last on the first.</summary>
    /// <param name="dependsOn">For each node, the nodes it depends on.</param>
    // Depth first with a stack of our own: a chain of many thousand nodes must not end in a stack overflow.
    public static (int[] Order, int[]? Ring) Sort(int[][] dependsOn)
    {
        var order = new int[dependsOn.Length];
        var next = new int[dependsOn.Length]; // the dependency to look at next; -1 = finished
        var path = new int[dependsOn.Length];
        var onPath = new bool[dependsOn.Length];
        int count = 0,
            depth = 0;
        for (var root = 0; root < dependsOn.Length; root++)
        {
            if (next[root] < 0)
                continue;
            path[depth++] = root;
            onPath[root] = true;
            while (depth > 0)
            {
                var node = path[depth - 1];
                if (next[node] == dependsOn[node].Length)
                {
                    next[node] = -1;
                    onPath[node] = false;
                    order[count++] = node;
                    depth--;
                    continue;
                }
                var to = dependsOn[node][next[node]++];
                if (onPath[to])
                    return (order, path[Array.IndexOf(path, to)..depth]);
                if (next[to] < 0)
                    continue;
                path[depth++] = to;
                onPath[to] = true;
            }
        }
        return (order, null);
    }

    /// <summary>The strongly connected component of each node, as a number: nodes that can reach each other share it (Tarjan).</summary>
    public static int[] Components(int[][] dependsOn)
    {
        var count = dependsOn.Length;
        var (component, low, found, next) = (new int[count], new int[count], new int[count], new int[count]);
        var (waiting, path) = (new Stack<int>(), new Stack<int>());
        int finds = 0,
            components = 0;
        for (var root = 0; root < count; root++)
        {
            if (found[root] > 0)
                continue;
            path.Push(root);
            while (path.TryPeek(out var node))
            {
                if (found[node] == 0)
                {
                    found[node] = low[node] = ++finds;
                    waiting.Push(node);
                }
                if (next[node] < dependsOn[node].Length)
                {
                    var to = dependsOn[node][next[node]++];
                    if (found[to] == 0)
                        path.Push(to);
                    else if (component[to] == 0)
                        low[node] = Math.Min(low[node], found[to]);
                    continue;
                }
                path.Pop();
                if (low[node] == found[node])
                {
                    components++;
                    int member;
                    do component[member = waiting.Pop()] = components;
                    while (member != node);
                }
                if (path.TryPeek(out var above) && component[node] == 0)
                    low[above] = Math.Min(low[above], low[node]);
            }
        }
        return component;
    }
}
