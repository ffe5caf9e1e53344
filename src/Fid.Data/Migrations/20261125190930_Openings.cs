using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Openings : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "bridge_days",
                table: "firms",
                type: "integer",
                nullable: false,
                defaultValue: 180);

            migrationBuilder.AddColumn<string>(
                name: "feed_address",
                table: "firms",
                type: "character varying(500)",
                maxLength: 500,
                nullable: true);

            migrationBuilder.CreateTable(
                name: "feed_runs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    tries = table.Column<int>(type: "integer", nullable: false),
                    candidates = table.Column<int>(type: "integer", nullable: false),
                    arrived = table.Column<int>(type: "integer", nullable: false),
                    changed = table.Column<int>(type: "integer", nullable: false),
                    trouble = table.Column<string[]>(type: "text[]", nullable: false),
                    succeeded = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_feed_runs", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "intake_candidates",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    source_id = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    state = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    now = table.Column<string>(type: "jsonb", nullable: false),
                    settled = table.Column<string>(type: "jsonb", nullable: true),
                    hire_id = table.Column<Guid>(type: "uuid", nullable: true),
                    arrived_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    changed_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake_candidates", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "notices",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    system = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    kind = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    hire_id = table.Column<Guid>(type: "uuid", nullable: false),
                    reference = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    number = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    start = table.Column<LocalDate>(type: "date", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    told_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    told_by = table.Column<string>(type: "text", nullable: true),
                    tries = table.Column<int>(type: "integer", nullable: false),
                    next_try = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    trouble = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_notices", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "person_merges",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    kept_id = table.Column<Guid>(type: "uuid", nullable: false),
                    other_id = table.Column<Guid>(type: "uuid", nullable: false),
                    employments = table.Column<Guid[]>(type: "uuid[]", nullable: false),
                    users = table.Column<Guid[]>(type: "uuid[]", nullable: false),
                    through = table.Column<Guid>(type: "uuid", nullable: false),
                    change_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    undone = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_person_merges", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_hire_tasks_contact",
                table: "hire_tasks",
                column: "contact",
                filter: "contact is not null")
                .Annotation("Npgsql:IndexOperators", new[] { "text_pattern_ops" });

            migrationBuilder.CreateIndex(
                name: "ix_intake_candidates_hire_id",
                table: "intake_candidates",
                column: "hire_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_intake_candidates_source_id",
                table: "intake_candidates",
                column: "source_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_notices_next_try",
                table: "notices",
                column: "next_try",
                filter: "told_at is null");

            migrationBuilder.CreateIndex(
                name: "ix_person_merges_kept_id",
                table: "person_merges",
                column: "kept_id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "feed_runs");

            migrationBuilder.DropTable(
                name: "intake_candidates");

            migrationBuilder.DropTable(
                name: "notices");

            migrationBuilder.DropTable(
                name: "person_merges");

            migrationBuilder.DropIndex(
                name: "ix_hire_tasks_contact",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "bridge_days",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "feed_address",
                table: "firms");
        }
    }
}
