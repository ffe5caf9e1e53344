using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class TaskKinds : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string[]>(
                name: "about",
                table: "hire_tasks",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<string>(
                name: "kind",
                table: "hire_tasks",
                type: "character varying(20)",
                maxLength: 20,
                nullable: false,
                defaultValue: "ToDo");

            migrationBuilder.Sql("""
                create function advance_on_record() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array(
                    select p.hire_id from hire_people p join hires h on h.id = p.hire_id
                    where h.closed is null
                      and (p.employment_id in (select owner_id from touched) or p.person_id in (select owner_id from touched))
                      and exists (select from hire_tasks t where t.hire_id = h.id and t.kind in ('Fill', 'Issue', 'Certify'))));
                  return null;
                end $$;
                create trigger advance_added after insert on record_values referencing new table as touched for each statement
                  execute function advance_on_record();
                create trigger advance_changed after update on record_values referencing new table as touched for each statement
                  execute function advance_on_record();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger advance_changed on record_values;
                drop trigger advance_added on record_values;
                drop function advance_on_record();
                """);

            migrationBuilder.DropColumn(
                name: "about",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "kind",
                table: "hire_tasks");
        }
    }
}
