namespace Fid.Data.Lists;

/// <summary>A cycle of shifts.</summary>
public sealed class ShiftPattern : ListEntry
{
    /// <summary>The cycle, a letter a day; - is a day off.</summary>
    public required string Cycle { get; set; }
}

internal sealed class ShiftPatternConfiguration : ListEntryConfiguration<ShiftPattern>;
