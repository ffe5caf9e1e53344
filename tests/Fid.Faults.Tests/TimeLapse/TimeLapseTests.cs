using Fid.Acts;
using Fid.Acts.Tasks;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Testing;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;
using Shouldly;
using Xunit;

namespace Fid.Faults.Tests.TimeLapse;

/// <summary>A hundred and twenty days of a firm with six hundred hires, on two servers, of which one is killed at its work now and then, and both for a
/// whole day.</summary>
[Collection("cluster")]
public sealed class TimeLapseTests(ITestOutputHelper output) : IAsyncLifetime
{
    private const int Days = 120,
        DownFor = 90;

    // Reminders go out from seven on.
    private static readonly LocalTime Early = new(5, 0),
        Hour = new(7, 30);

    private readonly StandInMail _mail = new();
    private readonly SimulatedClock _clock = new(Path.Combine(Path.GetTempPath(), $"fid-clock-{Guid.NewGuid():N}"));
    private readonly ServerProcess?[] _servers = new ServerProcess?[2];
    private TestDatabase _database = null!;
    private NpgsqlDataSource _source = null!;
    private NpgsqlConnection _told = null!;
    private ServiceProvider _acts = null!;

    public async ValueTask InitializeAsync()
    {
        _database = await TestDatabase.CloneAsync();
        _source = FidDatabase.Source(_database.Connection);
        // Whoever waits for the servers is told of what they did: asking again and again would take the processor from them.
        await _database.AskAsync(
            """
            create function tell_test() returns trigger language plpgsql as $$ begin notify test; return null; end $$;
            create trigger tell_test after update on firms for each statement execute function tell_test();
            create trigger tell_test after update or delete on jobs for each statement execute function tell_test();
            """
        );
        _told = await _source.OpenConnectionAsync();
        await using (var listen = new NpgsqlCommand("listen test", _told))
            await listen.ExecuteNonQueryAsync();
        var services = new ServiceCollection();
        services.AddSingleton(_source).AddSingleton(new FirmClock(_clock, null)).AddSingleton<IDataProtectionProvider>(new EphemeralDataProtectionProvider());
        services.AddDbContext<FidDb>(options => options.UseFid(_source));
        _acts = services.AddFidActs().BuildServiceProvider();
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var server in _servers)
            server?.Dispose();
        await _acts.DisposeAsync();
        await _told.DisposeAsync();
        await _source.DisposeAsync();
        await _mail.DisposeAsync();
        _clock.Dispose();
        File.Delete(_clock.Path);
        await _database.DisposeAsync();
    }

    [Fact]
    public async Task Each_reminder_gate_and_escalation_comes_once_and_on_its_day()
    {
        var first = TestDatabase.Today;
        await MoveToAsync(first, Early);
        var oracle = await OpenAsync(first);
        for (var i = 0; i < Days; i++)
        {
            var day = first.PlusDays(i);
            if (i == DownFor)
            {
                await KillAsync(0);
                await KillAsync(1);
                continue;
            }
            for (var server = 0; server < _servers.Length; server++)
                _servers[server] ??= await ServerProcess.StartAsync($"{_database.Connection};Application Name=server{server}", _mail.Settings, _clock.Path);
            await MoveToAsync(day, Early);
            if (i is 20 or 61)
                await KillWhoWorksAsync();
            await UntilAsync($"select advanced_on = '{day:uuuu-MM-dd}' from firms");
            await UntilAsync("select not exists (select from jobs where not recurs)");
            oracle.Begin(day);
            await MoveToAsync(day, Hour);
            if (i is 45 or 72)
                await KillWhoWorksAsync();
            await UntilAsync($"select reminded_on = '{day:uuuu-MM-dd}' from firms");
            await UntilAsync("select not exists (select from jobs where not recurs)");
            oracle.Remind(day);
            var done = oracle.DoneOn(day);
            // Who ticks so many sees checklists go on at once: there is somebody to be caught at it.
            await Task.WhenAll(TickAsync(done), i is 30 or 31 && done.Count > 0 ? KillWhoWorksAsync() : Task.CompletedTask);
            await UntilAsync("select not exists (select from jobs where not recurs)");
            oracle.Do(done, day);
        }

        await using var db = FidDatabase.Open(_source);
        await CheckStepsAsync(db, oracle);
        await CheckRemindersAsync(db, oracle);
        output.WriteLine(
            $"{oracle.Reminders.Count} reminders, {oracle.Reminders.Count(r => r.Kind == "Escalation")} of them escalations, and {oracle.Steps.Count} steps"
        );
    }

    private async Task<LapseOracle> OpenAsync(LocalDate today)
    {
        await using var scope = _acts.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FidDb>();
        var hires = await LapseFirm.OpenAsync(db, _clock.GetCurrentInstant(), today);
        return new LapseOracle(hires, await LapseFirm.PeopleAsync(db), today);
    }

    // Those who do jobs are told that something is due: by themselves they would look a few seconds later.
    private async Task MoveToAsync(LocalDate day, LocalTime time)
    {
        _clock.Set((day + time).InZoneLeniently(Firm.ZoneOf("Europe/Dublin")).ToInstant());
        await _database.AskAsync("notify fid_jobs");
    }

    private async Task TickAsync(IReadOnlyList<(Guid Hire, string Task)> tasks)
    {
        foreach (var some in tasks.Chunk(100))
        {
            await using var scope = _acts.CreateAsyncScope();
            var (db, clock) = (scope.ServiceProvider.GetRequiredService<FidDb>(), scope.ServiceProvider.GetRequiredService<FirmClock>());
            var orla = await db.Users.Where(u => u.Email == "orla@halyard.example").Select(u => u.Id).SingleAsync();
            var actor = await Actor.OfAccountAsync(orla, "test", clock, db, default);
            var ticked = await scope
                .ServiceProvider.GetRequiredService<TickTasks>()
                .DoAsync(new TickTasksRequest([.. some.Select(t => new TaskRef(t.Hire, t.Task))]), actor, default);
            ticked.Answer!.Changes.Count.ShouldBe(some.Length);
        }
    }

    // Whichever server holds a job is killed while it does; which of the two that is nobody can know before.
    private async Task KillWhoWorksAsync()
    {
        object? working;
        do working = await _database.AskAsync(
            """
            select min(right(a.application_name, 1))::int from pg_locks l join pg_stat_activity a on a.pid = l.pid
            where l.locktype = 'advisory' and a.application_name like 'server_' and a.datname = current_database()
              and exists (select from jobs where state = 'Running')
            """
        );
        while (working is not int);
        await KillAsync((int)working);
    }

    private async Task KillAsync(int server)
    {
        await _servers[server]!.KillAsync();
        _servers[server]!.Dispose();
        _servers[server] = null;
    }

    private async Task UntilAsync(string condition)
    {
        while (await _database.AskAsync(condition) is not true)
            await _told.WaitAsync();
    }

    private static async Task CheckStepsAsync(FidDb db, LapseOracle oracle)
    {
        var zone = Firm.ZoneOf("Europe/Dublin");
        string[] actions = ["stage.opened", "stage.passed", "stage.closed", "stage.reopened", "hire.settled"];
        var changes = await db.Changes.AsNoTracking().Where(c => actions.Contains(c.Action) && c.At > Instant.FromUtc(2027, 2, 28, 0, 0)).ToListAsync();
        var came = changes.ConvertAll(c => new LapseStep(c.SubjectId, c.Part, c.Action, c.At.InZone(zone).Date));
        came.ShouldBeUnique();
        came.Except(oracle.Steps).Take(10).ShouldBeEmpty("nobody asked for them");
        oracle.Steps.Except(came).Take(10).ShouldBeEmpty("they did not come");
        foreach (var stage in await db.HireStages.AsNoTracking().Where(s => s.Passed != null).ToListAsync())
            if (oracle.Steps.Contains(new LapseStep(stage.HireId, stage.StageKey, "stage.passed", stage.Passed!.Value)) is false)
                came.ShouldNotContain(c => c.Hire == stage.HireId, $"{stage.StageKey} passed on {stage.Passed}");
    }

    private async Task CheckRemindersAsync(FidDb db, LapseOracle oracle)
    {
        var zone = Firm.ZoneOf("Europe/Dublin");
        var sent = await (
            from reminder in db.TaskReminders
            join task in db.HireTasks on reminder.TaskId equals task.Id
            join message in db.MailMessages on reminder.MessageId equals message.Id
            select new
            {
                message.At,
                message.Address,
                task.HireId,
                task.Key,
                reminder.Kind,
                reminder.Day,
            }
        ).ToListAsync();
        var came = sent.ConvertAll(r => new LapseReminder(r.At.InZone(zone).Date, r.Address, r.HireId, r.Key, r.Kind.ToString(), r.Day));
        came.ShouldBeUnique();
        came.Except(oracle.Reminders).Take(10).ShouldBeEmpty("nobody asked for them");
        oracle.Reminders.Except(came).Take(10).ShouldBeEmpty("they did not come");

        var messages = oracle.Reminders.Select(r => (r.On, r.To)).Distinct().Count();
        (await db.MailMessages.CountAsync()).ShouldBe(messages);
        (await db.MailMessages.CountAsync(m => m.SentAt == null || m.Refused != null)).ShouldBe(0);
        var caught = await _mail.CaughtAsync(messages);
        caught.Count.ShouldBe(messages);
    }
}
