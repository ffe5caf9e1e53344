using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Sensitive : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<byte[]>(
                name: "hash_key",
                table: "firms",
                type: "bytea",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "sealed_start",
                table: "record_values",
                type: "text",
                nullable: true,
                computedColumnSql: "case when value #>> array[]::text[] like 'sealed:%' then left(value #>> array[]::text[], 72) end",
                stored: true);

            migrationBuilder.CreateIndex(
                name: "ix_record_values_sealed_start",
                table: "record_values",
                column: "sealed_start",
                filter: "sealed_start is not null");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_record_values_sealed_start",
                table: "record_values");

            migrationBuilder.DropColumn(
                name: "sealed_start",
                table: "record_values");

            migrationBuilder.DropColumn(
                name: "hash_key",
                table: "firms");
        }
    }
}
