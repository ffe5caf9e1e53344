using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.PayRuns;

/// <summary>That somebody looked at what a pay run pays a person, and found it right. Who did, and who took it back, stands in the trail.</summary>
public sealed class PayCheck
{
    public required Guid EmploymentId { get; init; }

    /// <summary>The code of the pay group whose run it is.</summary>
    public required string PayGroup { get; init; }

    /// <summary>The first day of the run's period.</summary>
    public required LocalDate Period { get; init; }

    /// <summary>What was seen, by name, in texts that are equal for what is equal: where one differs since, it is not checked any more.</summary>
    public required IReadOnlyDictionary<string, string> Seen { get; set; }

    public required Instant At { get; set; }

    public required string ByName { get; set; }
}

internal sealed class PayCheckConfiguration : IEntityTypeConfiguration<PayCheck>
{
    public void Configure(EntityTypeBuilder<PayCheck> check)
    {
        check.HasKey(c => new
        {
            c.PayGroup,
            c.Period,
            c.EmploymentId,
        });
        check.Property(c => c.PayGroup).HasMaxLength(40);
        check.Property(c => c.Seen).AsJson();
        check.HasOne<Employment>().WithMany().HasForeignKey(c => c.EmploymentId).OnDelete(DeleteBehavior.Restrict);
        check.HasIndex(c => c.EmploymentId);
    }
}
