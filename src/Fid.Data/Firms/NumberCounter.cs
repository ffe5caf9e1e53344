using Fid.Core.People;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>How far employee numbers have run. A row, not a sequence: what is rolled back was not counted, so that no number is left out.</summary>
public sealed class NumberCounter
{
    private const long BeforeFirst = 1000;

    /// <summary>The year the numbers belong to; 0 where they run on from year to year.</summary>
    public required int Year { get; init; }

    /// <summary>The last number given.</summary>
    public required long Last { get; set; }

    /// <summary>The year whose numbers somebody's belongs to, and the running number before the first of them.</summary>
    public static (int Year, long Before) Of(EmployeeNumberPattern pattern, LocalDate start) => pattern.RunsByYear ? (start.Year, 0) : (0, BeforeFirst);
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
