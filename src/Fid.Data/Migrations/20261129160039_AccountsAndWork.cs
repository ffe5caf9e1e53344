using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class AccountsAndWork : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ticket",
                table: "user_sessions");

            migrationBuilder.AlterColumn<string>(
                name: "display_name",
                table: "users",
                type: "character varying(200)",
                maxLength: 200,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.AddColumn<Instant>(
                name: "disabled_at",
                table: "users",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "disabled_why",
                table: "users",
                type: "character varying(20)",
                maxLength: 20,
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "last_sign_in_at",
                table: "users",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "made_at",
                table: "users",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: NodaTime.Instant.FromUnixTimeTicks(0L));

            migrationBuilder.AddColumn<long>(
                name: "version",
                table: "users",
                type: "bigint",
                nullable: false,
                defaultValue: 1L);

            migrationBuilder.CreateTable(
                name: "account_links",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    ends_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_account_links", x => x.id);
                    table.ForeignKey(
                        name: "fk_account_links_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

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
                name: "ix_users_display_name_id",
                table: "users",
                columns: new[] { "display_name", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_users_person_id",
                table: "users",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_account_links_hash",
                table: "account_links",
                column: "hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_account_links_user_id",
                table: "account_links",
                column: "user_id",
                unique: true);

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

            // Newcomers whose hires are under way get the account that comes with a hire.
            migrationBuilder.Sql("""
                update users set made_at = now();
                insert into users (id, display_name, language, person_id, teams, made_at, security_stamp, email_confirmed, phone_number_confirmed, two_factor_enabled, lockout_enabled, access_failed_count)
                select gen_random_uuid(), left(trim(min(r.given_name || ' ' || r.family_name)), 200), 'en', r.person_id, '{}', now(), md5(random()::text), false, false, false, false, 0
                from hires h join records_now r on r.employment_id = h.employment_id
                where h.closed is null and not exists (select from users u where u.person_id = r.person_id)
                group by r.person_id;
                insert into user_roles (user_id, role_id)
                select u.id, r.id from users u cross join roles r where r.name = 'newcomer' and u.user_name is null;
                """);

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
                name: "account_links");

            migrationBuilder.DropTable(
                name: "job_runs");

            migrationBuilder.DropTable(
                name: "jobs");

            migrationBuilder.DropTable(
                name: "outbox");

            migrationBuilder.DropTable(
                name: "received");

            migrationBuilder.DropIndex(
                name: "ix_users_display_name_id",
                table: "users");

            migrationBuilder.DropIndex(
                name: "ix_users_person_id",
                table: "users");

            migrationBuilder.DropColumn(
                name: "disabled_at",
                table: "users");

            migrationBuilder.DropColumn(
                name: "disabled_why",
                table: "users");

            migrationBuilder.DropColumn(
                name: "last_sign_in_at",
                table: "users");

            migrationBuilder.DropColumn(
                name: "made_at",
                table: "users");

            migrationBuilder.DropColumn(
                name: "version",
                table: "users");

            migrationBuilder.AlterColumn<string>(
                name: "display_name",
                table: "users",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(200)",
                oldMaxLength: 200);

            migrationBuilder.AddColumn<byte[]>(
                name: "ticket",
                table: "user_sessions",
                type: "bytea",
                nullable: false,
                defaultValue: new byte[0]);

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
