using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <summary>Values in rows, and for every value whether its owner is a person or an employment, with foreign keys to either.</summary>
    public partial class Rows : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AlterColumn<string>(
                name: "field",
                table: "record_values",
                type: "character varying(100)",
                maxLength: 100,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(60)",
                oldMaxLength: 60);

            migrationBuilder.AddColumn<string>(
                name: "owner_kind",
                table: "record_values",
                type: "character varying(10)",
                maxLength: 10,
                nullable: false,
                defaultValue: "Employment");

            migrationBuilder.AddColumn<Guid>(
                name: "row_id",
                table: "record_values",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<uint>(
                name: "xmin",
                table: "hire_tasks",
                type: "xid",
                rowVersion: true,
                nullable: false,
                defaultValue: 0u);

            // Who owns a value is a person or an employment, and there is one.
            migrationBuilder.Sql("""
                -- Built anew below; kept meanwhile it would take most of the time.
                alter table record_values drop constraint ex_record_values_one_at_a_time;
                update record_values v set owner_kind = 'Person' from people p where p.id = v.owner_id;
                alter table record_values alter column owner_kind drop default,
                  add constraint owner_kind check (owner_kind in ('Person', 'Employment')),
                  add column person_id uuid generated always as (case owner_kind when 'Person' then owner_id end) stored,
                  add column employment_id uuid generated always as (case owner_kind when 'Employment' then owner_id end) stored;
                -- Deferred, since what is copied in comes table by table.
                alter table record_values
                  add constraint fk_record_values_people_person_id foreign key (person_id) references people (id) deferrable initially deferred,
                  add constraint fk_record_values_employments_employment_id foreign key (employment_id) references employments (id)
                    deferrable initially deferred;
                """);

            // One value at a time: of a field, and in a row of each column.
            migrationBuilder.Sql("""
                alter table record_values add constraint ex_record_values_one_at_a_time
                  exclude using gist (owner_id with =, field with =, effective with &&, known with &&) where (row_id is null)
                  deferrable initially deferred;
                alter table record_values add constraint ex_record_values_one_at_a_time_in_a_row
                  exclude using gist (owner_id with =, row_id with =, field with =, effective with &&, known with &&) where (row_id is not null)
                  deferrable initially deferred;
                create index ix_record_values_in_rows on record_values (lower(value #>> array[]::text[])) where row_id is not null;
                """);

            // The chain vouches for the row too; what stands alone reads as it did.
            migrationBuilder.Sql("""
                create or replace function sealed_content(c changes) returns text language sql stable set search_path = public as $$
                  select jsonb_build_object(
                    'id', c.id, 'at', extract(epoch from c.at), 'by', c.by_id, 'name', c.by_name, 'origin', c.origin, 'action', c.action,
                    'why', c.why, 'subject', c.subject_id, 'part', c.part, 'details', c.details,
                    'began', (select jsonb_agg(jsonb_build_array(v.id, v.owner_id, v.field, v.value, v.source, lower(v.effective), upper(v.effective),
                                extract(epoch from lower(v.known))) || case when v.row_id is null then '[]'::jsonb else jsonb_build_array(v.row_id) end
                                order by v.id)
                              from record_values v where v.change_id = c.id),
                    'ended', (select jsonb_agg(jsonb_build_array(v.id, extract(epoch from upper(v.known))) order by v.id)
                              from record_values v where v.ended_by = c.id))::text
                $$;
                """);

            // What stands in single fields so far is taken over by Fid itself, which knows the firm's fields.
            migrationBuilder.Sql("""
                insert into jobs (id, kind, recurs, state, due, made_at, tries)
                select gen_random_uuid(), 'rows', false, 'Waiting', now(), now(), 0
                where exists (select from records_now);
                """);

            migrationBuilder.CreateIndex(
                name: "ix_person_merges_change_id",
                table: "person_merges",
                column: "change_id");

            migrationBuilder.CreateIndex(
                name: "ix_person_merges_other_id",
                table: "person_merges",
                column: "other_id");

            migrationBuilder.CreateIndex(
                name: "ix_person_merges_through",
                table: "person_merges",
                column: "through");

            migrationBuilder.AddForeignKey(
                name: "fk_person_merges_changes_change_id",
                table: "person_merges",
                column: "change_id",
                principalTable: "changes",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_person_merges_employments_through",
                table: "person_merges",
                column: "through",
                principalTable: "employments",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_person_merges_people_kept_id",
                table: "person_merges",
                column: "kept_id",
                principalTable: "people",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_person_merges_people_other_id",
                table: "person_merges",
                column: "other_id",
                principalTable: "people",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_records_now_people_person_id",
                table: "records_now",
                column: "person_id",
                principalTable: "people",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                delete from record_values where row_id is not null;
                alter table record_values drop constraint ex_record_values_one_at_a_time_in_a_row;
                alter table record_values drop constraint ex_record_values_one_at_a_time;
                alter table record_values add constraint ex_record_values_one_at_a_time
                  exclude using gist (owner_id with =, field with =, effective with &&, known with &&) deferrable initially deferred;
                drop index ix_record_values_in_rows;
                alter table record_values drop column person_id, drop column employment_id, drop constraint owner_kind;
                create or replace function sealed_content(c changes) returns text language sql stable set search_path = public as $$
                  select jsonb_build_object(
                    'id', c.id, 'at', extract(epoch from c.at), 'by', c.by_id, 'name', c.by_name, 'origin', c.origin, 'action', c.action,
                    'why', c.why, 'subject', c.subject_id, 'part', c.part, 'details', c.details,
                    'began', (select jsonb_agg(jsonb_build_array(v.id, v.owner_id, v.field, v.value, v.source, lower(v.effective), upper(v.effective),
                                extract(epoch from lower(v.known))) order by v.id)
                              from record_values v where v.change_id = c.id),
                    'ended', (select jsonb_agg(jsonb_build_array(v.id, extract(epoch from upper(v.known))) order by v.id)
                              from record_values v where v.ended_by = c.id))::text
                $$;
                """);

            migrationBuilder.DropForeignKey(
                name: "fk_person_merges_changes_change_id",
                table: "person_merges");

            migrationBuilder.DropForeignKey(
                name: "fk_person_merges_employments_through",
                table: "person_merges");

            migrationBuilder.DropForeignKey(
                name: "fk_person_merges_people_kept_id",
                table: "person_merges");

            migrationBuilder.DropForeignKey(
                name: "fk_person_merges_people_other_id",
                table: "person_merges");

            migrationBuilder.DropForeignKey(
                name: "fk_records_now_people_person_id",
                table: "records_now");

            migrationBuilder.DropIndex(
                name: "ix_person_merges_change_id",
                table: "person_merges");

            migrationBuilder.DropIndex(
                name: "ix_person_merges_other_id",
                table: "person_merges");

            migrationBuilder.DropIndex(
                name: "ix_person_merges_through",
                table: "person_merges");

            migrationBuilder.DropColumn(
                name: "owner_kind",
                table: "record_values");

            migrationBuilder.DropColumn(
                name: "row_id",
                table: "record_values");

            migrationBuilder.DropColumn(
                name: "xmin",
                table: "hire_tasks");

            migrationBuilder.AlterColumn<string>(
                name: "field",
                table: "record_values",
                type: "character varying(60)",
                maxLength: 60,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(100)",
                oldMaxLength: 100);
        }
    }
}
