using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Work : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "job_runs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    job_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    argument = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: true),
                    started_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    ended_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    handled = table.Column<int>(type: "integer", nullable: false),
                    trouble = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_job_runs", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "jobs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    argument = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: true),
                    recurs = table.Column<bool>(type: "boolean", nullable: false),
                    state = table.Column<string>(type: "character varying(10)", maxLength: 10, nullable: false),
                    due = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    tries = table.Column<int>(type: "integer", nullable: false),
                    trouble = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true),
                    started_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_jobs", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "outbox",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    channel = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    recipient = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    payload = table.Column<string>(type: "jsonb", nullable: false),
                    hire_id = table.Column<Guid>(type: "uuid", nullable: true),
                    cause_id = table.Column<Guid>(type: "uuid", nullable: true),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    sent_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    sent_by = table.Column<string>(type: "text", nullable: true),
                    tries = table.Column<int>(type: "integer", nullable: false),
                    next_try = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    trouble = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_outbox", x => x.id);
                    table.ForeignKey(
                        name: "fk_outbox_changes_cause_id",
                        column: x => x.cause_id,
                        principalTable: "changes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_outbox_hires_hire_id",
                        column: x => x.hire_id,
                        principalTable: "hires",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "received",
                columns: table => new
                {
                    source = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    external_id = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    content = table.Column<byte[]>(type: "bytea", nullable: false),
                    first_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    changed_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_received", x => new { x.source, x.external_id });
                });

            migrationBuilder.CreateIndex(
                name: "ix_job_runs_ended_at",
                table: "job_runs",
                column: "ended_at");

            migrationBuilder.CreateIndex(
                name: "ix_jobs_due",
                table: "jobs",
                column: "due");

            migrationBuilder.CreateIndex(
                name: "ix_jobs_kind",
                table: "jobs",
                column: "kind",
                unique: true,
                filter: "recurs");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_at",
                table: "outbox",
                column: "at");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_cause_id",
                table: "outbox",
                column: "cause_id");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_channel_next_try",
                table: "outbox",
                columns: new[] { "channel", "next_try" },
                filter: "sent_at is null");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_hire_id",
                table: "outbox",
                column: "hire_id");

            // What waits to be told goes on waiting; what was told stays told.
            migrationBuilder.Sql("""
                insert into outbox (id, channel, recipient, payload, hire_id, at, sent_at, sent_by, tries, next_try, trouble)
                select n.id, n.system, n.reference, jsonb_build_object('kind', n.kind, 'number', n.number, 'start', n.start), h.id, n.at, n.told_at, n.told_by, n.tries, n.next_try, n.trouble
                from notices n left join hires h on h.id = n.hire_id;
                drop table notices;

                create function announce_job() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_jobs', '');
                  return null;
                end $$;
                create trigger announce after insert or update of due on jobs for each row when (new.state = 'Waiting' and new.due <= clock_timestamp()) execute function announce_job();
                insert into jobs (id, kind, argument, recurs, state, due, made_at, tries)
                select gen_random_uuid(), 'import', id::text, false, 'Waiting', now(), now(), 0 from import_runs where state in ('Reading', 'Checking', 'Committing', 'Undoing');
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("drop trigger announce on jobs; drop function announce_job();");

            migrationBuilder.DropTable(
                name: "job_runs");

            migrationBuilder.DropTable(
                name: "jobs");

            migrationBuilder.DropTable(
                name: "outbox");

            migrationBuilder.DropTable(
                name: "received");

            migrationBuilder.CreateTable(
                name: "notices",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    hire_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    next_try = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    number = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    reference = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    start = table.Column<LocalDate>(type: "date", nullable: false),
                    system = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    told_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    told_by = table.Column<string>(type: "text", nullable: true),
                    tries = table.Column<int>(type: "integer", nullable: false),
                    trouble = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_notices", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_notices_next_try",
                table: "notices",
                column: "next_try",
                filter: "told_at is null");
        }
    }
}
