using System.Security.Cryptography;
using System.Text.Json;
using Fid.Data.Exchange;
using Microsoft.AspNetCore.DataProtection;

namespace Fid.Acts.Exchange;

/// <summary>
/// Seals what came with a sheet: nobody knows beforehand in which of its columns bank accounts stand. Each import has a key of its
/// own, itself sealed by the key ring; without it, its file and its rows cannot be read any more, wherever copies of them are.
/// </summary>
public sealed class SheetSeals(IDataProtectionProvider keys)
{
    private const int KeyBytes = 32;

    private readonly IDataProtector _keys = keys.CreateProtector("fid", "import");

    /// <summary>A new key, as it is kept with the import.</summary>
    public byte[] Make() => _keys.Protect(RandomNumberGenerator.GetBytes(KeyBytes));

    /// <summary>What opens an import. Throws where its key is gone.</summary>
    public SheetSeal Of(ImportRun run) => new(_keys.Unprotect(run.SealedKey ?? throw new InvalidOperationException("The rows of this import are gone.")));
}

/// <summary>The seal of one import: AES-GCM (NIST SP 800-38D) with a random nonce before each sealed piece and the tag behind it.</summary>
public sealed class SheetSeal : IDisposable
{
    private const int NonceBytes = 12,
        TagBytes = 16;

    private readonly AesGcm _aes;

    internal SheetSeal(byte[] key) => _aes = new AesGcm(key, TagBytes);

    /// <summary>Seals bytes.</summary>
    public byte[] Close(ReadOnlySpan<byte> plain)
    {
        var closed = new byte[NonceBytes + plain.Length + TagBytes];
        RandomNumberGenerator.Fill(closed.AsSpan(0, NonceBytes));
        _aes.Encrypt(closed.AsSpan(0, NonceBytes), plain, closed.AsSpan(NonceBytes, plain.Length), closed.AsSpan(NonceBytes + plain.Length));
        return closed;
    }

    /// <summary>Opens what was sealed. Throws where it was altered.</summary>
    public byte[] Open(ReadOnlySpan<byte> closed)
    {
        var plain = new byte[closed.Length - NonceBytes - TagBytes];
        _aes.Decrypt(closed[..NonceBytes], closed[NonceBytes..^TagBytes], closed[^TagBytes..], plain);
        return plain;
    }

    /// <summary>Seals the cells of a row.</summary>
    public byte[] CloseCells(string[] cells) => Close(JsonSerializer.SerializeToUtf8Bytes(cells));

    /// <summary>Opens the cells of a row.</summary>
    public string[] OpenCells(byte[] closed) => JsonSerializer.Deserialize<string[]>(Open(closed))!;

    /// <summary>Seals what is wrong in a row, which may speak of its cells; null for nothing.</summary>
    public byte[]? CloseProblems(IReadOnlyList<Core.Lists.EntryProblem> problems) =>
        problems.Count == 0 ? null : Close(JsonSerializer.SerializeToUtf8Bytes(problems, JsonSerializerOptions.Web));

    /// <summary>Opens what is wrong in a row.</summary>
    public Core.Lists.EntryProblem[] OpenProblems(byte[]? closed) =>
        closed is null ? [] : JsonSerializer.Deserialize<Core.Lists.EntryProblem[]>(Open(closed), JsonSerializerOptions.Web)!;

    /// <inheritdoc/>
    public void Dispose() => _aes.Dispose();
}
