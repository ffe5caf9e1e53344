using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Exchange : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "import_memory",
                columns: table => new
                {
                    key = table.Column<string>(type: "text", nullable: false),
                    columns = table.Column<string[]>(type: "text[]", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_import_memory", x => x.key);
                });

            migrationBuilder.CreateTable(
                name: "import_runs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    list = table.Column<string>(type: "text", nullable: false),
                    file_name = table.Column<string>(type: "text", nullable: false),
                    size = table.Column<long>(type: "bigint", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by_id = table.Column<Guid>(type: "uuid", nullable: false),
                    by_name = table.Column<string>(type: "text", nullable: false),
                    state = table.Column<string>(type: "text", nullable: false),
                    failure = table.Column<string>(type: "text", nullable: true),
                    headers = table.Column<string[]>(type: "text[]", nullable: false),
                    columns = table.Column<string[]>(type: "text[]", nullable: false),
                    matched_by = table.Column<string[]>(type: "text[]", nullable: false),
                    dates = table.Column<string>(type: "text", nullable: true),
                    ask_dates = table.Column<bool>(type: "boolean", nullable: false),
                    @decimal = table.Column<string>(name: "decimal", type: "text", nullable: false),
                    empty_clears = table.Column<bool>(type: "boolean", nullable: false),
                    rows = table.Column<int>(type: "integer", nullable: false),
                    done = table.Column<int>(type: "integer", nullable: false),
                    @new = table.Column<int>(name: "new", type: "integer", nullable: false),
                    changed = table.Column<int>(type: "integer", nullable: false),
                    same = table.Column<int>(type: "integer", nullable: false),
                    wrong = table.Column<int>(type: "integer", nullable: false),
                    ignored = table.Column<int>(type: "integer", nullable: false),
                    generation = table.Column<int>(type: "integer", nullable: false),
                    only_good = table.Column<bool>(type: "boolean", nullable: false),
                    change_id = table.Column<Guid>(type: "uuid", nullable: true),
                    committed_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_import_runs", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_import_runs_at",
                table: "import_runs",
                column: "at");

            // Rows and pieces of files come and go in bulk, past EF.
            migrationBuilder.Sql("""
                create table import_pieces (
                  run_id uuid not null references import_runs on delete cascade,
                  no integer not null,
                  bytes bytea not null,
                  primary key (run_id, no)
                );
                alter table import_pieces alter column bytes set storage external;
                -- No foreign key: it would be looked up row by row. Whoever deletes a run deletes its rows.
                create table import_rows (
                  run_id uuid not null,
                  generation integer not null,
                  no integer not null,
                  cells text[] not null,
                  outcome smallint not null,
                  entry_id uuid,
                  code text,
                  name text,
                  name_de text,
                  values jsonb,
                  before jsonb,
                  problems jsonb,
                  primary key (run_id, generation, no)
                );
                create index ix_import_rows_entry on import_rows (entry_id) where entry_id is not null;
                create function announce_import() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'import:' || new.id);
                  return null;
                end $$;
                create trigger announce after insert or update on import_runs for each row execute function announce_import();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "import_memory");

            migrationBuilder.Sql("drop table import_rows; drop table import_pieces;");

            migrationBuilder.DropTable(
                name: "import_runs");

            migrationBuilder.Sql("drop function announce_import();");
        }
    }
}
