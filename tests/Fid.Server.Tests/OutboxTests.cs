using Fid.Acts;
using Fid.Acts.Outbox;
using Fid.Data.Exchange;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What others are to be told is given out once at a time, again where it was not heard, and never after it was.</summary>
public class OutboxTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private static readonly Duration Mine = Duration.FromMinutes(2);

    [Fact]
    public async Task Who_takes_one_has_it_alone_until_what_came_of_it_is_kept()
    {
        const string System = "payroll";
        var ids = await WaitingAsync(System, 6);
        var taken = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => TakeAsync(System)));
        taken.OfType<OutboxMessage>().Select(n => n.Id).ShouldBe(ids, ignoreOrder: true, "Eight who ask at once get the six, each one of their own.");
        (await TakeAsync(System)).ShouldBeNull();

        await using var acts = new ActCaller(firm.Server);
        var outbox = acts.Get<OutboxDelivery>();
        await outbox.SettleAsync(taken.OfType<OutboxMessage>().First(), null, Duration.FromSeconds(1), default);
        await outbox.SettleAsync(taken.OfType<OutboxMessage>().Last(), "It answered 500.", Duration.FromSeconds(-10), default);
        var again = (await TakeAsync(System))!;
        (again.Id, again.Tries, again.Trouble).ShouldBe((taken.OfType<OutboxMessage>().Last().Id, 2, "It answered 500."));
        // Somebody who was slow comes with an answer to what was heard by another in the meantime.
        await outbox.SettleAsync(again, null, Duration.FromSeconds(1), default);
        await outbox.SettleAsync(again, "Too late.", Duration.FromSeconds(-10), default);
        (await TakeAsync(System)).ShouldBeNull();
        (await acts.Db.Outbox.AsNoTracking().SingleAsync(n => n.Id == again.Id)).Trouble.ShouldBeNull();
    }

    [Fact]
    public async Task What_was_taken_by_somebody_who_died_is_given_out_again_after_a_while()
    {
        const string System = "clocks";
        var id = (await WaitingAsync(System, 1)).Single();
        await using var acts = new ActCaller(firm.Server);
        (await acts.Get<OutboxDelivery>().TakeAsync(System, Duration.FromMinutes(-1), default))!.Id.ShouldBe(id);
        (await TakeAsync(System))!.Tries.ShouldBe(2);
    }

    [Theory]
    [InlineData(1, 2)]
    [InlineData(3, 8)]
    [InlineData(20, 3600)]
    public async Task The_pause_doubles_with_every_try_up_to_an_hour(int tries, int seconds)
    {
        const string System = "directory";
        await using var acts = new ActCaller(firm.Server);
        var notice = Waiting(System, acts.Get<FirmClock>().Now);
        notice.Tries = tries;
        acts.Db.Add(notice);
        await acts.Db.SaveChangesAsync();
        acts.Db.ChangeTracker.Clear();
        var before = acts.Get<FirmClock>().Now;
        await acts.Get<OutboxDelivery>().SettleAsync(notice, "It answered 500.", Duration.FromSeconds(1), default);
        var next = (await acts.Db.Outbox.AsNoTracking().SingleAsync(n => n.Id == notice.Id)).NextTry;
        (next - before).ShouldBeGreaterThanOrEqualTo(Duration.FromSeconds(seconds));
        (next - acts.Get<FirmClock>().Now).ShouldBeLessThanOrEqualTo(Duration.FromSeconds(seconds));
    }

    private async Task<OutboxMessage?> TakeAsync(string system)
    {
        await using var acts = new ActCaller(firm.Server);
        return await acts.Get<OutboxDelivery>().TakeAsync(system, Mine, default);
    }

    private async Task<Guid[]> WaitingAsync(string system, int count)
    {
        await using var acts = new ActCaller(firm.Server);
        var notices = Enumerable.Range(0, count).Select(_ => Waiting(system, acts.Get<FirmClock>().Now)).ToArray();
        acts.Db.AddRange(notices);
        await acts.Db.SaveChangesAsync();
        return [.. notices.Select(n => n.Id)];
    }

    private static OutboxMessage Waiting(string system, Instant at) =>
        new()
        {
            Channel = system,
            Recipient = "X",
            Payload = new HireNotice(NoticeKind.StartMoved, "0001", TestDatabase.Today),
            At = at,
            NextTry = at,
        };
}
