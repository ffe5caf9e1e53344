namespace Fid.Data.Lists;

/// <summary>What somebody's cost is charged to.</summary>
public sealed class CostCentre : ListEntry
{
}

internal sealed class CostCentreConfiguration : ListEntryConfiguration<CostCentre>;
