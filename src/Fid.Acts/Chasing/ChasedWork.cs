using Fid.Acts.Plans;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>A task of a hire, as one of its owners is chased for it.</summary>
/// <param name="Owner">The account of the owner; empty where there is none.</param>
/// <param name="Due">By when it is to be done; null where no day bounds it.</param>
/// <param name="IsPossible">Whether it can be begun.</param>
public sealed record ChasedWork(HireHead Hire, TaskRow Task, Guid Owner, LocalDate? Due, bool IsPossible)
{
    /// <summary>By which Core knows it.</summary>
    public string Id => IdOf(Hire.Id, Task.Key, Owner);

    internal static string IdOf(Guid hire, string key, Guid owner) => $"{hire}/{key}/{owner}";
}
