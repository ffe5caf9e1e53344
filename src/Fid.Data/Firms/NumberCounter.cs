using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Firms;

/// <summary>How far employee numbers have run. A row, not a sequence: what is rolled back was not counted, so that no number is left out.</summary>
public sealed class NumberCounter
{
    /// <summary>The running number before the first hire of a firm that numbers through.</summary>
    public const long BeforeFirst = 1000;

    /// <summary>The year the numbers belong to; 0 where they run on from year to year.</summary>
    public required int Year { get; init; }

    /// <summary>The last number given.</summary>
    public required long Last { get; set; }
}

internal sealed class NumberCounterConfiguration : IEntityTypeConfiguration<NumberCounter>
{
    public void Configure(EntityTypeBuilder<NumberCounter> counter)
    {
        counter.ToTable("number_counters");
        counter.HasKey(c => c.Year);
        counter.Property(c => c.Year).ValueGeneratedNever();
    }
}
