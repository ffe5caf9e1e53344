namespace Fid.Core.Checklists;

/// <summary>How the tasks of a team come to its members.</summary>
public enum HandOut
{
    /// <summary>Whoever takes one has it.</summary>
    Whoever,

    /// <summary>Each member in turn.</summary>
    Rotation,

    /// <summary>The member who has the fewest open ones; of several the next in turn.</summary>
    Load,
}

/// <summary>A member of a team.</summary>
/// <param name="Account">Their account.</param>
/// <param name="Open">How many tasks of teams they have taken on, or were handed, that are not done.</param>
/// <param name="IsThere">Whether they are here today: who is away is handed nothing.</param>
public sealed record TeamMember(Guid Account, int Open, bool IsThere);

/// <summary>Hands the tasks of one team to its members, one after the other.</summary>
/// <param name="way">By what they are handed out; of <see cref="HandOut.Whoever"/> nothing is.</param>
/// <param name="members">The members in the order in which it is their turn.</param>
/// <param name="last">Whose turn it was last; null at the beginning, or where that one has left the team: then it begins anew.</param>
public sealed class TeamTurns(HandOut way, IReadOnlyList<TeamMember> members, Guid? last)
{
    private readonly Dictionary<Guid, int> _open = members.ToDictionary(m => m.Account, m => m.Open);

    /// <summary>Whose turn it was last.</summary>
    public Guid? Last { get; private set; } = last;

    /// <summary>Hands out one task.</summary>
    /// <param name="gaveBack">Those who had it before and gave it back: it does not come to them again.</param>
    /// <returns>The account of the member who has it now; null where there is nobody who could: it stays for whoever takes it.</returns>
    public Guid? Next(IReadOnlyCollection<Guid> gaveBack)
    {
        var free = InTurn().Where(m => m.IsThere && !gaveBack.Contains(m.Account));
        var chosen = way switch
        {
            HandOut.Rotation => free.FirstOrDefault(),
            HandOut.Load => free.MinBy(m => _open[m.Account]),
            _ => null,
        };
        if (chosen is null)
            return null;
        _open[chosen.Account]++;
        return Last = chosen.Account;
    }

    private IEnumerable<TeamMember> InTurn()
    {
        var after = members.TakeWhile(m => m.Account != Last).Count() + 1;
        return after > members.Count ? members : members.Skip(after).Concat(members.Take(after));
    }
}
