using NodaTime;

namespace Fid.Core.Calendars;

/// <summary>A time for which somebody is away.</summary>
/// <param name="From">The first day, included.</param>
/// <param name="To">The last day, included.</param>
/// <param name="StandIn">The id of who acts for them; null for nobody.</param>
public sealed record Absence(LocalDate From, LocalDate To, string? StandIn)
{
    /// <summary>Of some absences the first listed that holds a day; null where none does.</summary>
    public static Absence? On(IReadOnlyList<Absence> absences, LocalDate day)
    {
        foreach (var absence in absences)
            if (absence.From <= day && day <= absence.To)
                return absence;
        return null;
    }

    /// <summary>What is wrong with somebody's absences: "not-in-order" for one that ends before it begins, "unknown-person" for stand-ins.</summary>
    /// <param name="path">The path to the absences.</param>
    internal static IEnumerable<Problem> Check(IReadOnlyList<Absence> absences, Func<string, bool> isKnown, string path)
    {
        for (var i = 0; i < absences.Count; i++)
        {
            if (absences[i].StandIn is { } standIn && !isKnown(standIn))
                yield return new Problem($"{path}/{i}/standIn", "unknown-person", $"There is nobody {standIn}.");
            if (absences[i].To < absences[i].From)
                yield return new Problem($"{path}/{i}/to", "not-in-order", "An absence does not end before it begins.");
        }
    }
}
