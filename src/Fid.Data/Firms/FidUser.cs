using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>An account: somebody who may sign in, or will. One without a password sleeps until its user is invited and sets one.</summary>
public sealed class FidUser : IdentityUser<Guid>
{
    public FidUser() => Id = Guid.CreateVersion7();

    public const int LongestName = 200,
        LongestEmail = 254;

    public required string DisplayName { get; set; }

    /// <summary>The language of the interface: "en" or "de".</summary>
    public string Language { get; set; } = "en";

    /// <summary>The person this is, when the firm has a record of them.</summary>
    public Guid? PersonId { get; set; }

    /// <summary>Codes of the teams whose tasks this person does.</summary>
    public string[] Teams { get; set; } = [];

    /// <summary>When it was made.</summary>
    public Instant MadeAt { get; init; }

    /// <summary>Since when nobody can sign in with it; null while somebody can.</summary>
    public Instant? DisabledAt { get; set; }

    /// <summary>Why nobody can; null while somebody can.</summary>
    public AccountEnd? DisabledWhy { get; set; }

    /// <summary>Since when its user proves by a second factor who they are; null where a password is enough for them.</summary>
    public Instant? SecondFactorSince { get; set; }

    /// <summary>The key of their authenticator application, sealed; null for none.</summary>
    public string? AuthenticatorKey { get; set; }

    /// <summary>The last 30 seconds of which a code was taken, counted from 1970: none is taken twice.</summary>
    public long AuthenticatorStep { get; set; }

    /// <summary>SHA-256 of the recovery codes that are left, in hexadecimal digits.</summary>
    public string[] RecoveryCodes { get; set; } = [];

    /// <summary>When its user signed in last; null for never.</summary>
    public Instant? LastSignInAt { get; set; }

    /// <summary>Counts what administrators changed of it. Signing in changes nothing of it.</summary>
    public uint Version { get; set; } = 1;

    /// <summary>Gives it the address its user signs in with.</summary>
    public void SignsInWith(string email) =>
        (Email, NormalizedEmail, UserName, NormalizedUserName) = (email, email.ToUpperInvariant(), email, email.ToUpperInvariant());

    /// <summary>Lets nobody sign in with it any more.</summary>
    public void Disable(AccountEnd why, Instant at) => (DisabledAt, DisabledWhy, Version) = (at, why, Version + 1);

    /// <summary>Lets its user sign in again.</summary>
    public void Enable() => (DisabledAt, DisabledWhy, Version) = (null, null, Version + 1);

    /// <summary>An account that nobody has been invited to, of a newcomer.</summary>
    public static FidUser Asleep(Guid person, string name, Instant at) =>
        new()
        {
            DisplayName = name,
            PersonId = person,
            MadeAt = at,
            SecurityStamp = Guid.NewGuid().ToString("N"),
        };
}

/// <summary>Why an account was disabled.</summary>
public enum AccountEnd
{
    /// <summary>An administrator did it.</summary>
    ByHand,

    /// <summary>Its user has left the firm, or never came.</summary>
    Left,
}

internal sealed class FidUserConfiguration : IEntityTypeConfiguration<FidUser>
{
    public void Configure(EntityTypeBuilder<FidUser> user)
    {
        user.Property(u => u.DisplayName).HasMaxLength(FidUser.LongestName);
        user.Property(u => u.DisabledWhy).HasConversion<string>().HasMaxLength(20);
        user.HasIndex(u => u.PersonId);
        user.HasIndex(u => new { u.DisplayName, u.Id });
    }
}
