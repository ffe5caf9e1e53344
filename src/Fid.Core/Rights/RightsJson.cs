using System.Text.Json;
using Fid.Core.Json;

namespace Fid.Core.Rights;

/// <summary>Rights as JSON: one way to write them, in questions to the rules and in the firm's configuration of roles.</summary>
internal static class RightsJson
{
    private static readonly Shape RightShape = new("do", "on", "reach");
    private static readonly Shape ReachShape = new("site?", "department?", "when?", "group?");
    private static readonly Choices Words = new("all", "self", "direct", "reports", "tasks");
    private static readonly RightReach[] Named =
    [
        new RightReach.All(),
        new RightReach.Self(),
        new RightReach.Direct(),
        new RightReach.Reports(),
        new RightReach.Tasks(),
    ];

    public static Right ReadRight(ref QuestionReader question)
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

    public static RightReach ReadReach(ref QuestionReader question)
    {
        if (question.IsText)
            return Named[question.Choice(Words)];
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
                2 => question.Formula(question.Text()) is { } formula ? new RightReach.When(formula) : reach,
                _ => new RightReach.Group(question.Id()),
            };
        }
        if (count != 1 && question.IsSound)
            question.Report("bad-value", "Say one of site, department, group and when.");
        return reach;
    }

    public static void Write(Utf8JsonWriter writer, Right right)
    {
        writer.WriteStartObject();
        writer.WriteString("do", right.Action);
        writer.WriteString("on", right.On);
        writer.WritePropertyName("reach");
        Write(writer, right.Reach);
        writer.WriteEndObject();
    }

    public static void Write(Utf8JsonWriter writer, RightReach reach)
    {
        if (Array.IndexOf(Named, reach) is var at and >= 0)
        {
            writer.WriteStringValue(Words.Word(at));
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
            case RightReach.Group(var id):
                writer.WriteString("group", id);
                break;
            case RightReach.When(var formula):
                writer.WriteString("when", formula.Text);
                break;
        }
        writer.WriteEndObject();
    }
}
