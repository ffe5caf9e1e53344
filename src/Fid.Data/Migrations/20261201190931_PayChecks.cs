using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class PayChecks : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "pay_checks",
                columns: table => new
                {
                    employment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    pay_group = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    period = table.Column<LocalDate>(type: "date", nullable: false),
                    seen = table.Column<string>(type: "jsonb", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pay_checks", x => new { x.pay_group, x.period, x.employment_id });
                    table.ForeignKey(
                        name: "fk_pay_checks_employments_employment_id",
                        column: x => x.employment_id,
                        principalTable: "employments",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_pay_checks_employment_id",
                table: "pay_checks",
                column: "employment_id");

            migrationBuilder.Sql(
                """
                create function announce_pay_check() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'pay');
                  return null;
                end $$;
                create trigger announce after insert or update or delete on pay_checks for each statement execute function announce_pay_check();
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "pay_checks");
            migrationBuilder.Sql("drop function announce_pay_check();");
        }
    }
}
