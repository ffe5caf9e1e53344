using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Absences : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "account_absences",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    account_id = table.Column<Guid>(type: "uuid", nullable: false),
                    from = table.Column<LocalDate>(type: "date", nullable: false),
                    to = table.Column<LocalDate>(type: "date", nullable: false),
                    stand_in_id = table.Column<Guid>(type: "uuid", nullable: true),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_account_absences", x => x.id);
                    table.CheckConstraint("in_order", "\"from\" <= \"to\"");
                    table.ForeignKey(
                        name: "fk_account_absences_asp_net_users_account_id",
                        column: x => x.account_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_account_absences_asp_net_users_stand_in_id",
                        column: x => x.stand_in_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateIndex(
                name: "ix_account_absences_account_id",
                table: "account_absences",
                column: "account_id");

            migrationBuilder.CreateIndex(
                name: "ix_account_absences_stand_in_id",
                table: "account_absences",
                column: "stand_in_id");

            migrationBuilder.Sql(
                """
                alter table account_absences add constraint ex_account_absences_days
                  exclude using gist (account_id with =, daterange("from", "to", '[]') with &&);

                -- For whom somebody stands in on a day, also by way of others who are away: as a function, its plan is made once a connection,
                -- and nothing is looked up of those, nearly all, who stand in for nobody.
                create function standing_in(standing uuid, day date, out accounts uuid[], out employments uuid[], out teams text[])
                  language plpgsql stable as $$
                begin
                  accounts := '{}';
                  employments := '{}';
                  teams := '{}';
                  if exists (select from account_absences a where a.stand_in_id = standing and a."from" <= day and a."to" >= day) then
                    accounts := array(
                      with recursive away(account) as (
                        select a.account_id from account_absences a where a.stand_in_id = standing and a."from" <= day and a."to" >= day
                        union
                        select a.account_id from away join account_absences a on a.stand_in_id = away.account and a."from" <= day and a."to" >= day)
                      select account from away where account <> standing);
                    employments := array(select e.id from employments e join users u on u.person_id = e.person_id where u.id = any(accounts));
                    teams := array(select distinct unnest(u.teams) from users u where u.id = any(accounts));
                  end if;
                end $$;

                create function announce_absence() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'absences');
                  return null;
                end $$;
                create trigger announce after insert or update or delete on account_absences for each row execute function announce_absence();
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "account_absences");
            migrationBuilder.Sql("drop function announce_absence(); drop function standing_in(uuid, date);");
        }
    }
}
