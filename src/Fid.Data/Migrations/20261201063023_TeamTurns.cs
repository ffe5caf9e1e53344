using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class TeamTurns : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "done",
                table: "jobs",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "of",
                table: "jobs",
                type: "integer",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "team_turns",
                columns: table => new
                {
                    team = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    account_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_team_turns", x => x.team);
                });

            // What all checklists go by, and who is in the teams that hand out tasks: once for a transaction.
            migrationBuilder.Sql("""
                create function replan_checklists() returns trigger language plpgsql as $$
                begin
                  insert into jobs (id, kind, recurs, state, due, made_at, tries)
                  select gen_random_uuid(), 'replan', false, 'Waiting', 'epoch', now(), 0
                  where not exists (select from jobs j where j.kind = 'replan' and j.argument is null and j.state = 'Waiting' and j.made_at = now());
                  return null;
                end $$;
                create trigger replan after update on list_entries for each row
                  when (new.list in ('calendars', 'items', 'teams') and old."values" is distinct from new."values") execute function replan_checklists();
                create trigger replan after insert or update or delete on stages for each row execute function replan_checklists();
                create trigger replan after update of teams, disabled_at on users for each row
                  when (old.teams is distinct from new.teams or old.disabled_at is distinct from new.disabled_at) execute function replan_checklists();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger replan on users;
                drop trigger replan on stages;
                drop trigger replan on list_entries;
                drop function replan_checklists();
                """);

            migrationBuilder.DropTable(
                name: "team_turns");

            migrationBuilder.DropColumn(
                name: "done",
                table: "jobs");

            migrationBuilder.DropColumn(
                name: "of",
                table: "jobs");
        }
    }
}
