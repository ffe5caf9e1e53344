namespace Fid.Core.Texts;

/// <summary>International bank account numbers, by ISO 13616: two letters of the country, two check digits by ISO/IEC 7064 (MOD 97-10), and the
/// account as the country writes it.</summary>
public static class Iban
{
    private const int Shortest = 15,
        Longest = 34;

    private const string Compare = "Compare it with the card or the letter.";

    // How long a whole number is, by country, from the register of ISO 13616.
    private static readonly Dictionary<string, int> Lengths = (
        "AD24 AE23 AL28 AT20 AZ28 BA20 BE16 BG22 BH22 BR29 BY28 CH21 CR22 CY28 CZ24 DE22 DK18 DO28 EE20 EG29 ES24 FI18 FO18 FR27 GB22 GE22 GI23 GL18 "
        + "GR27 GT28 HR21 HU28 IE22 IL23 IQ23 IS26 IT27 JO30 KW30 KZ20 LB28 LC32 LI21 LT20 LU20 LV21 LY25 MC27 MD24 ME22 MK19 MR27 MT31 MU30 NL18 "
        + "NO15 PK24 PL28 PS29 PT25 QA29 RO24 RS22 SA24 SC31 SD18 SE24 SI19 SK24 SM27 ST25 SV28 TL23 TN24 TR26 UA29 VA22 VG24 XK20"
    )
        .Split(' ')
        .ToDictionary(c => c[..2], c => int.Parse(c[2..], System.Globalization.CultureInfo.InvariantCulture), StringComparer.Ordinal);

    /// <summary>Reads one as people write it, with or without spaces, in capitals or not.</summary>
    /// <param name="text">What was written.</param>
    /// <param name="electronic">The number without spaces, in capitals; what was written where it is none.</param>
    /// <returns>Null where it is one; else what is wrong with it, saying what to do.</returns>
    public static string? Read(string text, out string electronic)
    {
        electronic = text;
        var number = string.Concat(text.Where(c => !char.IsWhiteSpace(c))).ToUpperInvariant();
        if (
            number.Length < Shortest
            || !(char.IsAsciiLetterUpper(number[0]) && char.IsAsciiLetterUpper(number[1]))
            || !(char.IsAsciiDigit(number[2]) && char.IsAsciiDigit(number[3]))
            || !number.All(char.IsAsciiLetterOrDigit)
        )
            return "Enter an IBAN: two letters, two digits, and the account, such as IE29 AIBK 9311 5212 3456 78.";
        var length = Lengths.GetValueOrDefault(number[..2], number.Length);
        if (number.Length != length || number.Length > Longest)
            return $"An IBAN of {number[..2]} has {Math.Min(length, Longest)} characters, and this has {number.Length}. " + Compare;
        if (Remainder(number[4..] + number[..4]) != 1)
            return "The check digits do not fit: a character is wrong, or two are exchanged. " + Compare;
        electronic = number;
        return null;
    }

    /// <summary>The number of an account, with the check digits it has.</summary>
    /// <param name="country">The two letters of the country.</param>
    /// <param name="account">The account as the country writes it, in capitals and digits.</param>
    public static string Of(string country, string account) => $"{country}{98 - Remainder($"{account}{country}00"):00}{account}";

    // By MOD 97-10, letters counting from 10 for A on.
    private static int Remainder(string text) =>
        text.Aggregate(0, (rest, c) => char.IsAsciiDigit(c) ? (rest * 10 + (c - '0')) % 97 : (rest * 100 + (c - 'A' + 10)) % 97);
}
