using System.Text.RegularExpressions;
using Fid.Core.Fields;
using Fid.Core.Formulas;

namespace Fid.Core.Rights;

/// <summary>Looks through a configuration of roles and groups for what would not work, or would not do what its words say.</summary>
public static partial class RightsCheck
{
    /// <summary>How many roles and groups of its own a firm can have, and how many rights a role.</summary>
    public const int MostRoles = 60,
        MostGroups = 60,
        MostRights = 400;

    /// <summary>How long an id may be, and a label.</summary>
    public const int LongestId = 40,
        LongestLabel = 80;

    /// <summary>What is wrong with a configuration, by the path in its document; empty where it can be made live.</summary>
    public static IReadOnlyList<Problem> Of(RightsConfiguration configuration, RightsSurroundings firm)
    {
        var problems = new List<Problem>();
        TooMany(problems, "/roles", configuration.Roles.Count, MostRoles);
        TooMany(problems, "/groups", configuration.Groups.Count, MostGroups);
        var groups = configuration.Groups.Select(g => g.Id).ToHashSet(StringComparer.Ordinal);
        Names(problems, "/roles", [.. configuration.Roles.Select(r => (r.Id, r.Labels))]);
        Names(problems, "/groups", [.. configuration.Groups.Select(g => (g.Id, g.Labels))]);
        for (var i = 0; i < configuration.Roles.Count; i++)
        {
            var role = configuration.Roles[i];
            if (ShippedRoles.Has(role.Id))
                problems.Add(new Problem($"/roles/{i}/id", "taken", $"“{role.Id}” ships with Fid and stays as it is. Give yours another id."));
            TooMany(problems, $"/roles/{i}/rights", role.Rights.Count, MostRights);
            for (var k = 0; k < role.FieldReaches.Count; k++)
                Reach(problems, $"/roles/{i}/fields/{k}", role.FieldReaches[k], groups, firm);
            for (var k = 0; k < role.Rights.Count; k++)
                Check(problems, $"/roles/{i}/rights/{k}", role.Rights[k], groups, firm);
        }
        var roles = configuration.Roles.Concat(ShippedRoles.All).Select(r => r.Id).ToHashSet(StringComparer.Ordinal);
        for (var i = 0; i < configuration.Groups.Count; i++)
        {
            Formula(problems, $"/groups/{i}/when", configuration.Groups[i].When, firm.Fields);
            for (var k = 0; k < configuration.Groups[i].Roles.Count; k++)
                if (!roles.Contains(configuration.Groups[i].Roles[k]))
                    problems.Add(new Problem($"/groups/{i}/roles/{k}", "unknown-role", $"There is no role {configuration.Groups[i].Roles[k]} here."));
        }
        for (var i = 0; i < configuration.SecondFactor.Count; i++)
            if (!roles.Contains(configuration.SecondFactor[i]))
                problems.Add(new Problem($"/secondFactor/{i}", "unknown-role", $"There is no role {configuration.SecondFactor[i]} here."));
        var reaches = configuration.Roles.Concat(ShippedRoles.All).SelectMany(r => r.Reaches).Distinct().Count();
        if (reaches > ReachSet.Most)
            problems.Add(
                new Problem("/roles", "too-many", $"The roles name {reaches} different reaches of people; there can be {ReachSet.Most}. Make groups of some.")
            );
        return problems;
    }

    private static void Check(List<Problem> problems, string path, Right right, HashSet<string> groups, RightsSurroundings firm)
    {
        Reach(problems, $"{path}/reach", right.Reach, groups, firm);
        if (Things.Find(right.Action, right.On) is { } known)
        {
            if (!known.OfPeople && right.Reach is not RightReach.All)
                problems.Add(new Problem($"{path}/reach", "needs-all", "This is a thing of the firm and of nobody in particular. Let the right reach all."));
            return;
        }
        if (right.On == Right.Everything)
        {
            if (Things.Rights.All(r => r.Action != right.Action))
                problems.Add(new Problem($"{path}/do", "unknown-right", $"There is nothing that can be done by “{right.Action}”."));
            else if (right.Reach is not RightReach.All)
                problems.Add(new Problem($"{path}/reach", "needs-all", "Among everything are things of the firm. Let the right reach all."));
            return;
        }
        if (right.Action is not (Right.See or Right.Ask or Right.Edit))
            problems.Add(
                new Problem($"{path}/do", "unknown-right", $"There is no right “{right.Action} {right.On}”. Fields can be seen, asked for and edited.")
            );
        else if (right.On.StartsWith(Right.OfSection, StringComparison.Ordinal))
        {
            if (!firm.Sections.Contains(right.On[Right.OfSection.Length..]))
                problems.Add(new Problem($"{path}/on", "unknown-section", $"There is no section “{right.On[Right.OfSection.Length..]}”."));
        }
        else if (firm.Fields.Find(right.On) is null)
            problems.Add(new Problem($"{path}/on", "unknown-field", $"There is neither a field nor a thing “{right.On}”."));
    }

    private static void Reach(List<Problem> problems, string path, RightReach reach, HashSet<string> groups, RightsSurroundings firm)
    {
        var problem = reach switch
        {
            RightReach.Site(var code) when !firm.Sites.Contains(code) => new Problem($"{path}/site", "unknown-entry", $"There is no site {code}."),
            RightReach.Department(var code) when !firm.Departments.Contains(code) => new Problem(
                $"{path}/department",
                "unknown-entry",
                $"There is no department {code}."
            ),
            RightReach.Group(var id) when !groups.Contains(id) => new Problem($"{path}/group", "unknown-group", $"There is no group {id} here."),
            RightReach.When => new Problem($"{path}/when", "needs-group", "Give the formula a name: make it a group, and let the right reach that."),
            _ => null,
        };
        if (problem is not null)
            problems.Add(problem);
    }

    private static void Formula(List<Problem> problems, string path, string when, FieldSet fields)
    {
        var (formula, mistake) = RecordFormula.Read(when);
        if (formula is null)
            problems.Add(new Problem(path, "formula-error", mistake!.Message));
        else if (formula.Names.FirstOrDefault(n => fields.Find(n) is null or { IsColumn: true }) is { } unknown)
            problems.Add(new Problem(path, "unknown-field", $"There is no field “{unknown}”."));
        else if (formula.Names.FirstOrDefault(n => fields.Find(n)!.Sensitive) is { } sealedField)
            problems.Add(new Problem(path, "sealed-field", $"“{sealedField}” is kept sealed: nothing is decided by it."));
        else if (formula.AsksForToday || formula.Names.Any(n => fields.Find(n)!.Type is FieldType.Computed or FieldType.Rows))
            problems.Add(new Problem(path, "not-stored", "A group is made of what records hold: not of today, nor of fields that are computed or have rows."));
    }

    private static void Names(List<Problem> problems, string path, IReadOnlyList<(string Id, IReadOnlyDictionary<string, string> Labels)> all)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        for (var i = 0; i < all.Count; i++)
        {
            var (id, labels) = all[i];
            if (!IdPattern().IsMatch(id) || id.Length > LongestId)
                problems.Add(
                    new Problem($"{path}/{i}/id", "bad-id", $"An id is made of small letters, digits and hyphens, at most {LongestId}, a letter first.")
                );
            else if (!seen.Add(id))
                problems.Add(new Problem($"{path}/{i}/id", "duplicate-id", $"“{id}” stands twice. Give one of them another id."));
            if (labels.Values.All(string.IsNullOrWhiteSpace))
                problems.Add(new Problem($"{path}/{i}/label", "required", "Say what it is called."));
            foreach (var (language, label) in labels)
                if (label.Length > LongestLabel)
                    problems.Add(new Problem($"{path}/{i}/label/{language}", "too-long", $"At most {LongestLabel} characters."));
        }
    }

    private static void TooMany(List<Problem> problems, string path, int count, int most)
    {
        if (count > most)
            problems.Add(new Problem(path, "too-many", $"There can be {most} of them, and here are {count}."));
    }

    [GeneratedRegex("^[a-z][a-z0-9-]*$")]
    private static partial Regex IdPattern();
}

/// <summary>What rights of a firm can speak of.</summary>
/// <param name="Fields">The fields of its records.</param>
/// <param name="Sections">The keys of their sections.</param>
/// <param name="Sites">The codes of its sites.</param>
/// <param name="Departments">The codes of its departments.</param>
public sealed record RightsSurroundings(FieldSet Fields, IReadOnlySet<string> Sections, IReadOnlySet<string> Sites, IReadOnlySet<string> Departments);
