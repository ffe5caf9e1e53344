namespace Fid.Data.Lists;

/// <summary>A job: what all its holders share.</summary>
public sealed class Job : ListEntry
{
    public required string GradeCode { get; set; }
}

internal sealed class JobConfiguration : ListEntryConfiguration<Job>;
