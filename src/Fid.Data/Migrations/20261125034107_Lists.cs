using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class Lists : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<decimal>(
                name: "legal_weekly_hours",
                table: "firms",
                type: "numeric",
                nullable: false,
                defaultValue: 48m);

            migrationBuilder.AddColumn<string>(
                name: "details",
                table: "changes",
                type: "jsonb",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "list_entries",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    list = table.Column<string>(type: "text", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    name_de = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: true),
                    values = table.Column<string>(type: "jsonb", nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_list_entries", x => x.id);
                });

            migrationBuilder.Sql("""
                create unique index ix_list_entries_code on list_entries (list, lower(code));
                create index ix_record_values_believed on record_values (field, (value #>> array[]::text[])) where upper_inf(known);
                create function announce_lists() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'lists');
                  return null;
                end $$;
                create trigger announce after insert or update or delete on list_entries for each statement execute function announce_lists();
                """);

            // What the lists held when each had a table of its own.
            migrationBuilder.Sql("""
                insert into list_entries (id, list, code, name, retired, values)
                select id, 'calendars', code, name, retired, jsonb_strip_nulls(jsonb_build_object('rest', rest, 'based_on', based_on_code, 'holidays',
                  (select jsonb_agg(jsonb_build_object('on', to_char(h.date, 'YYYY-MM-DD'), 'name', h.name, 'days', 1) order by h.date) from holidays h where h.calendar_id = c.id)))
                from holiday_calendars c
                union all select id, 'costCentres', code, name, retired, '{}' from cost_centres
                union all select id, 'teams', code, name, retired, '{}' from teams
                union all select id, 'sites', code, name, retired,
                  jsonb_strip_nulls(jsonb_build_object('time_zone', time_zone, 'calendar', calendar_code, 'cost_centre', cost_centre_code)) from sites
                union all select d.id, 'departments', d.code, d.name, d.retired, jsonb_strip_nulls(jsonb_build_object('parent', d.parent_code, 'heads',
                  case when e.number is null then null else jsonb_build_array(jsonb_build_object('from', to_char(e.start, 'YYYY-MM-DD'), 'person', e.number)) end))
                  from departments d left join employments e on e.id = d.head_id
                union all select id, 'grades', code, name, retired,
                  jsonb_build_object('bands', jsonb_build_array(jsonb_build_object('from', '2000-01-01', 'min', min, 'mid', mid, 'max', max, 'per', 'year'))) from grades
                union all select id, 'jobs', code, name, retired, jsonb_build_object('grade', grade_code) from jobs
                union all select id, 'payGroups', code, name, retired, jsonb_strip_nulls(jsonb_build_object(
                  'every', (array['month','month','week','fortnight','fourWeeks','halfMonth','month','year'])[every + 1],
                  'first_period_start', case when every in (2, 3, 4) then '2024-01-01' end, 'pay_days_after_end', 0, 'cut_off_working_days', 4,
                  'calendar', (select min(code) from holiday_calendars))) from pay_groups
                union all select id, 'shiftPatterns', code, name, retired, jsonb_build_object(
                  'shifts', (select jsonb_agg(jsonb_build_object('letter', letter, 'start', '08:00', 'end', '16:00', 'break', 30)) from (select distinct letter from regexp_split_to_table(cycle, '') letter where letter <> '-') l),
                  'cycle', array_to_string(regexp_split_to_array(cycle, ''), ' '), 'cycle_start', '2024-01-01', 'on_holiday', 'off') from shift_patterns
                union all select gen_random_uuid(), 'deviceGroups', g, g, false, '{}' from (select distinct "group" as g from clock_devices) groups
                union all select id, 'clockDevices', code, name, retired, jsonb_build_object('group', "group") from clock_devices
                union all select gen_random_uuid(), 'employmentKinds', kind, kind, false, '{}'
                  from unnest(array['permanent', 'seasonal', 'fixedTerm', 'trainee']) kind where exists (select 1 from firms);
                """);

            migrationBuilder.DropTable(
                name: "clock_devices");

            migrationBuilder.DropTable(
                name: "cost_centres");

            migrationBuilder.DropTable(
                name: "departments");

            migrationBuilder.DropTable(
                name: "grades");

            migrationBuilder.DropTable(
                name: "holidays");

            migrationBuilder.DropTable(
                name: "jobs");

            migrationBuilder.DropTable(
                name: "pay_groups");

            migrationBuilder.DropTable(
                name: "shift_patterns");

            migrationBuilder.DropTable(
                name: "sites");

            migrationBuilder.DropTable(
                name: "teams");

            migrationBuilder.DropTable(
                name: "holiday_calendars");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "list_entries");

            migrationBuilder.Sql("drop index ix_record_values_believed; drop function announce_lists();");

            migrationBuilder.DropColumn(
                name: "legal_weekly_hours",
                table: "firms");

            migrationBuilder.DropColumn(
                name: "details",
                table: "changes");

            migrationBuilder.CreateTable(
                name: "clock_devices",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    group = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_clock_devices", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "cost_centres",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_cost_centres", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "departments",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    head_id = table.Column<Guid>(type: "uuid", nullable: true),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    parent_code = table.Column<string>(type: "text", nullable: true),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_departments", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "grades",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    max = table.Column<decimal>(type: "numeric", nullable: false),
                    mid = table.Column<decimal>(type: "numeric", nullable: false),
                    min = table.Column<decimal>(type: "numeric", nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_grades", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "holiday_calendars",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    based_on_code = table.Column<string>(type: "text", nullable: true),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    rest = table.Column<string>(type: "text", nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_holiday_calendars", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "jobs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    grade_code = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_jobs", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "pay_groups",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    every = table.Column<int>(type: "integer", nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pay_groups", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "shift_patterns",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    cycle = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_shift_patterns", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "sites",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    calendar_code = table.Column<string>(type: "text", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    cost_centre_code = table.Column<string>(type: "text", nullable: true),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false),
                    time_zone = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sites", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "teams",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    retired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_teams", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "holidays",
                columns: table => new
                {
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    date = table.Column<LocalDate>(type: "date", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_holidays", x => new { x.calendar_id, x.date });
                    table.ForeignKey(
                        name: "fk_holidays_holiday_calendars_calendar_id",
                        column: x => x.calendar_id,
                        principalTable: "holiday_calendars",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_clock_devices_code",
                table: "clock_devices",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_cost_centres_code",
                table: "cost_centres",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_departments_code",
                table: "departments",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_grades_code",
                table: "grades",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_holiday_calendars_code",
                table: "holiday_calendars",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_jobs_code",
                table: "jobs",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_pay_groups_code",
                table: "pay_groups",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_shift_patterns_code",
                table: "shift_patterns",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_sites_code",
                table: "sites",
                column: "code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_teams_code",
                table: "teams",
                column: "code",
                unique: true);
        }
    }
}
