using NodaTime;

namespace Fid.Acts.Invitations;

/// <summary>What somebody is invited to.</summary>
/// <param name="What">What the task is called in their language.</param>
/// <param name="Whom">The newcomer, as they may know of them; null where it is they.</param>
/// <param name="Day">In the firm's zone, as <paramref name="At"/>.</param>
internal sealed record Meeting(string What, string? Whom, LocalDate Day, LocalTime At, int Minutes, string? Place)
{
    /// <summary>How long one meets where nobody said.</summary>
    public const int UsualMinutes = 60;
}
