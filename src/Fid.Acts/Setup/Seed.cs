using Fid.Core.Planning;
using Fid.Data.Hires;

namespace Fid.Acts.Setup;

/// <summary>What every firm starts with.</summary>
public static class Seed
{
    /// <summary>The four stages: before the first day, the first week, the first month, up to three months.</summary>
    public static IEnumerable<Stage> Stages() =>
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
}
