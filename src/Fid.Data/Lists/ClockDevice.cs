namespace Fid.Data.Lists;

/// <summary>A device at which people clock in.</summary>
public sealed class ClockDevice : ListEntry
{
    /// <summary>Badges are known to all devices of a group.</summary>
    public required string Group { get; set; }
}

internal sealed class ClockDeviceConfiguration : ListEntryConfiguration<ClockDevice>;
