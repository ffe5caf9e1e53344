using NodaTime;

namespace Fid.Core.Clock;

/// <summary>That a person carries a badge at the clock devices of a group for a time.</summary>
/// <param name="Id">Names the assignment.</param>
/// <param name="Badge">The badge number: digits only, leading zeros kept.</param>
/// <param name="Group">The group of devices that know the badge.</param>
/// <param name="Person">Who carries it.</param>
/// <param name="From">First day.</param>
/// <param name="To">Last day, included; null for no end.</param>
public sealed record BadgeAssignment(string Id, string Badge, string Group, string Person, LocalDate From, LocalDate? To);
