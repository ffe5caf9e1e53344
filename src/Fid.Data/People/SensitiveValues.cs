using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Fid.Core.Fields;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;

namespace Fid.Data.People;

/// <summary>
/// Seals and opens values of sensitive fields. They are encrypted with the key ring's newest key and stay readable with older
/// ones, so that keys rotate and no row is rewritten. What is sealed for one owner and field opens for no other.
/// </summary>
public sealed class SensitiveValues(IDataProtectionProvider keys)
{
    private const int KeyBytes = 32;
    private readonly IDataProtector _hashKeys = keys.CreateProtector("fid", "hash key");
    private byte[]? _hashKey;

    /// <summary>A value as it is stored; one that is sealed already as it is.</summary>
    public async ValueTask<JsonElement> SealAsync(FidDb db, Guid owner, string field, JsonElement value, CancellationToken cancellation) =>
        SealedText.IsSealed(value)
            ? value
            : SealedText.Write(await HashAsync(db, field, value.ToString(), cancellation), Protector(owner, field).Protect(value.GetRawText()));

    /// <summary>The value that was sealed. Throws where the key ring cannot open it.</summary>
    public JsonElement Open(Guid owner, string field, JsonElement value)
    {
        using var document = JsonDocument.Parse(Protector(owner, field).Unprotect(SealedText.Closed(value)));
        return document.RootElement.Clone();
    }

    /// <summary>The keyed hash by which values of a field are found: of letters and digits alone, whatever their case.</summary>
    public async ValueTask<string> HashAsync(FidDb db, string field, string text, CancellationToken cancellation)
    {
        var plain = string.Concat(text.Where(char.IsLetterOrDigit)).ToUpperInvariant();
        return Convert.ToHexStringLower(HMACSHA256.HashData(await HashKeyAsync(db, cancellation), Encoding.UTF8.GetBytes($"{field}\n{plain}")));
    }

    private IDataProtector Protector(Guid owner, string field) => keys.CreateProtector("fid", "record value", owner.ToString(), field);

    /// <summary>Gives a firm that has none its key for hashes, itself encrypted. For when nothing is sealed yet.</summary>
    public Task PrepareAsync(FidDb db, CancellationToken cancellation = default)
    {
        var made = _hashKeys.Protect(RandomNumberGenerator.GetBytes(KeyBytes));
        return db.Firms.Where(f => f.HashKey == null).ExecuteUpdateAsync(set => set.SetProperty(f => f.HashKey, made), cancellation);
    }

    private async ValueTask<byte[]> HashKeyAsync(FidDb db, CancellationToken cancellation)
    {
        if (_hashKey is not null)
            return _hashKey;
        var stored = await db.Firms.AsNoTracking().Select(f => f.HashKey).SingleAsync(cancellation)
            ?? throw new InvalidOperationException("The firm has no key for hashes yet.");
        return _hashKey = _hashKeys.Unprotect(stored);
    }
}
