namespace Fid.Demo;

/// <summary>The jobs of the demonstration firm, with what their holders have in common.</summary>
internal sealed record DemoJob(
    string Code,
    string Title,
    string Grade,
    string Department,
    string Site,
    string Pattern,
    string PayGroup,
    string PaidBy,
    decimal Rate,
    int Share
);

internal static class DemoJobs
{
    /// <summary>All jobs. The share says how many of every hundred or so people hold each.</summary>
    public static IReadOnlyList<DemoJob> All { get; } =
    [
        new("DK-2", "Deckhand", "C2", "deck", "skerry", "four-a", "crew", "hour", 17.40m, 18),
        new("DK-4", "Bosun", "C4", "deck", "mv-corran", "four-a", "crew", "hour", 21.80m, 4),
        new("MA-5", "Mate", "C5", "deck", "mv-hallan-star", "four-b", "crew", "hour", 25.60m, 4),
        new("MA-6", "Master", "C6", "deck", "mv-corran", "four-a", "crew", "hour", 30.10m, 3),
        new("EN-2", "Engine hand", "C2", "engine", "mv-corran", "four-b", "crew", "hour", 17.90m, 7),
        new("EN-6", "Chief engineer", "C6", "engine", "mv-hallan-star", "four-a", "crew", "hour", 30.40m, 2),
        new("GA-1", "Galley assistant", "C1", "galley", "mv-little-brae", "galley-split", "crew", "hour", 14.90m, 6),
        new("GA-3", "Galley cook", "C3", "galley", "mv-corran", "galley-split", "crew", "hour", 18.20m, 5),
        new("DI-2", "Dispatcher", "O2", "dispatch", "hallan", "hall-late", "crew", "year", 33800m, 4),
        new("TC-1", "Ticket clerk", "O1", "tickets", "hallan", "hall-early", "crew", "hour", 15.20m, 11),
        new("TC-3", "Ticket hall lead", "O3", "tickets", "corran", "hall-late", "crew", "year", 39500m, 3),
        new("SH-1", "Shore hand", "C1", "shore", "corran", "hall-early", "crew", "hour", 14.80m, 8),
        new("SW-3", "Shipwright", "C3", "shipwrights", "yard", "yard", "yard", "hour", 19.60m, 6),
        new("RG-3", "Rigger", "C3", "rigging", "yard", "yard", "yard", "hour", 19.20m, 4),
        new("ST-2", "Stores clerk", "O2", "stores", "hallan", "office", "office", "year", 33100m, 3),
        new("PY-2", "Payroll clerk", "O2", "payroll", "hallan", "office", "office", "year", 34200m, 2),
        new("PE-3", "People coordinator", "O3", "people", "hallan", "office", "office", "year", 41800m, 2),
        new("IT-3", "IT technician", "O3", "it", "hallan", "office", "office", "year", 40500m, 3),
        new("SF-4", "Safety officer", "O4", "safety", "hallan", "office", "office", "year", 49800m, 2),
        new("TR-3", "Training officer", "O3", "people", "hallan", "office", "office", "year", 40900m, 1),
        new("OM-5", "Operations manager", "O5", "operations", "hallan", "office", "office", "year", 61500m, 2),
    ];

    public static DemoJob Find(string code) => All.First(j => j.Code == code);
}
