using Fid.Core;

namespace Fid.Acts;

/// <summary>Why an act was not done. Nothing of it is kept then.</summary>
/// <param name="Code">A stable word for the reason.</param>
/// <param name="Message">A sentence saying what to do.</param>
/// <param name="Problems">What of the request is wrong, by pointer; empty where the request is right as it stands.</param>
public sealed record Refusal(RefusalKind Kind, string Code, string Message, IReadOnlyList<Problem> Problems)
{
    public static Refusal NotFound { get; } = new(RefusalKind.NotFound, "not-found", "There is nothing here, or nothing you may see.", []);

    public static Refusal Forbidden { get; } = new(RefusalKind.Forbidden, "forbidden", "You may not do this.", []);

    /// <summary>Somebody else saved since the actor looked.</summary>
    public static Refusal ChangedMeanwhile { get; } = new(RefusalKind.ChangedMeanwhile, "changed-meanwhile", "Somebody else saved this in the meantime.", []);

    /// <summary>The actor has to say which version they saw.</summary>
    public static Refusal VersionNeeded { get; } = new(RefusalKind.VersionNeeded, "version-needed", "Say with If-Match which version you saw.", []);

    public static Refusal KeyReused { get; } = new(RefusalKind.KeyReused, "key-reused", "Another act was sent under this key. Give each its own.", []);

    public static Refusal Invalid(params IReadOnlyList<Problem> problems) => new(RefusalKind.Invalid, "invalid", "Something entered is not right.", problems);

    public static Refusal Invalid(string pointer, string code, string message) => Invalid(new Problem(pointer, code, message));

    /// <summary>It does not go with what there is now.</summary>
    public static Refusal Conflict(string code, string message) => new(RefusalKind.Conflict, code, message, []);
}

/// <summary>Kinds of reasons for which an act is not done.</summary>
public enum RefusalKind
{
    /// <summary>The request is wrong.</summary>
    Invalid,

    /// <summary>What it is about is not there, or not for the actor to see.</summary>
    NotFound,

    /// <summary>The actor may not do it.</summary>
    Forbidden,

    /// <summary>It does not go with what there is now.</summary>
    Conflict,

    /// <summary>The actor saw another version than there is now.</summary>
    ChangedMeanwhile,

    /// <summary>The actor did not say which version they saw.</summary>
    VersionNeeded,

    /// <summary>The key belongs to another request.</summary>
    KeyReused,

    /// <summary>It is more than can be taken at once.</summary>
    TooLarge,
}
