using System.Diagnostics;
using Fid.Core.People;
using NodaTime;

namespace Fid.Core.Tests.People;

/// <summary>
/// 5,000 made-up people, and as many who are looked for among them: half are of them, written as they are written the next time
/// by somebody else; half are strangers, with names drawn from the same few. Seeded: the same trial every time.
/// </summary>
internal static class MatchTrial
{
    private const int People = 5000;
    private const int Seed = 20270322;

    private static readonly string[] Given = (
        "Aoife Birgit Callum Dilara Émile Fatima Gráinne Hana Ilse Jürgen Katherine Liam Małgorzata Niamh Ólafur Pieter Renée Søren Tomás "
        + "Ursula Viktor Wiebke Xenia Yusuf Zoë "
        + "Amara Benedikt Ciara Dmitri Elena Frederick Gintaras Hamza Iris Joseph Kwame Lotte Margaret Nikolaus Oisín Patricia Quentin Rosalind "
        + "Stephen Thandiwe Ulrich Veronica William Agnieszka Bronagh "
        + "Cormac Daniel Elizabeth Finn Greta Hugo Ines Jakob Karin Lars Michael Nora Oskar Paula Robert Sorcha Theodore Ute Vincent Anna Boris "
        + "Clara David Eva Franz Georg Helena Ivan Julia Kevin Laura Marek Nina "
        + "Otto Petra Rana Sara Tobias Una Vera Wanda Yara Zdeněk Alan Bella Conor Dana Ewa Fiona Gerard Heidi Imran Jana"
    ).Split(' ');

    private static readonly string[] Beginnings =
    [
        "Aber",
        "Bran",
        "Cal",
        "Dun",
        "Eller",
        "Fair",
        "Gal",
        "Hart",
        "Ives",
        "Jör",
        "Kil",
        "Lind",
        "Mac",
        "Nord",
        "O’Dr",
        "Pel",
        "Quil",
        "Ros",
        "Stein",
        "Tor",
        "Ul",
        "Val",
        "West",
        "Zam",
    ];
    private static readonly string[] Endings =
    [
        "ac",
        "berg",
        "cott",
        "dale",
        "ev",
        "feld",
        "gren",
        "holm",
        "inger",
        "kov",
        "land",
        "mann",
        "nagh",
        "ość",
        "port",
        "quist",
        "rup",
        "sen",
        "ton",
        "vik",
        "worth",
        "yard",
    ];
    private static readonly string[][] Shorts =
    [
        ["Katherine", "Kate"],
        ["Joseph", "Joe"],
        ["Margaret", "Meg"],
        ["Nikolaus", "Klaus"],
        ["Patricia", "Trish"],
        ["Stephen", "Stefan"],
        ["William", "Bill"],
        ["Elizabeth", "Lisa"],
        ["Michael", "Mick"],
        ["Robert", "Bob"],
        ["Daniel", "Dan"],
        ["Frederick", "Fred"],
        ["Theodore", "Theo"],
    ];

    /// <summary>How the trial goes.</summary>
    public static (double Precision, double Recall, double MillisecondsEach) Run()
    {
        var random = new Random(Seed);
        var known = Enumerable.Range(0, People).Select(i => ($"p{i}", New(random, i))).ToList();
        var matcher = new PersonMatcher(known);
        var (found, right, wanted) = (0, 0, 0);
        var watch = Stopwatch.StartNew();
        for (var i = 0; i < People; i++)
        {
            var isKnown = i % 2 == 0;
            var probe = isKnown ? Again(random, known[i].Item2) : New(random, People + i);
            var matches = matcher.Find(probe);
            found += matches.Count;
            if (!isKnown)
                continue;
            wanted++;
            if (matches.Any(m => m.Id == known[i].Item1))
                right++;
        }
        return ((double)right / found, (double)right / wanted, watch.Elapsed.TotalMilliseconds / People);
    }

    /// <summary>How long it takes with the least that is looked for: a name and an e-mail address that nobody has.</summary>
    public static double BarestMilliseconds()
    {
        const int times = 500;
        var random = new Random(Seed);
        var matcher = new PersonMatcher(Enumerable.Range(0, People).Select(i => ($"p{i}", New(random, i))));
        var probes = Enumerable.Range(0, times).Select(i => New(random, People + i) with { Born = null, Phone = null, Email = $"{i}@example.org" }).ToList();
        var watch = Stopwatch.StartNew();
        foreach (var probe in probes)
            matcher.Find(probe);
        return watch.Elapsed.TotalMilliseconds / times;
    }

    private static PersonFacts New(Random random, int number)
    {
        var (given, family) = (One(random, Given), One(random, Beginnings) + One(random, Endings));
        return new PersonFacts(
            given,
            family,
            new LocalDate(1950, 1, 1).PlusDays(random.Next(21_000)),
            random.Next(10) < 8 ? $"{given}.{family}.{number}@example.org" : null,
            random.Next(10) < 8 ? $"+353 87 {random.Next(1_000_000, 9_999_999)}" : null
        );
    }

    // As somebody else writes it some years later: one thing is different, often two.
    private static PersonFacts Again(Random random, PersonFacts person)
    {
        var again = Changed(random, random.Next(8), person);
        if (random.Next(2) == 0)
            again = Changed(random, random.Next(8), again);
        // Addresses and numbers change over the years, or are not asked for yet.
        return again with
        {
            Email = random.Next(3) switch
            {
                0 => person.Email,
                1 => "new." + person.Email,
                _ => null,
            },
            Phone = random.Next(3) switch
            {
                0 => person.Phone?.Replace("+353 ", "0", StringComparison.Ordinal),
                1 => "+49 151 5550123",
                _ => null,
            },
        };
    }

    private static PersonFacts Changed(Random random, int how, PersonFacts p) =>
        how switch
        {
            0 => p with { Given = Slip(random, p.Given) },
            1 => p with { Family = Slip(random, p.Family) },
            2 => p with { Given = Plain(p.Given), Family = Plain(p.Family).ToUpperInvariant() },
            3 => p with { Given = p.Family, Family = p.Given },
            4 => p with { Family = One(random, Beginnings) + One(random, Endings) },
            5 => p with { Born = p.Born is { Day: <= 12 } born ? new LocalDate(born.Year, born.Day, born.Month) : p.Born },
            6 => p with { Given = Shorts.FirstOrDefault(s => s[0] == p.Given)?[1] ?? $"{p.Given} {One(random, Given)}" },
            _ => p with { Family = $"{p.Family}-{One(random, Beginnings)}{One(random, Endings)}" },
        };

    private static string Slip(Random random, string name)
    {
        var at = random.Next(1, name.Length - 1);
        return random.Next(4) switch
        {
            0 => name.Remove(at, 1),
            1 => name.Insert(at, name[at].ToString()),
            2 => name[..at] + name[at + 1] + name[at] + name[(at + 2)..],
            _ => name[..at] + (char)('a' + random.Next(26)) + name[(at + 1)..],
        };
    }

    private static string Plain(string name) => string.Concat(name.Normalize(System.Text.NormalizationForm.FormD).Where(char.IsAsciiLetter));

    private static string One(Random random, string[] from) => from[random.Next(from.Length)];
}
