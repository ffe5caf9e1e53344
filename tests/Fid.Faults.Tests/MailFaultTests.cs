using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Faults.Tests;

/// <summary>Mail, while the server that sends it is killed after each message.</summary>
[Collection("cluster")]
public sealed class MailFaultTests
{
    [Fact]
    public async Task What_was_to_be_sent_when_the_server_was_killed_is_sent_and_nothing_twice_as_two()
    {
        await using var database = await TestDatabase.CloneAsync();
        await using var mail = new StandInMail();
        string[] expected;
        using (var quiet = await ServerProcess.StartAsync(database.Connection))
        using (var orla = await Caller.SignedInAsync(quiet.Address, "orla"))
            expected = [.. (await orla.GetAsync("/api/reminders?on=2027-03-01"))["messages"]!.AsArray().Select(m => m!.Text("address"))];
        expected.Length.ShouldBeGreaterThan(2);

        for (var there = 1; there < expected.Length; there++)
        {
            using var killed = await ServerProcess.StartAsync(database.Connection, mail.Settings);
            await mail.CaughtAsync(there);
            await killed.KillAsync();
        }
        using var last = await ServerProcess.StartAsync(database.Connection, mail.Settings);
        var caught = await mail.CaughtAsync(expected.Length);
        while ((await database.AskAsync("select count(*) from jobs where kind = 'mail'")) is not 0L) { }

        caught.Select(c => c.To).ShouldBe(expected.Order(StringComparer.Ordinal));
        (await database.AskAsync("select count(*) from mail_messages")).ShouldBe((long)expected.Length);
        (await database.AskAsync("select count(*) from mail_messages where sent_at is null or refused is not null")).ShouldBe(0L);
        (await database.AskAsync("select count(*) = count(distinct (task_id, owner_id, kind, day)) from task_reminders")).ShouldBe(true);
    }
}
