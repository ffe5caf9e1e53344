using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.People;

/// <summary>Two records that were found to be one person, and what it takes to part them again.</summary>
public sealed class PersonMerge
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid KeptId { get; init; }

    public required Guid OtherId { get; init; }

    /// <summary>The stints that were the other's.</summary>
    public required Guid[] Employments { get; init; }

    /// <summary>The accounts that were the other's.</summary>
    public required Guid[] Users { get; init; }

    /// <summary>The hires that were closed with it, since the person had been entered twice.</summary>
    public Guid[] ClosedHires { get; set; } = [];

    /// <summary>The stint by which the values were changed.</summary>
    public required Guid Through { get; init; }

    public required Guid ChangeId { get; init; }

    public required Instant At { get; init; }

    public required string ByName { get; init; }

    public bool Undone { get; set; }
}

internal sealed class PersonMergeConfiguration : IEntityTypeConfiguration<PersonMerge>
{
    public void Configure(EntityTypeBuilder<PersonMerge> merge)
    {
        merge.HasIndex(m => m.KeptId);
        merge.HasIndex(m => m.OtherId);
        merge.HasOne<Person>().WithMany().HasForeignKey(m => m.KeptId).OnDelete(DeleteBehavior.Restrict);
        merge.HasOne<Person>().WithMany().HasForeignKey(m => m.OtherId).OnDelete(DeleteBehavior.Restrict);
        merge.HasOne<Employment>().WithMany().HasForeignKey(m => m.Through).OnDelete(DeleteBehavior.Restrict);
        merge.HasOne<Changes.Change>().WithMany().HasForeignKey(m => m.ChangeId).OnDelete(DeleteBehavior.Restrict);
    }
}
