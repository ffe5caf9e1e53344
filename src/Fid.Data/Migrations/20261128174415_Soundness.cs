using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Soundness : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<byte[]>(
                name: "sealed_key",
                table: "import_runs",
                type: "bytea",
                nullable: true);

            migrationBuilder.AddColumn<LocalDate>(
                name: "turned_on",
                table: "firms",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "asked_by_id",
                table: "field_drafts",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "asked_by_name",
                table: "field_drafts",
                type: "text",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "done_acts",
                columns: table => new
                {
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    key = table.Column<Guid>(type: "uuid", nullable: false),
                    request = table.Column<byte[]>(type: "bytea", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_done_acts", x => new { x.user_id, x.key });
                });

            migrationBuilder.CreateTable(
                name: "sign_in_tries",
                columns: table => new
                {
                    key = table.Column<byte[]>(type: "bytea", nullable: false),
                    failures = table.Column<int>(type: "integer", nullable: false),
                    not_before = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sign_in_tries", x => x.key);
                });

            migrationBuilder.CreateTable(
                name: "user_sessions",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    key_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    started_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    ends_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    ended_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    address = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    browser = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    ticket = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_user_sessions", x => x.id);
                    table.ForeignKey(
                        name: "fk_user_sessions_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_done_acts_at",
                table: "done_acts",
                column: "at");

            migrationBuilder.CreateIndex(
                name: "ix_user_sessions_key_hash",
                table: "user_sessions",
                column: "key_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_user_sessions_user_id_ends_at",
                table: "user_sessions",
                columns: new[] { "user_id", "ends_at" });

            migrationBuilder.Sql("""
                -- What came with sheets is sealed from now on. What lies there in the open goes: whoever was in the middle of an import begins anew.
                delete from import_pieces;
                delete from import_rows r using import_runs u where u.id = r.run_id and u.state <> 'Committed';
                delete from import_rows r using import_runs u where u.id = r.run_id and u.list = 'people';
                update import_runs set state = 'Dropped' where state in ('Reading', 'Ready', 'Checking', 'Failed');
                alter table import_rows drop column cells, drop column problems;
                alter table import_rows add column cells bytea, add column problems bytea;
                update import_rows set code = null, name = null, name_de = null, values = null, before = null;

                -- Open streams of a session that ended hear of it at once.
                create function announce_session() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'session:' || new.id);
                  return null;
                end $$;
                create trigger announce after update of ended_at on user_sessions for each row when (new.ended_at is not null) execute function announce_session();

                -- Equal values of a field, as unique fields ask for them.
                create index ix_record_values_equal on record_values (field, md5(value #>> array[]::text[])) where upper_inf(known);
                -- What was entered ahead of the day it begins, and what ends: by these the day turns.
                create index ix_record_values_begins on record_values (lower(effective)) where upper_inf(known) and lower(effective) > (lower(known) at time zone 'UTC')::date;
                create index ix_record_values_ends on record_values (upper(effective)) where upper_inf(known) and not upper_inf(effective);
                -- The highest badge, and the longest.
                create index ix_record_values_highest_badge on record_values (lpad(value #>> array[]::text[], 20, '0')) where field = 'badge';
                create index ix_record_values_longest_badge on record_values (length(value #>> array[]::text[])) where field = 'badge';
                -- Tasks that a person owns or helps with: few of all.
                create index ix_hire_tasks_owned_by_person on hire_tasks (owner) where owner like 'person:%';
                create index ix_hire_tasks_contact_person on hire_tasks (contact) where contact like 'person:%';
                create index ix_feed_runs_at on feed_runs (at);
                create index ix_records_now_department on records_now (department_code);
                create index ix_records_now_site on records_now (site_code);
                create index ix_records_now_job on records_now (job_code, department_code);
                create index ix_changes_action on changes (action, at);
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop index ix_record_values_equal, ix_record_values_begins, ix_record_values_ends, ix_record_values_highest_badge, ix_record_values_longest_badge, ix_hire_tasks_owned_by_person,
                  ix_hire_tasks_contact_person, ix_feed_runs_at, ix_records_now_department, ix_records_now_site, ix_records_now_job, ix_changes_action;
                drop trigger announce on user_sessions;
                drop function announce_session();
                delete from import_rows;
                alter table import_rows drop column cells, drop column problems;
                alter table import_rows add column cells text[] not null, add column problems jsonb;
                """);

            migrationBuilder.DropTable(
                name: "done_acts");

            migrationBuilder.DropTable(
                name: "sign_in_tries");

            migrationBuilder.DropTable(
                name: "user_sessions");

            migrationBuilder.DropColumn(
                name: "sealed_key",
                table: "import_runs");

            migrationBuilder.DropColumn(
                name: "turned_on",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "asked_by_id",
                table: "field_drafts");

            migrationBuilder.DropColumn(
                name: "asked_by_name",
                table: "field_drafts");
        }
    }
}
