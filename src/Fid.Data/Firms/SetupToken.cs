using NodaTime;

namespace Fid.Data.Firms;

/// <summary>Allows whoever holds it to create the firm and its first administrator, once. Only its hash is kept.</summary>
public sealed class SetupToken
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>SHA-256 of the token, in hexadecimal.</summary>
    public required string Hash { get; init; }

    public required Instant CreatedAt { get; init; }
}
