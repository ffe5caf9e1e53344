using System.Globalization;
using Fid.Acts.Lists;
using Fid.Core.Planning;
using Fid.Data.Hires;

namespace Fid.Acts.Templates;

/// <summary>Ready tasks that Fid brings along, for templates to take from.</summary>
public static class ReadyTasks
{
    /// <summary>All of them, in the order in which they are shown.</summary>
    public static IReadOnlyList<ReadyTask> All { get; } = Read();

    private static ReadyTask[] Read()
    {
        using var stream = typeof(ReadyTasks).Assembly.GetManifestResourceStream("starter/readyTasks.csv")!;
        using var reader = new StreamReader(stream);
        return
        [
            .. ListLoader
                .Rows(reader)
                .Select(r => new ReadyTask(
                    r["key"],
                    r["group"],
                    new Dictionary<string, string> { ["en"] = r["name"], ["de"] = r["name_de"] },
                    r["stage"],
                    r["owner"],
                    int.Parse(r["work"], CultureInfo.InvariantCulture),
                    r["day_one"] == "yes",
                    r["required"] != "no",
                    Due(r["due"]),
                    new Dictionary<string, string> { ["en"] = r["instructions"], ["de"] = r["instructions_de"] }
                )),
        ];
    }

    // "start -2 working"
    private static OffsetSpec? Due(string text) =>
        text.Split(' ') is [var anchor, var amount, var unit]
            ? new OffsetSpec(anchor, int.Parse(amount, CultureInfo.InvariantCulture), Enum.Parse<OffsetUnit>(unit, ignoreCase: true))
            : null;
}

/// <summary>A ready task.</summary>
/// <param name="Group">What it is about: "papers", "pay", "access", "things", "safety", "people", "learning", "settling".</param>
/// <param name="Names">Its name by language.</param>
/// <param name="Owner">Who does it, as checklists write it; a team's code where the firm may have such a team.</param>
/// <param name="Due">The last day; null for none.</param>
/// <param name="Instructions">How it is done, by language.</param>
public sealed record ReadyTask(
    string Key,
    string Group,
    IReadOnlyDictionary<string, string> Names,
    string Stage,
    string Owner,
    int Work,
    bool DayOne,
    bool Required,
    OffsetSpec? Due,
    IReadOnlyDictionary<string, string> Instructions
);
