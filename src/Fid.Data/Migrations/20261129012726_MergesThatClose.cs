using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class MergesThatClose : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid[]>(
                name: "closed_hires",
                table: "person_merges",
                type: "uuid[]",
                nullable: false,
                defaultValue: new Guid[0]);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "closed_hires",
                table: "person_merges");
        }
    }
}
