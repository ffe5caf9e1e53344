using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class RunChecklists : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "run_checklists",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    pay_group = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    period = table.Column<LocalDate>(type: "date", nullable: false),
                    template_code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    template_version = table.Column<int>(type: "integer", nullable: false),
                    layers = table.Column<string[]>(type: "text[]", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_run_checklists", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "run_tasks",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    checklist_id = table.Column<Guid>(type: "uuid", nullable: false),
                    key = table.Column<string>(type: "text", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    name_de = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: true),
                    stage_key = table.Column<string>(type: "text", nullable: false),
                    owner = table.Column<string>(type: "text", nullable: false),
                    calendar_code = table.Column<string>(type: "text", nullable: false),
                    work = table.Column<int>(type: "integer", nullable: false),
                    opens_anchor = table.Column<string>(type: "text", nullable: true),
                    opens_amount = table.Column<int>(type: "integer", nullable: false),
                    opens_unit = table.Column<int>(type: "integer", nullable: false),
                    due_anchor = table.Column<string>(type: "text", nullable: true),
                    due_amount = table.Column<int>(type: "integer", nullable: false),
                    due_unit = table.Column<int>(type: "integer", nullable: false),
                    after = table.Column<string[]>(type: "text[]", nullable: false),
                    lags = table.Column<int[]>(type: "integer[]", nullable: false),
                    required = table.Column<bool>(type: "boolean", nullable: false),
                    instructions = table.Column<string>(type: "text", nullable: true),
                    instructions_de = table.Column<string>(type: "text", nullable: true),
                    done = table.Column<LocalDate>(type: "date", nullable: true),
                    done_by = table.Column<string>(type: "text", nullable: true),
                    skipped_why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_run_tasks", x => x.id);
                    table.ForeignKey(
                        name: "fk_run_tasks_run_checklists_checklist_id",
                        column: x => x.checklist_id,
                        principalTable: "run_checklists",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_run_checklists_pay_group_period",
                table: "run_checklists",
                columns: new[] { "pay_group", "period" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_run_tasks_checklist_id_key",
                table: "run_tasks",
                columns: new[] { "checklist_id", "key" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_run_tasks_owner",
                table: "run_tasks",
                column: "owner",
                filter: "done is null and skipped_why is null")
                .Annotation("Npgsql:IndexOperators", new[] { "text_pattern_ops" });

            migrationBuilder.Sql(
                """
                -- A firm that is set up gets the stages that others begin with.
                insert into stages (key, name, name_de, position, opens_anchor, opens_amount, opens_unit, waits_for, occasion)
                select s.* from (values
                  ('run-gather', 'Before the cut-off', 'Vor dem Stichtag', 30, null, 0, 0, '{}'::text[], 'PayRun'),
                  ('run-check', 'Before the hand-over', 'Vor der Übergabe', 31, null, 0, 0, '{}', 'PayRun'),
                  ('run-after', 'After the hand-over', 'Nach der Übergabe', 32, null, 0, 0, '{run-gather,run-check}', 'PayRun')) s
                where exists (select from stages);
                create trigger announce after insert or delete on run_checklists for each statement execute function announce_pay_check();
                create trigger announce after insert or update or delete on run_tasks for each statement execute function announce_pay_check();
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("delete from stages where occasion = 'PayRun';");

            migrationBuilder.DropTable(
                name: "run_tasks");

            migrationBuilder.DropTable(
                name: "run_checklists");
        }
    }
}
