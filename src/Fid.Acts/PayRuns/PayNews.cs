using Fid.Core.Pay;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>What begins, changes or ends of somebody's pay in a run.</summary>
/// <param name="Before">What it was, where it is a number that changes.</param>
/// <param name="After">What it is from the day on.</param>
public sealed record PayNews(PayNewsKind Kind, LocalDate Day, decimal? Before, decimal? After)
{
    /// <summary>How news of what is paid beside base pay is told.</summary>
    public static PayNewsKind Of(PayElementKind kind) =>
        kind switch
        {
            PayElementKind.Allowance => PayNewsKind.Allowance,
            PayElementKind.SecondJob => PayNewsKind.SecondJob,
            _ => PayNewsKind.OneOff,
        };
}

/// <summary>What can be new of somebody's pay.</summary>
public enum PayNewsKind
{
    /// <summary>They start on the day.</summary>
    Starts,

    /// <summary>They started on the day, and are paid with this run first, with arrears.</summary>
    Arrears,

    /// <summary>The day is their last.</summary>
    Ends,

    /// <summary>They come to the pay group, or leave it.</summary>
    Group,

    /// <summary>Another rate, or for another time.</summary>
    Rate,

    /// <summary>Other hours.</summary>
    Hours,

    /// <summary>An allowance begins, changes or ends.</summary>
    Allowance,

    /// <summary>A second job begins, ends, or pays something else.</summary>
    SecondJob,

    /// <summary>Something is paid once.</summary>
    OneOff,
}
