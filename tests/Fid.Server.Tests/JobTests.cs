using System.Collections.Concurrent;
using System.Net;
using Fid.Acts;
using Fid.Acts.Work;
using Fid.Data.Work;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What Fid is to do by itself is done once at a time, again where it was cut off or failed, and told to the administrator.</summary>
public class JobTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    // Of kinds that no server knows, so that nobody but the test does them.
    private static JobKind Once { get; } = Kind("test.once", null);

    private static JobKind Again { get; } = Kind("test.again", Duration.FromHours(2));

    [Fact]
    public async Task A_job_comes_with_the_act_that_asks_for_it_or_not_at_all()
    {
        await using var acts = new ActCaller(firm.Server);
        var kind = $"test.{nameof(A_job_comes_with_the_act_that_asks_for_it_or_not_at_all)[..20]}";
        await using (await ActScope.BeginAsync(acts.Db, await acts.AsFidAsync("test"), "larger", default))
        {
            acts.Db.Jobs.Add(Waiting(acts, kind, null));
            await acts.Db.SaveChangesAsync(TestContext.Current.CancellationToken);
        }
        acts.Db.ChangeTracker.Clear();
        (await TakeAsync(acts, kind)).ShouldBeNull();
    }

    [Fact]
    public async Task Many_who_ask_at_once_get_each_job_once_and_those_with_one_argument_in_turn()
    {
        await using var acts = new ActCaller(firm.Server);
        const string Name = "test.many";
        for (var i = 0; i < 12; i++)
            acts.Db.Jobs.Add(Waiting(acts, Name, (i / 2).ToString(System.Globalization.CultureInfo.InvariantCulture)));
        await acts.Db.SaveChangesAsync(TestContext.Current.CancellationToken);
        var (done, together, doing, kind) = (new ConcurrentBag<Guid>(), 0, new ConcurrentDictionary<string, bool>(), Kind(Name, null));
        await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    Task.Run(async () =>
                    {
                        // Others hold the rest for a moment: it is asked again until all are done.
                        while (done.Count < 12)
                        {
                            if (await TakeAsync(acts, Name) is not { } job)
                                continue;
                            await using (job)
                            {
                                if (!doing.TryAdd(job.Argument!, true))
                                    Interlocked.Increment(ref together);
                                await Task.Yield();
                                doing.TryRemove(job.Argument!, out bool _);
                                done.Add(job.Id);
                                await acts.Get<JobQueue>().DoneAsync(job, kind, 1);
                            }
                        }
                    })
                )
        );
        (done.Count, done.Distinct().Count(), together).ShouldBe((12, 12, 0));
        (await acts.Db.Jobs.AnyAsync(j => j.Kind == Name, TestContext.Current.CancellationToken)).ShouldBeFalse();
        (await acts.Db.JobRuns.CountAsync(r => r.Kind == Name && r.Handled == 1, TestContext.Current.CancellationToken)).ShouldBe(12);
    }

    [Fact]
    public async Task A_job_whose_server_died_is_taken_up_at_once_by_the_next_that_looks()
    {
        await using var acts = new ActCaller(firm.Server);
        var job = Waiting(acts, "test.died", null);
        acts.Db.Jobs.Add(job);
        await acts.Db.SaveChangesAsync(TestContext.Current.CancellationToken);
        var first = (await TakeAsync(acts, "test.died"))!;
        (await TakeAsync(acts, "test.died")).ShouldBeNull();
        // With a time to wait: without one it answers when the signal is sent, and the lock may still be held.
        (await firm.Database.AskAsync($"select pg_terminate_backend({first.Guard.ProcessID}, 10000)")).ShouldBe(true);
        await using var second = (await TakeAsync(acts, "test.died"))!;
        (second.Id, second.Tries).ShouldBe((job.Id, 2));
        // The first comes back to say that it is done: its word has gone with its connection.
        await Should.ThrowAsync<Exception>(() => acts.Get<JobQueue>().DoneAsync(first, Once, 1));
        (await acts.Db.Jobs.AsNoTracking().SingleAsync(j => j.Id == job.Id, TestContext.Current.CancellationToken)).State.ShouldBe(JobState.Running);
        await first.DisposeAsync();
    }

    [Fact]
    public async Task What_fails_waits_longer_each_time_and_after_many_tries_for_somebody()
    {
        await using var acts = new ActCaller(firm.Server);
        var queue = acts.Get<JobQueue>();
        acts.Db.Jobs.Add(Waiting(acts, Once.Name, "x"));
        await acts.Db.SaveChangesAsync(TestContext.Current.CancellationToken);
        for (var tries = 1; tries <= JobKind.MostTries; tries++)
        {
            await using (var job = (await TakeAsync(acts, Once.Name))!)
                await queue.FailedAsync(job, Once, $"It went wrong, {tries}.");
            var kept = await acts.Db.Jobs.AsNoTracking().SingleAsync(j => j.Kind == Once.Name, TestContext.Current.CancellationToken);
            (kept.Tries, kept.Trouble, kept.State).ShouldBe(
                (tries, $"It went wrong, {tries}.", tries == JobKind.MostTries ? JobState.Failed : JobState.Waiting)
            );
            (kept.Due - kept.StartedAt!.Value).ShouldBeGreaterThanOrEqualTo(JobKind.PauseAfter(tries));
            (await TakeAsync(acts, Once.Name)).ShouldBeNull();
            if (tries < JobKind.MostTries)
                await firm.Database.AskAsync($"update jobs set due = now() where kind = '{Once.Name}'");
        }

        using var piet = await firm.As("piet");
        var failed = (await piet.GetAsync("/api/jobs"))["jobs"]!.AsArray().Single(j => j!.Text("kind") == Once.Name)!;
        (failed.Text("state"), failed.Text("trouble")).ShouldBe(("failed", "It went wrong, 8."));
        (await piet.SendAsync("POST", $"/api/jobs/{failed.Text("id")}/again")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await using var again = (await TakeAsync(acts, Once.Name))!;
        again.Tries.ShouldBe(1);
        (await piet.GetAsync("/api/jobs"))["runs"]!
            .AsArray()
            .Count(r => r!.Text("kind") == Once.Name && (string?)r!["trouble"] is not null)
            .ShouldBe(JobKind.MostTries);
    }

    [Theory]
    [InlineData(1, 1)]
    [InlineData(2, 2)]
    [InlineData(8, 128)]
    [InlineData(12, 2048)]
    [InlineData(13, 3600)]
    [InlineData(500, 3600)]
    public void The_pause_doubles_up_to_an_hour(int tries, int seconds) => JobKind.PauseAfter(tries).ShouldBe(Duration.FromSeconds(seconds));

    [Fact]
    public async Task What_recurs_is_armed_once_and_waits_for_its_next_time()
    {
        await using var acts = new ActCaller(firm.Server);
        var queue = acts.Get<JobQueue>();
        await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => queue.ArmAsync([Again, Once], default)));
        var armed = await acts.Db.Jobs.AsNoTracking().SingleAsync(j => j.Kind == Again.Name, TestContext.Current.CancellationToken);
        await using (var job = (await TakeAsync(acts, Again.Name))!)
            await queue.DoneAsync(job, Again, 0);
        (await TakeAsync(acts, Again.Name)).ShouldBeNull();
        var next = await acts.Db.Jobs.AsNoTracking().SingleAsync(j => j.Kind == Again.Name, TestContext.Current.CancellationToken);
        (next.Id, next.Tries, next.State).ShouldBe((armed.Id, 0, JobState.Waiting));
        (next.Due - next.StartedAt!.Value).ShouldBeGreaterThanOrEqualTo(Duration.FromHours(2));
        // What did nothing is not worth telling; and a server that starts has it done at once.
        (await acts.Db.JobRuns.AnyAsync(r => r.Kind == Again.Name, TestContext.Current.CancellationToken)).ShouldBeFalse();
        await queue.ArmAsync([Again], default);
        await using var once = (await TakeAsync(acts, Again.Name))!;
        once.Id.ShouldBe(armed.Id);
        await queue.ArmAsync([Again], default);
        (await TakeAsync(acts, Again.Name)).ShouldBeNull();
    }

    [Fact]
    public async Task What_recurs_never_gives_up()
    {
        await using var acts = new ActCaller(firm.Server);
        var kind = Kind("test.never", Duration.FromSeconds(1));
        await acts.Get<JobQueue>().ArmAsync([kind], default);
        await firm.Database.AskAsync("update jobs set tries = 100 where kind = 'test.never'");
        await using (var job = (await TakeAsync(acts, kind.Name))!)
            await acts.Get<JobQueue>().FailedAsync(job, kind, new string('x', 10_000));
        var kept = await acts.Db.Jobs.AsNoTracking().SingleAsync(j => j.Kind == kind.Name, TestContext.Current.CancellationToken);
        (kept.State, kept.Trouble!.Length).ShouldBe((JobState.Waiting, Job.LongestTrouble));
    }

    [Fact]
    public async Task The_servers_jobs_are_there_and_only_an_administrator_sees_them()
    {
        using var piet = await firm.As("piet");
        (await piet.GetAsync("/api/jobs"))["jobs"]!
            .AsArray()
            .Select(j => j!.Text("kind"))
            .ShouldBeSubsetOf(
                (string[])
                    [
                        "checklists",
                        "clearing",
                        "day",
                        "feed",
                        "leavers",
                        "payRuns",
                        "recruiting",
                        .. ((string[])["test.once", "test.again", "test.many", "test.died", "test.never"]),
                    ]
            );
        using var orla = await firm.As("orla");
        (await orla.SendAsync("GET", "/api/jobs")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await piet.SendAsync("POST", $"/api/jobs/{Guid.NewGuid()}/again")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static JobKind Kind(string name, Duration? every) => new(name, every, JobLane.Short, (_, _, _, _) => Task.FromResult(0));

    private static Job Waiting(ActCaller acts, string kind, string? argument) =>
        new()
        {
            Kind = kind,
            Argument = argument,
            Due = acts.Get<FirmClock>().Now,
            MadeAt = acts.Get<FirmClock>().Now,
        };

    private static Task<TakenJob?> TakeAsync(ActCaller acts, string kind) => acts.Get<JobQueue>().TakeAsync([kind], default);
}
