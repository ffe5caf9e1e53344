using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Rights : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string[]>(
                name: "groups",
                table: "records_now",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]);

            migrationBuilder.CreateTable(
                name: "rights_drafts",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false),
                    configuration = table.Column<string>(type: "jsonb", nullable: false),
                    based_on = table.Column<int>(type: "integer", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_id = table.Column<Guid>(type: "uuid", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    asked_by_id = table.Column<Guid>(type: "uuid", nullable: true),
                    asked_by_name = table.Column<string>(type: "text", nullable: true),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_rights_drafts", x => x.id);
                    table.CheckConstraint("one_rights_draft", "id = 1");
                });

            migrationBuilder.CreateTable(
                name: "rights_versions",
                columns: table => new
                {
                    version = table.Column<int>(type: "integer", nullable: false),
                    configuration = table.Column<string>(type: "jsonb", nullable: false),
                    hash = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    asked_by_name = table.Column<string>(type: "text", nullable: true),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_rights_versions", x => x.version);
                });

            migrationBuilder.CreateTable(
                name: "role_grants",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    account_id = table.Column<Guid>(type: "uuid", nullable: false),
                    role = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    from = table.Column<LocalDate>(type: "date", nullable: true),
                    to = table.Column<LocalDate>(type: "date", nullable: true),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_role_grants", x => x.id);
                    table.CheckConstraint("in_order", "\"from\" is null or \"to\" is null or \"from\" <= \"to\"");
                    table.ForeignKey(
                        name: "fk_role_grants_asp_net_users_account_id",
                        column: x => x.account_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_records_now_groups",
                table: "records_now",
                column: "groups")
                .Annotation("Npgsql:IndexMethod", "gin");

            migrationBuilder.CreateIndex(
                name: "ix_role_grants_account_id",
                table: "role_grants",
                column: "account_id");

            migrationBuilder.CreateIndex(
                name: "ix_role_grants_for_good",
                table: "role_grants",
                columns: new[] { "account_id", "role" },
                unique: true,
                filter: "\"from\" is null and \"to\" is null");

            // Whoever had a role has it for good.
            migrationBuilder.Sql("""
                insert into role_grants (id, account_id, role, at, by_name)
                select gen_random_uuid(), u.user_id, r.name, now(), 'Fid' from user_roles u join roles r on r.id = u.role_id;

                create function announce_rights() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'rights');
                  return null;
                end $$;
                -- What is given to an account that sleeps, as with every hire, concerns nobody who is signed in.
                create function announce_grant() returns trigger language plpgsql as $$
                begin
                  if exists (select 1 from users where id = coalesce(new.account_id, old.account_id) and password_hash is not null) then
                    perform pg_notify('fid_live', 'rights');
                  end if;
                  return null;
                end $$;
                create trigger announce after insert or update or delete on role_grants for each row execute function announce_grant();
                create trigger announce after insert or update or delete on rights_drafts for each statement execute function announce_rights();
                create trigger announce after insert on rights_versions for each statement execute function announce_rights();
                """);

            migrationBuilder.DropTable(
                name: "role_claims");

            migrationBuilder.DropTable(
                name: "user_roles");

            migrationBuilder.DropTable(
                name: "roles");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_records_now_groups",
                table: "records_now");

            migrationBuilder.DropColumn(
                name: "groups",
                table: "records_now");

            migrationBuilder.CreateTable(
                name: "roles",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    concurrency_stamp = table.Column<string>(type: "text", nullable: true),
                    name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_roles", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "role_claims",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    claim_type = table.Column<string>(type: "text", nullable: true),
                    claim_value = table.Column<string>(type: "text", nullable: true),
                    role_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_role_claims", x => x.id);
                    table.ForeignKey(
                        name: "fk_role_claims_roles_role_id",
                        column: x => x.role_id,
                        principalTable: "roles",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "user_roles",
                columns: table => new
                {
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    role_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_user_roles", x => new { x.user_id, x.role_id });
                    table.ForeignKey(
                        name: "fk_user_roles_roles_role_id",
                        column: x => x.role_id,
                        principalTable: "roles",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_user_roles_users_user_id",
                        column: x => x.user_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_role_claims_role_id",
                table: "role_claims",
                column: "role_id");

            migrationBuilder.CreateIndex(
                name: "RoleNameIndex",
                table: "roles",
                column: "normalized_name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_user_roles_role_id",
                table: "user_roles",
                column: "role_id");

            migrationBuilder.Sql("""
                insert into roles (id, name, normalized_name)
                select gen_random_uuid(), name, upper(name) from unnest(array['coordinator', 'administrator', 'payroll', 'manager', 'owner', 'newcomer']) name;
                insert into user_roles (user_id, role_id)
                select distinct g.account_id, r.id from role_grants g join roles r on r.name = g.role;
                """);

            migrationBuilder.DropTable(
                name: "rights_drafts");

            migrationBuilder.DropTable(
                name: "rights_versions");

            migrationBuilder.DropTable(
                name: "role_grants");

            migrationBuilder.Sql("drop function announce_rights(); drop function announce_grant();");
        }
    }
}
