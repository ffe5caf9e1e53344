using System.Globalization;
using System.Text.Json.Nodes;
using Fid.Acts.Tasks;
using Fid.Data.Changes;
using Fid.Server.Lists;

namespace Fid.Server.Tasks;

/// <summary>What the trail keeps of a task's changes, in words.</summary>
/// <param name="tasks">The names of the hire's tasks by key.</param>
internal sealed class TaskWords(ListNames names, IReadOnlyDictionary<string, string> tasks)
{
    // What the action itself does not say already.
    private static readonly string[] Told = ["owner", "work", "pinned", "meetsAt", "minutes", "place", "after", "lags", "note", "stepsDone", "done", "doneBy"];

    /// <summary>What a change made of a task.</summary>
    public TaskFactResponse[] Of(Change change) =>
        TaskFacts.Read(change.Details) is { Before: { } before, After: { } after }
            ? [.. Told.Where(t => before.ContainsKey(t) || after.ContainsKey(t)).Select(t => new TaskFactResponse(t, Text(t, before[t]), Text(t, after[t])))]
            : [];

    private string? Text(string name, JsonNode? value) =>
        value is null
            ? null
            : name switch
            {
                "owner" => names.Owner(value.GetValue<string>()) ?? value.GetValue<string>(),
                "after" => List(value.AsArray().Select(k => tasks.GetValueOrDefault(k!.GetValue<string>(), k.GetValue<string>()))),
                "lags" => List(value.AsArray().Select(l => l!.ToString())),
                "stepsDone" => List(value.AsArray().Select(i => (i!.GetValue<int>() + 1).ToString(CultureInfo.InvariantCulture))),
                "meetsAt" => value.ToString()[..5],
                _ => value.ToString(),
            };

    private static string? List(IEnumerable<string> items) => string.Join(", ", items) is { Length: > 0 } list ? list : null;
}
