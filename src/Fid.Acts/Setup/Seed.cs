using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data.Hires;

namespace Fid.Acts.Setup;

/// <summary>What every firm starts with.</summary>
public static class Seed
{
    /// <summary>The stages: of an arrival before the first day, the first week, the first month, up to three months; of a change of job before
    /// and after it; of a leaving up to the last day, on it, and after it.</summary>
    public static IEnumerable<Stage> Stages() => [.. Arrival(), .. JobChange(), .. Leaving(), .. PayRun()];

    private static Stage[] Arrival() =>
        [
            new()
            {
                Key = "prepare",
                Name = "Prepare",
                NameDe = "Vorbereiten",
                Position = 0,
            },
            new()
            {
                Key = "arrive",
                Name = "Arrive",
                NameDe = "Ankommen",
                Position = 1,
                OpensAnchor = PlanQuestion.Start,
                WaitsFor = ["prepare"],
            },
            new()
            {
                Key = "settle",
                Name = "Settle",
                NameDe = "Einleben",
                Position = 2,
                OpensAnchor = PlanQuestion.Start,
                OpensAmount = 1,
                OpensUnit = OffsetUnit.Weeks,
                WaitsFor = ["arrive"],
            },
            new()
            {
                Key = "confirm",
                Name = "Confirm",
                NameDe = "Bestätigen",
                Position = 3,
                OpensAnchor = PlanQuestion.Start,
                OpensAmount = 2,
                OpensUnit = OffsetUnit.Months,
                WaitsFor = ["settle"],
            },
        ];

    private static Stage[] JobChange() =>
        [
            new()
            {
                Key = "change-prepare",
                Occasion = Occasion.JobChange,
                Name = "Before the change",
                NameDe = "Vor dem Wechsel",
                Position = 10,
            },
            new()
            {
                Key = "change-begin",
                Occasion = Occasion.JobChange,
                Name = "In the new job",
                NameDe = "In der neuen Stelle",
                Position = 11,
                OpensAnchor = PlanQuestion.Start,
                WaitsFor = ["change-prepare"],
            },
        ];

    private static Stage[] PayRun() =>
        [
            new()
            {
                Key = "run-gather",
                Occasion = Occasion.PayRun,
                Name = "Before the cut-off",
                NameDe = "Vor dem Stichtag",
                Position = 30,
            },
            new()
            {
                Key = "run-check",
                Occasion = Occasion.PayRun,
                Name = "Before the hand-over",
                NameDe = "Vor der Übergabe",
                Position = 31,
            },
            new()
            {
                Key = Stage.AfterHandOver,
                Occasion = Occasion.PayRun,
                Name = "After the hand-over",
                NameDe = "Nach der Übergabe",
                Position = 32,
                WaitsFor = ["run-gather", "run-check"],
            },
        ];

    private static Stage[] Leaving() =>
        [
            new()
            {
                Key = "leave-prepare",
                Occasion = Occasion.Leaving,
                Name = "Hand over",
                NameDe = "Übergeben",
                Position = 20,
            },
            new()
            {
                Key = "leave-last-day",
                Occasion = Occasion.Leaving,
                Name = "Last day",
                NameDe = "Letzter Tag",
                Position = 21,
                OpensAnchor = PlanQuestion.Start,
                // Whoever still has something to hand over gives the keys back all the same.
            },
            new()
            {
                Key = "leave-after",
                Occasion = Occasion.Leaving,
                Name = "Afterwards",
                NameDe = "Danach",
                Position = 22,
                OpensAnchor = PlanQuestion.Start,
                OpensAmount = 1,
                OpensUnit = OffsetUnit.Days,
                WaitsFor = ["leave-last-day"],
            },
        ];
}
