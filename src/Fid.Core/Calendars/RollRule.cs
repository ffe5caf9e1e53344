namespace Fid.Core.Calendars;

/// <summary>Where a date goes that falls on a rest day or holiday.</summary>
public enum RollRule
{
    /// <summary>To the next working day.</summary>
    Following,

    /// <summary>To the working day before.</summary>
    Preceding,

    /// <summary>To the next working day, unless that lies in another month; then to the working day before.</summary>
    ModifiedFollowing,
}
