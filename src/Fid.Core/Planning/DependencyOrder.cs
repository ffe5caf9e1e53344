namespace Fid.Core.Planning;

/// <summary>Puts tasks and gates in an order in which each comes after all it depends on.</summary>
internal static class DependencyOrder
{
    /// <summary>The order of the nodes, or null after noting the loop that forbids one.</summary>
    public static int[]? Find(PlanQuestion question, NodeTask[] tasks, PlanNetwork.Edge[][] before, int[][] gatesBefore, List<Problem> problems)
    {
        // Stages that wait for each other are a loop even where they hold no required task yet.
        if (DependencySort.Sort(gatesBefore) is (_, { } stageRing))
        {
            problems.Add(
                new Problem(
                    $"/stages/{stageRing[0]}/waitsFor",
                    "dependency-loop",
                    $"Stages wait for each other: {Chain(stageRing, i => question.Stages[i].Id)}. Take one of these waits away."
                )
            );
            return null;
        }
        var dependsOn = new int[tasks.Length + gatesBefore.Length][];
        var required = new List<int>[gatesBefore.Length];
        for (var s = 0; s < required.Length; s++)
            required[s] = [];
        for (var i = 0; i < tasks.Length; i++)
        {
            var gates = gatesBefore[tasks[i].Stage];
            var nodes = new int[before[i].Length + gates.Length];
            for (var k = 0; k < before[i].Length; k++)
                nodes[k] = before[i][k].Task;
            for (var k = 0; k < gates.Length; k++)
                nodes[before[i].Length + k] = tasks.Length + gates[k];
            dependsOn[i] = nodes;
            if (tasks[i].Required)
                required[tasks[i].Stage].Add(i);
        }
        for (var s = 0; s < required.Length; s++)
            dependsOn[tasks.Length + s] = [.. required[s]];

        var (order, ring) = DependencySort.Sort(dependsOn);
        if (ring is null)
            return order;
        var first = ring.First(i => i < tasks.Length);
        problems.Add(new Problem($"/tasks/{first}/after", "dependency-loop", $"Tasks wait for each other: {Chain(ring, Name)}. Take one of these links away."));
        return null;

        string Name(int node) => node < tasks.Length ? question.Tasks[node].Id : $"the gate of {question.Stages[node - tasks.Length].Id}";
    }

    private static string Chain(int[] ring, Func<int, string> name) => string.Join(" after ", ring.Append(ring[0]).Select(name));
}
