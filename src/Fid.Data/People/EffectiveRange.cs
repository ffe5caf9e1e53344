using NodaTime;
using NpgsqlTypes;

namespace Fid.Data.People;

/// <summary>Ranges of dates include both ends everywhere but in the database, where they are half-open. This is the one place
/// where they are converted.</summary>
public static class EffectiveRange
{
    public static NpgsqlRange<LocalDate> ToDatabase(LocalDate from, LocalDate? to) =>
        to is { } last
            ? new NpgsqlRange<LocalDate>(from, true, false, last.PlusDays(1), false, false)
            : new NpgsqlRange<LocalDate>(from, true, false, default, false, true);

    public static (LocalDate From, LocalDate? To) FromDatabase(NpgsqlRange<LocalDate> range) =>
        (
            range.LowerBound,
            range.UpperBoundInfinite ? null
            : range.UpperBoundIsInclusive ? range.UpperBound
            : range.UpperBound.PlusDays(-1)
        );

    public static NpgsqlRange<Instant> KnownSince(Instant at) => new(at, true, false, default, false, true);

    public static NpgsqlRange<Instant> Until(this NpgsqlRange<Instant> known, Instant at) => new(known.LowerBound, true, false, at, false, false);
}
