using Fid.Data.PayRuns;

namespace Fid.Acts.PayRuns;

/// <summary>How the trail names a pay run.</summary>
public static class RunName
{
    /// <summary>The pay group and the first day, such as "crew 2027-03-01".</summary>
    public static string Of(RunChecklist checklist) => $"{checklist.PayGroup} {checklist.Period:uuuu-MM-dd}";
}
