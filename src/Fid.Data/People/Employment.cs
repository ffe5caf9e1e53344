using Fid.Core.People;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.People;

/// <summary>One stint of a person at the firm.</summary>
public sealed class Employment
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>Whose stint it is; changes where two records are found to be one person.</summary>
    public required Guid PersonId { get; set; }

    /// <summary>What people call the record by.</summary>
    public required string Number { get; init; }

    /// <summary>First day; moves while a hire is under way.</summary>
    public required LocalDate Start { get; set; }

    /// <summary>Last day, included; null while there is no end. Before the first day for a stint that never was.</summary>
    public LocalDate? End { get; set; }

    /// <summary>From when until when it is.</summary>
    public Stint Stint => new(Start, End);
}

internal sealed class EmploymentConfiguration : IEntityTypeConfiguration<Employment>
{
    public void Configure(EntityTypeBuilder<Employment> employment)
    {
        employment.Ignore(e => e.Stint);
        employment.Property(e => e.Number).HasMaxLength(20);
        employment.HasIndex(e => e.Number).IsUnique();
        employment.HasOne<Person>().WithMany().HasForeignKey(e => e.PersonId).OnDelete(DeleteBehavior.Restrict);
    }
}
