using System.Text.Json;
using Fid.Core.Json;
using Fid.Core.Rights;

namespace Fid.Core.Compute;

/// <summary>`rights.explain`: who may do what, and because of what.</summary>
internal static class RightsComputation
{
    private static readonly Shape Question = new("today", "departments", "people", "roles", "grants", "ask");
    private static readonly Shape Department = new("code", "parent?");
    private static readonly Shape Person = new("id", "manager?", "values");
    private static readonly Shape RoleShape = new("id", "rights");
    private static readonly Shape RightShape = new("do", "on", "reach");
    private static readonly Shape ReachShape = new("site?", "department?", "when?");
    private static readonly Shape Grant = new("person", "role", "from?", "to?");
    private static readonly Shape Asking = new("who", "do", "on", "target");
    private static readonly Choices Reaches = new("all", "self", "direct", "reports");
    private static readonly RightReach[] Named = [new RightReach.All(), new RightReach.Self(), new RightReach.Direct(), new RightReach.Reports()];

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        var facts = new RightsQuestion(default, [], [], [], []);
        List<Asked> asks = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
                switch (at)
                {
                    case 0:
                        facts = facts with { Today = question.Date() };
                        break;
                    case 1:
                        facts = facts with { Departments = question.Items(ReadDepartment) };
                        break;
                    case 2:
                        facts = facts with { People = question.Items(ReadPerson) };
                        break;
                    case 3:
                        facts = facts with { Roles = question.Items(ReadRole) };
                        break;
                    case 4:
                        facts = facts with { Grants = question.Items(ReadGrant) };
                        break;
                    default:
                        asks = question.Items(ReadAsked);
                        break;
                }
        if (!question.IsSound || RightsBook.Of(facts).Take(ref question) is not { } book)
            return;
        for (var i = 0; i < asks.Count; i++)
            if (!book.Knows(asks[i].Target))
                question.Report([new Problem($"/ask/{i}/target", "unknown-person", $"There is nobody {asks[i].Target}.")]);
        if (!question.IsSound)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("answers");
        foreach (var (who, action, on, target) in asks)
        {
            var because = book.Explain(who, action, RightSubject.Read(on), target);
            writer.WriteStartObject();
            writer.WriteBoolean("allowed", because.Count > 0);
            writer.WriteStartArray("because");
            foreach (var (role, right) in because)
            {
                writer.WriteStartObject();
                writer.WriteString("role", role);
                writer.WriteString("do", right.Action);
                writer.WritePropertyName("reach");
                Write(writer, right.Reach);
                writer.WriteEndObject();
            }
            writer.WriteEndArray();
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static void Write(Utf8JsonWriter writer, RightReach reach)
    {
        if (Array.IndexOf(Named, reach) is var at and >= 0)
        {
            writer.WriteStringValue(Reaches.Word(at));
            return;
        }
        writer.WriteStartObject();
        switch (reach)
        {
            case RightReach.Site(var code):
                writer.WriteString("site", code);
                break;
            case RightReach.Department(var code):
                writer.WriteString("department", code);
                break;
            case RightReach.When(var formula):
                writer.WriteString("when", formula.Text);
                break;
        }
        writer.WriteEndObject();
    }

    private static DepartmentPlace ReadDepartment(ref QuestionReader question)
    {
        var department = new DepartmentPlace("", null);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Department, ref seen) is var at and >= 0)
                department = at == 0 ? department with { Code = question.Id() } : department with { Parent = question.Id() };
        return department;
    }

    private static RightsPerson ReadPerson(ref QuestionReader question)
    {
        var person = new RightsPerson("", null, new Dictionary<string, JsonElement>());
        var seen = 0u;
        if (question.Object())
            while (question.Property(Person, ref seen) is var at and >= 0)
                person = at switch
                {
                    0 => person with { Id = question.Id() },
                    1 => person with { Manager = question.Id() },
                    _ => person with { Values = question.Named((ref q) => q.Json()) },
                };
        return person;
    }

    private static Role ReadRole(ref QuestionReader question)
    {
        var role = new Role("", []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(RoleShape, ref seen) is var at and >= 0)
                role = at == 0 ? role with { Id = question.Id() } : role with { Rights = question.Items(ReadRight) };
        return role;
    }

    private static Right ReadRight(ref QuestionReader question)
    {
        var right = new Right("", "", Named[0]);
        var seen = 0u;
        if (question.Object())
            while (question.Property(RightShape, ref seen) is var at and >= 0)
                right = at switch
                {
                    0 => right with { Action = question.Id() },
                    1 => right with { On = question.Id() },
                    _ => right with { Reach = ReadReach(ref question) },
                };
        return right;
    }

    private static RightReach ReadReach(ref QuestionReader question)
    {
        if (question.IsText)
            return Named[question.Choice(Reaches)];
        var (reach, count, seen) = (Named[0], 0, 0u);
        if (!question.Object())
            return reach;
        while (question.Property(ReachShape, ref seen) is var at and >= 0)
        {
            count++;
            reach = at switch
            {
                0 => new RightReach.Site(question.Id()),
                1 => new RightReach.Department(question.Id()),
                _ => question.Formula(question.Text()) is { } formula ? new RightReach.When(formula) : reach,
            };
        }
        if (count != 1 && question.IsSound)
            question.Report("bad-value", "Say one of site, department and when.");
        return reach;
    }

    private static RoleGrant ReadGrant(ref QuestionReader question)
    {
        var grant = new RoleGrant("", "", null, null);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Grant, ref seen) is var at and >= 0)
                grant = at switch
                {
                    0 => grant with { Person = question.Id() },
                    1 => grant with { Role = question.Id() },
                    2 => grant with { From = question.Date() },
                    _ => grant with { To = question.Date() },
                };
        return grant;
    }

    private static Asked ReadAsked(ref QuestionReader question)
    {
        var asked = new Asked("", "", "", "");
        var seen = 0u;
        if (question.Object())
            while (question.Property(Asking, ref seen) is var at and >= 0)
                asked = at switch
                {
                    0 => asked with { Who = question.Id() },
                    1 => asked with { Action = question.Id() },
                    2 => asked with { On = question.Id() },
                    _ => asked with { Target = question.Id() },
                };
        return asked;
    }

    private sealed record Asked(string Who, string Action, string On, string Target);
}
