using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <summary>What EF Core has no words for: the rule that a field has one believed value at a time, and the live changes.</summary>
    public partial class Guards : Migration
    {
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // Deferred, since one save ends the belief in a row and adds the row that takes its place, in whichever order.
            migrationBuilder.Sql("""
                alter table record_values add constraint ex_record_values_one_at_a_time
                  exclude using gist (owner_id with =, field with =, effective with &&, known with &&)
                  deferrable initially deferred;
                """);

            // Whoever writes, and by whatever way, every server instance hears of it once the transaction is through.
            migrationBuilder.Sql("""
                create function announce_hire() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'hire:' || coalesce(new.id, old.id));
                  return null;
                end $$;
                create function announce_hire_task() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'hire:' || coalesce(new.hire_id, old.hire_id));
                  return null;
                end $$;
                create function announce_record() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'record:' || coalesce(new.employment_id, old.employment_id));
                  return null;
                end $$;
                create trigger announce after insert or update or delete on hires for each row execute function announce_hire();
                create trigger announce after insert or update or delete on hire_tasks for each row execute function announce_hire_task();
                create trigger announce after insert or update or delete on records_now for each row execute function announce_record();
                """);
        }

        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger announce on records_now;
                drop trigger announce on hire_tasks;
                drop trigger announce on hires;
                drop function announce_record();
                drop function announce_hire_task();
                drop function announce_hire();
                alter table record_values drop constraint ex_record_values_one_at_a_time;
                """);
        }
    }
}
