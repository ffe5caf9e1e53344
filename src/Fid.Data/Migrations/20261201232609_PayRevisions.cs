using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class PayRevisions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "pay_revisions",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    from = table.Column<LocalDate>(type: "date", nullable: false),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    group = table.Column<string>(type: "jsonb", nullable: false),
                    percent = table.Column<decimal>(type: "numeric", nullable: false),
                    at_least_hourly = table.Column<decimal>(type: "numeric", nullable: false),
                    up_to_band = table.Column<bool>(type: "boolean", nullable: false),
                    budget = table.Column<decimal>(type: "numeric", nullable: false),
                    employments = table.Column<Guid[]>(type: "uuid[]", nullable: false),
                    undone_by_name = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pay_revisions", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_pay_revisions_at",
                table: "pay_revisions",
                column: "at");

            migrationBuilder.Sql(
                "create trigger announce after insert or update or delete on pay_revisions for each statement execute function announce_pay_check();"
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "pay_revisions");
        }
    }
}
