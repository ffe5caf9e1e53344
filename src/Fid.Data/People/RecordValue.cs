using System.Text.Json;
using Fid.Core.Fields;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;
using NpgsqlTypes;

namespace Fid.Data.People;

/// <summary>
/// A value of a field: true for a time, and believed for a time. Rows are added; only the end of the time for which one is
/// believed is ever set. The database forbids two believed values of one field at one time.
/// </summary>
public sealed class RecordValue
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The person or the employment whose value it is.</summary>
    public required Guid OwnerId { get; init; }

    /// <summary>Which of the two the owner is.</summary>
    public required FieldOwner Of { get; init; }

    /// <summary>The key of the field; of a column of rows, with that of the rows: "certificates.number".</summary>
    public required string Field { get; init; }

    /// <summary>The row it stands in; null for a value that stands alone.</summary>
    public Guid? RowId { get; init; }

    /// <summary>Which value of the record it is, as <see cref="FieldAddress"/> writes it.</summary>
    public string Address => FieldAddress.Of(Field, RowId);

    public required JsonElement Value { get; init; }

    /// <summary>Where the value came from: a layer such as "template:deckhand@4", "typed", or a rule such as "nextFree".</summary>
    public required string Source { get; init; }

    /// <summary>When it is true; half-open, as PostgreSQL keeps dates.</summary>
    public required NpgsqlRange<LocalDate> Effective { get; init; }

    /// <summary>Since when, and until when, it is believed.</summary>
    public required NpgsqlRange<Instant> Known { get; set; }

    /// <summary>The change that ended the belief; null while it is believed.</summary>
    public Guid? EndedBy { get; set; }

    public required Guid ChangeId { get; init; }

    /// <summary>Of a sealed value: what is equal for equal values of the field. Made by the database.</summary>
    public string? SealedStart { get; private init; }

    /// <summary>Where it belongs.</summary>
    public ValuePlace Place => new(OwnerId, Of, new FieldAddress(Field, RowId?.ToString("D")));

    /// <summary>A value that is believed from a change on.</summary>
    public static RecordValue Begun(ValuePlace place, JsonElement value, string source, NpgsqlRange<LocalDate> effective, Change change) =>
        new()
        {
            OwnerId = place.Owner,
            Of = place.Of,
            Field = place.At.Field,
            RowId = place.At.RowId,
            Value = value,
            Source = source,
            Effective = effective,
            Known = EffectiveRange.KnownSince(change.At),
            ChangeId = change.Id,
        };

    /// <summary>Whether it is true on a day.</summary>
    public bool HoldsOn(LocalDate day) => EffectiveRange.FromDatabase(Effective) is var (from, to) && from <= day && (to is null || day <= to);

    /// <summary>From a change on it is believed no more.</summary>
    public void End(Change change) => (Known, EndedBy) = (Known.Until(change.At), change.Id);
}

/// <summary>Where a value belongs: whose it is, and which value of theirs.</summary>
public readonly record struct ValuePlace(Guid Owner, FieldOwner Of, FieldAddress At);

internal sealed class RecordValueConfiguration : IEntityTypeConfiguration<RecordValue>
{
    public void Configure(EntityTypeBuilder<RecordValue> value)
    {
        value.Ignore(v => v.Address);
        value.Ignore(v => v.Place);
        value.Property(v => v.Of).HasConversion<string>().HasMaxLength(10).HasColumnName("owner_kind");
        value.Property(v => v.Field).HasMaxLength(100);
        value.Property(v => v.Source).HasMaxLength(120);
        value.Property(v => v.Value).HasColumnType("jsonb");
        value.HasOne<Change>().WithMany().HasForeignKey(v => v.ChangeId).OnDelete(DeleteBehavior.Restrict);
        value.HasOne<Change>().WithMany().HasForeignKey(v => v.EndedBy).OnDelete(DeleteBehavior.Restrict);
        value
            .Property(v => v.SealedStart)
            .HasComputedColumnSql("case when value #>> array[]::text[] like 'sealed:%' then left(value #>> array[]::text[], 72) end", stored: true);
        value.HasIndex(v => v.SealedStart).HasFilter("sealed_start is not null");
        value.HasIndex(v => v.EndedBy).HasFilter("ended_by is not null");
        value.HasIndex(v => new { v.OwnerId, v.Field });
        value.HasIndex(v => v.Field).HasFilter("field = 'badge'");
    }
}
