using Fid.Acts.Rosters;
using NodaTime;

namespace Fid.Server.People;

/// <summary>What a shift pattern comes to over four weeks, beside what was agreed.</summary>
internal static class RosterReading
{
    private const int Weeks = 4;

    /// <summary>What a pattern comes to over the next weeks.</summary>
    /// <param name="weeklyHours">The agreed hours a week; null where they are not known.</param>
    /// <param name="from">The first of the days that are looked at.</param>
    public static RosterResponse? Of(Rostered rostered, decimal? weeklyHours, LocalDate from)
    {
        var to = from.PlusWeeks(Weeks).PlusDays(-1);
        return rostered.Terms(from, to).On(from, to).Answer is { } roster
            ? new RosterResponse(rostered.Pattern.Code, from, to, roster.PaidMinutes, weeklyHours is { } hours ? (int)decimal.Round(hours * 60 * Weeks) : null)
            : null;
    }
}

/// <summary>What a shift pattern comes to over some weeks.</summary>
/// <param name="From">The first of the days, included.</param>
/// <param name="To">The last of them, included.</param>
/// <param name="PaidMinutes">What is paid of its shifts, holidays off left out.</param>
/// <param name="ContractMinutes">What was agreed for as long; null where no hours are.</param>
public sealed record RosterResponse(string Pattern, LocalDate From, LocalDate To, int PaidMinutes, int? ContractMinutes);
