using Fid.Core.Templates;
using Fid.Data.Hires;

namespace Fid.Acts.Templates;

/// <summary>The checklist of a template with what lies below and above it.</summary>
public static class LayeredTasks
{
    /// <summary>The checklist that layers come to.</summary>
    public static IReadOnlyList<HireTask> Of(Layered layered)
    {
        var keys = layered.Tasks.Select(t => t.Key).ToHashSet();
        return [.. layered.Tasks.Select((t, i) => TaskSpec.Read(t).ToHireTask(t.Key, i, keys))];
    }
}
