using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class SecondFactors : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "authenticator_key",
                table: "users",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "authenticator_step",
                table: "users",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string[]>(
                name: "recovery_codes",
                table: "users",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]);

            migrationBuilder.AddColumn<Instant>(
                name: "second_factor_since",
                table: "users",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "begun",
                table: "user_sessions",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "proved_at",
                table: "user_sessions",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "passkeys",
                columns: table => new
                {
                    id = table.Column<byte[]>(type: "bytea", nullable: false),
                    account_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    public_key = table.Column<byte[]>(type: "bytea", nullable: false),
                    counter = table.Column<long>(type: "bigint", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    used_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_passkeys", x => x.id);
                    table.ForeignKey(
                        name: "fk_passkeys_asp_net_users_account_id",
                        column: x => x.account_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_passkeys_account_id",
                table: "passkeys",
                column: "account_id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "passkeys");

            migrationBuilder.DropColumn(
                name: "authenticator_key",
                table: "users");

            migrationBuilder.DropColumn(
                name: "authenticator_step",
                table: "users");

            migrationBuilder.DropColumn(
                name: "recovery_codes",
                table: "users");

            migrationBuilder.DropColumn(
                name: "second_factor_since",
                table: "users");

            migrationBuilder.DropColumn(
                name: "begun",
                table: "user_sessions");

            migrationBuilder.DropColumn(
                name: "proved_at",
                table: "user_sessions");
        }
    }
}
