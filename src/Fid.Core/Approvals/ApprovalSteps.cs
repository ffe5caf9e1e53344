using Fid.Core.Calendars;
using Fid.Core.Texts;

namespace Fid.Core.Approvals;

/// <summary>Who has to agree to what somebody asks for.</summary>
/// <param name="Steps">Those who are asked, one step after the other; within a step any of them agrees for all.</param>
/// <param name="Direct">The keys of the fields that change and that nobody is asked about, in the order in which they were given.</param>
public sealed record ApprovalSteps(IReadOnlyList<ApprovalStep> Steps, IReadOnlyList<string> Direct)
{
    private const string Administrator = "administrator";

    /// <summary>Works out who is asked.</summary>
    /// <returns>Problems by the path in the question: "duplicate-id"; "unknown-person" for managers, stand-ins, approvers, and who asks or is asked about;
    /// "not-in-order" for an absence that ends before it begins; "duplicate-field" for a field changed twice.</returns>
    public static Result<ApprovalSteps> Of(ApprovalQuestion question)
    {
        if (Problems(question) is { Count: > 0 } problems)
            return Result<ApprovalSteps>.Failed(problems);
        var people = question.People.ToDictionary(p => p.Id, StringComparer.Ordinal);
        var changed = question.Request.Changes.Where(c => !c.IsNone).ToList();
        var (steps, asked) = (new List<ApprovalStep>(), new HashSet<string>(StringComparer.Ordinal));
        foreach (var rule in question.Rules)
        {
            var about = changed.FindAll(c => rule.Asks(c, question.Request.Values, question.Today));
            if (about.Count == 0)
                continue;
            asked.UnionWith(about.Select(c => c.Field));
            string[] fields = [.. about.Select(c => c.Field)];
            foreach (var choice in rule.By)
            {
                var who = Approvers(choice, question, people);
                // The same people are not asked twice in a row.
                if (steps.Count == 0 || !steps[^1].Who.SequenceEqual(who))
                    steps.Add(new ApprovalStep(rule.Id, who) { Choice = choice, Fields = fields });
            }
        }
        return new ApprovalSteps(steps, [.. changed.Select(c => c.Field).Where(f => !asked.Contains(f))]);
    }

    /// <summary>Who is asked by one choice as things are: the ids, sorted; empty where nobody is left to be asked.</summary>
    public static IReadOnlyList<string> Who(ApproverChoice choice, ApprovalQuestion question) =>
        Approvers(choice, question, question.People.ToDictionary(p => p.Id, StringComparer.Ordinal));

    private static string[] Approvers(ApproverChoice choice, ApprovalQuestion question, Dictionary<string, Approver> people)
    {
        var request = question.Request;
        var manager = people[request.Person].Manager;
        IEnumerable<string?> found = choice.Kind switch
        {
            ApproverKind.Manager => [Acting(manager)],
            ApproverKind.ManagersManager => [Acting(manager is null ? null : people[manager].Manager)],
            ApproverKind.Role => question.People.Where(p => p.Roles.Contains(choice.Name!, StringComparer.Ordinal)).Select(One),
            _ => [One(people[choice.Name!])],
        };
        string[] who = [.. found.OfType<string>().Distinct(StringComparer.Ordinal).Order(CodePointOrder.Instance)];
        return who.Length > 0
            ? who
            :
            [
                .. question
                    .People.Where(p => p.Roles.Contains(Administrator, StringComparer.Ordinal) && !IsConcerned(p.Id))
                    .Select(p => p.Id)
                    .Order(CodePointOrder.Instance),
            ];

        bool IsConcerned(string id) => id == request.By || id == request.Person;

        // Whoever acts for somebody today: themselves, or the stand-in; null where there is nobody, or it is one of the two whom it concerns.
        string? One(Approver approver)
        {
            if (IsConcerned(approver.Id))
                return null;
            return Absence.On(approver.Away, question.Today) is not { } away ? approver.Id
                : away.StandIn is { } standIn && !IsConcerned(standIn) ? standIn
                : null;
        }

        // From a manager up, the first for whom somebody acts.
        string? Acting(string? from)
        {
            var seen = new HashSet<string>(StringComparer.Ordinal);
            for (var at = from; at is not null && seen.Add(at); at = people[at].Manager)
                if (One(people[at]) is { } acts)
                    return acts;
            return null;
        }
    }

    private static List<Problem> Problems(ApprovalQuestion question)
    {
        var (problems, fields) = (new List<Problem>(), new HashSet<string>(StringComparer.Ordinal));
        var people = Identifiers.Index(question.People, p => p.Id, "/people", problems);
        for (var i = 0; i < question.People.Count; i++)
        {
            var (_, manager, _, away) = question.People[i];
            Known(manager, $"/people/{i}/manager");
            problems.AddRange(Absence.Check(away, people.ContainsKey, $"/people/{i}/away"));
        }
        for (var i = 0; i < question.Rules.Count; i++)
        for (var k = 0; k < question.Rules[i].By.Count; k++)
            if (question.Rules[i].By[k] is { Kind: ApproverKind.Person, Name: var person })
                Known(person, $"/rules/{i}/by/{k}");
        Identifiers.Index(question.Rules, r => r.Id, "/rules", problems);
        Known(question.Request.By, "/request/by");
        Known(question.Request.Person, "/request/person");
        for (var i = 0; i < question.Request.Changes.Count; i++)
            if (!fields.Add(question.Request.Changes[i].Field))
                problems.Add(
                    new Problem($"/request/changes/{i}/field", "duplicate-field", $"{question.Request.Changes[i].Field} is changed twice. Keep one change.")
                );
        return problems;

        void Known(string? id, string path)
        {
            if (id is not null && !people.ContainsKey(id))
                problems.Add(new Problem(path, "unknown-person", $"There is nobody {id}."));
        }
    }
}

/// <summary>Some who are asked together.</summary>
/// <param name="Rule">The id of the rule by which.</param>
/// <param name="Who">Their ids, sorted; empty where nobody is left to be asked.</param>
public sealed record ApprovalStep(string Rule, IReadOnlyList<string> Who)
{
    /// <summary>How they were found.</summary>
    public ApproverChoice Choice { get; init; }

    /// <summary>What they are asked about: the fields of the rule that change and for which it holds.</summary>
    public IReadOnlyList<string> Fields { get; init; } = [];
}
