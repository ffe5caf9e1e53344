using NodaTime;

namespace Fid.Core.Lists;

/// <summary>A pay band that holds from a date.</summary>
/// <param name="From">Its first day.</param>
/// <param name="Per">"year" or "hour": full-time pay in the currency's major unit.</param>
public sealed record BandFrom(LocalDate From, decimal Min, decimal Mid, decimal Max, string Per);

/// <summary>Who leads a department from a date.</summary>
/// <param name="Person">Their employee number; null from the day nobody does.</param>
public sealed record HeadFrom(LocalDate From, string? Person = null);

/// <summary>A certificate that holders of a job need.</summary>
/// <param name="Certificate">Its code.</param>
/// <param name="Essential">Whether the job cannot be done without; otherwise it is desirable.</param>
public sealed record Requirement(string Certificate, bool Essential);

/// <summary>What a job pays when done as a second one, from a date.</summary>
/// <param name="How">"flat" for a rate an hour, "percent" or "amount" for what is added to the main rate.</param>
public sealed record RateFrom(LocalDate From, string How, decimal Value);

/// <summary>A holiday of a calendar, as it is stored; see <see cref="Calendars.HolidayRule"/> for how <paramref name="On"/> is written.</summary>
public sealed record HolidayEntry(string On, string Name, int Days = 1);

/// <summary>A shift of a pattern, as it is stored; times are written 06:00.</summary>
public sealed record ShiftEntry(string Letter, string Start, string End, int Break);

/// <summary>An option to choose from.</summary>
/// <param name="Value">What is stored; it never changes once given.</param>
/// <param name="Retired">Kept for those who have it, offered to nobody.</param>
public sealed record OptionEntry(string Value, string En, string? De = null, bool Retired = false);
