using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Occasions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "occasion",
                table: "stages",
                type: "character varying(20)",
                maxLength: 20,
                nullable: false,
                defaultValue: "Arrival");

            migrationBuilder.AddColumn<string>(
                name: "occasion",
                table: "hires",
                type: "character varying(20)",
                maxLength: 20,
                nullable: false,
                defaultValue: "Arrival");

            migrationBuilder.AddColumn<Guid>(
                name: "record_change_id",
                table: "hires",
                type: "uuid",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_hires_employment_id_occasion",
                table: "hires",
                columns: new[] { "employment_id", "occasion" },
                unique: true,
                filter: "closed is null");

            migrationBuilder.CreateIndex(
                name: "ix_hires_record_change_id",
                table: "hires",
                column: "record_change_id",
                filter: "record_change_id is not null");

            migrationBuilder.AddForeignKey(
                name: "fk_hires_changes_record_change_id",
                table: "hires",
                column: "record_change_id",
                principalTable: "changes",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.Sql("""
                -- A firm that is set up gets the stages that others begin with.
                insert into stages (key, name, name_de, position, opens_anchor, opens_amount, opens_unit, waits_for, occasion)
                select s.* from (values
                  ('change-prepare', 'Before the change', 'Vor dem Wechsel', 10, null, 0, 0, '{}'::text[], 'JobChange'),
                  ('change-begin', 'In the new job', 'In der neuen Stelle', 11, 'start', 0, 0, '{change-prepare}', 'JobChange'),
                  ('leave-prepare', 'Hand over', 'Übergeben', 20, null, 0, 0, '{}', 'Leaving'),
                  ('leave-last-day', 'Last day', 'Letzter Tag', 21, 'start', 0, 0, '{}', 'Leaving'),
                  ('leave-after', 'Afterwards', 'Danach', 22, 'start', 1, 1, '{leave-last-day}', 'Leaving')) s
                where exists (select from stages);
                create or replace function advance_on_record() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array(
                    select p.hire_id from hire_people p join hires h on h.id = p.hire_id
                    where h.closed is null
                      and (p.employment_id in (select owner_id from touched) or p.person_id in (select owner_id from touched))
                      and exists (select from hire_tasks t where t.hire_id = h.id and t.kind in ('Fill', 'Issue', 'Return', 'Certify'))));
                  return null;
                end $$;
                -- A leaving is planned around the last day that the record says, whichever way it came to be said.
                create function leave_on_last_day() returns trigger language plpgsql as $$
                begin
                  update hires set start = new."end" where employment_id = new.id and occasion = 'Leaving' and closed is null and start <> new."end";
                  return null;
                end $$;
                create trigger leave_on_last_day after update of "end" on employments for each row
                  when (new."end" is distinct from old."end" and new."end" >= new.start) execute function leave_on_last_day();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                create or replace function advance_on_record() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array(
                    select p.hire_id from hire_people p join hires h on h.id = p.hire_id
                    where h.closed is null
                      and (p.employment_id in (select owner_id from touched) or p.person_id in (select owner_id from touched))
                      and exists (select from hire_tasks t where t.hire_id = h.id and t.kind in ('Fill', 'Issue', 'Certify'))));
                  return null;
                end $$;
                drop trigger leave_on_last_day on employments;
                drop function leave_on_last_day();
                delete from stages where occasion <> 'Arrival';
                """);

            migrationBuilder.DropForeignKey(
                name: "fk_hires_changes_record_change_id",
                table: "hires");

            migrationBuilder.DropIndex(
                name: "ix_hires_employment_id_occasion",
                table: "hires");

            migrationBuilder.DropIndex(
                name: "ix_hires_record_change_id",
                table: "hires");

            migrationBuilder.DropColumn(
                name: "occasion",
                table: "stages");

            migrationBuilder.DropColumn(
                name: "occasion",
                table: "hires");

            migrationBuilder.DropColumn(
                name: "record_change_id",
                table: "hires");
        }
    }
}
