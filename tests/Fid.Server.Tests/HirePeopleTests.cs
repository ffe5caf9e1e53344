using Fid.Testing;
using Npgsql;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Whose a hire is follows from the record, however the two come about.</summary>
public class HirePeopleTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private const string Somebody = "select person_id from records_now order by employment_id limit 1";

    [Theory]
    [InlineData("manager_id")]
    [InlineData("buddy_id")]
    [InlineData("person_id")]
    public async Task What_the_record_says_anew_is_said_of_every_hire_of_it(string column)
    {
        var hire = await HireAsync();
        var second = (Guid)(await firm.Database.AskAsync(Another(hire)))!;
        await firm.Database.AskAsync(
            $"""
            update records_now set {column} = ({Somebody})
            where employment_id = (select employment_id from hires where id = '{hire}') returning 1
            """
        );
        foreach (var each in new[] { hire, second })
            (await firm.Database.AskAsync($"select count(*) from hire_people where hire_id = '{each}' and {column} = ({Somebody})")).ShouldBe(1L);
        await firm.Database.AskAsync($"delete from hires where id = '{second}' returning 1");
        (await firm.Database.AskAsync($"select count(*) from hire_people where hire_id = '{second}'")).ShouldBe(0L);
    }

    [Fact]
    public async Task A_hire_that_is_opened_while_its_record_is_changed_waits_for_the_change()
    {
        var hire = await HireAsync();
        await using var changing = new NpgsqlConnection(firm.Database.Connection);
        await changing.OpenAsync();
        await using var transaction = await changing.BeginTransactionAsync();
        var manager = Guid.NewGuid();
        await using (
            var change = new NpgsqlCommand(
                $"update records_now set manager_id = '{manager}' where employment_id = (select employment_id from hires where id = '{hire}')",
                changing,
                transaction
            )
        )
            (await change.ExecuteNonQueryAsync()).ShouldBe(1);
        var opening = firm.Database.AskAsync(Another(hire));
        const string waits = "select exists (select from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock')";
        while (!(bool)(await firm.Database.AskAsync(waits))! && !opening.IsCompleted)
            await Task.Yield();
        await transaction.CommitAsync();
        (await firm.Database.AskAsync($"select manager_id from hire_people where hire_id = '{await opening}'")).ShouldBe(manager);
    }

    private async Task<Guid> HireAsync() => (Guid)(await firm.Database.AskAsync("select id from hires where closed is null order by id limit 1"))!;

    // Of one occasion there is one at a time: the other is past.
    private static string Another(Guid hire) =>
        $"""
            insert into hires select (jsonb_populate_record(h, jsonb_build_object('id', gen_random_uuid(), 'closed', '2027-02-26'))).* from hires h
            where h.id = '{hire}' returning id
            """;
}
