using System.Text.Json;
using Fid.Core.Clock;
using Fid.Core.Json;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`clock.badges`: conflicts between badge assignments.</summary>
internal static class BadgesComputation
{
    private static readonly Shape Question = new("assignments", "restDays");
    private static readonly Shape Assignment = new("id", "badge", "group", "person", "from", "to?");

    private static readonly Choices Kinds = new("overlap", "tooSoon", "twoBadges");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        List<BadgeAssignment> assignments = [];
        var restDays = 0;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    assignments = question.Items(Read);
                else
                    restDays = question.Whole(0, 100_000);
            }
        if (!question.IsSound || Badges.Check(assignments, restDays).Take(ref question) is not { } conflicts)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("conflicts");
        foreach (var conflict in conflicts)
        {
            writer.WriteStartObject();
            writer.WriteString("code", Kinds.Word((int)conflict.Kind));
            if (conflict.Badge is not null)
                writer.WriteString("badge", conflict.Badge);
            writer.WriteStartArray("ids");
            foreach (var id in conflict.Ids)
                writer.WriteStringValue(id);
            writer.WriteEndArray();
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static BadgeAssignment Read(ref QuestionReader question)
    {
        string id = "",
            badge = "",
            group = "",
            person = "";
        LocalDate from = default;
        LocalDate? to = null;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Assignment, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        id = question.Id();
                        break;
                    case 1:
                        badge = question.Id();
                        break;
                    case 2:
                        group = question.Id();
                        break;
                    case 3:
                        person = question.Id();
                        break;
                    case 4:
                        from = question.Date();
                        break;
                    default:
                        to = question.Date();
                        break;
                }
            }
        return new BadgeAssignment(id, badge, group, person, from, to);
    }
}
