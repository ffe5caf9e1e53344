using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class RecruitingIsHeard : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // Each pull says once that something changed, however many candidates it brings.
            migrationBuilder.Sql("""
                create function announce_intake() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'intake');
                  return null;
                end $$;
                create trigger announce after insert or update on intake_candidates for each statement execute function announce_intake();
                create index ix_intake_candidates_waiting on intake_candidates (changed_at) where state = 'Waiting';
                create index ix_intake_candidates_unsettled on intake_candidates (hire_id) where state = 'Taken' and settled <> now;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop index ix_intake_candidates_unsettled;
                drop index ix_intake_candidates_waiting;
                drop trigger announce on intake_candidates;
                drop function announce_intake();
                """);
        }
    }
}
