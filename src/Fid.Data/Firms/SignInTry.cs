using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>Wrong passwords for one account from one address. Whoever guesses is slowed down; whoever the account belongs to comes
/// from elsewhere, and is not shut out.</summary>
public sealed class SignInTry
{
    /// <summary>SHA-256 of the account's name as it was typed, whether there is one or not, and the address.</summary>
    public required byte[] Key { get; init; }

    /// <summary>Wrong passwords in a row.</summary>
    public required int Failures { get; set; }

    /// <summary>Before this the next one is not even looked at.</summary>
    public required Instant NotBefore { get; set; }
}

internal sealed class SignInTryConfiguration : IEntityTypeConfiguration<SignInTry>
{
    public void Configure(EntityTypeBuilder<SignInTry> tried)
    {
        tried.ToTable("sign_in_tries");
        tried.HasKey(t => t.Key);
    }
}
