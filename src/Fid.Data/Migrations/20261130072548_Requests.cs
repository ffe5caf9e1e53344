using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Requests : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "record_requests",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    employment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    asked_by_id = table.Column<Guid>(type: "uuid", nullable: false),
                    asked_by_name = table.Column<string>(type: "text", nullable: false),
                    asked_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    from = table.Column<LocalDate>(type: "date", nullable: true),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    changes = table.Column<string>(type: "jsonb", nullable: false),
                    steps = table.Column<string>(type: "jsonb", nullable: false),
                    state = table.Column<string>(type: "character varying(12)", maxLength: 12, nullable: false),
                    ended = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    asked_again = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_record_requests", x => x.id);
                    table.ForeignKey(
                        name: "fk_record_requests_asp_net_users_asked_by_id",
                        column: x => x.asked_by_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_record_requests_employments_employment_id",
                        column: x => x.employment_id,
                        principalTable: "employments",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_record_requests_asked_by_id_asked_at",
                table: "record_requests",
                columns: new[] { "asked_by_id", "asked_at" });

            migrationBuilder.CreateIndex(
                name: "ix_record_requests_waiting",
                table: "record_requests",
                column: "employment_id",
                filter: "state = 'Waiting'");

            migrationBuilder.Sql("""
                create function announce_request() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'requests');
                  return null;
                end $$;
                create trigger announce after insert or update on record_requests for each row execute function announce_request();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "record_requests");
            migrationBuilder.Sql("drop function announce_request();");
        }
    }
}
