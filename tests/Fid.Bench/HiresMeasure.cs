using System.Diagnostics;
using System.Globalization;
using System.Text;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Exchange;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Bench;

/// <summary>Hires opened from a sheet in a firm of 5,000 people, from the upload to their checklists. The database is the measure's
/// own: what is opened stays in it.</summary>
internal static class HiresMeasure
{
    private const int Hires = 500;

    public static async Task<string> RunAsync(string connection, string on)
    {
        var today = LocalDatePattern.Iso.Parse(on).Value;
        await using var source = FidDatabase.Source(connection);
        await using var db = FidDatabase.Open(source);
        var writer = new RecordWriter(db, new SensitiveValues(new EphemeralDataProtectionProvider()));
        var targets = new ImportTargets(db, writer, new HireOpening(db, writer), new HireClosing(writer, new Notices(db)), new PeopleIndex());
        var orla = await db.UserRoles.Join(db.Roles, u => u.RoleId, r => r.Id, (u, r) => new { u.UserId, r.Name }).Where(u => u.Name == Roles.Coordinator).Select(u => u.UserId).FirstAsync();
        var sites = await db.ListEntries.Where(e => e.List == "sites" && !e.Retired).Select(e => e.Code).OrderBy(c => c).ToArrayAsync();
        var sheet = new StringBuilder("Role template,Start,Given name,Family name,E-mail,Site\n");
        for (var i = 0; i < Hires; i++)
            sheet.Append(CultureInfo.InvariantCulture, $"{(i % 2 == 0 ? "Deckhand" : "Ticket clerk")},{today.PlusDays(30 + i % 40):uuuu'-'MM'-'dd},Measured{i},Newcomer,measured.{i}@example.org,{sites[i % sites.Length]}\n");

        var now = Instant.FromUnixTimeSeconds(SystemClock.Instance.GetCurrentInstant().ToUnixTimeSeconds());
        var seals = new SheetSeals(new EphemeralDataProtectionProvider());
        var run = new ImportRun { List = PeopleTarget.Key, FileName = "hires.csv", Size = sheet.Length, At = now, ById = orla, ByName = "bench", State = ImportState.Dropped, SealedKey = seals.Make() };
        db.Add(run);
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        var files = new ImportFiles(source, seals);
        var began = Stopwatch.GetTimestamp();
        await files.KeepAsync(run, new MemoryStream(Encoding.UTF8.GetBytes(sheet.ToString())), default);
        await new ImportCheck(db, source, files, seals, targets).ReadAsync(run, today, default);
        var read = Stopwatch.GetElapsedTime(began).TotalSeconds;
        await new ImportCommit(db, source, targets).CommitAsync(run, new Author(orla, "bench", now, "exchange"), today, default);
        var whole = Stopwatch.GetElapsedTime(began).TotalSeconds;
        if (run.State != ImportState.Committed || run.New != Hires) throw new InvalidOperationException($"Not opened: {run.State} {run.Failure}, {run.New} new, {run.Wrong} wrong.");
        return FormattableString.Invariant($"| {Hires} hires opened from a sheet among 5,000 people, checklists and all | {whole:0.0} s, {read:0.0} s of it reading and checking | at most 20 s |");
    }
}
