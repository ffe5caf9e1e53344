using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class TemplateVersions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                update role_templates set content = jsonb_build_object(
                  'name', name, 'addOn', when_field is not null, 'buildsOn', builds_on_code,
                  'when', when_field || ' == ''' || replace(when_value, '''', '\''') || '''', 'order', "order", 'opens', opens,
                  'values', content -> 'values', 'lists', jsonb_build_object('tasks', content -> 'tasks'));
                """);

            migrationBuilder.DropIndex(
                name: "ix_hire_tasks_owner",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "builds_on_code",
                table: "role_templates");

            migrationBuilder.DropColumn(
                name: "name",
                table: "role_templates");

            migrationBuilder.DropColumn(
                name: "opens",
                table: "role_templates");

            migrationBuilder.DropColumn(
                name: "order",
                table: "role_templates");

            migrationBuilder.DropColumn(
                name: "when_field",
                table: "role_templates");

            migrationBuilder.DropColumn(
                name: "when_value",
                table: "role_templates");

            migrationBuilder.RenameColumn(
                name: "content",
                table: "role_templates",
                newName: "spec");

            migrationBuilder.AddColumn<Guid>(
                name: "buddy_id",
                table: "records_now",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<LocalDate>(
                name: "entered",
                table: "hires",
                type: "date",
                nullable: false,
                defaultValue: new NodaTime.LocalDate(1, 1, 1));

            migrationBuilder.AddColumn<string[]>(
                name: "layers",
                table: "hires",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]);

            migrationBuilder.AddColumn<string>(
                name: "outcome",
                table: "hires",
                type: "character varying(20)",
                maxLength: 20,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "outcome_why",
                table: "hires",
                type: "character varying(500)",
                maxLength: 500,
                nullable: true);

            migrationBuilder.AddColumn<Guid[]>(
                name: "attachments",
                table: "hire_tasks",
                type: "uuid[]",
                nullable: false,
                defaultValue: new Guid[0]);

            migrationBuilder.AddColumn<string>(
                name: "contact",
                table: "hire_tasks",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "contact_why",
                table: "hire_tasks",
                type: "character varying(500)",
                maxLength: 500,
                nullable: true);

            migrationBuilder.CreateTable(
                name: "hire_entries",
                columns: table => new
                {
                    hire_id = table.Column<Guid>(type: "uuid", nullable: false),
                    list = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    key = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    properties = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_hire_entries", x => new { x.hire_id, x.list, x.key });
                    table.ForeignKey(
                        name: "fk_hire_entries_hires_hire_id",
                        column: x => x.hire_id,
                        principalTable: "hires",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "shared_tasks",
                columns: table => new
                {
                    key = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    properties = table.Column<string>(type: "jsonb", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_shared_tasks", x => x.key);
                });

            migrationBuilder.CreateTable(
                name: "template_drafts",
                columns: table => new
                {
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    spec = table.Column<string>(type: "jsonb", nullable: false),
                    based_on = table.Column<int>(type: "integer", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_template_drafts", x => x.code);
                });

            migrationBuilder.CreateTable(
                name: "template_update_runs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    undone = table.Column<bool>(type: "boolean", nullable: false),
                    hires = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_template_update_runs", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "template_versions",
                columns: table => new
                {
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    version = table.Column<int>(type: "integer", nullable: false),
                    spec = table.Column<string>(type: "jsonb", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_template_versions", x => new { x.code, x.version });
                });

            migrationBuilder.CreateIndex(
                name: "ix_hire_tasks_owner",
                table: "hire_tasks",
                column: "owner")
                .Annotation("Npgsql:IndexOperators", new[] { "text_pattern_ops" });

            // What was not kept before is taken to have been as it is now.
            migrationBuilder.Sql("""
                insert into template_versions (code, version, spec, at, by_name)
                select code, version, spec, now(), '' from role_templates;

                with recursive chain (template, code, version, builds_on, depth) as (
                  select code, code, version, spec ->> 'buildsOn', 0 from role_templates
                  union all
                  select c.template, t.code, t.version, t.spec ->> 'buildsOn', c.depth + 1 from chain c join role_templates t on t.code = c.builds_on where c.depth < 50
                )
                update hires h set
                  layers = array(select 'template:' || c.code || '@' || c.version from chain c where c.template = h.template_code order by c.depth desc)
                    || array(select distinct v.source::text from record_values v where v.owner_id = h.employment_id and v.source like 'addOn:%' order by 1),
                  entered = coalesce((select min(c.at)::date from changes c where c.subject_id = h.id and c.action = 'hire.opened'), h.accepted);

                update records_now r set buddy_id = (v.value #>> '{}')::uuid from record_values v
                where v.owner_id = r.employment_id and v.field = 'buddy' and upper_inf(v.known) and v.effective @> r.as_of;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "hire_entries");

            migrationBuilder.DropTable(
                name: "shared_tasks");

            migrationBuilder.DropTable(
                name: "template_drafts");

            migrationBuilder.DropTable(
                name: "template_update_runs");

            migrationBuilder.DropTable(
                name: "template_versions");

            migrationBuilder.DropIndex(
                name: "ix_hire_tasks_owner",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "buddy_id",
                table: "records_now");

            migrationBuilder.DropColumn(
                name: "entered",
                table: "hires");

            migrationBuilder.DropColumn(
                name: "layers",
                table: "hires");

            migrationBuilder.DropColumn(
                name: "outcome",
                table: "hires");

            migrationBuilder.DropColumn(
                name: "outcome_why",
                table: "hires");

            migrationBuilder.DropColumn(
                name: "attachments",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "contact",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "contact_why",
                table: "hire_tasks");

            migrationBuilder.RenameColumn(
                name: "spec",
                table: "role_templates",
                newName: "content");

            migrationBuilder.AddColumn<string>(
                name: "builds_on_code",
                table: "role_templates",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "name",
                table: "role_templates",
                type: "character varying(200)",
                maxLength: 200,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "opens",
                table: "role_templates",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "order",
                table: "role_templates",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "when_field",
                table: "role_templates",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "when_value",
                table: "role_templates",
                type: "text",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_hire_tasks_owner",
                table: "hire_tasks",
                column: "owner",
                filter: "done is null and skipped_why is null");
        }
    }
}
