using Fid.Data.Hires;

namespace Fid.Acts.Tasks;

/// <summary>A task of a hire.</summary>
/// <param name="Key">Unique in the hire.</param>
public sealed record TaskRef(Guid Hire, string Key)
{
    public static TaskRef Of(HireTask task) => new(task.HireId, task.Key);
}
