using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class AuditChain : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "ended_by",
                table: "record_values",
                type: "uuid",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "seals",
                columns: table => new
                {
                    position = table.Column<long>(type: "bigint", nullable: false),
                    change_id = table.Column<Guid>(type: "uuid", nullable: false),
                    hash = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_seals", x => x.position);
                });

            migrationBuilder.CreateIndex(
                name: "ix_record_values_ended_by",
                table: "record_values",
                column: "ended_by",
                filter: "ended_by is not null");

            migrationBuilder.CreateIndex(
                name: "ix_seals_change_id",
                table: "seals",
                column: "change_id",
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "fk_record_values_changes_ended_by",
                table: "record_values",
                column: "ended_by",
                principalTable: "changes",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            // Values that ended before this was kept: by the change of that moment in the same record.
            migrationBuilder.Sql("""
                update record_values v set ended_by = c.id from changes c, employments e
                where not upper_inf(v.known) and c.at = upper(v.known) and c.subject_id in (e.id) and v.owner_id in (e.id, e.person_id);
                """);

            // What a change says and did, as one text that reads the same in every session.
            migrationBuilder.Sql("""
                create function sealed_content(c changes) returns text language sql stable set search_path = public as $$
                  select jsonb_build_object(
                    'id', c.id, 'at', extract(epoch from c.at), 'by', c.by_id, 'name', c.by_name, 'origin', c.origin, 'action', c.action,
                    'why', c.why, 'subject', c.subject_id, 'part', c.part, 'details', c.details,
                    'began', (select jsonb_agg(jsonb_build_array(v.id, v.owner_id, v.field, v.value, v.source, lower(v.effective), upper(v.effective), extract(epoch from lower(v.known))) order by v.id)
                              from record_values v where v.change_id = c.id),
                    'ended', (select jsonb_agg(jsonb_build_array(v.id, extract(epoch from upper(v.known))) order by v.id)
                              from record_values v where v.ended_by = c.id))::text
                $$;

                -- Runs when the transaction ends, after everything else it does: nothing waits for the lock but the end of another transaction.
                create function seal_change() returns trigger language plpgsql security definer set search_path = public as $$
                declare
                  last seals;
                begin
                  perform pg_advisory_xact_lock(64285);
                  select * into last from seals order by position desc limit 1;
                  insert into seals (position, change_id, hash)
                  select coalesce(last.position, 0) + 1, c.id, sha256(coalesce(last.hash, ''::bytea) || convert_to(sealed_content(c), 'UTF8'))
                  from changes c where c.id = new.id;
                  return null;
                end $$;
                create constraint trigger seal after insert on changes deferrable initially deferred for each row execute function seal_change();

                create function end_belief_only() returns trigger language plpgsql as $$
                begin
                  if not upper_inf(old.known) or old.ended_by is not null or upper_inf(new.known) or new.ended_by is null or lower(new.known) <> lower(old.known) then
                    raise exception 'Of a value that was recorded, only the end of the belief in it is ever set, and once.';
                  end if;
                  return new;
                end $$;
                create trigger end_belief_only before update of known, ended_by on record_values for each row execute function end_belief_only();

                do $$
                declare
                  c changes;
                  last bytea := '';
                  place bigint := 0;
                begin
                  for c in select * from changes order by at, id loop
                    last := sha256(last || convert_to(sealed_content(c), 'UTF8'));
                    place := place + 1;
                    insert into seals (position, change_id, hash) values (place, c.id, last);
                  end loop;
                end $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger end_belief_only on record_values;
                drop function end_belief_only();
                drop trigger seal on changes;
                drop function seal_change();
                drop function sealed_content(changes);
                """);
            migrationBuilder.DropForeignKey(
                name: "fk_record_values_changes_ended_by",
                table: "record_values");

            migrationBuilder.DropTable(
                name: "seals");

            migrationBuilder.DropIndex(
                name: "ix_record_values_ended_by",
                table: "record_values");

            migrationBuilder.DropColumn(
                name: "ended_by",
                table: "record_values");
        }
    }
}
