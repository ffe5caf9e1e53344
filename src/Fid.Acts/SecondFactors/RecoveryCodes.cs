using System.Security.Cryptography;
using System.Text;

namespace Fid.Acts.SecondFactors;

/// <summary>Codes for the day on which the authenticator is lost: shown once, kept as hashes, each taken once.</summary>
public static class RecoveryCodes
{
    /// <summary>How many are given at a time.</summary>
    public const int Count = 10;

    // Without what is taken for something else when it is written by hand: 50 bits each.
    private const string Letters = "abcdefghjkmnpqrstuvwxyz23456789";
    private const int Length = 10;

    /// <summary>Fresh codes, as they are shown.</summary>
    public static string[] Make() =>
        [.. Enumerable.Range(0, Count).Select(_ => RandomNumberGenerator.GetString(Letters, Length)).Select(c => $"{c[..5]}-{c[5..]}")];

    /// <summary>The hash by which a code is kept, however it was written.</summary>
    public static string HashOf(string code) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Concat(code.Where(char.IsLetterOrDigit)).ToLowerInvariant())));
}
