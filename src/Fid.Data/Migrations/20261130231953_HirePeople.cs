using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class HirePeople : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_hire_tasks_owner",
                table: "hire_tasks");

            migrationBuilder.CreateTable(
                name: "hire_people",
                columns: table => new
                {
                    hire_id = table.Column<Guid>(type: "uuid", nullable: false),
                    employment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    manager_id = table.Column<Guid>(type: "uuid", nullable: true),
                    buddy_id = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_hire_people", x => x.hire_id);
                    table.ForeignKey(
                        name: "fk_hire_people_hires_hire_id",
                        column: x => x.hire_id,
                        principalTable: "hires",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_hire_tasks_owner_hire_id",
                table: "hire_tasks",
                columns: new[] { "owner", "hire_id" })
                .Annotation("Npgsql:IndexOperators", new[] { "text_pattern_ops", "uuid_ops" });

            migrationBuilder.CreateIndex(
                name: "ix_hire_people_buddy_id",
                table: "hire_people",
                column: "buddy_id");

            migrationBuilder.CreateIndex(
                name: "ix_hire_people_employment_id",
                table: "hire_people",
                column: "employment_id");

            migrationBuilder.CreateIndex(
                name: "ix_hire_people_manager_id",
                table: "hire_people",
                column: "manager_id");

            migrationBuilder.CreateIndex(
                name: "ix_hire_people_person_id",
                table: "hire_people",
                column: "person_id");

            migrationBuilder.Sql("""
                insert into hire_people (hire_id, employment_id, person_id, manager_id, buddy_id)
                select h.id, r.employment_id, r.person_id, r.manager_id, r.buddy_id from hires h join records_now r on r.employment_id = h.employment_id;

                create function hire_people_of_hire() returns trigger language plpgsql as $$
                begin
                  -- Shared with whoever is changing the record just now: what they change is waited for.
                  insert into hire_people (hire_id, employment_id, person_id, manager_id, buddy_id)
                  select new.id, r.employment_id, r.person_id, r.manager_id, r.buddy_id from records_now r where r.employment_id = new.employment_id for share;
                  return null;
                end $$;
                create function hire_people_of_record() returns trigger language plpgsql as $$
                begin
                  insert into hire_people (hire_id, employment_id, person_id, manager_id, buddy_id)
                  select h.id, new.employment_id, new.person_id, new.manager_id, new.buddy_id from hires h where h.employment_id = new.employment_id
                  on conflict (hire_id) do update set person_id = new.person_id, manager_id = new.manager_id, buddy_id = new.buddy_id;
                  return null;
                end $$;
                create trigger people after insert on hires for each row execute function hire_people_of_hire();
                create trigger people_added after insert on records_now for each row execute function hire_people_of_record();
                create trigger people_changed after update on records_now for each row
                  when ((old.person_id, old.manager_id, old.buddy_id) is distinct from (new.person_id, new.manager_id, new.buddy_id))
                  execute function hire_people_of_record();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger people_changed on records_now;
                drop trigger people_added on records_now;
                drop trigger people on hires;
                drop function hire_people_of_record();
                drop function hire_people_of_hire();
                """);

            migrationBuilder.DropTable(
                name: "hire_people");

            migrationBuilder.DropIndex(
                name: "ix_hire_tasks_owner_hire_id",
                table: "hire_tasks");

            migrationBuilder.CreateIndex(
                name: "ix_hire_tasks_owner",
                table: "hire_tasks",
                column: "owner")
                .Annotation("Npgsql:IndexOperators", new[] { "text_pattern_ops" });
        }
    }
}
