using Fid.Core.Checklists;
using Fid.Core.Planning;
using Microsoft.EntityFrameworkCore;

namespace Fid.Data.Hires;

/// <summary>The firm's stages as plans ask for them: those of each kind of checklist, in their order.</summary>
public sealed class StagePlans(IEnumerable<Stage> stages)
{
    private readonly Dictionary<Occasion, IReadOnlyList<PlanStage>> _stages = stages
        .OrderBy(s => s.Position)
        .GroupBy(s => s.Occasion)
        .ToDictionary(g => g.Key, g => (IReadOnlyList<PlanStage>)[.. g.Select(s => s.ToPlan())]);

    public static async Task<StagePlans> LoadAsync(FidDb db, CancellationToken cancellation) => new(await db.Stages.AsNoTracking().ToListAsync(cancellation));

    /// <summary>The stages that checklists of an occasion go through.</summary>
    public IReadOnlyList<PlanStage> Of(Occasion occasion) => _stages.GetValueOrDefault(occasion) ?? [];
}
