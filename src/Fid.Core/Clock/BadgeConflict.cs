namespace Fid.Core.Clock;

/// <summary>Two badge assignments that do not go together.</summary>
/// <param name="Kind">What is wrong.</param>
/// <param name="Badge">The badge both share; null when the conflict is one person's two badges.</param>
/// <param name="Ids">The two assignments, in the order they were given; for <see cref="BadgeConflictKind.TooSoon"/> the earlier
/// one first.</param>
public sealed record BadgeConflict(BadgeConflictKind Kind, string? Badge, IReadOnlyList<string> Ids);

/// <summary>What is wrong with two badge assignments.</summary>
public enum BadgeConflictKind
{
    /// <summary>Two people carry one badge at once in one group of devices.</summary>
    Overlap,

    /// <summary>A badge went to another person before it had rested.</summary>
    TooSoon,

    /// <summary>One person carries two badges at once in one group of devices.</summary>
    TwoBadges,
}
