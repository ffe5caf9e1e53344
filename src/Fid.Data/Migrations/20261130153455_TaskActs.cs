using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class TaskActs : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "added",
                table: "hire_tasks",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "note",
                table: "hire_tasks",
                type: "character varying(2000)",
                maxLength: 2000,
                nullable: true);

            migrationBuilder.AddColumn<LocalDate>(
                name: "pinned",
                table: "hire_tasks",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "taken_by_id",
                table: "hire_tasks",
                type: "uuid",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "added",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "note",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "pinned",
                table: "hire_tasks");

            migrationBuilder.DropColumn(
                name: "taken_by_id",
                table: "hire_tasks");
        }
    }
}
