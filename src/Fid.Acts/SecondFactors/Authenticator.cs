using Microsoft.AspNetCore.DataProtection;
using NodaTime;
using OtpNet;

namespace Fid.Acts.SecondFactors;

/// <summary>Codes of an authenticator application: time-based one-time passwords of six digits that last 30 seconds (RFC 6238).</summary>
public sealed class Authenticator(IDataProtectionProvider keys)
{
    private const int KeyBytes = 20;

    // A clock may be half a minute off, to either side.
    private static readonly VerificationWindow Window = new(previous: 1, future: 1);

    /// <summary>A fresh key, as authenticators take it: in Base32 (RFC 4648).</summary>
    public static string NewKey() => Base32Encoding.ToString(KeyGeneration.GenerateRandomKey(KeyBytes));

    /// <summary>The address by which an authenticator takes a key, as in a square code.</summary>
    public static string AddressOf(string key, string firm, string user) => new OtpUri(OtpType.Totp, key, user, firm).ToString();

    /// <summary>The key as it is kept, for its account alone.</summary>
    public string Seal(Guid account, string key) => Protector(account).Protect(key);

    /// <summary>The 30 seconds a code is of, counted from 1970; null where it is not one of this key, of now.</summary>
    /// <param name="sealedKey">The key as it is kept.</param>
    public long? StepOf(Guid account, string sealedKey, string code, Instant now) =>
        new Totp(Base32Encoding.ToBytes(Protector(account).Unprotect(sealedKey))).VerifyTotp(now.ToDateTimeUtc(), code, out var step, Window) ? step : null;

    /// <summary>The key that was sealed.</summary>
    public string Open(Guid account, string sealedKey) => Protector(account).Unprotect(sealedKey);

    private IDataProtector Protector(Guid account) => keys.CreateProtector("fid", "authenticator", account.ToString());
}
