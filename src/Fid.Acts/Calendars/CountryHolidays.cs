using System.Globalization;
using Fid.Core.Calendars;
using NodaTime;
using NodaTime.TimeZones;
using PublicHoliday;

namespace Fid.Acts.Calendars;

/// <summary>The public holidays of countries, as a calendar is written: by rule where a day comes back by one, else by its dates.</summary>
public static class CountryHolidays
{
    // Enough to tell a rule from a coincidence: weekdays and leap years come round, and Easter moves.
    private const int YearsLookedAt = 12;
    private const int YearsWritten = 5;

    private static readonly Dictionary<string, Func<PublicHolidayBase>> Known = new(StringComparer.Ordinal)
    {
        ["AT"] = () => new AustriaPublicHoliday(),
        ["AU"] = () => new AustraliaPublicHoliday(),
        ["BE"] = () => new BelgiumPublicHoliday(),
        ["BR"] = () => new BrazilPublicHoliday(),
        ["CA"] = () => new CanadaPublicHoliday(),
        ["CH"] = () => new SwitzerlandPublicHoliday(),
        ["CZ"] = () => new CzechRepublicPublicHoliday(),
        ["DE"] = () => new GermanPublicHoliday(),
        ["DK"] = () => new DenmarkPublicHoliday(),
        ["EE"] = () => new EstoniaPublicHoliday(),
        ["ES"] = () => new SpainPublicHoliday(),
        ["FI"] = () => new FinlandPublicHoliday(),
        ["FR"] = () => new FrancePublicHoliday(),
        ["GB"] = () => new UKBankHoliday(),
        ["GR"] = () => new GreecePublicHoliday(),
        ["HR"] = () => new CroatiaPublicHoliday(),
        ["HU"] = () => new HungaryPublicHoliday(),
        ["IE"] = () => new IrelandPublicHoliday(),
        ["IT"] = () => new ItalyPublicHoliday(),
        ["JP"] = () => new JapanPublicHoliday(),
        ["KZ"] = () => new KazakhstanPublicHoliday(),
        ["LT"] = () => new LithuaniaPublicHoliday(),
        ["LU"] = () => new LuxembourgPublicHoliday(),
        ["LV"] = () => new LatviaPublicHoliday(),
        ["ME"] = () => new MontenegroPublicHoliday(),
        ["MX"] = () => new MexicoPublicHoliday(),
        ["NL"] = () => new DutchPublicHoliday(),
        ["NO"] = () => new NorwayPublicHoliday(),
        ["NZ"] = () => new NewZealandPublicHoliday(),
        ["PL"] = () => new PolandPublicHoliday(),
        ["PT"] = () => new PortugalPublicHoliday(),
        ["RO"] = () => new RomanianPublicHoliday(),
        ["RS"] = () => new SerbianPublicHoliday(),
        ["SE"] = () => new SwedenPublicHoliday(),
        ["SI"] = () => new SloveniaPublicHoliday(),
        ["SK"] = () => new SlovakiaPublicHoliday(),
        ["TR"] = () => new TurkeyPublicHoliday(),
        ["US"] = () => new USAPublicHoliday(),
        ["ZA"] = () => new SouthAfricaPublicHoliday(),
    };

    /// <summary>The countries whose holidays are known, by their codes (ISO 3166-1 alpha-2), in order.</summary>
    public static IReadOnlyList<string> Countries { get; } = [.. Known.Keys.Order(StringComparer.Ordinal)];

    /// <summary>The country a time zone is of, where it is one of <see cref="Countries"/>; null otherwise.</summary>
    /// <param name="timeZone">Its id in the time zone database, such as "Europe/Dublin".</param>
    public static string? OfTimeZone(string timeZone) =>
        TzdbDateTimeZoneSource.Default.ZoneLocations!.Where(z => z.ZoneId == timeZone).Select(z => z.CountryCode).FirstOrDefault(Known.ContainsKey);

    /// <summary>The nationwide holidays of a country, in the order of a year: the rule or date of each as <see cref="HolidayRule"/> reads it,
    /// and its name. Days that no rule gives are written for some years from the first on.</summary>
    /// <param name="country">One of <see cref="Countries"/>.</param>
    /// <param name="first">The first year.</param>
    public static IReadOnlyList<(string When, string Name)> Of(string country, int first)
    {
        var calculator = Known[country]();
        var years = Enumerable
            .Range(first, YearsLookedAt)
            .Select(y =>
                calculator
                    .PublicHolidayNames(y, CultureInfo.GetCultureInfo("en"))
                    .SelectMany(d => d.Value.Select(name => (Name: name.Trim(), Day: LocalDate.FromDateTime(d.Key))))
                    .ToList()
            )
            .ToList();
        var found = new List<(LocalDate First, string When, string Name)>();
        foreach (var name in years.SelectMany(y => y.Select(h => h.Name)).Distinct(StringComparer.Ordinal))
        {
            var days = years.SelectMany(y => y.Where(h => h.Name == name).Select(h => h.Day)).Order().ToList();
            // Names separate holidays with a semicolon, so none may hold one.
            var written = name.Replace(';', ',');
            if (Rule(days) is { } rule)
                found.Add((days[0], rule, written));
            else
                found.AddRange(days.Where(d => d.Year < first + YearsWritten).Select(d => (d, HolidayText(d), written)));
        }
        return [.. found.OrderBy(f => f.First.Year).ThenBy(f => f.First).Select(f => (f.When, f.Name))];
    }

    private static string HolidayText(LocalDate day) => day.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);

    // The first rule that gives all of the days, and nothing else in those years; null where none does.
    private static string? Rule(List<LocalDate> days)
    {
        if (days.Count != YearsLookedAt)
            return null;
        var day = days[0];
        var offset = Period.DaysBetween(HolidayRule.Easter(day.Year), day);
        var weekday = day.DayOfWeek.ToString()[..2].ToUpperInvariant();
        string[] candidates =
        [
            string.Create(CultureInfo.InvariantCulture, $"--{day.Month:00}-{day.Day:00}"),
            offset == 0 ? "easter" : string.Create(CultureInfo.InvariantCulture, $"easter{(offset > 0 ? "+" : "")}{offset}"),
            string.Create(CultureInfo.InvariantCulture, $"--{day.Month:00} {(day.Day + 6) / 7}{weekday}"),
            string.Create(CultureInfo.InvariantCulture, $"--{day.Month:00} -1{weekday}"),
        ];
        return candidates.FirstOrDefault(c => HolidayRule.Read(c) is { } rule && days.TrueForAll(d => rule.In(d.Year) == d));
    }
}
