using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>A time for which somebody who signs in is away. No two of one account share a day: the database forbids it.</summary>
public sealed class AccountAbsence
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid AccountId { get; init; }

    /// <summary>The first day, included.</summary>
    public required LocalDate From { get; init; }

    /// <summary>The last day, included.</summary>
    public required LocalDate To { get; set; }

    /// <summary>The account of who does their tasks and decides in their place; null for nobody.</summary>
    public required Guid? StandInId { get; init; }

    public required Instant At { get; init; }

    public required string ByName { get; init; }
}

internal sealed class AccountAbsenceConfiguration : IEntityTypeConfiguration<AccountAbsence>
{
    public void Configure(EntityTypeBuilder<AccountAbsence> absence)
    {
        absence.ToTable("account_absences", t => t.HasCheckConstraint("in_order", "\"from\" <= \"to\""));
        absence.HasOne<FidUser>().WithMany().HasForeignKey(a => a.AccountId).OnDelete(DeleteBehavior.Cascade);
        absence.HasOne<FidUser>().WithMany().HasForeignKey(a => a.StandInId).OnDelete(DeleteBehavior.SetNull);
        absence.HasIndex(a => a.StandInId);
    }
}
