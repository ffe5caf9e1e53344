using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class ChecklistsAdvance : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<LocalDate>(
                name: "advanced_on",
                table: "firms",
                type: "date",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "hire_stages",
                columns: table => new
                {
                    hire_id = table.Column<Guid>(type: "uuid", nullable: false),
                    stage_key = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    opened = table.Column<LocalDate>(type: "date", nullable: true),
                    passed = table.Column<LocalDate>(type: "date", nullable: true),
                    by_hand = table.Column<bool>(type: "boolean", nullable: false),
                    by = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: true),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_hire_stages", x => new { x.hire_id, x.stage_key });
                    table.ForeignKey(
                        name: "fk_hire_stages_hires_hire_id",
                        column: x => x.hire_id,
                        principalTable: "hires",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_hire_stages_hire_id",
                table: "hire_stages",
                column: "hire_id",
                filter: "by_hand");

            // Whatever changes a checklist asks for it to go on, in the transaction that changes it, by whichever way it comes: once for a hire and a
            // transaction. It is due at once, whatever clock the servers go by.
            migrationBuilder.Sql("""
                create function advance_checklists(hires uuid[]) returns void language sql as $$
                  insert into jobs (id, kind, argument, recurs, state, due, made_at, tries)
                  select gen_random_uuid(), 'checklist', h::text, false, 'Waiting', 'epoch', now(), 0 from (select distinct unnest(hires)) w(h)
                  where not exists (
                    select from jobs j where j.kind = 'checklist' and j.argument = h::text and j.state = 'Waiting' and j.made_at = now())
                $$;
                create function advance_on_task() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array(select distinct hire_id from touched));
                  return null;
                end $$;
                create function advance_on_hire() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array[new.id]);
                  return null;
                end $$;
                create trigger advance_added after insert on hire_tasks referencing new table as touched for each statement execute function advance_on_task();
                create trigger advance_changed after update on hire_tasks referencing new table as touched for each statement execute function advance_on_task();
                create trigger advance_removed after delete on hire_tasks referencing old table as touched for each statement execute function advance_on_task();
                create trigger advance after insert or update of start on hires for each row execute function advance_on_hire();
                create trigger announce after insert or update or delete on hire_stages for each row execute function announce_hire_task();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger announce on hire_stages;
                drop trigger advance on hires;
                drop trigger advance_removed on hire_tasks;
                drop trigger advance_changed on hire_tasks;
                drop trigger advance_added on hire_tasks;
                drop function advance_on_hire();
                drop function advance_on_task();
                drop function advance_checklists(uuid[]);
                """);

            migrationBuilder.DropTable(
                name: "hire_stages");

            migrationBuilder.DropColumn(
                name: "advanced_on",
                table: "firms");
        }
    }
}
