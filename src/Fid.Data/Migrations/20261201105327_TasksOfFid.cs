using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class TasksOfFid : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string[]>(
                name: "set_fields",
                table: "hire_tasks",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<string[]>(
                name: "set_formulas",
                table: "hire_tasks",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<LocalDate>(
                name: "tried_on",
                table: "hire_tasks",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "tried_with",
                table: "hire_tasks",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "trouble",
                table: "hire_tasks",
                type: "character varying(500)",
                maxLength: 500,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "trouble_code",
                table: "hire_tasks",
                type: "character varying(200)",
                maxLength: 200,
                nullable: true);

            migrationBuilder.Sql("""
                create or replace function advance_on_record() returns trigger language plpgsql as $$
                begin
                  perform advance_checklists(array(
                    select p.hire_id from hire_people p join hires h on h.id = p.hire_id
                    where h.closed is null
                      and (p.employment_id in (select owner_id from touched) or p.person_id in (select owner_id from touched))
                      and (exists (select from hire_tasks t where t.hire_id = h.id and (t.kind in ('Fill', 'Issue', 'Return', 'Certify', 'Run') or t."when" is not null))
                        or exists (select from hire_entries e where e.hire_id = h.id and e.list = 'stages'))));
                  return null;
                end $$;
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
                      and (exists (select from hire_tasks t where t.hire_id = h.id and (t.kind in ('Fill', 'Issue', 'Return', 'Certify') or t."when" is not null))
                        or exists (select from hire_entries e where e.hire_id = h.id and e.list = 'stages'))));
                  return null;
                end $$;
                """);

            migrationBuilder.DropColumn(
                name: "set_fields",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "set_formulas",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "tried_on",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "tried_with",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "trouble",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "trouble_code",
                table: "hire_tasks");
        }
    }
}
