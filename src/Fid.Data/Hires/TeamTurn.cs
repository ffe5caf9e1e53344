using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Hires;

/// <summary>Whose turn it was last in a team whose tasks are handed out.</summary>
public sealed class TeamTurn
{
    /// <summary>The team's code.</summary>
    public required string Team { get; init; }

    /// <summary>The account of the member who was handed a task last.</summary>
    public required Guid AccountId { get; set; }
}

internal sealed class TeamTurnConfiguration : IEntityTypeConfiguration<TeamTurn>
{
    public void Configure(EntityTypeBuilder<TeamTurn> turn)
    {
        turn.ToTable("team_turns");
        turn.HasKey(t => t.Team);
        turn.Property(t => t.Team).HasMaxLength(100);
    }
}
