using System.Globalization;
using System.Text.Json;
using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Core.Lists;
using Fid.Core.Templates;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Demo;

/// <summary>The people who work at the firm already.</summary>
internal sealed class DemoPeople(FidDb db, RecordWriter writer, Author author, LocalDate today, DemoNames names)
{
    public const int FirstBadge = 4576;

    private readonly Dictionary<string, Guid> _heads = [];
    private int _number = 1001;

    /// <summary>The named people, by family name.</summary>
    public Dictionary<string, Employment> Named { get; } = [];

    public int NextNumber => _number;

    /// <summary>Takes as many numbers as said, and answers the first.</summary>
    public int TakeNumbers(int count) => (_number += count) - count;

    public string TakeNumber() => (_number++).ToString(CultureInfo.InvariantCulture);

    public Guid Head(string department) => _heads[department];

    /// <summary>Adds people until there are as many as wanted, the named ones first. Whoever comes first in a department leads it.</summary>
    /// <param name="yearOfNewcomers">Whether a third of those who are not named came within the last year.</param>
    public async Task AddAsync(int count, Action<int>? afterEach = null, bool yearOfNewcomers = false)
    {
        (string Given, string Family, string Job)[] named =
        [
            ("Runa", "Tveit", "OM-5"),
            ("Orla", "Dunmore", "PE-3"),
            ("Piet", "Haverkort", "IT-3"),
            ("Ruth", "Abara", "PY-2"),
            ("Callum", "Reyes", "DK-4"),
            ("Nils", "Aakre", "ST-2"),
            ("Thandiwe", "Maseko", "IT-3"),
            ("Eoin", "Brannigan", "SF-4"),
            ("Mirela", "Popa", "TR-3"),
            ("Yasmin", "Haddad", "TC-3"),
            ("Gethin", "Prys", "SW-3"),
            ("Solveig", "Hauge", "EN-6"),
            ("Beatriz", "Moutinho", "GA-3"),
            ("Kenta", "Morita", "DI-2"),
            ("Halyna", "Bondar", "RG-3"),
            ("Rhys", "Llewelyn", "SH-1"),
        ];
        var shares = DemoJobs.All.SelectMany(j => Enumerable.Repeat(j, j.Share)).ToArray();
        for (var i = 0; i < count; i++)
        {
            var (given, family) = i < named.Length ? (named[i].Given, named[i].Family) : names.Next();
            var job = i < named.Length ? DemoJobs.Find(named[i].Job) : shares[names.Random.Next(shares.Length)];
            var isNew = yearOfNewcomers && i >= named.Length && i % 3 == 2;
            var employment = await AddOneAsync(given, family, job, FirstBadge + i, isNew);
            if (i < named.Length)
                Named[family] = employment;
            afterEach?.Invoke(i + 1);
        }
    }

    private async Task<Employment> AddOneAsync(string given, string family, DemoJob job, int badge, bool isNew)
    {
        var random = names.Random;
        var person = new Person();
        var days = random.Next(120, 6000);
        var start = today.PlusDays(-(isNew ? 100 + days % 260 : days));
        var employment = new Employment
        {
            PersonId = person.Id,
            Number = TakeNumber(),
            Start = start,
        };
        var manager = _heads.TryGetValue(job.Department, out var head) ? head : _heads.GetValueOrDefault("operations");
        _heads.TryAdd(job.Department, employment.Id);
        db.AddRange(person, employment);
        var change = author.Change("record.imported", employment.Id);
        db.Changes.Add(change);
        await writer.AddNewAsync(employment, Values(given, family, job, badge, start, manager, random), change, today);
        return employment;
    }

    private static IEnumerable<FieldValue> Values(string given, string family, DemoJob job, int badge, LocalDate start, Guid manager, Random random)
    {
        // Within a tenth of the usual rate, to the cent.
        var rate = Math.Round(job.Rate * (0.94m + random.Next(13) / 100m), 2);
        var values = new Dictionary<string, object?>
        {
            ["given_name"] = given,
            ["family_name"] = family,
            ["email"] = DemoNames.Email(given, family, "halyard.example"),
            ["birth_date"] = Iso(start.PlusYears(-random.Next(18, 45)).PlusDays(-random.Next(300))),
            ["phone"] = $"+353 1 555 {badge % 10000:0000}",
            ["street"] = $"{random.Next(1, 120)} Quay Lane",
            ["town"] = "Hallan Town",
            ["emergency_name"] = $"{family} family",
            ["emergency_phone"] = $"+353 1 556 {badge % 10000:0000}",
            // One in thirteen has not handed it in yet.
            ["bank_account"] = badge % 13 == 0 ? null : Account(badge),
            ["job"] = job.Code,
            ["department"] = job.Department,
            ["site"] = job.Site,
            ["kind"] = "permanent",
            ["start_date"] = Iso(start),
            ["manager"] = manager == Guid.Empty ? null : manager.ToString(),
            ["cost_centre"] = job.Site == "skerry" ? "410" : "400",
            ["pay_group"] = job.PayGroup,
            ["paid_by"] = job.PaidBy,
            ["pay_rate"] = rate,
            ["weekly_hours"] = 37.5m,
            ["badge"] = badge.ToString("000000", CultureInfo.InvariantCulture),
            ["clock_device"] = Device(job.Site),
            ["shift_pattern"] = job.Pattern,
            ["holiday_calendar"] = job.Site switch
            {
                "hallan" or "mv-hallan-star" => "sound",
                "yard" => "yard",
                _ => "islands",
            },
        };
        return values
            .Where(v => v.Value is not null)
            .Select(v => new FieldValue(v.Key, JsonSerializer.SerializeToElement(v.Value), v.Key == "start_date" ? StartingValues.FromHire : "import"));
    }

    // A made-up account at a made-up bank, with the check digits of ISO 13616: 98 less the remainder of the number by 97.
    internal static string Account(int number) => Iban.Of("IE", $"HSFB9000{number / 10000:0000}{number % 10000:0000}00");

    private static string Device(string site) =>
        site switch
        {
            "skerry" => "skerry-kiosk",
            "yard" => "yard-gate",
            "hallan" or "mv-hallan-star" => "hallan-gate",
            _ => "corran-gangway",
        };

    public static string Iso(LocalDate date) => date.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);

    /// <summary>Tells the departments who leads them.</summary>
    public async Task AppointHeadsAsync()
    {
        var list = ShippedLists.Get("departments");
        var writer = new ListWriter(db);
        var numbers = await db.Employments.ToDictionaryAsync(e => e.Id, e => e.Number);
        foreach (var department in await db.ListEntries.Where(e => e.List == list.Key).ToListAsync())
        {
            Guid? head =
                _heads.TryGetValue(department.Code, out var found) ? found
                : department.Code == "people" ? null
                : _heads.GetValueOrDefault("operations");
            if (head is not { } id || id == Guid.Empty)
                continue;
            var content = department.Content();
            var values = new Dictionary<string, object>(content.Values)
            {
                ["heads"] = new[] { new HeadFrom(today.PlusYears(-1).With(DateAdjusters.StartOfMonth), numbers[id]) },
            };
            await writer.PutAsync(list, content with { Values = values }, department, author, default);
        }
    }
}
