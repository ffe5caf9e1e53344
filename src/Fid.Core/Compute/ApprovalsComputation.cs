using System.Text.Json;
using Fid.Core.Approvals;
using Fid.Core.Json;

namespace Fid.Core.Compute;

/// <summary>`approvals.needed`: who has to agree to what somebody asks for.</summary>
internal static class ApprovalsComputation
{
    private static readonly Shape Question = new("today", "people", "rules", "request");
    private static readonly Shape Person = new("id", "manager?", "roles", "away?");
    private static readonly Shape Rule = new("id", "fields", "when?", "by");
    private static readonly Shape Request = new("by", "person", "changes", "values");
    private static readonly Shape Change = new("field", "old", "new");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        var asked = new ApprovalQuestion(default, [], [], new ChangeRequest("", "", [], new Dictionary<string, JsonElement>()));
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
                asked = at switch
                {
                    0 => asked with { Today = question.Date() },
                    1 => asked with { People = question.Items(ReadPerson) },
                    2 => asked with { Rules = question.Items(ReadRule) },
                    _ => asked with { Request = ReadRequest(ref question) },
                };
        if (!question.IsSound || ApprovalSteps.Of(asked).Take(ref question) is not { } needed)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("steps");
        foreach (var (rule, who) in needed.Steps)
        {
            writer.WriteStartObject();
            writer.WriteString("rule", rule);
            writer.Texts("who", who);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.Texts("direct", needed.Direct);
        writer.WriteEndObject();
    }

    private static Approver ReadPerson(ref QuestionReader question)
    {
        var person = new Approver("", null, [], []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Person, ref seen) is var at and >= 0)
                person = at switch
                {
                    0 => person with { Id = question.Id() },
                    1 => person with { Manager = question.Id() },
                    2 => person with { Roles = question.Items((ref q) => q.Id()) },
                    _ => person with { Away = question.Items(AbsenceReading.Read) },
                };
        return person;
    }

    private static ApprovalRule ReadRule(ref QuestionReader question)
    {
        var rule = new ApprovalRule("", [], null, []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Rule, ref seen) is var at and >= 0)
                rule = at switch
                {
                    0 => rule with { Id = question.Id() },
                    1 => rule with { Fields = question.Items((ref q) => q.Id()) },
                    2 => rule with { When = question.Formula(question.Text()) },
                    _ => rule with { By = question.Items(ReadBy) },
                };
        if (question.IsSound && rule.By.Count == 0)
            question.Report("bad-value", "Name at least one who has to agree.", "by");
        return rule;
    }

    private static ApproverChoice ReadBy(ref QuestionReader question)
    {
        if (ApproverChoice.Read(question.Text()) is { } choice)
            return choice;
        question.Report("bad-value", "This is to be manager, manager2, role: with a role, or person: with an id.");
        return default;
    }

    private static ChangeRequest ReadRequest(ref QuestionReader question)
    {
        var request = new ChangeRequest("", "", [], new Dictionary<string, JsonElement>());
        var seen = 0u;
        if (question.Object())
            while (question.Property(Request, ref seen) is var at and >= 0)
                request = at switch
                {
                    0 => request with { By = question.Id() },
                    1 => request with { Person = question.Id() },
                    2 => request with { Changes = question.Items(ReadChange) },
                    _ => request with { Values = question.Named((ref q) => q.Json()) },
                };
        return request;
    }

    private static RequestedChange ReadChange(ref QuestionReader question)
    {
        var change = new RequestedChange("", default, default);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Change, ref seen) is var at and >= 0)
                change = at switch
                {
                    0 => change with { Field = question.Id() },
                    1 => change with { Old = question.Json() },
                    _ => change with { New = question.Json() },
                };
        return change;
    }
}
