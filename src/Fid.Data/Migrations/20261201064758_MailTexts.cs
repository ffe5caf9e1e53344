using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class MailTexts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Instant>(
                name: "settled_at",
                table: "mail_messages",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "settled_by",
                table: "mail_messages",
                type: "character varying(200)",
                maxLength: 200,
                nullable: true);

            migrationBuilder.CreateTable(
                name: "mail_texts",
                columns: table => new
                {
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    language = table.Column<string>(type: "character varying(2)", maxLength: 2, nullable: false),
                    subject = table.Column<string>(type: "character varying(1000)", maxLength: 1000, nullable: false),
                    text = table.Column<string>(type: "character varying(20000)", maxLength: 20000, nullable: false),
                    html = table.Column<string>(type: "character varying(60000)", maxLength: 60000, nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_mail_texts", x => new { x.kind, x.language });
                });

            migrationBuilder.CreateIndex(
                name: "ix_mail_messages_at1",
                table: "mail_messages",
                column: "at",
                filter: "refused is not null and settled_at is null");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "mail_texts");

            migrationBuilder.DropIndex(
                name: "ix_mail_messages_at1",
                table: "mail_messages");

            migrationBuilder.DropColumn(
                name: "settled_at",
                table: "mail_messages");

            migrationBuilder.DropColumn(
                name: "settled_by",
                table: "mail_messages");
        }
    }
}
