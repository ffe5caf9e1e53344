using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class TaskConditions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "skipped_by_condition",
                table: "hire_tasks",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "when",
                table: "hire_tasks",
                type: "character varying(1000)",
                maxLength: 1000,
                nullable: true);

            migrationBuilder.Sql("""
                create or replace function advance_on_record() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array(
                    select p.hire_id from hire_people p join hires h on h.id = p.hire_id
                    where h.closed is null
                      and (p.employment_id in (select owner_id from touched) or p.person_id in (select owner_id from touched))
                      and (exists (select from hire_tasks t where t.hire_id = h.id and (t.kind in ('Fill', 'Issue', 'Return', 'Certify') or t."when" is not null))
                        or exists (select from hire_entries e where e.hire_id = h.id and e.list = 'stages'))));
                  return null;
                end $$;
                create function advance_on_entry() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array(select distinct hire_id from touched where list = 'stages'));
                  return null;
                end $$;
                create trigger advance_added after insert on hire_entries referencing new table as touched for each statement
                  execute function advance_on_entry();
                create trigger advance_removed after delete on hire_entries referencing old table as touched for each statement
                  execute function advance_on_entry();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger advance_removed on hire_entries;
                drop trigger advance_added on hire_entries;
                drop function advance_on_entry();
                create or replace function advance_on_record() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array(
                    select p.hire_id from hire_people p join hires h on h.id = p.hire_id
                    where h.closed is null
                      and (p.employment_id in (select owner_id from touched) or p.person_id in (select owner_id from touched))
                      and (exists (select from hire_tasks t where t.hire_id = h.id and t.kind in ('Fill', 'Issue', 'Return', 'Certify')))));
                  return null;
                end $$;
                """);

            migrationBuilder.DropColumn(
                name: "skipped_by_condition",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "when",
                table: "hire_tasks");
        }
    }
}
