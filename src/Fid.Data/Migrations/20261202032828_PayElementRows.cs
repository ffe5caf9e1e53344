using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fid.Data.Migrations
{
    /// <summary>Allowances become rows of what is paid beside base pay.</summary>
    public partial class PayElementRows : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) =>
            // What stands in single fields so far is taken over by Fid itself, which knows the firm's fields.
            migrationBuilder.Sql("""
                insert into jobs (id, kind, recurs, state, due, made_at, tries)
                select gen_random_uuid(), 'rows', false, 'Waiting', now(), now(), 0
                where exists (select from records_now) or exists (select from field_versions);
                """);

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) { }
    }
}
