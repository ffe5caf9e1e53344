namespace Fid.Core.Rights;

/// <summary>What other roles give somebody that theirs do not, and the other way round.</summary>
/// <param name="Gained">What they would have and do not.</param>
/// <param name="Lost">What they have and would not.</param>
public sealed record RightsDifference(IReadOnlyList<Right> Gained, IReadOnlyList<Right> Lost)
{
    /// <summary>The action of a right to what each field itself gives to a role; such a right is on the id of the role.</summary>
    public const string AsFieldsSay = "as-set";

    /// <summary>Whether there is none.</summary>
    public bool IsEmpty => Gained.Count == 0 && Lost.Count == 0;

    /// <summary>The difference between what some roles give together and what others do.</summary>
    /// <param name="before">The roles that are held.</param>
    /// <param name="after">The roles that would be.</param>
    /// <param name="sectionOf">The section of a field, or null: what is given of a section is given of its fields.</param>
    public static RightsDifference Of(IEnumerable<RoleDefinition> before, IEnumerable<RoleDefinition> after, Func<string, string?> sectionOf)
    {
        var (was, will) = (All(before), All(after));
        return new RightsDifference([.. will.Where(w => !IsGiven(w, was, sectionOf))], [.. was.Where(w => !IsGiven(w, will, sectionOf))]);
    }

    private static List<Right> All(IEnumerable<RoleDefinition> roles) =>
        [.. roles.SelectMany(role => role.FieldReaches.Select(reach => new Right(AsFieldsSay, role.Id, reach)).Concat(role.Rights)).Distinct()];

    private static bool IsGiven(Right right, List<Right> by, Func<string, string?> sectionOf) =>
        by.Exists(b =>
            (b.Reach is RightReach.All || b.Reach == right.Reach)
            && (
                right.Action == AsFieldsSay ? b.Action == AsFieldsSay && b.On == right.On
                : b.On == right.On ? b.Covers(right.Action, new RightSubject(right.On, null))
                : right.On != Right.Everything && b.Covers(right.Action, new RightSubject(right.On, sectionOf(right.On)))
            )
        );
}
