namespace Fid.Data.Lists;

/// <summary>A department; a tree.</summary>
public sealed class Department : ListEntry
{
    public string? ParentCode { get; set; }

    /// <summary>The employment of whoever leads it, the manager of its newcomers unless told otherwise.</summary>
    public Guid? HeadId { get; set; }
}

internal sealed class DepartmentConfiguration : ListEntryConfiguration<Department>;
