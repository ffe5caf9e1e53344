using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Fid.Data.People;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What is copied in by the thousand is stored as what is inserted one by one is.</summary>
public class BulkSaveTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task Rows_that_are_copied_are_column_by_column_what_they_would_be_one_by_one()
    {
        await using var acts = new ActCaller(firm.Server);
        var db = acts.Db;
        var tasks = await db.HireTasks.AsNoTracking().OrderByDescending(t => t.Attachments.Length).ThenByDescending(t => t.After.Length).Take(40).ToListAsync();
        var values = await db.RecordValues.AsNoTracking().Where(v => v.Known.UpperBoundInfinite).OrderByDescending(v => v.SealedStart).Take(260).ToListAsync();
        await using var transaction = await db.Database.BeginTransactionAsync();
        var change = new Author(null, "Test", acts.Get<FirmClock>().Now, "test").Change("test.copied", Guid.NewGuid());
        var hire = await db.Hires.FirstAsync(h => h.Closed == null);
        db.Changes.Add(change);
        hire.Start = hire.Start.PlusDays(1);
        foreach (var (task, i) in tasks.Select((t, i) => (t, i)))
            db.Add(Copy(task, hire.Id, $"copied-{i}"));
        db.AddRange(
            values.Select(v => new RecordValue
            {
                OwnerId = Owner(v.OwnerId),
                Of = v.Of,
                Field = v.Field,
                Value = v.Value,
                Source = v.Source,
                Effective = v.Effective,
                Known = v.Known,
                ChangeId = change.Id,
            })
        );
        await db.SaveManyAsync(default);
        db.ChangeTracker.Clear();
        (await db.Hires.AsNoTracking().SingleAsync(h => h.Id == hire.Id)).Start.ShouldBe(hire.Start, "What is no new row is saved along.");

        var copied = await db.HireTasks.AsNoTracking().Where(t => t.HireId == hire.Id && t.Key.StartsWith("copied-")).ToDictionaryAsync(t => t.Key);
        copied.Count.ShouldBe(tasks.Count);
        for (var i = 0; i < tasks.Count; i++)
        {
            var copy = copied[$"copied-{i}"];
            copy.ShouldBeEquivalentTo(Set(Copy(tasks[i], hire.Id, copy.Key), nameof(HireTask.Id), copy.Id));
        }
        var stored = (await db.RecordValues.AsNoTracking().Where(v => v.ChangeId == change.Id).ToListAsync()).ToDictionary(v =>
            (v.OwnerId, v.Field, v.Effective.LowerBound)
        );
        stored.Count.ShouldBe(values.Count);
        foreach (var value in values)
        {
            var copy = stored[(Owner(value.OwnerId), value.Field, value.Effective.LowerBound)];
            (copy.Value.GetRawText(), copy.Source, copy.Effective, copy.Known, copy.EndedBy, copy.SealedStart).ShouldBe(
                (value.Value.GetRawText(), value.Source, value.Effective, value.Known, null, value.SealedStart)
            );
        }

        // Another owner for each, so that none is believed twice.
        Guid Owner(Guid of) => new([.. of.ToByteArray().Select(b => (byte)~b)]);
    }

    [Fact]
    public async Task Values_that_end_by_the_hundred_end_as_each_alone_and_what_takes_their_place_is_believed()
    {
        await using var acts = new ActCaller(firm.Server);
        var db = acts.Db;
        var before = await db
            .RecordValues.AsNoTracking()
            .Where(v => v.Known.UpperBoundInfinite && v.RowId == null && v.SealedStart == null)
            .OrderBy(v => v.Id)
            .Take(230)
            .ToListAsync();
        await using var transaction = await db.Database.BeginTransactionAsync();
        var change = new Author(null, "Test", acts.Get<FirmClock>().Now, "test").Change("test.ended", Guid.NewGuid());
        db.Changes.Add(change);
        foreach (var value in await db.RecordValues.Where(v => before.Select(b => b.Id).Contains(v.Id)).ToListAsync())
        {
            value.End(change);
            db.Add(RecordValue.Begun(value.Place, value.Value, "test", value.Effective, change));
        }
        await db.SaveManyAsync(default);
        db.ChangeTracker.Clear();

        var after = await db.RecordValues.AsNoTracking().Where(v => v.EndedBy == change.Id).ToDictionaryAsync(v => v.Id);
        after.Keys.ShouldBe(before.Select(v => v.Id), ignoreOrder: true);
        foreach (var value in before)
            (after[value.Id].Known, after[value.Id].Effective).ShouldBe((value.Known.Until(change.At), value.Effective));
        (await db.RecordValues.CountAsync(v => v.ChangeId == change.Id && v.Known.UpperBoundInfinite)).ShouldBe(before.Count);
    }

    [Fact]
    public async Task Accounts_are_copied_before_what_refers_to_them()
    {
        await using var acts = new ActCaller(firm.Server);
        var (db, at) = (acts.Db, acts.Get<FirmClock>().Now);
        await using var transaction = await db.Database.BeginTransactionAsync();
        var accounts = new NewcomerAccounts(db);
        var people = Enumerable.Range(0, 150).Select(_ => Guid.NewGuid()).ToArray();
        foreach (var (person, i) in people.Select((p, i) => (p, i)))
            accounts.Add(person, $"Copied {i}", new Author(null, "Fid", at, "test"));
        var one = db.ChangeTracker.Entries<FidUser>().First(e => e.State == EntityState.Added).Entity;
        await db.SaveManyAsync(default);
        db.ChangeTracker.Clear();
        (await db.Users.CountAsync(u => people.Contains(u.PersonId!.Value) && u.Teams.Length == 0 && u.Version == 1)).ShouldBe(150);
        (await db.RoleGrants.CountAsync(g => g.Role == "newcomer" && db.Users.Any(u => u.Id == g.AccountId && people.Contains(u.PersonId!.Value)))).ShouldBe(
            150
        );
        var stored = await db.Users.AsNoTracking().SingleAsync(u => u.Id == one.Id);
        (stored.DisplayName, stored.MadeAt, stored.PasswordHash, stored.Email, stored.DisabledAt, stored.SecurityStamp).ShouldBe(
            (one.DisplayName, at, null, null, null, one.SecurityStamp)
        );
    }

    [Fact]
    public async Task What_the_database_forbids_is_refused_and_nothing_of_it_stays()
    {
        await using var acts = new ActCaller(firm.Server);
        var db = acts.Db;
        var there = await db.RecordValues.AsNoTracking().Where(v => v.Known.UpperBoundInfinite).Take(250).ToListAsync();
        var before = await db.RecordValues.CountAsync();
        await using (var transaction = await db.Database.BeginTransactionAsync())
        {
            db.AddRange(
                there.Select(v => new RecordValue
                {
                    OwnerId = v.OwnerId,
                    Of = v.Of,
                    Field = v.Field,
                    Value = v.Value,
                    Source = v.Source,
                    Effective = v.Effective,
                    Known = v.Known,
                    ChangeId = v.ChangeId,
                })
            );
            await db.SaveManyAsync(default);
            // That is looked at when the transaction ends.
            (await Should.ThrowAsync<Npgsql.PostgresException>(() => transaction.CommitAsync())).SqlState.ShouldBe(
                Npgsql.PostgresErrorCodes.ExclusionViolation
            );
        }
        (await db.RecordValues.CountAsync()).ShouldBe(before);
    }

    private static HireTask Copy(HireTask task, Guid hire, string key) => Set(task.Copy(hire), nameof(HireTask.Key), key);

    private static HireTask Set(HireTask task, string property, object value)
    {
        typeof(HireTask).GetProperty(property)!.SetValue(task, value);
        return task;
    }
}
