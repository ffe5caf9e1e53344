using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class EmployeeNumbers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "number_pattern",
                table: "firms",
                type: "character varying(100)",
                maxLength: 100,
                nullable: false,
                defaultValue: "{number}");

            migrationBuilder.CreateTable(
                name: "number_counters",
                columns: table => new
                {
                    year = table.Column<int>(type: "integer", nullable: false),
                    last = table.Column<long>(type: "bigint", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_number_counters", x => x.year);
                });

            // Numbers run on from where the sequence was.
            migrationBuilder.Sql("insert into number_counters (year, last) select 0, last_value from employment_numbers where is_called");

            migrationBuilder.DropSequence(
                name: "employment_numbers");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "number_counters");

            migrationBuilder.DropColumn(
                name: "number_pattern",
                table: "firms");

            migrationBuilder.CreateSequence(
                name: "employment_numbers",
                startValue: 1001L);
        }
    }
}
