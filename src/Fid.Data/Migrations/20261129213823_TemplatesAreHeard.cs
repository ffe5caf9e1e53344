using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <inheritdoc />
    public partial class TemplatesAreHeard : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                create function announce_templates() returns trigger language plpgsql as $$
                begin
                  perform pg_notify('fid_live', 'templates');
                  return null;
                end $$;
                create trigger announce after insert or update or delete on role_templates for each statement execute function announce_templates();
                create trigger announce after insert or update or delete on template_drafts for each statement execute function announce_templates();
                create trigger announce after insert or update or delete on shared_tasks for each statement execute function announce_templates();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger announce on role_templates;
                drop trigger announce on template_drafts;
                drop trigger announce on shared_tasks;
                drop function announce_templates();
                """);
        }
    }
}
