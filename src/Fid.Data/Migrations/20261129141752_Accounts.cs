using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Accounts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ticket",
                table: "user_sessions");

            migrationBuilder.AlterColumn<string>(
                name: "display_name",
                table: "users",
                type: "character varying(200)",
                maxLength: 200,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.AddColumn<Instant>(
                name: "disabled_at",
                table: "users",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "disabled_why",
                table: "users",
                type: "character varying(20)",
                maxLength: 20,
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "last_sign_in_at",
                table: "users",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "made_at",
                table: "users",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: NodaTime.Instant.FromUnixTimeTicks(0L));

            migrationBuilder.AddColumn<uint>(
                name: "xmin",
                table: "users",
                type: "xid",
                rowVersion: true,
                nullable: false,
                defaultValue: 0u);

            migrationBuilder.CreateTable(
                name: "account_links",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    ends_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_account_links", x => x.id);
                    table.ForeignKey(
                        name: "fk_account_links_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_users_display_name_id",
                table: "users",
                columns: new[] { "display_name", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_users_person_id",
                table: "users",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_account_links_hash",
                table: "account_links",
                column: "hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_account_links_user_id",
                table: "account_links",
                column: "user_id",
                unique: true);

            // Newcomers whose hires are under way get the account that comes with a hire.
            migrationBuilder.Sql("""
                update users set made_at = now();
                insert into users (id, display_name, language, person_id, teams, made_at, security_stamp, email_confirmed, phone_number_confirmed, two_factor_enabled, lockout_enabled, access_failed_count)
                select gen_random_uuid(), left(trim(min(r.given_name || ' ' || r.family_name)), 200), 'en', r.person_id, '{}', now(), md5(random()::text), false, false, false, false, 0
                from hires h join records_now r on r.employment_id = h.employment_id
                where h.closed is null and not exists (select from users u where u.person_id = r.person_id)
                group by r.person_id;
                insert into user_roles (user_id, role_id)
                select u.id, r.id from users u cross join roles r where r.name = 'newcomer' and u.user_name is null;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "account_links");

            migrationBuilder.DropIndex(
                name: "ix_users_display_name_id",
                table: "users");

            migrationBuilder.DropIndex(
                name: "ix_users_person_id",
                table: "users");

            migrationBuilder.DropColumn(
                name: "disabled_at",
                table: "users");

            migrationBuilder.DropColumn(
                name: "disabled_why",
                table: "users");

            migrationBuilder.DropColumn(
                name: "last_sign_in_at",
                table: "users");

            migrationBuilder.DropColumn(
                name: "made_at",
                table: "users");

            migrationBuilder.DropColumn(
                name: "xmin",
                table: "users");

            migrationBuilder.AlterColumn<string>(
                name: "display_name",
                table: "users",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(200)",
                oldMaxLength: 200);

            migrationBuilder.AddColumn<byte[]>(
                name: "ticket",
                table: "user_sessions",
                type: "bytea",
                nullable: false,
                defaultValue: new byte[0]);
        }
    }
}
