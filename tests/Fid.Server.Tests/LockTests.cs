using System.Data.Common;
using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Data;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Locks are taken in one order, whoever takes them: nobody ever waits for somebody who waits for them.</summary>
public class LockTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_lock_that_comes_before_one_that_is_held_is_refused_though_nobody_else_is_there()
    {
        await using var acts = new ActCaller(firm.Server);
        var db = acts.Db;
        var records = await db.CurrentRecords.Select(r => r.EmploymentId).Take(2).ToArrayAsync();
        await using (await db.Database.BeginTransactionAsync())
        {
            await Locks.RecordAsync(db, records[0], default);
            await Locks.BadgesAsync(db, default);
            // What is held already may be taken again.
            await Locks.RecordAsync(db, records[0], default);
            (await Should.ThrowAsync<InvalidOperationException>(() => Locks.RecordAsync(db, records[1], default))).Message.ShouldContain(
                "is locked after Badges"
            );
            await Should.ThrowAsync<InvalidOperationException>(() => Locks.ListAsync(db, "sites", default));
            await Locks.UniqueValuesAsync(db, ["badge"], default);
        }
        await using (await db.Database.BeginTransactionAsync())
            await Locks.ListAsync(db, "sites", default);
    }

    [Fact]
    public async Task A_lock_needs_a_transaction_with_which_it_ends()
    {
        await using var acts = new ActCaller(firm.Server);
        (await Should.ThrowAsync<InvalidOperationException>(() => Locks.BadgesAsync(acts.Db, default))).Message.ShouldContain("ends with a transaction");
    }

    [Fact]
    public async Task Waiting_for_others_is_given_longer_than_a_database_that_does_not_answer()
    {
        var patience = new Patience();
        await using var source = FidDatabase.Source(firm.Database.Connection, impatient: true);
        await using var db = new FidDb(((DbContextOptionsBuilder<FidDb>)new DbContextOptionsBuilder<FidDb>().UseFid(source)).AddInterceptors(patience).Options);
        await using var own = await db.Database.BeginTransactionAsync();
        Func<Task>[] locks =
        [
            () => Locks.TemplatesAsync(db, default),
            () => Locks.ListAsync(db, "sites", default),
            () => Locks.RequestAsync(db, Guid.NewGuid(), default),
            () => Locks.RecordAsync(db, Guid.NewGuid(), default),
            () => Locks.HiresAsync(db, [Guid.NewGuid()], default),
            () => Locks.TasksAsync(db, [new(Guid.NewGuid(), "induction")], default),
            () => Locks.BadgesAsync(db, default),
            () => Locks.UniqueValuesAsync(db, ["badge"], default),
            () => Locks.EntriesAsync(db, [("sites", "north")], default),
            () => Locks.EntryAloneAsync(db, Guid.NewGuid(), default),
        ];
        foreach (var take in locks)
        {
            patience.Seconds.Clear();
            await take();
            patience.Seconds.ShouldNotBeEmpty();
            patience.Seconds.ShouldAllBe(s => s == FidDatabase.LongestTurn);
            patience.Seconds.Clear();
            await db.Firms.CountAsync();
            patience.Seconds.ShouldAllBe(s => s < 5);
        }
        // What has all the time it needs keeps it.
        db.Database.SetCommandTimeout(FidDatabase.LongestWork);
        patience.Seconds.Clear();
        await Locks.BadgesAsync(db, default);
        patience.Seconds.ShouldBe([FidDatabase.LongestWork]);
    }

    [Fact]
    public async Task Those_who_open_hires_alone_and_with_records_that_change_meanwhile_do_not_wait_for_each_other_for_ever()
    {
        var opened = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(async i =>
                {
                    await using var acts = new ActCaller(firm.Server);
                    var orla = await acts.AsAsync("orla");
                    var request = new OpenHireRequest([Hire(i, orla.Today)]);
                    if (i % 2 == 0)
                        return (await acts.Get<OpenHire>().DoAsync(request, orla, default)).Answer;
                    // As a sheet does: records that it changes are held before hires are opened.
                    await using var sheet = await ActScope.BeginAsync(acts.Db, orla, i, default);
                    await Locks.RecordsAsync(
                        acts.Db,
                        await acts.Db.CurrentRecords.OrderByDescending(r => r.Search).Select(r => r.EmploymentId).Take(20).ToListAsync(),
                        default
                    );
                    var result = await acts.Get<OpenHire>().DoAsync(request, orla, default);
                    await sheet.CommitAsync(default);
                    return result.Answer;
                })
        );
        opened.ShouldAllBe(o => o != null);
        opened.SelectMany(o => o!).Select(o => o.Number).Distinct().Count().ShouldBe(6);
    }

    /// <summary>Hears how long each command is waited for.</summary>
    private sealed class Patience : DbCommandInterceptor
    {
        public List<int> Seconds { get; } = [];

        public override ValueTask<InterceptionResult<int>> NonQueryExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<int> result,
            CancellationToken cancellationToken = default
        )
        {
            Seconds.Add(command.CommandTimeout);
            return new(result);
        }

        public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result,
            CancellationToken cancellationToken = default
        )
        {
            Seconds.Add(command.CommandTimeout);
            return new(result);
        }
    }

    private static NewHireRequest Hire(int i, LocalDate today) =>
        new(
            Guid.NewGuid(),
            "deckhand",
            today.PlusWeeks(8),
            new()
            {
                ["given_name"] = JsonSerializer.SerializeToElement($"Given{(char)('A' + i)}{new string((char)('a' + i), 5)}"),
                ["family_name"] = JsonSerializer.SerializeToElement($"Family{(char)('A' + i)}{new string((char)('m' + i), 5)}"),
                ["email"] = JsonSerializer.SerializeToElement($"locks.{i}@example.org"),
                ["site"] = JsonSerializer.SerializeToElement("skerry"),
            }
        );
}
