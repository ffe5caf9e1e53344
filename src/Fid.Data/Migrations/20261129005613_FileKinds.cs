using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class FileKinds : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "kind",
                table: "stored_files",
                type: "character varying(20)",
                maxLength: 20,
                nullable: true);
            // What was kept before: pictures and PDFs are told by what they were found to be; documents were not told from the rest.
            migrationBuilder.Sql("""
                update stored_files set kind = case when media_type = 'application/pdf' then 'Pdf' else 'Picture' end where media_type = 'application/pdf' or media_type like 'image/%';
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "kind",
                table: "stored_files");
        }
    }
}
