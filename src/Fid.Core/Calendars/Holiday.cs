using NodaTime;

namespace Fid.Core.Calendars;

/// <summary>A holiday of a calendar.</summary>
/// <param name="Rule">When it falls, or begins.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Days">How many days it lasts, rest days counted; 1 for most, 12 for a fortnight's shutdown from a Monday.</param>
public sealed record Holiday(HolidayRule Rule, string Name, int Days = 1)
{
    /// <summary>The longest a holiday may last, in days.</summary>
    public const int Longest = 60;

    /// <summary>The days off that begin in a year.</summary>
    public IEnumerable<LocalDate> In(int year)
    {
        if (Rule.In(year) is not { } first)
            yield break;
        for (var i = 0; i < Days; i++)
            yield return first.PlusDays(i);
    }
}
