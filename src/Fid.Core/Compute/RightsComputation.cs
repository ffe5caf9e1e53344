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
    private static readonly Shape Grant = new("person", "role", "from?", "to?");
    private static readonly Shape Asking = new("who", "do", "on", "target");

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
                RightsJson.Write(writer, right.Reach);
                writer.WriteEndObject();
            }
            writer.WriteEndArray();
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
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
                role = at == 0 ? role with { Id = question.Id() } : role with { Rights = question.Items(RightsJson.ReadRight) };
        return role;
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
