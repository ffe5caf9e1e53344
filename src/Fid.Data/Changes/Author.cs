using NodaTime;

namespace Fid.Data.Changes;

/// <summary>Who makes a change, when, and from where.</summary>
public sealed record Author(Guid? Id, string Name, Instant At, string Origin)
{
    /// <summary>An entry for a change by this author.</summary>
    public Change Change(string action, Guid subject, string? part = null, string? why = null) =>
        new()
        {
            At = At,
            ById = Id,
            ByName = Name,
            Origin = Origin,
            Action = action,
            SubjectId = subject,
            Part = part,
            Why = why,
        };
}
