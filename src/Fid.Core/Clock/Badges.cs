using NodaTime;

namespace Fid.Core.Clock;

/// <summary>What a set of badge assignments gets wrong, and the next number to give.</summary>
public static class Badges
{
    /// <summary>Longest number a device is given.</summary>
    public const int MostDigits = 20;

    /// <summary>Whether a text is a badge number: 1 to 20 digits 0–9.</summary>
    public static bool IsNumber(string text) => text.Length is >= 1 and <= MostDigits && text.All(char.IsAsciiDigit);

    /// <summary>
    /// All conflicts, ordered by the first, then the second assignment they name. Problems by path when a badge is not a number,
    /// an id stands twice, an assignment ends before it begins, or the rest is negative.
    /// </summary>
    /// <param name="assignments">The assignments, in any order.</param>
    /// <param name="restDays">Full days a badge should lie unused before another person gets it.</param>
    public static Result<IReadOnlyList<BadgeConflict>> Check(IReadOnlyList<BadgeAssignment> assignments, int restDays)
    {
        var problems = Validate(assignments, restDays);
        if (problems.Count > 0)
            return Result<IReadOnlyList<BadgeConflict>>.Failed(problems);

        var found = new List<(int First, int Second, BadgeConflict Conflict)>();
        foreach (var (i, j) in Pairs(assignments, a => (a.Badge, a.Group)))
        {
            BadgeAssignment a = assignments[i],
                b = assignments[j];
            if (a.Person == b.Person)
                continue;
            if (Overlap(a, b))
            {
                found.Add((i, j, new BadgeConflict(BadgeConflictKind.Overlap, a.Badge, [a.Id, b.Id])));
                continue;
            }
            var (earlier, later) = a.From < b.From ? (a, b) : (b, a);
            if (Period.DaysBetween(earlier.To!.Value, later.From) - 1 < restDays)
                found.Add((i, j, new BadgeConflict(BadgeConflictKind.TooSoon, a.Badge, [earlier.Id, later.Id])));
        }
        foreach (var (i, j) in Pairs(assignments, a => (a.Person, a.Group)))
        {
            BadgeAssignment a = assignments[i],
                b = assignments[j];
            if (a.Badge != b.Badge && Overlap(a, b))
                found.Add((i, j, new BadgeConflict(BadgeConflictKind.TwoBadges, null, [a.Id, b.Id])));
        }
        return found.OrderBy(f => f.First).ThenBy(f => f.Second).Select(f => f.Conflict).ToArray();
    }

    /// <summary>The number after the highest one in use, as many digits wide as the widest: numbers are not given twice while
    /// there are others. Null when the width is used up.</summary>
    /// <param name="used">Badge numbers ever given in the group.</param>
    /// <param name="width">Digits of a number where none has been given yet.</param>
    public static string? NextFree(IEnumerable<string> used, int width = 6)
    {
        var digits = width;
        var highest = System.Numerics.BigInteger.Zero;
        foreach (var badge in used.Where(IsNumber))
        {
            digits = Math.Max(digits, badge.Length);
            highest = System.Numerics.BigInteger.Max(highest, System.Numerics.BigInteger.Parse(badge, System.Globalization.CultureInfo.InvariantCulture));
        }
        var next = (highest + 1).ToString(System.Globalization.CultureInfo.InvariantCulture);
        return next.Length > digits ? null : next.PadLeft(digits, '0');
    }

    /// <summary>The number free after one more is taken; null where there is none of that many digits.</summary>
    /// <param name="free">The number that was free before; null for none.</param>
    /// <param name="taken">The number that is taken, whatever it is.</param>
    public static string? NextAfter(string? free, string taken) =>
        free is null
        || !IsNumber(taken)
        || System.Numerics.BigInteger.Parse(taken, System.Globalization.CultureInfo.InvariantCulture)
            < System.Numerics.BigInteger.Parse(free, System.Globalization.CultureInfo.InvariantCulture)
            ? free
            : NextFree([taken], free.Length);

    private static bool Overlap(BadgeAssignment a, BadgeAssignment b) => a.From <= (b.To ?? LocalDate.MaxIsoValue) && b.From <= (a.To ?? LocalDate.MaxIsoValue);

    private static IEnumerable<(int First, int Second)> Pairs<TKey>(IReadOnlyList<BadgeAssignment> assignments, Func<BadgeAssignment, TKey> key) =>
        from shared in Enumerable.Range(0, assignments.Count).GroupBy(i => key(assignments[i]))
        let members = shared.ToArray()
        from first in Enumerable.Range(0, members.Length)
        from second in Enumerable.Range(first + 1, members.Length - first - 1)
        select (members[first], members[second]);

    private static List<Problem> Validate(IReadOnlyList<BadgeAssignment> assignments, int restDays)
    {
        var problems = new List<Problem>();
        var ids = new HashSet<string>(StringComparer.Ordinal);
        for (var i = 0; i < assignments.Count; i++)
        {
            var a = assignments[i];
            if (!ids.Add(a.Id))
                problems.Add(new Problem($"/assignments/{i}/id", "duplicate-id", $"There is another assignment called {a.Id}. Each needs an id of its own."));
            if (!IsNumber(a.Badge))
                problems.Add(new Problem($"/assignments/{i}/badge", "bad-badge", "A badge number is 1 to 20 digits and nothing else."));
            if (a.To < a.From)
                problems.Add(new Problem($"/assignments/{i}/to", "not-in-order", "The last day is not before the first."));
        }
        if (restDays < 0)
            problems.Add(new Problem("/restDays", "out-of-range", "Rest is 0 days or more."));
        return problems;
    }
}
