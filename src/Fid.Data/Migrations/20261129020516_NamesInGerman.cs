using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class NamesInGerman : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "name_de",
                table: "stages",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "name_de",
                table: "hire_tasks",
                type: "character varying(200)",
                maxLength: 200,
                nullable: true);

            // The stages that firms begin with, where they are called as they were.
            migrationBuilder.Sql("""
                update stages s set name_de = d.german from (values ('Prepare', 'Vorbereiten'), ('Arrive', 'Ankommen'), ('Settle', 'Einleben'), ('Confirm', 'Bestätigen')) d (english, german)
                where s.name = d.english;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "name_de",
                table: "stages");

            migrationBuilder.DropColumn(
                name: "name_de",
                table: "hire_tasks");
        }
    }
}
