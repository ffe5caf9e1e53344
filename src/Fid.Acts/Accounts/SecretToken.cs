using System.Security.Cryptography;
using System.Text;

namespace Fid.Acts.Accounts;

/// <summary>What a link holds that opens something: nobody guesses it, and the database keeps only its hash.</summary>
internal static class SecretToken
{
    private const int Bytes = 24;

    public static string Make() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(Bytes));

    /// <summary>SHA-256, by which it is found again.</summary>
    public static byte[] Hash(string token) => SHA256.HashData(Encoding.UTF8.GetBytes(token));
}
