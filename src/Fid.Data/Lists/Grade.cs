namespace Fid.Data.Lists;

/// <summary>A grade and its pay band, per full-time year.</summary>
public sealed class Grade : ListEntry
{
    public decimal Min { get; set; }

    public decimal Mid { get; set; }

    public decimal Max { get; set; }
}

internal sealed class GradeConfiguration : ListEntryConfiguration<Grade>;
