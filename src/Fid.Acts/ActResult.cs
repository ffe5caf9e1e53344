using System.Diagnostics.CodeAnalysis;

namespace Fid.Acts;

/// <summary>What came of an act that says nothing but that it is done.</summary>
public readonly record struct ActResult(Refusal? Refusal)
{
    public static ActResult Done => default;

    [SuppressMessage("Usage", "CA2225", Justification = "A refusal is a result as it stands.")]
    public static implicit operator ActResult(Refusal refusal) => new(refusal);
}

/// <summary>What came of an act: what it answers, or why nothing was done.</summary>
/// <typeparam name="T">What it answers.</typeparam>
public readonly record struct ActResult<T>
{
    private ActResult(T? answer, Refusal? refusal) => (Answer, Refusal) = (answer, refusal);

    /// <summary>The answer; nothing where it was refused.</summary>
    public T? Answer { get; }

    /// <summary>Why nothing was done; null where it was.</summary>
    public Refusal? Refusal { get; }

    [SuppressMessage("Usage", "CA2225", Justification = "An answer is a result as it stands.")]
    public static implicit operator ActResult<T>(T answer) => new(answer, null);

    [SuppressMessage("Usage", "CA2225", Justification = "A refusal is a result as it stands.")]
    public static implicit operator ActResult<T>(Refusal refusal) => new(default, refusal);

    /// <summary>Whether it was done, with what it answers, or refused, with why.</summary>
    public bool IsDone([NotNullWhen(true)] out T? answer, [NotNullWhen(false)] out Refusal? refusal)
    {
        (answer, refusal) = (Answer, Refusal);
        return refusal is null;
    }
}
