using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class WaitingJobs : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "ix_jobs_kind_argument",
                table: "jobs",
                columns: new[] { "kind", "argument" },
                filter: "state = 'Waiting'");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_jobs_kind_argument",
                table: "jobs");
        }
    }
}
