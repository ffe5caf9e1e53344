namespace Fid.Core.Calendars;

/// <summary>Years written with two digits, wherever they are typed or imported.</summary>
internal static class TwoDigitYear
{
    // Birth dates lie in the last century more often than a contract reaches into the second half of this one.
    private const int FirstOfLastCentury = 50;

    /// <summary>The year meant: 00 to 49 are 2000 to 2049, 50 to 99 are 1950 to 1999.</summary>
    public static int Full(int twoDigits) => twoDigits < FirstOfLastCentury ? 2000 + twoDigits : 1900 + twoDigits;
}
