using Fid.Data;
using Fid.Demo;
using NodaTime;
using NodaTime.Text;

System.Globalization.CultureInfo.CurrentCulture = System.Globalization.CultureInfo.InvariantCulture;

// usage: Fid.Demo [--today DATE] [--people large|COUNT] | --accounts, with the database's address in the environment, where no process list shows it.
if (args is ["--accounts"])
{
    DemoAccounts.Print();
    return;
}
var connection = Environment.GetEnvironmentVariable("ConnectionStrings__Fid")
    ?? throw new InvalidOperationException("ConnectionStrings__Fid says where the database is.");
var at = Array.IndexOf(args, "--today");
var today =
    at >= 0
        ? LocalDatePattern.Iso.Parse(args[at + 1]).GetValueOrThrow()
        : SystemClock.Instance.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb["Europe/Dublin"]).Date;

await using var source = FidDatabase.Source(connection + ";Command Timeout=900");
var sized = Array.IndexOf(args, "--people");
var count =
    sized < 0 ? DemoFirm.People
    : args[sized + 1] == "large" ? LargeFirm.People
    : int.Parse(args[sized + 1], System.Globalization.CultureInfo.InvariantCulture);
await DemoFirm.LoadAsync(source, today, count, Environment.GetEnvironmentVariable("Fid__KeyRing"));
