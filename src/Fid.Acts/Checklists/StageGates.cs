using Fid.Acts.Calendars;
using Fid.Acts.Plans;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using NodaTime;

namespace Fid.Acts.Checklists;

/// <summary>How the gates of a hire under way stand.</summary>
internal static class StageGates
{
    /// <summary>Whether a stage's gate is passed, by its tasks or by hand, as far as it is saved.</summary>
    public static async Task<bool> IsPassedAsync(FidDb db, Guid hire, string stage, LocalDate today, CancellationToken cancellation)
    {
        var (calendars, stages) = (await CalendarSet.LoadAsync(db, cancellation), await StagePlans.LoadAsync(db, cancellation));
        var underWay = (await HiresUnderWay.LoadAsync(db, all => all.Where(h => h.Id == hire), cancellation)).Single();
        var plan = HirePlan.Of(underWay.Question(today, calendars, stages), SoonestSearch.Never);
        return plan.Stages.First(s => s.Id == stage).State == StageState.Passed;
    }
}
