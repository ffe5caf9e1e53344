using Fid.Acts.People;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Testing;
using Npgsql;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The audit trail: the application can only add to it, and whoever else touches it is found out.</summary>
public class AuditTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Theory]
    [InlineData("update changes set why = 'another reason'")]
    [InlineData("delete from changes")]
    [InlineData("truncate changes")]
    [InlineData("update seals set hash = sha256('')")]
    [InlineData("delete from seals")]
    [InlineData("insert into seals values (1000000, gen_random_uuid(), sha256(''))")]
    [InlineData("update record_values set value = '1'")]
    [InlineData("update record_values set effective = '[2027-01-01,)'")]
    [InlineData("delete from record_values")]
    [InlineData("update field_versions set why = 'another reason'")]
    public async Task The_applications_role_cannot_rewrite_the_past(string sql)
    {
        var error = await Should.ThrowAsync<PostgresException>(() => TryAsync(firm.Database.Connection, sql));
        error.SqlState.ShouldBe(PostgresErrorCodes.InsufficientPrivilege);
    }

    [Fact]
    public async Task A_belief_ends_once()
    {
        var error = await Should.ThrowAsync<PostgresException>(() =>
            TryAsync(
                firm.Database.Connection,
                "update record_values set known = tstzrange(lower(known) - interval '1 day', now()), ended_by = change_id where upper_inf(known)"
            )
        );
        error.MessageText.ShouldStartWith("Of a value that was recorded");
    }

    [Fact]
    public async Task Saves_at_the_same_moment_make_one_chain()
    {
        using var orla = await firm.As("orla");
        var people = (await orla.GetAsync("/api/people"))["people"]!.AsArray().Take(20).Select(p => p!.Text("employmentId")).ToArray();
        var before = (await ChainAsync()).Position;
        await Parallel.ForEachAsync(people, async (id, _) =>
        {
            var version = (await orla.GetAsync($"/api/records/{id}")).Text("version");
            (
                await orla.SendAsync(
                    "PUT",
                    $"/api/records/{id}",
                    new
                    {
                        changes = new { room = "7" },
                        from = (string?)null,
                        why = (string?)null,
                    },
                    version
                )
            ).EnsureSuccessStatusCode();
        });
        var after = await ChainAsync();
        (after.Broken, after.Position).ShouldBe((null, before + people.Length));
        await using var source = FidDatabase.Source(firm.Database.Connection);
        await using var db = FidDatabase.Open(source);
        (await ProjectionCheck.FirstWrongAsync(db, default)).ShouldBeNull();
        await firm.Database.AskAsync($"update records_now set email = 'nobody@halyard.example' where employment_id = '{people[0]}'");
        (await ProjectionCheck.FirstWrongAsync(db, default))!.ShouldContain("the e-mail “nobody@halyard.example”");
    }

    [Theory]
    [InlineData("update changes set why = 'another reason' where id = {change}", "Entry 200 does not agree with its change")]
    [InlineData("update changes set at = at - interval '1 second' where id = {change}", "Entry 200 does not agree with its change")]
    [InlineData(
        "update record_values set source = 'forged' where id = (select id from record_values where change_id = {change} limit 1)",
        "Entry 200 does not agree with its change"
    )]
    [InlineData(
        "update record_values set row_id = gen_random_uuid() where id = (select id from record_values where change_id = {change} limit 1)",
        "Entry 200 does not agree with its change"
    )]
    [InlineData("delete from record_values where change_id = {change}", "Entry 200 does not agree with its change")]
    [InlineData("delete from record_values where change_id = {change}; delete from changes where id = {change}", "which is gone")]
    [InlineData("delete from seals where position = 200", "Entry 200 is missing")]
    [InlineData("update seals set hash = sha256('') where position = 200", "Entry 200 does not agree with its change")]
    [InlineData(
        "insert into changes (id, at, by_name, origin, action, subject_id) values (gen_random_uuid(), now(), 'Nobody', 'record', "
            + "'record.fixed', gen_random_uuid())",
        "is in the audit trail, but not in the chain"
    )]
    [InlineData(
        "update record_values set known = tstzrange(lower(known), now()) where id = (select id from record_values limit 1)",
        "began or ended without a change"
    )]
    [InlineData("delete from seals where position = (select max(position) from seals)", "is in the audit trail, but not in the chain")]
    public async Task Who_gets_past_that_is_found_out(string forged, string found)
    {
        await using var database = await TestDatabase.CloneAsync();
        var change = await database.AskAsync("select change_id from seals where position = 200");
        // As the owner of the database, with every trigger asleep.
        await database.AskAsync($"set session_replication_role = replica; {forged.Replace("{change}", $"'{change}'", StringComparison.Ordinal)}");
        (await ChainAsync(database)).Broken!.ShouldContain(found);
    }

    [Fact]
    public async Task That_the_newest_entries_are_cut_off_shows_against_a_link_noted_down_before()
    {
        await using var database = await TestDatabase.CloneAsync();
        var noted = await ChainAsync(database);
        (await ChainAsync(database, (noted.Position, noted.Hash))).Broken.ShouldBeNull();
        await database.AskAsync(
            """
            set session_replication_role = replica;
            with cut as (delete from seals where position = (select max(position) from seals) returning change_id),
              values_of as (delete from record_values using cut where record_values.change_id = cut.change_id)
            delete from changes using cut where id = cut.change_id
            """
        );
        (await ChainAsync(database)).Broken.ShouldBeNull();
        (await ChainAsync(database, (noted.Position, noted.Hash))).Broken!.ShouldBe(
            $"Entry {noted.Position} was noted down, but the chain now ends with entry {noted.Position - 1}."
        );
    }

    [Fact]
    public async Task The_walk_goes_on_from_a_link_noted_down_and_looks_at_nothing_before_it()
    {
        await using var database = await TestDatabase.CloneAsync();
        var noted = ((long)200, (byte[])(await database.AskAsync("select hash from seals where position = 200"))!);
        var whole = await ChainAsync(database);
        var rest = await ChainAsync(database, noted);
        (rest.Broken, rest.Position).ShouldBe((null, whole.Position));
        rest.Hash.ShouldBe(whole.Hash);
        await AlterAsync(200);
        (await ChainAsync(database)).Broken!.ShouldContain("Entry 200 does not agree");
        (await ChainAsync(database, noted)).Broken.ShouldBeNull();
        await AlterAsync(201);
        (await ChainAsync(database, noted)).Broken!.ShouldContain("Entry 201 does not agree");
        (await ChainAsync(database, (200, new byte[32]))).Broken.ShouldBe("Entry 200 is not the one that was noted down.");

        Task<object?> AlterAsync(int position) =>
            database.AskAsync(
                "set session_replication_role = replica; "
                    + $"update changes set why = 'another' where id = (select change_id from seals where position = {position})"
            );
    }

    private async Task<ChainFinding> ChainAsync(TestDatabase? database = null, (long, byte[])? noted = null)
    {
        await using var source = FidDatabase.Source((database ?? firm.Database).Connection);
        await using var connection = await source.OpenConnectionAsync();
        return await AuditChain.VerifyAsync(connection, noted, default);
    }

    private static async Task TryAsync(string connection, string sql)
    {
        await using var open = new NpgsqlConnection(connection);
        await open.OpenAsync();
        await using var command = new NpgsqlCommand(sql, open);
        await command.ExecuteNonQueryAsync();
    }
}
