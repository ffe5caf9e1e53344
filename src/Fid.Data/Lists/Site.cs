namespace Fid.Data.Lists;

/// <summary>A place where people work, on land or afloat.</summary>
public sealed class Site : ListEntry
{
    /// <summary>IANA name.</summary>
    public required string TimeZone { get; set; }

    /// <summary>The code of the holiday calendar that people here have unless told otherwise.</summary>
    public required string CalendarCode { get; set; }

    /// <summary>The code of the cost centre that people here are charged to unless told otherwise.</summary>
    public string? CostCentreCode { get; set; }
}

internal sealed class SiteConfiguration : ListEntryConfiguration<Site>;
