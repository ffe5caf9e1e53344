using Fid.Acts;
using Fid.Acts.Checklists;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Acts.Work;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Data.People;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;

namespace Fid.Demo;

/// <summary>Halyard Sound Ferries, whole: made up, seeded, the same for the same day.</summary>
public static class DemoFirm
{
    /// <summary>How many work at the firm as it is described everywhere: 236 with the fourteen who are about to.</summary>
    public const int People = 236 - 14;

    private const int Seed = 20270301;

    /// <summary>Loads the firm into a database that is migrated and has no firm, all or nothing; does nothing where there is a firm.</summary>
    /// <param name="count">How many people work there already: <see cref="People"/>, or more, which makes it one of the large variants.</param>
    /// <param name="keyRing">The file with the certificate of the key ring; see <see cref="KeyRing.AddKeyRing"/>.</param>
    public static async Task LoadAsync(NpgsqlDataSource source, LocalDate today, int count, string? keyRing)
    {
        var large = count > People;
        var services = new ServiceCollection();
        services.AddDbContext<FidDb>(options => options.UseFid(source));
        services.AddKeyRing(keyRing);
        await using var provider = services.BuildServiceProvider();
        await using var scope = provider.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FidDb>();
        if (await db.Firms.AnyAsync())
            return;

        await using var transaction = await db.Database.BeginTransactionAsync();
        var firm = new Firm
        {
            Name = "Halyard Sound Ferries",
            Currency = "EUR",
            TimeZone = "Europe/Dublin",
        };
        db.Add(firm);
        db.Stages.AddRange(Acts.Setup.Seed.Stages());
        await db.SaveChangesAsync();

        var sensitive = new SensitiveValues(scope.ServiceProvider.GetRequiredService<IDataProtectionProvider>());
        await sensitive.PrepareAsync(db);
        var writer = new RecordWriter(db, sensitive);

        var now = Instant.FromUnixTimeSeconds(SystemClock.Instance.GetCurrentInstant().ToUnixTimeSeconds());
        var author = new Author(null, "Orla Dunmore", now, "demo");
        using (var templates = typeof(DemoFirm).Assembly.GetManifestResourceStream("Fid.Demo.templates.json")!)
            foreach (var template in TemplateFile.Read(templates))
                new TemplatePublishing(db).Add(template, author);
        await DemoLists.AddAsync(db, author);
        var names = new DemoNames(Seed);
        var people = new DemoPeople(db, writer, author, today, names);
        var made = Math.Min(count, LargeFirm.People);
        await people.AddAsync(made, SaveInBatches(db, large ? made : null), yearOfNewcomers: !large);
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        if (count > made)
            await DemoCrowd.AddAsync(db, count - made, people.TakeNumbers(count - made), DemoPeople.FirstBadge + made, today, now);
        await people.AppointHeadsAsync();
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();

        var users = DemoAccounts.Make(people.Named, now);
        DemoAccounts.Add(db, users);
        if (!large)
            db.AccountAbsences.Add(DemoAccounts.NilsAway(users, today, author));
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        if (large)
        {
            await LargeFirm.AddHistoryAsync(db, today);
            // Ten million values would say no more than a million do.
            if (count <= LargeFirm.People)
                await LargeFirm.AddMonthsAsync(db, today);
            await LargeFirm.AddHiresAsync(db, writer, author, today, people, names, users[0].Id);
        }
        else
        {
            await new DemoHires(db, writer, author, today, people, users[0]).AddAsync();
            var newcomerId = users[^1].Id;
            var newcomer = await db.Users.SingleAsync(u => u.Id == newcomerId);
            var varga = people.Named["Varga"].PersonId;
            // She has been invited: the account that came with her hire is hers already.
            await db.Users.Where(u => u.PersonId == varga).ExecuteDeleteAsync();
            newcomer.PersonId = varga;
        }
        await db.SaveChangesAsync();
        await new DemoPast(db, writer, author, today, users[0].Id).AddAsync();
        db.NumberCounters.Add(new NumberCounter { Year = 0, Last = people.NextNumber - 1 });
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        if (!large)
        {
            var orla = await Actor.OfAccountAsync(users[0].Id, "demo", new FirmClock(SystemClock.Instance, today), db, default);
            var records = new DemoRecords(db, writer, author, today);
            await new DemoChecklists(db, writer, records, sensitive, author, orla).AddAsync(people.Named["Bondar"]);
            await new DemoPay(db, records, today).AddAsync();
            await new DemoRuns(db, author, today).AddAsync();
        }
        await AdvanceAsync(db, today);
        // At the end every change is sealed with its values: among a million, they have to be found by the index.
        if (large)
            await db.Database.ExecuteSqlRawAsync("analyze record_values, changes, seals");
        await transaction.CommitAsync();
    }

    // The checklists stand as they would have come to stand: what a server finds to do later is what happens from then on.
    private static async Task AdvanceAsync(FidDb db, LocalDate today)
    {
        db.ChangeTracker.Clear();
        var fid = await Actor.FidAsync("demo", new FirmClock(SystemClock.Instance, today), db, default);
        await new AdvanceChecklistsDaily(db, new ReplanChecklists(db, new AdvanceChecklists(db), new JobProgress())).DoAsync(
            new AdvanceChecklistsDailyRequest(),
            fid,
            default
        );
        await db.Jobs.Where(j => j.Kind == AdvanceChecklists.Kind || j.Kind == ReplanChecklists.Kind).ExecuteDeleteAsync();
    }

    // Saves and forgets as it goes: a context that tracks thousands of values looks through all of them at every save.
    private static Action<int> SaveInBatches(FidDb db, int? of) =>
        count =>
        {
            if (count % LargeFirm.Batch != 0)
                return;
            db.SaveChanges();
            db.ChangeTracker.Clear();
            if (of is not null && count % 500 == 0)
                Console.WriteLine($"  {count} of {of} people");
        };
}
