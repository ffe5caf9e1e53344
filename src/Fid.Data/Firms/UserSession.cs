using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Firms;

/// <summary>Somebody signed in, from signing in to signing out. The cookie only names it: a session that is ended here has ended,
/// whatever cookies are left.</summary>
public sealed class UserSession
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>SHA-256 of what the cookie names it by: whoever reads the database can sign in as nobody.</summary>
    public required byte[] KeyHash { get; init; }

    public required Guid UserId { get; init; }

    public required Instant StartedAt { get; init; }

    /// <summary>When it ends in any case, however much it is used.</summary>
    public required Instant EndsAt { get; init; }

    /// <summary>When it was ended before that; null while it goes on.</summary>
    public Instant? EndedAt { get; set; }

    /// <summary>The account as whose user Fid is looked at in it for a while, without changing anything; null mostly.</summary>
    public Guid? ViewsAsId { get; set; }

    /// <summary>When its user last proved by a second factor who they are; null while they have not.</summary>
    public Instant? ProvedAt { get; set; }

    /// <summary>What was begun to add a second factor, or to prove one, and is not done: the key of an authenticator, sealed, or the options of a
    /// passkey; null mostly.</summary>
    public string? Begun { get; set; }

    /// <summary>The network address it was begun from.</summary>
    public required string Address { get; init; }

    /// <summary>What the browser called itself.</summary>
    public required string Browser { get; init; }
}

internal sealed class UserSessionConfiguration : IEntityTypeConfiguration<UserSession>
{
    public void Configure(EntityTypeBuilder<UserSession> session)
    {
        session.ToTable("user_sessions");
        session.HasOne<FidUser>().WithMany().HasForeignKey(s => s.UserId).OnDelete(DeleteBehavior.Cascade);
        session.HasOne<FidUser>().WithMany().HasForeignKey(s => s.ViewsAsId).OnDelete(DeleteBehavior.SetNull);
        session.HasIndex(s => s.KeyHash).IsUnique();
        session.HasIndex(s => new { s.UserId, s.EndsAt });
        session.Property(s => s.Address).HasMaxLength(100);
        session.Property(s => s.Browser).HasMaxLength(300);
    }
}
