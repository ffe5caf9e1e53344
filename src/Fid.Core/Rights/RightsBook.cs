using System.Text.Json;
using NodaTime;

namespace Fid.Core.Rights;

/// <summary>Who may do what, to whom, and because of what. Rights only ever add up: nobody has what no role gives.</summary>
public sealed class RightsBook
{
    private const string SiteField = "site",
        DepartmentField = "department";

    private readonly LocalDate _today;
    private readonly Dictionary<string, string?> _parents;
    private readonly Dictionary<string, RightsPerson> _people;
    private readonly Dictionary<string, List<GrantedRight>> _granted;

    private RightsBook(
        LocalDate today,
        Dictionary<string, string?> parents,
        Dictionary<string, RightsPerson> people,
        Dictionary<string, List<GrantedRight>> granted
    ) => (_today, _parents, _people, _granted) = (today, parents, people, granted);

    /// <summary>Takes in what rights depend on.</summary>
    /// <returns>Problems by the path in the question: "duplicate-id"; "unknown-department", "unknown-person" and "unknown-role" for what is not there;
    /// "not-in-order" for a grant that ends before it begins. Those who act need not be among the people.</returns>
    public static Result<RightsBook> Of(RightsQuestion question)
    {
        var problems = new List<Problem>();
        var parents = Identifiers.Index(question.Departments, d => d.Code, "/departments", problems, "code").ToDictionary(d => d.Key, d => d.Value.Parent);
        var people = Identifiers.Index(question.People, p => p.Id, "/people", problems);
        var roles = Identifiers.Index(question.Roles, r => r.Id, "/roles", problems);
        Unknown(question.Departments.Select((d, i) => ($"/departments/{i}/parent", d.Parent)), parents.Keys, "unknown-department", problems);
        Unknown(question.People.Select((p, i) => ($"/people/{i}/manager", p.Manager)), people.Keys, "unknown-person", problems);
        Unknown(
            question.Roles.SelectMany(
                (role, i) => role.Rights.Select((right, k) => ($"/roles/{i}/rights/{k}/reach/department", (right.Reach as RightReach.Department)?.Code))
            ),
            parents.Keys,
            "unknown-department",
            problems
        );
        Unknown(question.Grants.Select((g, i) => ($"/grants/{i}/role", (string?)g.Role)), roles.Keys, "unknown-role", problems);
        problems.AddRange(
            question.Roles.SelectMany(
                (role, i) =>
                    role
                        .Rights.Index()
                        .Where(r => r.Item.Reach is RightReach.Tasks or RightReach.Group)
                        .Select(r => new Problem(
                            $"/roles/{i}/rights/{r.Index}/reach",
                            "bad-value",
                            "Who has which tasks, and who is in which group, is not told here. Say all, self, direct, reports, site, department or when."
                        ))
            )
        );
        for (var i = 0; i < question.Grants.Count; i++)
            if (question.Grants[i].To < question.Grants[i].From)
                problems.Add(new Problem($"/grants/{i}/to", "not-in-order", "A grant does not end before it begins."));
        if (problems.Count > 0)
            return Result<RightsBook>.Failed(problems);
        var granted = question
            .Grants.Where(g => g.Counts(question.Today))
            .GroupBy(g => g.Person, StringComparer.Ordinal)
            .ToDictionary(
                g => g.Key,
                g => g.SelectMany(grant => roles[grant.Role].Rights.Select(right => new GrantedRight(grant.Role, right))).ToList(),
                StringComparer.Ordinal
            );
        return new RightsBook(question.Today, parents, people, granted);
    }

    /// <summary>Whether somebody is among the people, so that a right can reach them.</summary>
    public bool Knows(string person) => _people.ContainsKey(person);

    /// <summary>Every right because of which somebody may do something, in the order of grants, then of rights; none where they may not.</summary>
    /// <param name="who">Who would do it.</param>
    /// <param name="action">What they would do.</param>
    /// <param name="subject">With what.</param>
    /// <param name="target">To whom; one whom <see cref="Knows"/> knows.</param>
    public IReadOnlyList<GrantedRight> Explain(string who, string action, RightSubject subject, string target) =>
        _granted.TryGetValue(who, out var granted) ? granted.FindAll(g => g.Right.Covers(action, subject) && Reaches(g.Right.Reach, who, _people[target])) : [];

    private bool Reaches(RightReach reach, string who, RightsPerson target) =>
        reach switch
        {
            RightReach.All => true,
            RightReach.Self => target.Id == who,
            RightReach.Direct => target.Manager == who,
            RightReach.Reports => target.Id != who && IsUnder(target.Manager, who, person => _people.GetValueOrDefault(person)?.Manager),
            RightReach.Site(var code) => target.Text(SiteField) == code,
            RightReach.Department(var code) => IsUnder(target.Text(DepartmentField), code, department => _parents.GetValueOrDefault(department)),
            RightReach.When(var formula) => GroupFormula.Holds(formula, target.Values, _today),
            _ => throw new ArgumentOutOfRangeException(nameof(reach)),
        };

    // Whether a way up, from a place on, comes by another. A ring is walked once.
    private static bool IsUnder(string? from, string wanted, Func<string, string?> above)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        for (var at = from; at is not null && seen.Add(at); at = above(at))
            if (at == wanted)
                return true;
        return false;
    }

    private static void Unknown(IEnumerable<(string Path, string? Id)> named, ICollection<string> known, string code, List<Problem> problems) =>
        problems.AddRange(named.Where(n => n.Id is not null && !known.Contains(n.Id)).Select(n => new Problem(n.Path, code, $"There is no {n.Id} here.")));
}

/// <summary>What rights depend on.</summary>
/// <param name="Today">The day on which they are asked for.</param>
public sealed record RightsQuestion(
    LocalDate Today,
    IReadOnlyList<DepartmentPlace> Departments,
    IReadOnlyList<RightsPerson> People,
    IReadOnlyList<Role> Roles,
    IReadOnlyList<RoleGrant> Grants
);

/// <summary>A department, and the one it belongs to.</summary>
public sealed record DepartmentPlace(string Code, string? Parent);

/// <summary>Somebody whom rights can reach.</summary>
/// <param name="Manager">The id of their manager; null for none.</param>
/// <param name="Values">What is known of them, by field.</param>
public sealed record RightsPerson(string Id, string? Manager, IReadOnlyDictionary<string, JsonElement> Values)
{
    internal string? Text(string field) => Values.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString() : null;
}
