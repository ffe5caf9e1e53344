using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class ViewingAs : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "views_as_id",
                table: "user_sessions",
                type: "uuid",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_user_sessions_views_as_id",
                table: "user_sessions",
                column: "views_as_id");

            migrationBuilder.AddForeignKey(
                name: "fk_user_sessions_asp_net_users_views_as_id",
                table: "user_sessions",
                column: "views_as_id",
                principalTable: "users",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_user_sessions_asp_net_users_views_as_id",
                table: "user_sessions");

            migrationBuilder.DropIndex(
                name: "ix_user_sessions_views_as_id",
                table: "user_sessions");

            migrationBuilder.DropColumn(
                name: "views_as_id",
                table: "user_sessions");
        }
    }
}
