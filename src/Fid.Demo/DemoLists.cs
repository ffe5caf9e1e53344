using Fid.Core.Pay;
using Fid.Data;
using Fid.Data.Lists;
using NodaTime;

namespace Fid.Demo;

/// <summary>The lists of Halyard Sound Ferries.</summary>
internal static class DemoLists
{
    private const string Zone = "Europe/Dublin";

    public static void Add(FidDb db, LocalDate today)
    {
        db.AddRange(
            Calendar("sound", "Sound", null, "0000011", MainlandHolidays(today)),
            Calendar("islands", "Sound, islands", "sound", "0000011", IslandHolidays(today)),
            Calendar("yard", "Yard shutdown", "sound", "0000011", YardShutdown(today)),
            Calendar("every", "Every day", null, "0000000", []));
        db.AddRange(
            CostCentre("400", "400 Crews"), CostCentre("410", "410 Skerry crews"), CostCentre("420", "420 Dispatch"),
            CostCentre("510", "510 Ticket halls"), CostCentre("600", "600 Yard"), CostCentre("900", "900 Office"));
        db.AddRange(
            Site("hallan", "Hallan Town", "sound", "510"), Site("skerry", "Skerry Pier", "islands", "410"), Site("corran", "Corran Quay", "islands", "400"),
            Site("little-brae", "Little Brae Slip", "islands", "400"), Site("yard", "The Yard", "yard", "600"), Site("mv-corran", "MV Corran", "islands", "400"),
            Site("mv-hallan-star", "MV Hallan Star", "sound", "400"), Site("mv-little-brae", "MV Little Brae", "islands", "400"));
        db.AddRange(
            Department("operations", "Operations"), Department("deck", "Deck", "operations"), Department("engine", "Engine", "operations"),
            Department("galley", "Galley", "operations"), Department("dispatch", "Dispatch", "operations"), Department("guests", "Guest services"),
            Department("tickets", "Tickets", "guests"), Department("shore", "Shore crew", "guests"), Department("yard", "Yard"),
            Department("shipwrights", "Shipwrights", "yard"), Department("rigging", "Rigging", "yard"), Department("office", "Office"),
            Department("payroll", "Payroll", "office"), Department("people", "People", "office"), Department("it", "IT", "office"),
            Department("stores", "Stores", "office"), Department("safety", "Safety", "office"));
        db.AddRange(
            Grade("C1", 26000, 30000, 34000), Grade("C2", 30000, 36000, 42000), Grade("C3", 33000, 39000, 45000), Grade("C4", 37000, 44000, 51000),
            Grade("C5", 43000, 51000, 59000), Grade("C6", 50000, 60000, 70000), Grade("O1", 26000, 30000, 34000), Grade("O2", 30000, 35000, 40000),
            Grade("O3", 35000, 42000, 49000), Grade("O4", 42000, 51000, 60000), Grade("O5", 50000, 62000, 74000));
        db.AddRange(DemoJobs.All.Select(j => new Job { Code = j.Code, Name = j.Title, GradeCode = j.Grade }));
        db.AddRange(
            new PayGroup { Code = "crew", Name = "Crew, fortnightly", Every = PayPeriod.Fortnight },
            new PayGroup { Code = "office", Name = "Office, monthly", Every = PayPeriod.Month },
            new PayGroup { Code = "yard", Name = "Yard, weekly", Every = PayPeriod.Week });
        db.AddRange(
            Pattern("four-a", "4 on, 4 off · A watch", "EENN----"), Pattern("four-b", "4 on, 4 off · B watch", "NNEE----"),
            Pattern("hall-early", "Ticket hall, earlies", "EEEEE--"), Pattern("hall-late", "Ticket hall, lates", "LLLLL--"),
            Pattern("yard", "Yard days", "DDDDD--"), Pattern("office", "Office days", "DDDDD--"), Pattern("galley-split", "Galley, split", "SSSS---"));
        db.AddRange(
            Device("skerry-kiosk", "Skerry kiosk", "islands"), Device("hallan-gate", "Hallan gate", "mainland"),
            Device("corran-gangway", "Corran gangway", "islands"), Device("yard-gate", "Yard gate", "mainland"));
        db.AddRange(Team("stores", "Stores"), Team("it", "IT"), Team("safety", "Safety"), Team("training", "Training"), Team("payroll", "Payroll"));
    }

    private static IEnumerable<Holiday> MainlandHolidays(LocalDate today) => Years(today).SelectMany(y => new Holiday[]
    {
        new(new(y, 1, 1), "New Year"), new(new(y, 3, 17), "Founders' Day"), new(FirstMonday(y, 5), "Spring holiday"),
        new(FirstMonday(y, 8), "Regatta"), new(FirstMonday(y, 10), "Harvest holiday"), new(new(y, 12, 25), "Midwinter"), new(new(y, 12, 26), "Second day of midwinter"),
    });

    private static IEnumerable<Holiday> IslandHolidays(LocalDate today) =>
        Years(today).SelectMany(y => new Holiday[] { new(new(y, 3, 18), "Skerry fair"), new(new(y, 9, 8), "Blessing of the boats") });

    private static IEnumerable<Holiday> YardShutdown(LocalDate today) => Years(today)
        .SelectMany(y => Enumerable.Range(0, 12).Select(i => new Holiday(FirstMonday(y, 7).PlusDays(i), "Yard shutdown")));

    private static IEnumerable<int> Years(LocalDate today) => Enumerable.Range(today.Year - 2, 5);

    private static LocalDate FirstMonday(int year, int month) => new LocalDate(year, month, 1).PlusDays(-1).Next(IsoDayOfWeek.Monday);

    private static HolidayCalendar Calendar(string code, string name, string? basedOn, string rest, IEnumerable<Holiday> days) =>
        new() { Code = code, Name = name, BasedOnCode = basedOn, Rest = rest, Holidays = [.. days] };

    private static CostCentre CostCentre(string code, string name) => new() { Code = code, Name = name };

    private static Site Site(string code, string name, string calendar, string costCentre) =>
        new() { Code = code, Name = name, TimeZone = Zone, CalendarCode = calendar, CostCentreCode = costCentre };

    private static Department Department(string code, string name, string? parent = null) => new() { Code = code, Name = name, ParentCode = parent };

    private static Grade Grade(string code, decimal min, decimal mid, decimal max) => new() { Code = code, Name = code, Min = min, Mid = mid, Max = max };

    private static ShiftPattern Pattern(string code, string name, string cycle) => new() { Code = code, Name = name, Cycle = cycle };

    private static ClockDevice Device(string code, string name, string group) => new() { Code = code, Name = name, Group = group };

    private static Team Team(string code, string name) => new() { Code = code, Name = name };
}
