using System.Diagnostics.CodeAnalysis;

namespace Fid.Core;

/// <summary>An answer, or the problems that kept it from being given. A user's mistake is a result, not an exception.</summary>
/// <typeparam name="T">What the answer is.</typeparam>
public sealed class Result<T>
    where T : class
{
    private Result(T? answer, IReadOnlyList<Problem> problems) => (Answer, Problems) = (answer, problems);

    /// <summary>The answer; null when there are problems.</summary>
    public T? Answer { get; }

    /// <summary>The problems; empty when there is an answer.</summary>
    public IReadOnlyList<Problem> Problems { get; }

    /// <summary>Whether there is an answer.</summary>
    [MemberNotNullWhen(true, nameof(Answer))]
    public bool Succeeded => Answer is not null;

    /// <summary>An answer as a result.</summary>
    [SuppressMessage("Usage", "CA2225", Justification = "The constructor it would name is private on purpose.")]
    public static implicit operator Result<T>(T answer) => new(answer, []);

    /// <summary>Problems as a result; there must be at least one.</summary>
    [SuppressMessage("Design", "CA1000", Justification = "Reads as what it is: Result<Plan>.Failed(…).")]
    public static Result<T> Failed(params IReadOnlyList<Problem> problems) =>
        problems.Count > 0 ? new(null, problems) : throw new ArgumentException("A failure names what failed.", nameof(problems));
}
