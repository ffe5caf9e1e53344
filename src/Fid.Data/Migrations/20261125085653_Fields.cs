using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Fields : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "of",
                table: "records_now",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            // Records were projected with the 29 fields there were; each is projected anew when it is next saved.
            migrationBuilder.Sql("update records_now set \"of\" = 29");

            migrationBuilder.CreateTable(
                name: "field_drafts",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false),
                    configuration = table.Column<string>(type: "jsonb", nullable: false),
                    based_on = table.Column<int>(type: "integer", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_id = table.Column<Guid>(type: "uuid", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_field_drafts", x => x.id);
                    table.CheckConstraint("one_draft", "id = 1");
                });

            migrationBuilder.CreateTable(
                name: "field_versions",
                columns: table => new
                {
                    version = table.Column<int>(type: "integer", nullable: false),
                    configuration = table.Column<string>(type: "jsonb", nullable: false),
                    hash = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_field_versions", x => x.version);
                });

            // Who uses an entry is asked for by field, of values that may be lists.
            migrationBuilder.Sql("""
                drop index ix_record_values_believed;
                create index ix_record_values_of_field on record_values (field);
                create function announce_fields() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'fields');
                  return null;
                end $$;
                create trigger announce after insert on field_versions for each statement execute function announce_fields();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger announce on field_versions;
                drop function announce_fields();
                drop index ix_record_values_of_field;
                create index ix_record_values_believed on record_values (field, (value #>> array[]::text[])) where upper_inf(known);
                """);

            migrationBuilder.DropTable(
                name: "field_drafts");

            migrationBuilder.DropTable(
                name: "field_versions");

            migrationBuilder.DropColumn(
                name: "of",
                table: "records_now");
        }
    }
}
