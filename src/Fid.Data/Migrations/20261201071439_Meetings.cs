using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Meetings : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "calendar",
                table: "mail_messages",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "calendar_method",
                table: "mail_messages",
                type: "character varying(10)",
                maxLength: 10,
                nullable: true);

            migrationBuilder.AddColumn<LocalTime>(
                name: "meets_at",
                table: "hire_tasks",
                type: "time",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "minutes",
                table: "hire_tasks",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "place",
                table: "hire_tasks",
                type: "character varying(200)",
                maxLength: 200,
                nullable: true);

            migrationBuilder.CreateTable(
                name: "task_invitations",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    hire_id = table.Column<Guid>(type: "uuid", nullable: false),
                    task_key = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    account_id = table.Column<Guid>(type: "uuid", nullable: false),
                    what = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    whom = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: true),
                    day = table.Column<LocalDate>(type: "date", nullable: false),
                    at = table.Column<LocalTime>(type: "time", nullable: false),
                    minutes = table.Column<int>(type: "integer", nullable: false),
                    place = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: true),
                    sequence = table.Column<int>(type: "integer", nullable: false),
                    cancelled = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_task_invitations", x => x.id);
                    table.ForeignKey(
                        name: "fk_task_invitations_hires_hire_id",
                        column: x => x.hire_id,
                        principalTable: "hires",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_hire_tasks_hire_id",
                table: "hire_tasks",
                column: "hire_id",
                filter: "meets_at is not null");

            migrationBuilder.CreateIndex(
                name: "ix_task_invitations_hire_id_task_key_account_id",
                table: "task_invitations",
                columns: new[] { "hire_id", "task_key", "account_id" },
                unique: true);

            // A hire that is closed has its invitations called off. Those who meet are told by a server that knows of a mail server: where there is
            // none, one job of a hire waits.
            migrationBuilder.Sql("""
                drop trigger advance on hires;
                create trigger advance after insert or update of start, closed on hires for each row execute function advance_on_hire();
                create or replace function advance_checklists(hires uuid[]) returns void language sql as $$
                  insert into jobs (id, kind, argument, recurs, state, due, made_at, tries)
                  select gen_random_uuid(), 'checklist', h::text, false, 'Waiting', 'epoch', now(), 0 from (select distinct unnest(hires)) w(h)
                  where not exists (
                    select from jobs j where j.kind = 'checklist' and j.argument = h::text and j.state = 'Waiting' and j.made_at = now());
                  insert into jobs (id, kind, argument, recurs, state, due, made_at, tries)
                  select gen_random_uuid(), 'invitations', h::text, false, 'Waiting', 'epoch', now(), 0 from (select distinct unnest(hires)) w(h)
                  where (exists (select from hire_tasks t where t.hire_id = h and t.meets_at is not null)
                      or exists (select from task_invitations i where i.hire_id = h and not i.cancelled))
                    and not exists (select from jobs j where j.kind = 'invitations' and j.argument = h::text and j.state = 'Waiting');
                $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger advance on hires;
                create trigger advance after insert or update of start on hires for each row execute function advance_on_hire();
                create or replace function advance_checklists(hires uuid[]) returns void language sql as $$
                  insert into jobs (id, kind, argument, recurs, state, due, made_at, tries)
                  select gen_random_uuid(), 'checklist', h::text, false, 'Waiting', 'epoch', now(), 0 from (select distinct unnest(hires)) w(h)
                  where not exists (
                    select from jobs j where j.kind = 'checklist' and j.argument = h::text and j.state = 'Waiting' and j.made_at = now())
                $$;
                """);

            migrationBuilder.DropTable(
                name: "task_invitations");

            migrationBuilder.DropIndex(
                name: "ix_hire_tasks_hire_id",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "calendar",
                table: "mail_messages");

            migrationBuilder.DropColumn(
                name: "calendar_method",
                table: "mail_messages");

            migrationBuilder.DropColumn(
                name: "meets_at",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "minutes",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "place",
                table: "hire_tasks");
        }
    }
}
