using NodaTime;

namespace Fid.Core.People;

/// <summary>
/// Finds who of the people known somebody may be. Names, birth date, e-mail address and telephone number are weighed over what
/// both have; the same official number decides alone. Names are alike whatever their accents, case, order and punctuation, with
/// slips of the keyboard, and by their short forms; a birth date with day and month swapped counts half; of telephone numbers the
/// last nine digits count. Addresses and numbers change, so that different ones speak little against somebody.
/// </summary>
public sealed class PersonMatcher
{
    private const double NameWeight = 0.6,
        BornWeight = 0.4,
        EmailWeight = 0.3,
        PhoneWeight = 0.25,
        OtherContactWeight = 0.05;
    private const double AlikeName = 0.5,
        FullyAlike = 0.999;
    private const decimal Possible = 0.62m,
        Sure = 0.85m;
    private const double RoundingOfScores = 0.01;
    private const int PhoneDigits = 9,
        FewestPhoneDigits = 6;

    private readonly (string Id, Prepared Person)[] _known;

    /// <summary>Prepares the people known, so that many can be looked for among them.</summary>
    /// <param name="known">The people, by an id of the caller's.</param>
    public PersonMatcher(IEnumerable<(string Id, PersonFacts Person)> known) => _known = [.. known.Select(k => (k.Id, new Prepared(k.Person)))];

    private PersonMatcher((string Id, Prepared Person)[] known) => _known = known;

    /// <summary>The same with some people as they are known by now, or added at the end; the others stay prepared as they are.</summary>
    public PersonMatcher With(IReadOnlyDictionary<string, PersonFacts> known)
    {
        var kept = _known.Select(k => known.TryGetValue(k.Id, out var facts) ? (k.Id, new Prepared(facts)) : k).ToList();
        var there = _known.Select(k => k.Id).ToHashSet(StringComparer.Ordinal);
        kept.AddRange(known.Where(k => !there.Contains(k.Key)).Select(k => (k.Key, new Prepared(k.Value))));
        return new PersonMatcher([.. kept]);
    }

    /// <summary>The same with one more person, at the end; the others stay prepared as they are.</summary>
    /// <param name="id">An id of the caller's that nobody here has.</param>
    /// <param name="person">The person.</param>
    public PersonMatcher And(string id, PersonFacts person) => new([.. _known, (id, new Prepared(person))]);

    /// <summary>Those that somebody may be, the likeliest first; of equal ones in the order in which they are known.</summary>
    public IReadOnlyList<PersonMatch> Find(PersonFacts person) => Find(person, sameOnly: false);

    /// <summary>Of those that <see cref="Find(PersonFacts)"/> finds, the ones taken to be the same person: told in a fraction of the time,
    /// since names are compared only where something else is equal.</summary>
    public IReadOnlyList<PersonMatch> FindSame(PersonFacts person) => Find(person, sameOnly: true);

    private List<PersonMatch> Find(PersonFacts person, bool sameOnly)
    {
        var wanted = new Prepared(person);
        var matches = new List<PersonMatch>();
        foreach (var (id, known) in _known)
            if ((!sameOnly || CanBeSame(wanted, known)) && Match(id, wanted, known) is { } match && (match.IsSame || !sameOnly))
                matches.Add(match);
        return [.. matches.OrderByDescending(m => m.Score)];
    }

    // By the name alone nobody is the same.
    private static bool CanBeSame(Prepared one, Prepared other) =>
        (one.Identifier.Length > 0 && one.Identifier == other.Identifier)
        || (one.Born is not null && one.Born == other.Born)
        || (one.Email.Length > 0 && one.Email == other.Email)
        || (one.Phone.Length > 0 && one.Phone == other.Phone);

    private static PersonMatch? Match(string id, Prepared wanted, Prepared known)
    {
        var isIdentified = wanted.Identifier.Length > 0 && wanted.Identifier == known.Identifier;
        var (weights, points) = (NameWeight, 0.0);
        var born = Born(wanted.Born, known.Born);
        if (born is { } equal)
        {
            weights += BornWeight;
            points += BornWeight * equal;
        }
        var email = Contact(wanted.Email, known.Email, EmailWeight, ref weights, ref points);
        var phone = Contact(wanted.Phone, known.Phone, PhoneWeight, ref weights, ref points);
        // Names are the slowest to compare: where not even equal ones would do, they are left alone.
        if (!isIdentified && IsTooLittle((points + NameWeight) / weights))
            return null;

        var atLeast = isIdentified ? 0 : ((double)Possible * weights - points) / NameWeight - RoundingOfScores;
        var (likeness, by) = wanted.Names.To(known.Names, atLeast);
        var share = (points + NameWeight * likeness) / weights;
        if (!isIdentified && IsTooLittle(share))
            return null;
        var score = Rounded(share);

        var reasons = new List<MatchReason>();
        if (isIdentified)
            reasons.Add(MatchReason.Identifier);
        if (likeness >= AlikeName)
            reasons.Add(
                by switch
                {
                    NameReason.SwappedNames => MatchReason.SwappedNames,
                    NameReason.OtherName => MatchReason.OtherName,
                    _ => likeness >= FullyAlike ? MatchReason.Name : MatchReason.SimilarName,
                }
            );
        if (born == 1)
            reasons.Add(MatchReason.Born);
        else if (born > 0)
            reasons.Add(MatchReason.SwappedBirthDate);
        if (email)
            reasons.Add(MatchReason.Email);
        if (phone)
            reasons.Add(MatchReason.Phone);
        var isSame = isIdentified || (score >= Sure && (born == 1 || email || phone));
        return new PersonMatch(id, isSame, isIdentified ? 1 : score, reasons);
    }

    // Nearly all are told without rounding, which takes longer than all the rest.
    private static bool IsTooLittle(double score) =>
        score < (double)Possible - RoundingOfScores || (score < (double)Possible + RoundingOfScores && Rounded(score) < Possible);

    private static decimal Rounded(double score) => Math.Round((decimal)score, 3, MidpointRounding.AwayFromZero);

    private static double? Born(LocalDate? one, LocalDate? other) =>
        (one, other) switch
        {
            ({ } a, { } b) when a == b => 1,
            ({ } a, { } b) when a.Year == b.Year && a.Month == b.Day && a.Day == b.Month => 0.5,
            ({ }, { }) => 0,
            _ => null,
        };

    private static bool Contact(string one, string other, double weight, ref double weights, ref double points)
    {
        if (one.Length == 0 || other.Length == 0)
            return false;
        var equal = one == other;
        weights += equal ? weight : OtherContactWeight;
        if (equal)
            points += weight;
        return equal;
    }

    /// <summary>A person as they are compared.</summary>
    private sealed class Prepared(PersonFacts person)
    {
        public NameLikeness Names { get; } = new(person);

        public LocalDate? Born { get; } = person.Born;

        public string Email { get; } = (person.Email ?? "").Trim().ToLowerInvariant();

        public string Phone { get; } = LastDigits(person.Phone ?? "");

        public string Identifier { get; } = string.Concat((person.Identifier ?? "").Where(char.IsLetterOrDigit)).ToUpperInvariant();

        private static string LastDigits(string phone)
        {
            var digits = string.Concat(phone.Where(char.IsAsciiDigit));
            return digits.Length < FewestPhoneDigits ? ""
                : digits.Length > PhoneDigits ? digits[^PhoneDigits..]
                : digits;
        }
    }
}

/// <summary>Somebody known who may be the person looked for.</summary>
/// <param name="Id">The id they are known by.</param>
/// <param name="IsSame">Whether hardly anybody else can be meant; otherwise it is possible, and somebody should look.</param>
/// <param name="Score">From 0 to 1, with three decimals.</param>
/// <param name="Reasons">What speaks for it.</param>
public sealed record PersonMatch(string Id, bool IsSame, decimal Score, IReadOnlyList<MatchReason> Reasons);

/// <summary>What speaks for two records being of one person.</summary>
public enum MatchReason
{
    /// <summary>The same official number.</summary>
    Identifier,

    /// <summary>The same name, but for accents, case, order, punctuation and short forms.</summary>
    Name,

    /// <summary>A name that is nearly the same.</summary>
    SimilarName,

    /// <summary>Given and family name are swapped.</summary>
    SwappedNames,

    /// <summary>A former or second name of one of them.</summary>
    OtherName,

    /// <summary>The same birth date.</summary>
    Born,

    /// <summary>The same birth date with day and month swapped.</summary>
    SwappedBirthDate,

    /// <summary>The same e-mail address.</summary>
    Email,

    /// <summary>The same telephone number, by its last nine digits.</summary>
    Phone,
}
