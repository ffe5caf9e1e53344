using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class TasksOfFid : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string[]>(
                name: "set_fields",
                table: "hire_tasks",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<string[]>(
                name: "set_formulas",
                table: "hire_tasks",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<LocalDate>(
                name: "tried_on",
                table: "hire_tasks",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "tried_with",
                table: "hire_tasks",
                type: "bigint",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "trouble",
                table: "hire_tasks",
                type: "character varying(500)",
                maxLength: 500,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "trouble_code",
                table: "hire_tasks",
                type: "character varying(200)",
                maxLength: 200,
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "set_fields",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "set_formulas",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "tried_on",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "tried_with",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "trouble",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "trouble_code",
                table: "hire_tasks");
        }
    }
}
