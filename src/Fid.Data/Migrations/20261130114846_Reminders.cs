using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Reminders : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "escalate_after",
                table: "firms",
                type: "integer",
                nullable: true,
                defaultValue: 3);

            migrationBuilder.AddColumn<LocalTime>(
                name: "remind_at",
                table: "firms",
                type: "time",
                nullable: false,
                defaultValueSql: "'07:00'");

            migrationBuilder.AddColumn<int[]>(
                name: "remind_before",
                table: "firms",
                type: "integer[]",
                nullable: false,
                defaultValueSql: "'{5,1}'");

            migrationBuilder.AddColumn<int>(
                name: "remind_every",
                table: "firms",
                type: "integer",
                nullable: false,
                defaultValue: 2);

            migrationBuilder.AddColumn<int>(
                name: "remind_most",
                table: "firms",
                type: "integer",
                nullable: false,
                defaultValue: 3);

            migrationBuilder.AddColumn<bool>(
                name: "remind_on_due",
                table: "firms",
                type: "boolean",
                nullable: false,
                defaultValue: true);

            migrationBuilder.AddColumn<LocalDate>(
                name: "reminded_on",
                table: "firms",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "reminders_paused",
                table: "firms",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "mail_messages",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    account_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    address = table.Column<string>(type: "text", nullable: false),
                    subject = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    text = table.Column<string>(type: "text", nullable: false),
                    html = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    sent_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    refused = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_mail_messages", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "task_reminders",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    task_id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<int>(type: "integer", nullable: false),
                    day = table.Column<LocalDate>(type: "date", nullable: false),
                    message_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_task_reminders", x => x.id);
                    table.ForeignKey(
                        name: "fk_task_reminders_hire_tasks_task_id",
                        column: x => x.task_id,
                        principalTable: "hire_tasks",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_task_reminders_mail_messages_message_id",
                        column: x => x.message_id,
                        principalTable: "mail_messages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_mail_messages_account_id",
                table: "mail_messages",
                column: "account_id");

            migrationBuilder.CreateIndex(
                name: "ix_mail_messages_at",
                table: "mail_messages",
                column: "at");

            migrationBuilder.CreateIndex(
                name: "ix_task_reminders_message_id",
                table: "task_reminders",
                column: "message_id");

            migrationBuilder.CreateIndex(
                name: "ix_task_reminders_task_id_owner_id_kind_day",
                table: "task_reminders",
                columns: new[] { "task_id", "owner_id", "kind", "day" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "task_reminders");

            migrationBuilder.DropTable(
                name: "mail_messages");

            migrationBuilder.DropColumn(
                name: "escalate_after",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "remind_at",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "remind_before",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "remind_every",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "remind_most",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "remind_on_due",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "reminded_on",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "reminders_paused",
                table: "firms");
        }
    }
}
