using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Hires;

/// <summary>Who a hire's newcomer, manager and buddy are by the current record. Triggers keep it as records and hires change, so that whose a hire
/// is can be told without going through the records of all who are under way.</summary>
public sealed class HirePeople
{
    public required Guid HireId { get; init; }

    public required Guid EmploymentId { get; init; }

    public required Guid PersonId { get; init; }

    /// <summary>The manager's employment.</summary>
    public Guid? ManagerId { get; init; }

    /// <summary>The buddy's employment.</summary>
    public Guid? BuddyId { get; init; }
}

internal sealed class HirePeopleConfiguration : IEntityTypeConfiguration<HirePeople>
{
    public void Configure(EntityTypeBuilder<HirePeople> people)
    {
        people.ToTable("hire_people");
        people.HasKey(p => p.HireId);
        people.HasOne<Hire>().WithOne().HasForeignKey<HirePeople>(p => p.HireId).OnDelete(DeleteBehavior.Cascade);
        people.HasIndex(p => p.EmploymentId);
        people.HasIndex(p => p.PersonId);
        people.HasIndex(p => p.ManagerId);
        people.HasIndex(p => p.BuddyId);
    }
}
