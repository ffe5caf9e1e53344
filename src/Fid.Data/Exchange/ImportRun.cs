using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Exchange;

/// <summary>A sheet on its way into a list: read, matched, checked, committed, perhaps undone. Its rows are in import_rows.</summary>
public sealed class ImportRun
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The key of what it goes into: that of a list, or “people”.</summary>
    public required string List { get; init; }

    public required string FileName { get; init; }

    public required long Size { get; set; }

    public required Instant At { get; init; }

    public required Guid ById { get; init; }

    public required string ByName { get; init; }

    public ImportState State { get; set; } = ImportState.Reading;

    /// <summary>What went wrong; null for nothing.</summary>
    public string? Failure { get; set; }

    public string[] Headers { get; set; } = [];

    /// <summary>For each header the key of its column; empty for one that is left out.</summary>
    public string[] Columns { get; set; } = [];

    /// <summary>How each was matched: see <see cref="Core.Lists.MatchedBy"/>.</summary>
    public string[] MatchedBy { get; set; } = [];

    /// <summary>"YearMonthDay", "DayMonthYear" or "MonthDayYear"; null until it is known or said.</summary>
    public string? Dates { get; set; }

    /// <summary>Whether dates can be read both ways and somebody has to say which.</summary>
    public bool AskDates { get; set; }

    public string Decimal { get; set; } = ".";

    /// <summary>Whether an empty cell empties what is there; otherwise what is there stays.</summary>
    public bool EmptyClears { get; set; }

    /// <summary>For people, the day from which what the rows say holds; null where they correct what is there.</summary>
    public LocalDate? HoldsFrom { get; set; }

    /// <summary>Rows of the sheet, the header not among them; what is counted towards in <see cref="Done"/>.</summary>
    public int Rows { get; set; }

    /// <summary>Rows worked through in what is under way.</summary>
    public int Done { get; set; }

    public int New { get; set; }

    public int Changed { get; set; }

    public int Same { get; set; }

    public int Wrong { get; set; }

    public int Ignored { get; set; }

    /// <summary>Rows are written anew at each check; those of this number count.</summary>
    public int Generation { get; set; }

    /// <summary>Whether only the good rows are, or were, committed.</summary>
    public bool OnlyGood { get; set; }

    /// <summary>The change by which it was committed; null before.</summary>
    public Guid? ChangeId { get; set; }

    public Instant? CommittedAt { get; set; }

    /// <summary>What opens its file and its rows, sealed by the key ring; null once they are gone.</summary>
    public byte[]? SealedKey { get; set; }
}

/// <summary>Where an import is.</summary>
public enum ImportState
{
    /// <summary>The file is being read and checked.</summary>
    Reading,

    /// <summary>Checked: somebody looks at it and decides.</summary>
    Ready,

    /// <summary>Its rows are being checked anew.</summary>
    Checking,

    /// <summary>Its rows are going into the list.</summary>
    Committing,

    /// <summary>Its rows are in the list.</summary>
    Committed,

    /// <summary>It is being undone.</summary>
    Undoing,

    /// <summary>It was undone.</summary>
    Undone,

    /// <summary>The file could not be read.</summary>
    Failed,

    /// <summary>Given up before it was committed.</summary>
    Dropped,
}

/// <summary>How the columns of a set of headers were matched the last time.</summary>
public sealed class ImportMemory
{
    /// <summary>The list's key and the headers, as they are compared.</summary>
    public required string Key { get; init; }

    public required string[] Columns { get; set; }
}

internal sealed class ImportRunConfiguration : IEntityTypeConfiguration<ImportRun>, IEntityTypeConfiguration<ImportMemory>
{
    public void Configure(EntityTypeBuilder<ImportRun> run)
    {
        run.ToTable("import_runs");
        run.Property(r => r.State).HasConversion<string>();
        run.HasIndex(r => r.At);
    }

    public void Configure(EntityTypeBuilder<ImportMemory> memory)
    {
        memory.ToTable("import_memory");
        memory.HasKey(m => m.Key);
    }
}
