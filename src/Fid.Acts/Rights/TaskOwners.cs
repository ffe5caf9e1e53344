using Fid.Data.Hires;

namespace Fid.Acts.Rights;

/// <summary>Whose tasks somebody does: their own, and those of all for whom they stand in today, also by way of others who are away.</summary>
/// <param name="Accounts">Their account first.</param>
/// <param name="Person">The person; a newcomer's own tasks nobody does in their place.</param>
/// <param name="Employments">By which records name them as manager or buddy.</param>
/// <param name="Teams">The codes of teams.</param>
public sealed record TaskOwners(IReadOnlyCollection<Guid> Accounts, Guid? Person, Guid[] Employments, IReadOnlyCollection<string> Teams)
{
    /// <summary>Those of nobody.</summary>
    public static TaskOwners None { get; } = new([], null, [], []);

    /// <summary>The owners of tasks that are meant by name: teams and people.</summary>
    public string[] Named => [.. Teams.Select(t => HireTask.TeamPrefix + t), .. Employments.Select(e => HireTask.PersonPrefix + e)];

    /// <summary>Whether they are meant by an owner that is a team or a person by name.</summary>
    public bool AreNamedBy(string owner) =>
        HireTask.PersonOf(owner) is { } person ? Employments.Contains(person) : HireTask.TeamOf(owner) is { } team && Teams.Contains(team);
}
