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

    /// <summary>Whether the hire came to nothing.</summary>
    public bool NeverWas => End < Start;

    /// <summary>Whether it goes on on a day, or begins later.</summary>
    public bool GoesOn(LocalDate day) => !NeverWas && (End is null || End >= day);

    /// <summary>Whether a person has a stint that goes on on a day, or begins later.</summary>
    /// <param name="except">A stint that does not count; null where all do.</param>
    public static async Task<bool> AnyGoesOnAsync(FidDb db, Guid person, LocalDate day, Guid? except, CancellationToken cancellation) =>
        (await db.Employments.AsNoTracking().Where(e => e.PersonId == person && e.Id != except).ToListAsync(cancellation)).Exists(e => e.GoesOn(day));
}

internal sealed class EmploymentConfiguration : IEntityTypeConfiguration<Employment>
{
    public void Configure(EntityTypeBuilder<Employment> employment)
    {
        employment.Property(e => e.Number).HasMaxLength(20);
        employment.HasIndex(e => e.Number).IsUnique();
        employment.HasOne<Person>().WithMany().HasForeignKey(e => e.PersonId).OnDelete(DeleteBehavior.Restrict);
    }
}
