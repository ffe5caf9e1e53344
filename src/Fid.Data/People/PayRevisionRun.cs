using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.People;

/// <summary>That the rates of a group were changed by one rule in one go. The changes it made bear its id as their part, so that it can be undone.</summary>
public sealed class PayRevisionRun
{
    public required Guid Id { get; init; }

    public required Instant At { get; init; }

    public required string ByName { get; init; }

    /// <summary>The day from which the new rates hold.</summary>
    public required LocalDate From { get; init; }

    public required string Why { get; init; }

    /// <summary>Of whom.</summary>
    public required RevisedGroup Group { get; init; }

    /// <summary>By how much rates rose; 2.5 is 2.5 %.</summary>
    public required decimal Percent { get; init; }

    /// <summary>What an hour is paid more at least.</summary>
    public required decimal AtLeastHourly { get; init; }

    /// <summary>Whether nobody was raised above the maximum of their band.</summary>
    public required bool UpToBand { get; init; }

    /// <summary>What all of them are paid a year more.</summary>
    public required decimal Budget { get; init; }

    /// <summary>The employments whose rates were changed.</summary>
    public required Guid[] Employments { get; init; }

    /// <summary>Who undid it; null where it holds.</summary>
    public string? UndoneByName { get; set; }
}

/// <summary>Whose rates: of those whom everything that is named describes. Codes of list entries; null for whichever.</summary>
public sealed record RevisedGroup(string? Grade, string? Job, string? Site, string? PayGroup);

internal sealed class PayRevisionRunConfiguration : IEntityTypeConfiguration<PayRevisionRun>
{
    public void Configure(EntityTypeBuilder<PayRevisionRun> run)
    {
        run.ToTable("pay_revisions");
        run.Property(r => r.Why).HasMaxLength(500);
        run.Property(r => r.Group).AsJson();
        run.HasIndex(r => r.At);
    }
}
